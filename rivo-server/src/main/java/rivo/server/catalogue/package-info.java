/**
 * Titles, their releases and variants, and the content they need.
 *
 * <p>The doors are {@link rivo.server.catalogue.Catalogue} and {@link rivo.server.catalogue.Contents}.
 */
@NullMarked
package rivo.server.catalogue;

import org.jspecify.annotations.NullMarked;
