/**
 * What administrators edit: documents, each with a revision, kept as JSON. One form and one mapping for each kind, the same in H2, in
 * drafts, in the API and in the journal.
 *
 * <p>The door is {@link rivo.server.document.DocumentKind}. Each feature declares its own kinds.
 */
@NullMarked
package rivo.server.document;

import org.jspecify.annotations.NullMarked;
