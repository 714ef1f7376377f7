/**
 * The command line.
 */
@NullMarked
package rivo.server.command;

import org.jspecify.annotations.NullMarked;
