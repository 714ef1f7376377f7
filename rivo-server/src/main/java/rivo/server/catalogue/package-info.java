/**
 * The catalogue's pages: what is shown of a title in one answer, and how ready it is to be assigned.
 *
 * <p>What the catalogue consists of lies below, each package importing earlier ones of this list only: {@code content} (files and icons),
 * {@code title}, {@code choice} (set for a person), {@code licence}, {@code kit}, {@code proposal} (from files to titles).
 */
@NullMarked
package rivo.server.catalogue;

import org.jspecify.annotations.NullMarked;
