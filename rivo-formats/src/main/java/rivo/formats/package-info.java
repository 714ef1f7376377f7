/**
 * The files that Rivo reads and writes.
 *
 * <p>The door is {@link rivo.formats.EffectiveCsv}. Depends on the core and commons-csv. Stateless, safe for any thread.
 */
@NullMarked
package rivo.formats;

import org.jspecify.annotations.NullMarked;
