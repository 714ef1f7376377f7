/**
 * How files on the server's disk are kept, closed to others and forced to disk ({@link rivo.server.storage.PrivateFiles}); how the database is
 * opened ({@link rivo.server.storage.Database}) and read whole ({@link rivo.server.storage.WholeReading}).
 */
@NullMarked
package rivo.server.storage;

import org.jspecify.annotations.NullMarked;
