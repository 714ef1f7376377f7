/**
 * The current snapshot, and the writer through which every change goes.
 * 
 * <p>The doors are {@link rivo.server.estate.CurrentSnapshot}, read by any number of threads without locks, and
 * {@link rivo.server.estate.ChangeWriter}, taken by every change: a command, checked, written to H2 in one transaction together
 * with its journal rows, put into the next snapshot by a single writer, then told to whoever listens.
 */
@NullMarked
package rivo.server.estate;

import org.jspecify.annotations.NullMarked;
