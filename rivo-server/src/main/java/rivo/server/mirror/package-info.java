/**
 * Content near the devices: caching web servers at the sites, which of them a device asks, what each of them holds, and
 * what they saved.
 *
 * <p>The doors are {@link rivo.server.mirror.Mirrors} (which there are), {@link rivo.server.mirror.Copies} (what is
 * where) and {@link rivo.server.mirror.Traffic} (what was fetched from where). Depends on the catalogue; the catalogue
 * knows of it only that content has places.
 */
@NullMarked
package rivo.server.mirror;

import org.jspecify.annotations.NullMarked;
