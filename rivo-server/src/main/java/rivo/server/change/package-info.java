/**
 * Editing is drafting: the draft, its rehearsal, and publishing.
 * 
 * <p>The door is {@link rivo.server.change.Drafts}.
 */
@NullMarked
package rivo.server.change;

import org.jspecify.annotations.NullMarked;
