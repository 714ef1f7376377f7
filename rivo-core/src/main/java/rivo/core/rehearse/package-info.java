/**
 * What a change would do to the whole fleet, before it happens.
 *
 * <p>The door is {@link rivo.core.rehearse.Rehearsal}. Depends on {@code resolve} and what is before it. Pure functions,
 * safe for any thread.
 */
@NullMarked
package rivo.core.rehearse;

import org.jspecify.annotations.NullMarked;
