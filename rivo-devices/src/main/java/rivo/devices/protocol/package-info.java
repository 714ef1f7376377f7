/**
 * The messages of the device protocol, version 1, and how a device signs them. {@code docs/device-protocol.md} is the
 * text for whoever writes a device.
 *
 * <p>Values only; safe for any thread. Depends on Jackson's annotations.
 */
@NullMarked
package rivo.devices.protocol;

import org.jspecify.annotations.NullMarked;
