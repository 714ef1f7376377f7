/**
 * Files: uploads while they arrive, content by its SHA-256 once it is whole, and icons. What a file is for is not known here.
 *
 * <p>The doors are {@link rivo.server.catalogue.content.Contents}, {@link rivo.server.catalogue.content.Uploads} and
 * {@link rivo.server.catalogue.content.Icons}. Contents may be read by any number of threads while others are added.
 */
@NullMarked
package rivo.server.catalogue.content;

import org.jspecify.annotations.NullMarked;
