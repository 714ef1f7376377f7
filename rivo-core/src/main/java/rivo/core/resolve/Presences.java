package rivo.core.resolve;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.Moves;
import rivo.core.audience.Positions;
import rivo.core.audience.PositionsBuilder;
import rivo.core.audience.Step;
import rivo.core.estate.Device;
import rivo.core.estate.Devices;
import rivo.core.estate.Present;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.Version;

/** On which units each title is present, in which version, put on by which assignment. Immutable; safe for any thread. */
final class Presences {

    /** One way of being present. */
    record Way(@Nullable Version version, @Nullable String by) {
    }

    /** Above one changed device in so many, looking at all anew is quicker than mending sets. */
    private static final int MANY = 20;

    private final Map<String, List<UnitsWith<Way>>> byTitle;

    private Presences(Map<String, List<UnitsWith<Way>>> byTitle) {
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
        Map<String, List<UnitsWith<Way>>> byTitle = new HashMap<>();
        found.forEach((title, ways) -> {
            List<UnitsWith<Way>> shares = new ArrayList<>(ways.size());
            ways.forEach((way, units) -> shares.add(new UnitsWith<>(way, units.build())));
            byTitle.put(title, List.copyOf(shares));
        });
        return new Presences(byTitle);
    }

    /**
     * Those of a newer estate, whose titles have the same scopes. Costs a step for each share where places have shifted,
     * and a few sets for each device that changed.
     *
     * @param step to the audiences of that estate
     */
    Presences after(Step step) {
        Positions changed = step.devices().changed();
        Devices now = step.now().estate().devices();
        if (changed.size() > now.size() / MANY) {
            return of(step.now());
        }
        Changes changes = new Changes();
        changed.forEach(d -> {
            Device was = step.before().estate().devices().find(now.at(d).id());
            if (was == null || !now.at(d).present().equals(was.present()) || !now.at(d).people().equals(was.people())) {
                changes.note(step.now(), d, was == null ? List.of() : was.present(), changes.gone);
                changes.note(step.now(), d, now.at(d).present(), changes.come);
            }
        });
        return changes.applyTo(moved(step));
    }

    private Presences moved(Step step) {
        if (step.devices().areNone() && step.units(Scope.USER).areNone()) {
            return this;
        }
        Map<String, List<UnitsWith<Way>>> moved = new HashMap<>();
        byTitle.forEach((title, ways) -> {
            Scope scope = Objects.requireNonNull(step.now().estate().title(title)).scope();
            Moves of = step.units(scope);
            moved.put(title, ways.stream().map(share -> new UnitsWith<>(share.what(), of.of(share.units())))
                    .filter(share -> !share.units().isEmpty()).toList());
        });
        return new Presences(moved);
    }

    /** What has come and gone since, by title and way. */
    private static final class Changes {

        private final Map<String, Map<Way, List<Integer>>> come = new HashMap<>();
        private final Map<String, Map<Way, List<Integer>>> gone = new HashMap<>();

        void note(Audiences audiences, int device, List<Present> entries, Map<String, Map<Way, List<Integer>>> into) {
            for (Present present : entries) {
                int unit = unit(audiences, device, present);
                if (unit >= 0) {
                    into.computeIfAbsent(present.title(), t -> new LinkedHashMap<>())
                            .computeIfAbsent(new Way(present.version(), present.by()), w -> new ArrayList<>()).add(unit);
                }
            }
        }

        Presences applyTo(Presences before) {
            if (come.isEmpty() && gone.isEmpty()) {
                return before;
            }
            Map<String, List<UnitsWith<Way>>> byTitle = new HashMap<>(before.byTitle);
            Set<String> touched = new HashSet<>(come.keySet());
            touched.addAll(gone.keySet());
            touched.forEach(title -> byTitle.put(title, apply(before.of(title), come.getOrDefault(title, Map.of()),
                    gone.getOrDefault(title, Map.of()))));
            return new Presences(byTitle);
        }

        private static List<UnitsWith<Way>> apply(List<UnitsWith<Way>> before, Map<Way, List<Integer>> come,
                Map<Way, List<Integer>> gone) {
            Map<Way, Positions> ways = new LinkedHashMap<>();
            before.forEach(share -> ways.put(share.what(), share.units()));
            gone.forEach((way, units) -> ways.computeIfPresent(way, (w, set) -> set.without(positions(units))));
            come.forEach((way, units) -> ways.merge(way, positions(units), Positions::or));
            ways.values().removeIf(Positions::isEmpty);
            List<UnitsWith<Way>> shares = new ArrayList<>(ways.size());
            ways.forEach((way, units) -> shares.add(new UnitsWith<>(way, units)));
            return shares.equals(before) ? before : List.copyOf(shares);
        }

        private static Positions positions(List<Integer> units) {
            return Positions.of(units.stream().mapToInt(u -> u).toArray());
        }
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
    List<UnitsWith<Way>> of(String title) {
        return byTitle.getOrDefault(title, List.of());
    }

    /** All units on which a title is present. */
    Positions anyhow(String title) {
        return Positions.union(of(title).stream().map(UnitsWith::units).toList());
    }
}
