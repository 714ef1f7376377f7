/**
 * The simulated fleet: devices that live in this process and speak nothing but the device protocol.
 *
 * <p>The door is {@link rivo.devices.fleet.SimulatedFleet}. It runs in threads of its own, keeps each device's state in
 * a folder, and decides everything by chance from one seed, so that a device meets the same luck on every run. Depends
 * on {@code rivo.devices.protocol} and the JDK's HTTP client.
 */
@NullMarked
package rivo.devices.fleet;

import org.jspecify.annotations.NullMarked;
