package rivo.core.estate;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Whether the parts of an estate go together: ids used once and declared, one root, relations that make sense. Every
 * problem is found, and named by its place, such as {@code assignments[3].include[0]}. Rules are looked at later, by
 * {@code rivo.core.rule.EstateRules}.
 */
public final class EstateChecks {

    private final ProblemList problems = new ProblemList();
    private final Map<String, Ou> ous = new HashMap<>();
    private final Map<String, User> users = new HashMap<>();
    private final Map<String, Device> devices = new HashMap<>();
    private final Map<String, Group> groups = new HashMap<>();
    private final Map<String, DeviceCollection> collections = new HashMap<>();
    private final Map<String, Title> titles = new HashMap<>();
    private final Map<String, Kit> kits = new HashMap<>();
    private final Map<String, Assignment> assignments = new HashMap<>();
    /** What may be named although it is not there. */
    private final Set<Target> gone = new HashSet<>();
    private final Set<String> ofUnknownScope;

    private EstateChecks(Set<String> ofUnknownScope) {
        this.ofUnknownScope = ofUnknownScope;
    }

    private EstateChecks() {
        this(Set.of());
    }

    /** Everything that is wrong with the parts; empty when an estate can be made of them. Costs one pass. */
    public static List<Problem> problems(EstateParts parts) {
        return problems(parts, Set.of());
    }

    /**
     * The same for parts that could not all be read.
     *
     * @param ofUnknownScope the ids of titles whose scope could not be read: nothing is held against it
     */
    public static List<Problem> problems(EstateParts parts, Set<String> ofUnknownScope) {
        EstateChecks checks = new EstateChecks(ofUnknownScope);
        checks.declare(parts);
        parts.gone().forEach(one -> checks.gone.add(one.target()));
        checks.ous(parts.ous());
        checks.each("users", parts.users(), (user, at) -> checks.ou(user.ou(), at + ".ou"));
        checks.each("devices", parts.devices(), checks::device);
        checks.each("groups", parts.groups(), checks::group);
        checks.each("collections", parts.collections(), checks::collection);
        new TitleChecks(checks.problems, checks.titles, ofUnknownScope).check(parts.titles());
        checks.each("kits", parts.kits(), checks::kit);
        checks.each("assignments", parts.assignments(), checks::assignment);
        checks.sequence(parts.assignments());
        checks.each("requests", parts.requests(), checks::request);
        return checks.problems.all();
    }

    /** What is wrong with the OUs by themselves. */
    static List<Problem> problems(List<Ou> ous) {
        EstateChecks checks = new EstateChecks();
        checks.declare("ous", "OU", ous, Ou::id, checks.ous);
        checks.ous(ous);
        return checks.problems.all();
    }

    /** What is wrong with assignments that are to be put into an estate; places begin with {@code assignment:ID}. */
    static List<Problem> problems(Estate estate, Collection<Assignment> changed) {
        EstateChecks checks = new EstateChecks();
        checks.gone.addAll(estate.gone().keySet());
        checks.groups.putAll(estate.groups());
        checks.collections.putAll(estate.collections());
        estate.titles().forEach(t -> checks.titles.put(t.id(), t));
        checks.kits.putAll(estate.kits());
        estate.ous().all().forEach(ou -> checks.ous.put(ou.id(), ou));
        for (Assignment assignment : changed) {
            assignment.include().forEach(t -> checks.knowEnough(estate, t));
            assignment.exclude().forEach(t -> checks.knowEnough(estate, t));
            assignment.waves().forEach(w -> w.to().forEach(t -> checks.knowEnough(estate, t)));
            checks.assignment(assignment, "assignment:" + assignment.id());
        }
        return checks.problems.all();
    }

    /** What is wrong with collections that are to be put into an estate or taken out; places begin with {@code collection:ID}. */
    static List<Problem> problems(Estate estate, Collection<DeviceCollection> changed, Set<String> without) {
        EstateChecks checks = new EstateChecks();
        checks.gone.addAll(estate.gone().keySet());
        estate.ous().all().forEach(ou -> checks.ous.put(ou.id(), ou));
        for (DeviceCollection collection : changed) {
            collection.include().forEach(id -> checks.knowEnough(estate, Target.device(id)));
            collection.exclude().forEach(id -> checks.knowEnough(estate, Target.device(id)));
            checks.collection(collection, "collection:" + collection.id());
        }
        for (Assignment assignment : without.isEmpty() ? List.<Assignment>of() : estate.assignments().all()) {
            References.of(assignment).stream().filter(t -> t.kind() == Target.Kind.COLLECTION && without.contains(t.id()))
                    .forEach(target -> checks.problems.add("collection-named", target.toString(), "The assignment " + assignment.id()
                            + " names this collection, so it cannot be deleted; remove it there first."));
        }
        return checks.problems.all();
    }

    /** What is wrong with a kit that is to be put into an estate; places begin with {@code kit:ID}. */
    static List<Problem> problems(Estate estate, Kit kit) {
        EstateChecks checks = new EstateChecks();
        estate.titles().forEach(t -> checks.titles.put(t.id(), t));
        checks.kit(kit, "kit:" + kit.id());
        if (new java.util.HashSet<>(kit.titles()).size() < kit.titles().size()) {
            checks.problems.add("twice", "kit:" + kit.id() + ".titles", "A title is listed twice in the kit; remove one.");
        }
        return checks.problems.all();
    }

    /** Looks a device or user up, instead of listing a million of them. */
    private void knowEnough(Estate estate, Target target) {
        Device device = target.kind() == Target.Kind.DEVICE ? estate.devices().find(target.id()) : null;
        if (device != null) {
            devices.put(target.id(), device);
        }
        User user = target.kind() == Target.Kind.USER ? estate.users().find(target.id()) : null;
        if (user != null) {
            users.put(target.id(), user);
        }
    }

    private void declare(EstateParts parts) {
        declare("ous", "OU", parts.ous(), Ou::id, ous);
        declare("users", "user", parts.users(), User::id, users);
        declare("devices", "device", parts.devices(), Device::id, devices);
        declare("groups", "group", parts.groups(), Group::id, groups);
        declare("collections", "collection", parts.collections(), DeviceCollection::id, collections);
        declare("titles", "title", parts.titles(), Title::id, titles);
        declare("kits", "kit", parts.kits(), Kit::id, kits);
        declare("assignments", "assignment", parts.assignments(), Assignment::id, assignments);
    }

    private <T> void declare(String list, String what, List<T> all, Function<T, String> id, Map<String, T> byId) {
        each(list, all, (one, at) -> {
            problems.id(byId, what, id.apply(one), at + ".id");
            byId.putIfAbsent(id.apply(one), one);
        });
    }

    private interface Check<T> {
        void at(T entry, String place);
    }

    private <T> void each(String list, List<T> entries, Check<T> check) {
        for (int i = 0; i < entries.size(); i++) {
            check.at(entries.get(i), list + "[" + i + "]");
        }
    }

    private void ous(List<Ou> all) {
        new OuChecks(problems, ous).check(all);
    }

    private void ou(@Nullable String ou, String place) {
        problems.known(ous, "OU", ou, place);
    }

    private void ids(Map<String, ?> declared, String what, List<String> ids, String place) {
        for (int i = 0; i < ids.size(); i++) {
            if (!declared.containsKey(ids.get(i))) {
                problems.known(declared, what, ids.get(i), place + "[" + i + "]");
            }
        }
    }

    private void device(Device device, String at) {
        ou(device.ou(), at + ".ou");
        ids(users, "user", device.people(), at + ".people");
        problems.once(device.people(), at + ".people");
        record Unit(String title, @Nullable String user) {
        }
        Set<Unit> seen = new HashSet<>();
        List<Present> present = device.present();
        for (int i = 0; i < present.size(); i++) {
            Present entry = present.get(i);
            boolean sound = isSound(entry.title(), entry.user())
                    && (entry.by() == null || assignments.containsKey(entry.by()));
            if (!sound) {
                String place = at + ".present[" + i + "]";
                titleAndUser(entry.title(), entry.user(), place);
                problems.known(assignments, "assignment", entry.by(), place, ".by");
            }
            if (!seen.add(new Unit(entry.title(), entry.user()))) {
                problems.add("listed-twice", at + ".present[" + i + "]", "The title \"" + entry.title()
                        + "\" is listed twice for one unit; list it once.");
            }
        }
    }

    /** Whether {@link #titleAndUser} would find nothing: a device may have many entries, and places take time to write. */
    private boolean isSound(String id, @Nullable String user) {
        Title title = titles.get(id);
        return title != null && (user == null ? title.scope() == Scope.DEVICE
                : title.scope() == Scope.USER && users.containsKey(user));
    }

    /** A user is given for a title of scope user and only for it. */
    private void titleAndUser(String id, @Nullable String user, String place) {
        problems.known(titles, "title", id, place + ".title");
        problems.known(users, "user", user, place + ".user");
        Title title = titles.get(id);
        if (title != null && !ofUnknownScope.contains(id) && (title.scope() == Scope.USER) != (user != null)) {
            problems.add("wrong-user", place + (user == null ? "" : ".user"), user == null
                    ? "The title \"" + id + "\" is installed in people's profiles; say for which user."
                    : "The title \"" + id + "\" is installed for the whole device; leave the user out.");
        }
    }

    private void group(Group group, String at) {
        targets(group.members(), at + ".members");
        problems.once(group.members(), at + ".members");
    }

    private void collection(DeviceCollection collection, String at) {
        base(collection.base(), at + ".base");
        devices(collection.include(), at + ".include");
        devices(collection.exclude(), at + ".exclude");
    }

    private void base(@Nullable String ou, String place) {
        if (ou != null && !gone.contains(Target.ou(ou))) {
            ou(ou, place);
        }
    }

    private void devices(List<String> ids, String place) {
        for (int i = 0; i < ids.size(); i++) {
            if (!devices.containsKey(ids.get(i)) && !gone.contains(Target.device(ids.get(i)))) {
                problems.known(devices, "device", ids.get(i), place + "[" + i + "]");
            }
        }
    }

    private void kit(Kit kit, String at) {
        ids(titles, "title", kit.titles(), at + ".titles");
    }

    private void assignment(Assignment assignment, String at) {
        Subject subject = assignment.subject();
        problems.known(subject.kit() ? kits : titles, subject.kit() ? "kit" : "title", subject.id(), at + ".subject");
        targets(assignment.include(), at + ".include");
        targets(assignment.exclude(), at + ".exclude");
        for (int i = 0; i < assignment.include().size(); i++) {
            Target target = assignment.include().get(i);
            if (!target.kind().serves(assignment.follows())) {
                problems.add("wrong-target", at + ".include[" + i + "]", "\"" + target + "\" cannot be included in an "
                        + "assignment that follows the " + assignment.follows().word() + "; name "
                        + (assignment.follows() == Follows.DEVICE ? "devices" : "people") + " instead.");
            }
        }
        base(assignment.base(), at + ".base");
        waves(assignment.waves(), at + ".waves");
    }

    private void waves(List<Wave> waves, String at) {
        java.math.BigDecimal sum = java.math.BigDecimal.ZERO;
        for (int i = 0; i < waves.size(); i++) {
            Wave wave = waves.get(i);
            targets(wave.to(), at + "[" + i + "].to");
            sum = sum.add(Objects.requireNonNullElse(wave.share(), java.math.BigDecimal.ZERO));
        }
        if (sum.compareTo(java.math.BigDecimal.valueOf(100)) > 0) {
            problems.add("bad-share", at, "The shares add up to " + sum.toPlainString() + " %; bring them to at most 100.");
        }
    }

    private void sequence(List<Assignment> all) {
        Map<Long, Assignment> bySeq = new HashMap<>();
        each("assignments", all, (assignment, at) -> {
            Assignment first = bySeq.putIfAbsent(assignment.seq(), assignment);
            if (first != null) {
                problems.add("seq-twice", at + ".seq", "The seq " + assignment.seq() + " is already that of \"" + first.id()
                        + "\"; give this assignment its own.");
            }
        });
    }

    private void request(Request request, String at) {
        problems.known(devices, "device", request.device(), at + ".device");
        titleAndUser(request.title(), request.user(), at);
    }

    private boolean isKnown(Target target) {
        return switch (target.kind()) {
            case ALL_DEVICES, ALL_USERS -> true;
            case OU -> ous.containsKey(target.id());
            case GROUP -> groups.containsKey(target.id());
            case COLLECTION -> collections.containsKey(target.id());
            case DEVICE -> devices.containsKey(target.id());
            case USER -> users.containsKey(target.id());
        };
    }

    private void targets(List<Target> targets, String at) {
        for (int i = 0; i < targets.size(); i++) {
            Target target = targets.get(i);
            if (isKnown(target) || gone.contains(target)) {
                continue;
            }
            String kind = target.kind() == Target.Kind.OU ? "OU" : target.kind().word();
            problems.known(Map.of(), kind, target.id(), at + "[" + i + "]");
        }
    }
}
