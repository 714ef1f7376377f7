package rivo.core.audience;

import org.jspecify.annotations.Nullable;
import rivo.core.estate.Devices;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.core.estate.OuTree;

/**
 * What an OU target holds, following the device: the devices in the OU and below, less those that a fence keeps
 * (section 3, rules 1 and 4 of the resolution rules).
 *
 * <p><b>Outer target:</b> a pair is stopped by the fenced OU F when the device is in F or below and the target is not F
 * or below it, unless the assignment is binding. For an OU target those are exactly the fenced OUs strictly below it.
 */
public final class Reach {

    private final OuTree ous;
    private final Devices devices;

    private Reach(OuTree ous, Devices devices) {
        this.ous = ous;
        this.devices = devices;
    }

    public static Reach in(Estate estate) {
        return new Reach(estate.ous(), estate.devices());
    }

    /** The devices that an assignment reaches through this OU. Costs one step for each OU below. */
    public DeviceSet ofOu(int target, boolean binding) {
        DeviceSet held = DeviceSet.range(devices.from(target), devices.to(target));
        if (binding) {
            return held;
        }
        for (int p = target + 1; p < ous.end(target); p++) {
            if (ous.at(p).fenced()) {
                held = held.without(DeviceSet.range(devices.from(p), devices.to(p)));
            }
        }
        return held;
    }

    /**
     * The fence that stops a pair at the place {@code ou}: the outermost fenced OU at or above it that is strictly
     * below the target. Null when nothing stops it.
     */
    public @Nullable Ou fenceBetween(int target, int ou, boolean binding) {
        if (binding) {
            return null;
        }
        Ou outermost = null;
        for (int p = ou; p != target && p >= 0; p = ous.parent(p)) {
            if (ous.at(p).fenced()) {
                outermost = ous.at(p);
            }
        }
        return outermost;
    }
}
