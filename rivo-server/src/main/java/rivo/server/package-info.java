/**
 * The server and the command line. Each package below is a feature, with its records, its use cases and its HTTP face
 * side by side; {@code estate}, {@code web} and {@code live} are what they share.
 */
@NullMarked
package rivo.server;

import org.jspecify.annotations.NullMarked;
