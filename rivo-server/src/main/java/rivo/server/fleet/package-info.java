/**
 * The devices: enrolment, the device protocol, their reports, and the pages that show them.
 * 
 * <p>The doors are {@link rivo.server.fleet.Fleet} (what is known of each device's doing, in memory) and
 * {@link rivo.server.fleet.Enrolments}.
 */
@NullMarked
package rivo.server.fleet;

import org.jspecify.annotations.NullMarked;
