/**
 * Maintenance windows: when devices may carry jobs out, by their own clocks.
 *
 * <p>The door is {@link rivo.server.window.MaintenanceWindows}.
 */
@NullMarked
package rivo.server.window;

import org.jspecify.annotations.NullMarked;
