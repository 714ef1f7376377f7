package rivo.core.resolve;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.Positions;
import rivo.core.audience.PositionsBuilder;
import rivo.core.estate.Device;
import rivo.core.estate.Present;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.Version;

/** On which units each title is present, in which version, put on by which assignment. Immutable; safe for any thread. */
final class Presences {

    /** One way of being present. */
    record Way(@Nullable Version version, @Nullable String by) {
    }

    private final Map<String, List<Share<Way>>> byTitle;

    private Presences(Map<String, List<Share<Way>>> byTitle) {
        this.byTitle = byTitle;
    }

    /** Costs one pass over what is present on the devices. */
    static Presences of(Audiences audiences) {
        Map<String, Map<Way, Units>> found = new HashMap<>();
        // Devices that list the same often share the very entry.
        Map<Present, Units> known = new IdentityHashMap<>();
        for (int d = 0; d < audiences.estate().devices().size(); d++) {
            Device device = audiences.estate().devices().at(d);
            for (Present present : device.present()) {
                Units units = known.get(present);
                if (units != null) {
                    units.add(d);
                    continue;
                }
                int unit = unit(audiences, d, present);
                if (unit >= 0) {
                    units = found.computeIfAbsent(present.title(), t -> new LinkedHashMap<>())
                            .computeIfAbsent(new Way(present.version(), present.by()), w -> new Units());
                    units.add(unit);
                    if (present.user() == null) {
                        known.put(present, units);
                    }
                }
            }
        }
        Map<String, List<Share<Way>>> byTitle = new HashMap<>();
        found.forEach((title, ways) -> {
            List<Share<Way>> shares = new ArrayList<>(ways.size());
            ways.forEach((way, units) -> shares.add(new Share<>(way, units.build())));
            byTitle.put(title, List.copyOf(shares));
        });
        return new Presences(byTitle);
    }

    /** -1 when the title is a former person's, or unknown: then it is on no unit. */
    private static int unit(Audiences audiences, int device, Present present) {
        Title title = audiences.estate().title(present.title());
        if (title == null) {
            return -1;
        }
        if (title.scope() == Scope.DEVICE) {
            return device;
        }
        return present.user() == null ? -1
                : audiences.units().find(device, audiences.estate().users().positionOf(present.user()));
    }

    /** Positions that come in ascending order. */
    private static final class Units {
        private int[] units = new int[4];
        private int size;

        void add(int unit) {
            if (size == units.length) {
                units = java.util.Arrays.copyOf(units, size * 2);
            }
            units[size++] = unit;
        }

        Positions build() {
            int lowest = Integer.MAX_VALUE;
            int highest = 0;
            for (int i = 0; i < size; i++) {
                lowest = Math.min(lowest, units[i]);
                highest = Math.max(highest, units[i]);
            }
            PositionsBuilder builder = new PositionsBuilder(lowest, highest + 1);
            for (int i = 0; i < size; i++) {
                builder.add(units[i]);
            }
            return builder.build();
        }
    }

    /** The ways in which a title is present; none when it is not, anywhere. */
    List<Share<Way>> of(String title) {
        return byTitle.getOrDefault(title, List.of());
    }

    /** All units on which a title is present. */
    Positions anyhow(String title) {
        return Positions.union(of(title).stream().map(Share::units).toList());
    }
}
