/**
 * From files to titles: what was uploaded is read, a release is proposed of it, and titles are written to files and read from them.
 *
 * <p>The doors are {@link rivo.server.catalogue.proposal.Proposals} and {@link rivo.server.catalogue.proposal.TitleFiles}.
 */
@NullMarked
package rivo.server.catalogue.proposal;

import org.jspecify.annotations.NullMarked;
