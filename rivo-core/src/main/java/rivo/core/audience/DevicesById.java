package rivo.core.audience;

import java.util.Arrays;
import java.util.Comparator;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.CodePointOrder;
import rivo.core.estate.Devices;

/**
 * The positions of the devices in the order of their ids: sorted when first asked for, and carried along from estate to
 * estate until there is a new device. Safe for any thread.
 */
final class DevicesById {

    private @Nullable Devices devices;
    private volatile int @Nullable [] positions;

    private DevicesById(@Nullable Devices devices, int @Nullable [] positions) {
        this.devices = devices;
        this.positions = positions;
    }

    static DevicesById of(Devices devices) {
        return new DevicesById(devices, null);
    }

    /** That of newer devices. */
    DevicesById after(Devices newer, Moves moves) {
        int[] known = positions;
        if (known == null || moves.haveNew()) {
            return of(newer);
        }
        return moves.areNone() ? this : new DevicesById(null, Arrays.stream(known).map(moves::to).filter(p -> p >= 0).toArray());
    }

    /** Costs a sort of all ids, once. The caller must not change it. */
    synchronized int[] positions() {
        int[] known = positions;
        if (known == null) {
            known = sorted(Objects.requireNonNull(devices));
            positions = known;
            devices = null;
        }
        return known;
    }

    private static int[] sorted(Devices devices) {
        Integer[] byId = new Integer[devices.size()];
        Arrays.setAll(byId, p -> p);
        Arrays.parallelSort(byId, Comparator.comparing(p -> devices.at(p).id(), CodePointOrder.INSTANCE));
        return Arrays.stream(byId).mapToInt(p -> p).toArray();
    }
}
