/**
 * Titles with their releases, variants, steps and choices: their form, their checks, their rows, and editing them.
 *
 * <p>The doors are {@link rivo.server.catalogue.title.Titles}, the part of the snapshot that is read, and
 * {@link rivo.server.catalogue.title.Catalogue}, by which titles are put in. {@link rivo.server.catalogue.title.StepsOnDevice} says what the
 * steps of a variant become on one device.
 */
@NullMarked
package rivo.server.catalogue.title;

import org.jspecify.annotations.NullMarked;
