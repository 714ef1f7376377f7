package rivo.core.audience;

import rivo.core.estate.Device;

/** What a title is installed for: a device, or a person on a device. @param user the person's id; empty for a device */
public record Unit(Device device, String user) {
}
