/**
 * The demo: an embedded directory, made-up titles and assignments, and the simulated fleet.
 * 
 * <p>Goes the same road as an administrator: nothing here reaches past the use cases.
 */
@NullMarked
package rivo.server.demo;

import org.jspecify.annotations.NullMarked;
