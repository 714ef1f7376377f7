/**
 * The estate file: one JSON document with everything that resolution looks at.
 *
 * <p>The doors are {@link rivo.formats.estate.EstateReader} and {@link rivo.formats.estate.EstateWriter}. Depends on the
 * core and Jackson's streaming parser. A reader or writer is of one thread.
 */
@NullMarked
package rivo.formats.estate;

import org.jspecify.annotations.NullMarked;
