/**
 * The demo: an embedded directory, made-up titles and assignments, and the simulated fleet.
 * 
 * <p>Everything is made by way of the use cases that administrators use, too.
 */
@NullMarked
package rivo.server.demo;

import org.jspecify.annotations.NullMarked;
