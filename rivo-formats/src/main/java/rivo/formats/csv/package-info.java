/**
 * Answers as CSV.
 *
 * <p>The doors are {@link rivo.formats.csv.EffectiveCsv} and {@link rivo.formats.csv.DifferenceCsv}. Depends on the
 * core. Stateless, safe for any thread.
 */
@NullMarked
package rivo.formats.csv;

import org.jspecify.annotations.NullMarked;
