/**
 * Whose signatures are trusted, and what was found of the signature of each content.
 *
 * <p>The doors are {@link rivo.server.catalogue.trust.ContentSignatures} and {@link rivo.server.catalogue.trust.Roots}; both are parts of the snapshot.
 */
@NullMarked
package rivo.server.catalogue.trust;

import org.jspecify.annotations.NullMarked;
