/**
 * Following an LDAP directory: what it holds, by stable id, and who may sign in.
 *
 * <p>The door is {@link rivo.directory.Directory}; {@link rivo.directory.DirectoryPicture} is what a scan brings.
 * Depends on the UnboundID LDAP SDK and on the core's {@code Problem} words only. A {@code Directory} may be used by
 * any number of threads; each call opens a connection of its own.
 */
@NullMarked
package rivo.directory;

import org.jspecify.annotations.NullMarked;
