/**
 * Following the directory into H2 and the snapshot.
 * 
 * <p>The door is {@link rivo.server.directory.DirectoryFollower}.
 */
@NullMarked
package rivo.server.directory;

import org.jspecify.annotations.NullMarked;
