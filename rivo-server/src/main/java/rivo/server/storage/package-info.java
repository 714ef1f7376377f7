/**
 * How files on the server's disk are kept: closed to others, and forced to disk. The door is
 * {@link rivo.server.storage.PrivateFiles}; it depends on the JDK alone and is safe for any number of threads.
 */
@NullMarked
package rivo.server.storage;

import org.jspecify.annotations.NullMarked;
