package rivo.core.naive;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Follows;
import rivo.core.estate.Intent;
import rivo.core.estate.Kit;
import rivo.core.estate.Leaving;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Variant;

/**
 * The resolution rules, written down unit by unit as they read, slowly and with nothing shared with the engine but the
 * estate's values and single rules. The engine is held against it.
 */
public final class NaiveModel {

    /** A unit of section 2. */
    record Unit(Device device, @Nullable User user) {
        String userId() {
            return user == null ? "" : user.id();
        }
    }

    /** What a title comes to at a unit before section 7. */
    static final class Base {
        final Title title;
        String outcome;
        String reason = "";
        List<Assignment> deciding;
        int[] place;
        @Nullable Release release;
        @Nullable Variant variant;

        Base(Title title, String outcome, List<Assignment> deciding, int[] place) {
            this.title = title;
            this.outcome = outcome;
            this.deciding = deciding;
            this.place = place;
        }

        long seq() {
            return deciding.stream().mapToLong(Assignment::seq).min().orElseThrow();
        }
    }

    private final EstateParts parts;
    private final NaiveAudience audience;
    private final Map<Unit, Map<String, Base>> bases = new HashMap<>();
    /** Key: device, user, title. Value: the rest of the row. */
    private final Map<String, String> rows = new TreeMap<>();

    private NaiveModel(EstateParts parts) {
        this.parts = parts;
        this.audience = new NaiveAudience(parts);
    }

    /** Every row of section 9: "device|user|title" to "outcome,release,variant,assignment,reason,by". */
    public static Map<String, String> rows(EstateParts parts) {
        NaiveModel model = new NaiveModel(parts);
        model.resolve();
        return model.rows;
    }

    private void resolve() {
        for (Title title : parts.titles()) {
            for (Unit unit : units(title.scope())) {
                Base base = base(title, unit);
                if (base != null) {
                    bases.computeIfAbsent(unit, u -> new HashMap<>()).put(title.id(), base);
                }
            }
            seats(title);
        }
        for (Unit unit : units(Scope.DEVICE)) {
            new NaiveRelations(this, unit, Scope.DEVICE).settle();
        }
        for (Unit unit : units(Scope.USER)) {
            new NaiveRelations(this, unit, Scope.USER).settle();
        }
    }

    List<Unit> units(Scope scope) {
        List<Unit> units = new ArrayList<>();
        for (Device device : parts.devices()) {
            if (scope == Scope.DEVICE) {
                units.add(new Unit(device, null));
            } else {
                device.people().forEach(p -> units.add(new Unit(device, audience.user(p))));
            }
        }
        return units;
    }

    EstateParts parts() {
        return parts;
    }

    Map<String, Base> bases(Unit unit) {
        return bases.getOrDefault(unit, Map.of());
    }

    Title title(String id) {
        return parts.titles().stream().filter(t -> t.id().equals(id)).findFirst().orElseThrow();
    }

    @Nullable Present present(Unit unit, String title) {
        return unit.device().present().stream().filter(p -> p.title().equals(title)
                && Objects.equals(p.user(), unit.user() == null ? null : unit.user().id())).findFirst().orElse(null);
    }

    boolean isLive(Assignment a) {
        return a.state() == AssignmentState.ACTIVE && (a.from() == null || !a.from().isAfter(parts.asOf()));
    }

    private boolean speaksFor(Assignment a, Title title) {
        if (!a.subject().kit()) {
            return a.subject().id().equals(title.id());
        }
        Kit kit = parts.kits().stream().filter(k -> k.id().equals(a.subject().id())).findFirst().orElseThrow();
        return kit.titles().contains(title.id());
    }

    /** A pair that passes rules 1 to 4. */
    private record Pair(Assignment a, int[] place, boolean open) {
    }

    private List<Pair> pairs(Title title, Unit unit) {
        List<Pair> pairs = new ArrayList<>();
        for (Assignment a : parts.assignments()) {
            if (!isLive(a) || !speaksFor(a, title)) {
                continue;
            }
            List<User> people = new ArrayList<>();
            if (a.follows() == Follows.DEVICE) {
                people.add(null);
            } else if (unit.user() != null) {
                people.add(unit.user());
            } else {
                unit.device().people().forEach(p -> people.add(audience.user(p)));
            }
            for (Target x : a.include()) {
                for (User p : people) {
                    if (audience.passes(a, x, title.scope(), unit.device(), unit.user(), p)) {
                        pairs.add(new Pair(a, place(a, x),
                                audience.waveIsOpen(a, title.scope(), unit.device(), unit.user(), p)));
                    }
                }
            }
        }
        return pairs;
    }

    /** The four steps of section 4, each so that the higher number is the stronger. */
    private int[] place(Assignment a, Target x) {
        int near = switch (x.kind()) {
            case DEVICE, USER -> 2000;
            case GROUP, COLLECTION -> 1000;
            case OU -> 1 + audience.depth(x.id());
            case ALL_DEVICES, ALL_USERS -> a.base() == null || audience.ou(a.base()).parent() == null ? 0
                    : 1 + audience.depth(a.base());
        };
        return new int[] {a.binding() ? 1 : 0, a.binding() ? -near : near, a.follows() == Follows.DEVICE ? 1 : 0,
            a.priority()};
    }

    static final Comparator<int[]> STRONGEST_FIRST = (one, other) -> {
        for (int i = 0; i < one.length; i++) {
            if (one[i] != other[i]) {
                return Integer.compare(other[i], one[i]);
            }
        }
        return 0;
    };

    private @Nullable Base base(Title title, Unit unit) {
        List<Pair> pairs = pairs(title, unit);
        List<Pair> open = pairs.stream().filter(Pair::open).toList();
        List<Pair> from = open.isEmpty() ? pairs : open;
        if (from.isEmpty()) {
            return null;
        }
        int[] strongest = from.stream().map(Pair::place).min(STRONGEST_FIRST).orElseThrow();
        List<Assignment> g = from.stream().filter(p -> STRONGEST_FIRST.compare(p.place(), strongest) == 0).map(Pair::a)
                .distinct().sorted(Comparator.comparingLong(Assignment::seq)).toList();
        if (open.isEmpty()) {
            return new Base(title, "later", g.subList(0, 1), strongest);
        }
        boolean installs = g.stream().anyMatch(a -> a.intent() != Intent.UNINSTALL);
        boolean removes = g.stream().anyMatch(a -> a.intent() == Intent.UNINSTALL);
        if (installs && removes) {
            return new Base(title, "contested", g.stream().sorted(Comparator.comparing(Assignment::id)).toList(), strongest);
        }
        for (Intent intent : Intent.values()) {
            for (Assignment a : g) {
                if (a.intent() == intent) {
                    Base base = new Base(title, intent.word(), List.of(a), strongest);
                    base.reason = "assigned";
                    request(base, unit);
                    choose(base, unit);
                    return base;
                }
            }
        }
        throw new IllegalStateException();
    }

    private void request(Base base, Unit unit) {
        boolean asked = parts.requests().stream().anyMatch(r -> r.device().equals(unit.device().id())
                && r.title().equals(base.title.id())
                && Objects.equals(r.user(), unit.user() == null ? null : unit.user().id()));
        if (base.outcome.equals("available") && asked) {
            base.outcome = "required";
            base.reason = "requested";
        }
    }

    private void choose(Base base, Unit unit) {
        if (base.outcome.equals("uninstall")) {
            return;
        }
        Assignment winner = base.deciding.get(0);
        if (winner.pin() != null) {
            Release pinned = base.title.releases().stream().filter(r -> r.version().compareTo(winner.pin()) == 0)
                    .findFirst().orElse(null);
            if (pinned == null || pinned.state() == ReleaseState.WITHDRAWN) {
                base.outcome = "blocked";
                base.reason = "no-release";
                return;
            }
            base.variant = variant(pinned, unit.device());
            base.release = base.variant == null ? null : pinned;
        } else {
            base.release = newest(base.title, unit.device());
            base.variant = base.release == null ? null : variant(base.release, unit.device());
        }
        if (base.release == null) {
            base.outcome = "unfit";
            base.reason = "";
        }
    }

    @Nullable Release newest(Title title, Device device) {
        return title.releases().stream().filter(r -> r.state() == ReleaseState.OFFERED && variant(r, device) != null)
                .max(Comparator.comparing(Release::version)).orElse(null);
    }

    @Nullable Variant variant(Release release, Device device) {
        return release.variants().stream().filter(v -> v.fits() == null || audience.holds(v.fits(), device)).findFirst()
                .orElse(null);
    }

    private void seats(Title title) {
        if (title.seats() == null) {
            return;
        }
        List<Unit> wanting = units(title.scope()).stream().filter(u -> bases(u).containsKey(title.id())
                && bases(u).get(title.id()).outcome.equals("required"))
                .sorted(Comparator.comparing((Unit u) -> present(u, title.id()) == null)
                        .thenComparing(u -> u.device().id()).thenComparing(Unit::userId)).toList();
        for (int i = title.seats(); i < wanting.size(); i++) {
            bases(wanting.get(i)).get(title.id()).outcome = "waiting";
        }
    }

    /** The row of a unit and title as it was written; null when there is none. */
    @Nullable String row(Unit unit, String title) {
        return rows.get(unit.device().id() + "|" + unit.userId() + "|" + title);
    }

    void write(Unit unit, Title title, String outcome, @Nullable Release release, @Nullable Variant variant,
            List<Assignment> assignments, String reason, String by) {
        boolean chosen = Set.of("required", "available", "waiting").contains(outcome);
        rows.put(unit.device().id() + "|" + unit.userId() + "|" + title.id(), String.join(",", outcome,
                chosen ? Objects.requireNonNull(release).version().toString() : "",
                chosen ? Objects.requireNonNull(variant).id() : "",
                assignments.stream().map(Assignment::id).collect(Collectors.joining(";")), reason, by));
    }

    /** The assignment that put it on and removes what it leaves, or null. */
    @Nullable Assignment leaving(Present present) {
        Set<String> ids = present.by() == null ? Set.of() : new HashSet<>(Set.of(present.by()));
        return parts.assignments().stream().filter(a -> ids.contains(a.id()) && a.leaving() == Leaving.REMOVE
                && (isLive(a) || a.state() == AssignmentState.RETIRED)).findFirst().orElse(null);
    }
}
