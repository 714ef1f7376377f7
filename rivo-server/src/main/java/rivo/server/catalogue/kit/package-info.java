/**
 * Kits: titles that are assigned together.
 *
 * <p>The doors are {@link rivo.server.catalogue.kit.KitDocument} and {@link rivo.server.catalogue.kit.Kits}.
 */
@NullMarked
package rivo.server.catalogue.kit;

import org.jspecify.annotations.NullMarked;
