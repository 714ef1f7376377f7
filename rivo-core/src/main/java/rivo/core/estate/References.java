package rivo.core.estate;

import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Collections;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/** What assignments and collections name, and what becomes of it when it leaves the directory (section 11 of the resolution rules). */
final class References {

    private final Estate before;

    References(Estate before) {
        this.before = before;
    }

    /** What of all that is named there has gone once the change has been made. Costs a step for each reference. */
    Map<Target, GoneReference> goneAfter(DirectoryChange change) {
        Map<Target, GoneReference> gone = new LinkedHashMap<>();
        Set<Target> put = change.put();
        Set<Target> goes = change.gone();
        for (Target named : named(before.assignments(), before.collections().values())) {
            GoneReference known = before.gone().get(named);
            if (known != null && !put.contains(named)) {
                gone.put(named, known);
            } else if (known == null && goes.contains(named)) {
                gone.put(named, lastHeld(named, change.at()));
            }
        }
        return gone.equals(before.gone()) ? before.gone() : Collections.unmodifiableMap(gone);
    }

    /** Those that are still named. */
    static Map<Target, GoneReference> stillNamed(Map<Target, GoneReference> gone, Assignments assignments,
            Collection<DeviceCollection> collections) {
        if (gone.isEmpty()) {
            return gone;
        }
        Map<Target, GoneReference> rest = new LinkedHashMap<>(gone);
        return rest.keySet().retainAll(named(assignments, collections)) ? Collections.unmodifiableMap(rest) : gone;
    }

    private static Set<Target> named(Assignments assignments, Collection<DeviceCollection> collections) {
        Set<Target> named = new LinkedHashSet<>();
        assignments.all().forEach(assignment -> named.addAll(of(assignment)));
        for (DeviceCollection collection : collections) {
            base(named, collection.base());
            collection.include().forEach(device -> named.add(Target.device(device)));
            collection.exclude().forEach(device -> named.add(Target.device(device)));
        }
        return named;
    }

    /** Everything that an assignment names. */
    static Set<Target> of(Assignment assignment) {
        Set<Target> named = new LinkedHashSet<>(assignment.include());
        named.addAll(assignment.exclude());
        assignment.waves().forEach(wave -> named.addAll(wave.to()));
        base(named, assignment.base());
        return named;
    }

    private static void base(Set<Target> named, @Nullable String ou) {
        if (ou != null) {
            named.add(Target.ou(ou));
        }
    }

    private GoneReference lastHeld(Target named, Instant at) {
        return switch (named.kind()) {
            case OU -> {
                int ou = before.ous().position(named.id());
                yield held(named, at, before.ous().at(ou).name(),
                        before.devices().all().subList(before.devices().from(ou), before.devices().to(ou)).stream().map(Device::id).toList(),
                        before.users().all().subList(before.users().from(ou), before.users().to(ou)).stream().map(User::id).toList());
            }
            case GROUP -> group(named, at);
            case USER -> held(named, at, Objects.requireNonNull(before.users().find(named.id())).fullName(), List.of(), List.of(named.id()));
            case DEVICE -> held(named, at, Objects.requireNonNull(before.devices().find(named.id())).name(), List.of(named.id()), List.of());
            case ALL_DEVICES, ALL_USERS, COLLECTION -> throw new IllegalArgumentException(named.toString());
        };
    }

    private static GoneReference held(Target named, Instant at, String name, List<String> devices, List<String> users) {
        return new GoneReference(named, name, at, devices, users);
    }

    private GoneReference group(Target named, Instant at) {
        Map<Target.Kind, Set<String>> held = new HashMap<>();
        Set<String> seen = new HashSet<>(Set.of(named.id()));
        Deque<String> open = new ArrayDeque<>(seen);
        while (!open.isEmpty()) {
            for (Target member : Objects.requireNonNull(before.groups().get(open.pop())).members()) {
                held.computeIfAbsent(member.kind(), kind -> new TreeSet<>(CodePointOrder.INSTANCE)).add(member.id());
                if (member.kind() == Target.Kind.GROUP && seen.add(member.id())) {
                    open.push(member.id());
                }
            }
        }
        return held(named, at, Objects.requireNonNull(before.groups().get(named.id())).name(),
                List.copyOf(held.getOrDefault(Target.Kind.DEVICE, Set.of())), List.copyOf(held.getOrDefault(Target.Kind.USER, Set.of())));
    }
}
