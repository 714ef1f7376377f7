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

    /** @param key is never greater than that of a later id, and the same for none but ids that begin alike */
    private record Entry(long key, String id, int position) {

        private static final Comparator<Entry> BY_ID = (one, other) -> {
            int byKey = Long.compareUnsigned(one.key, other.key);
            return byKey == 0 ? CodePointOrder.INSTANCE.compare(one.id, other.id) : byKey;
        };
        private static final int LETTER_BITS = 8;
        private static final int LARGEST = (1 << LETTER_BITS) - 1;

        /** Most comparisons end with the first eight letters, for which nobody has to look at the ids. */
        static Entry of(String id, int position) {
            long key = 0;
            boolean isTold = true;
            for (int i = 0; i < Long.BYTES; i++) {
                int letter = isTold && i < id.length() ? Math.min(LARGEST, id.charAt(i)) : 0;
                // What letters from here on are is not told apart: nor may be what follows them.
                isTold &= letter < LARGEST;
                key = key << LETTER_BITS | letter;
            }
            return new Entry(key, id, position);
        }
    }

    private static int[] sorted(Devices devices) {
        Entry[] byId = new Entry[devices.size()];
        Arrays.setAll(byId, p -> Entry.of(devices.at(p).id(), p));
        Arrays.parallelSort(byId, Entry.BY_ID);
        return Arrays.stream(byId).mapToInt(Entry::position).toArray();
    }
}
