package rivo.core.estate;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A snapshot of everything that resolution looks at (section 1 of the resolution rules).
 *
 * <p>Immutable: every {@code with} gives a new estate that shares all it can with this one, so that any number of
 * readers may go on with the one they have. The answer of the core depends on the estate alone.
 */
public final class Estate {

    private final OuTree ous;
    private final Users users;
    private final Devices devices;
    private final Map<String, Title> titles;
    private final Assignments assignments;

    private Estate(OuTree ous, Users users, Devices devices, Map<String, Title> titles, Assignments assignments) {
        this.ous = ous;
        this.users = users;
        this.devices = devices;
        this.titles = titles;
        this.assignments = assignments;
    }

    /**
     * Builds an estate from its parts, whose order never matters. Costs a sort of the devices.
     *
     * @throws RefusedException with every problem: an id used twice, an OU or title that is not declared, an OU tree
     *     without one root
     */
    public static Estate of(Collection<Ou> ous, Collection<User> users, Collection<Device> devices,
            Collection<Title> titles, Collection<Assignment> assignments) {
        OuTree tree = OuTree.of(ous);
        Checks checks = new Checks(tree);
        Map<String, Title> titlesById = checks.once("title", titles, Title::id);
        checks.once("user", users, User::id).values().forEach(u -> checks.ou("user:" + u.id(), u.ou()));
        checks.once("device", devices, Device::id).values().forEach(d -> checks.ou("device:" + d.id(), d.ou()));
        checks.once("assignment", assignments, Assignment::id).values().forEach(a -> checks.assignment(a, titlesById));
        checks.refuseIfAny();
        return new Estate(tree, Users.of(tree, users), Devices.of(tree, devices), titlesById,
                Assignments.of(assignments));
    }

    public OuTree ous() {
        return ous;
    }

    public Users users() {
        return users;
    }

    public Devices devices() {
        return devices;
    }

    /** All titles, in the order they were given in. */
    public Collection<Title> titles() {
        return titles.values();
    }

    public @Nullable Title title(String id) {
        return titles.get(id);
    }

    public Assignments assignments() {
        return assignments;
    }

    /**
     * This estate with one device replaced by its newer self, in the same OU.
     *
     * @throws IllegalArgumentException when the device is unknown or has moved
     */
    public Estate withDevice(Device newer) {
        return new Estate(ous, users, devices.with(newer), titles, assignments);
    }

    /**
     * This estate with some assignments put in or replaced.
     *
     * @throws RefusedException when one names an OU or a title that does not exist
     */
    public Estate withAssignments(Collection<Assignment> changed) {
        Checks checks = new Checks(ous);
        changed.forEach(a -> checks.assignment(a, titles));
        checks.refuseIfAny();
        Map<String, Assignment> all = new LinkedHashMap<>();
        assignments.all().forEach(a -> all.put(a.id(), a));
        changed.forEach(a -> all.put(a.id(), a));
        return new Estate(ous, users, devices, titles, Assignments.of(all.values()));
    }

    /** This estate with one title put in or replaced. */
    public Estate withTitle(Title title) {
        Map<String, Title> all = new LinkedHashMap<>(titles);
        all.put(title.id(), title);
        return new Estate(ous, users, devices, all, assignments);
    }

    /** Collects what is wrong while an estate is put together. */
    private static final class Checks {

        private final OuTree ous;
        private final List<Problem> problems = new ArrayList<>();

        Checks(OuTree ous) {
            this.ous = ous;
        }

        <T> Map<String, T> once(String kind, Collection<T> all, Function<T, String> id) {
            Map<String, T> byId = new LinkedHashMap<>(all.size() * 2);
            for (T one : all) {
                if (byId.putIfAbsent(id.apply(one), one) != null) {
                    add(kind + "-twice", kind + ":" + id.apply(one), "is listed twice; list it once.");
                }
            }
            return byId;
        }

        void ou(String place, @Nullable String ou) {
            if (ou != null && ous.find(ou) == null) {
                add("unknown-ou", place, "names the OU " + ou + ", which does not exist; name one that does.");
            }
        }

        void assignment(Assignment assignment, Map<String, Title> titles) {
            String place = "assignment:" + assignment.id();
            if (!titles.containsKey(assignment.title())) {
                add("unknown-title", place,
                        "names the title " + assignment.title() + ", which does not exist; name one that does.");
            }
            assignment.ous().forEach(ou -> ou(place, Objects.requireNonNull(ou)));
        }

        void add(String code, String place, String what) {
            problems.add(new Problem(code, place, place.substring(0, 1).toUpperCase(java.util.Locale.ROOT)
                    + place.substring(1).replaceFirst(":", " ") + " " + what));
        }

        void refuseIfAny() {
            if (!problems.isEmpty()) {
                throw new RefusedException(problems);
            }
        }
    }
}
