/**
 * The files that Rivo reads and writes, one package for each kind: {@code estate} and {@code csv}.
 */
@NullMarked
package rivo.formats;

import org.jspecify.annotations.NullMarked;
