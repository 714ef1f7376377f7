package rivo.core.estate;

import java.time.Instant;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Whether the parts of an estate go together: ids used once and declared, one root, relations that make sense. Every
 * problem is found, and named by its place, such as {@code assignments[3].include[0]}. Rules are looked at later, by
 * {@code rivo.core.rule.EstateRules}. What is found on the way, an estate that is made of the parts need not find again.
 */
public final class EstateChecks {

    private static final int FEW = 50;

    private final EstateParts parts;
    private final ProblemList problems = new ProblemList();
    private final Map<String, Ou> ous = new HashMap<>();
    private final Map<String, DeviceCollection> collections = new HashMap<>();
    private final Map<String, Title> titles = new HashMap<>();
    private final Map<String, Kit> kits = new HashMap<>();
    private final Map<String, Assignment> assignments = new HashMap<>();
    private final Map<String, Group> groupsById = new LinkedHashMap<>();
    private @Nullable ListedGroups groups;
    private Predicate<String> isDevice = id -> false;
    private Predicate<String> isUser = id -> false;
    /** What may be named although it is not there. */
    private final Set<Target> gone = new HashSet<>();
    private final Set<String> ofUnknownScope;

    private EstateChecks(EstateParts parts, Set<String> ofUnknownScope) {
        this.parts = parts;
        this.ofUnknownScope = ofUnknownScope;
    }

    /** Of some parts that are to be put into an estate, or of no more than the OUs. */
    private EstateChecks() {
        this(EstateParts.none(Instant.EPOCH), Set.of());
    }

    /** Everything that is wrong with the parts; empty when an estate can be made of them. Costs one pass. */
    public static List<Problem> problems(EstateParts parts) {
        return of(parts, Set.of()).problems();
    }

    /**
     * The same for parts that perhaps could not all be read.
     *
     * @param ofUnknownScope the ids of titles whose scope could not be read: nothing is held against it
     */
    public static EstateChecks of(EstateParts parts, Set<String> ofUnknownScope) {
        EstateChecks checks = new EstateChecks(parts, ofUnknownScope);
        checks.all();
        return checks;
    }

    private void all() {
        declare("ous", "OU", parts.ous(), Ou::id, ous);
        IdIndex users = declare("users", "user", parts.users(), User::id);
        IdIndex devices = declare("devices", "device", parts.devices(), Device::id);
        isUser = users::has;
        isDevice = devices::has;
        declare("groups", "group", parts.groups(), Group::id, groupsById);
        declare("collections", "collection", parts.collections(), DeviceCollection::id, collections);
        declare("titles", "title", parts.titles(), Title::id, titles);
        declare("kits", "kit", parts.kits(), Kit::id, kits);
        declare("assignments", "assignment", parts.assignments(), Assignment::id, assignments);
        parts.gone().forEach(one -> gone.add(one.target()));
        ous(parts.ous());
        each("users", parts.users(), (user, at) -> ou(user.ou(), at + ".ou"));
        each("devices", parts.devices(), this::device);
        groups = ListedGroups.of(Collections.unmodifiableMap(groupsById), devices, users);
        Membership membership = new Membership(groups);
        each("groups", parts.groups(), (group, at) -> group(group, membership, at));
        each("collections", parts.collections(), this::collection);
        new TitleChecks(problems, titles, ofUnknownScope).check(parts.titles());
        each("kits", parts.kits(), this::kit);
        each("assignments", parts.assignments(), this::assignment);
        sequence(parts.assignments());
        each("requests", parts.requests(), this::request);
    }

    /** Everything that is wrong with the parts; empty when an estate can be made of them. */
    public List<Problem> problems() {
        return problems.all();
    }

    EstateParts parts() {
        return parts;
    }

    /** The groups, with what each lists. */
    ListedGroups groups() {
        return Objects.requireNonNull(groups);
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
        checks.groupsById.putAll(estate.groups());
        checks.know(estate);
        checks.collections.putAll(estate.collections());
        estate.titles().forEach(t -> checks.titles.put(t.id(), t));
        checks.kits.putAll(estate.kits());
        estate.ous().all().forEach(ou -> checks.ous.put(ou.id(), ou));
        changed.forEach(assignment -> checks.assignment(assignment, "assignment:" + assignment.id()));
        return checks.problems.all();
    }

    /** What is wrong with collections that are to be put into an estate or taken out; places begin with {@code collection:ID}. */
    static List<Problem> problems(Estate estate, Collection<DeviceCollection> changed, Set<String> without) {
        EstateChecks checks = new EstateChecks();
        checks.gone.addAll(estate.gone().keySet());
        estate.ous().all().forEach(ou -> checks.ous.put(ou.id(), ou));
        checks.know(estate);
        changed.forEach(collection -> checks.collection(collection, "collection:" + collection.id()));
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

    /** Looks devices and people up there, instead of listing a million of them. */
    private void know(Estate estate) {
        isDevice = id -> estate.devices().find(id) != null;
        isUser = id -> estate.users().find(id) != null;
    }

    private <T> void declare(String list, String what, List<T> all, Function<T, String> id, Map<String, T> byId) {
        each(list, all, (one, at) -> {
            problems.id(byId.putIfAbsent(id.apply(one), one) != null, what, id.apply(one), at + ".id");
        });
    }

    /** The same for as many as there may be devices. */
    private <T> IdIndex declare(String list, String what, List<T> all, Function<T, String> id) {
        IdIndex index = IdIndex.of(all, id);
        for (int i = 0; i < all.size(); i++) {
            if (index.isAgain(i) || !ProblemList.isId(id.apply(all.get(i)))) {
                problems.id(index.isAgain(i), what, id.apply(all.get(i)), list + "[" + i + "].id");
            }
        }
        return index;
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
        problems.known(ous::containsKey, "OU", ou, place);
    }

    private void ids(Predicate<String> declared, String what, List<String> ids, String place) {
        for (int i = 0; i < ids.size(); i++) {
            if (!declared.test(ids.get(i))) {
                problems.known(declared, what, ids.get(i), place + "[" + i + "]");
            }
        }
    }

    private void device(Device device, String at) {
        ou(device.ou(), at + ".ou");
        ids(isUser, "user", device.people(), at + ".people");
        problems.once(device.people(), at + ".people");
        List<Present> present = device.present();
        Set<Unit> seen = new HashSet<>();
        for (int i = 0; i < present.size(); i++) {
            Present entry = present.get(i);
            boolean sound = isSound(entry.title(), entry.user())
                    && (entry.by() == null || assignments.containsKey(entry.by()));
            if (!sound) {
                String place = at + ".present[" + i + "]";
                titleAndUser(entry.title(), entry.user(), place);
                problems.known(assignments::containsKey, "assignment", entry.by(), place, ".by");
            }
            if (present.size() > FEW ? !seen.add(new Unit(entry.title(), entry.user())) : isListedBefore(present, i)) {
                problems.add("listed-twice", at + ".present[" + i + "]", "The title \"" + entry.title()
                        + "\" is listed twice for one unit; list it once.");
            }
        }
    }

    private record Unit(String title, @Nullable String user) {
    }

    /** By comparing it with each before: where there are few, a set of them takes longer to make. */
    private static boolean isListedBefore(List<Present> present, int entry) {
        Present it = present.get(entry);
        for (int i = 0; i < entry; i++) {
            Present before = present.get(i);
            if (before.title().equals(it.title()) && Objects.equals(before.user(), it.user())) {
                return true;
            }
        }
        return false;
    }

    /** Whether {@link #titleAndUser} would find nothing: a device may have many entries, and places take time to write. */
    private boolean isSound(String id, @Nullable String user) {
        Title title = titles.get(id);
        return title != null && (user == null ? title.scope() == Scope.DEVICE
                : title.scope() == Scope.USER && isUser.test(user));
    }

    /** A user is given for a title of scope user and only for it. */
    private void titleAndUser(String id, @Nullable String user, String place) {
        problems.known(titles::containsKey, "title", id, place + ".title");
        problems.known(isUser, "user", user, place + ".user");
        Title title = titles.get(id);
        if (title != null && !ofUnknownScope.contains(id) && (title.scope() == Scope.USER) != (user != null)) {
            problems.add("wrong-user", place + (user == null ? "" : ".user"), user == null
                    ? "The title \"" + id + "\" is installed in people's profiles; say for which user."
                    : "The title \"" + id + "\" is installed for the whole device; leave the user out.");
        }
    }

    private void group(Group group, Membership membership, String at) {
        if (!membership.isSound(group)) {
            targets(group.members(), at + ".members");
            problems.once(group.members(), at + ".members");
        }
    }

    /** Tells groups of which each member is there and listed once: there may be tens of millions of them. */
    private static final class Membership {

        private final ListedGroups groups;
        /** By number, in which group it was listed last, counted from 1 on. */
        private final int[] deviceIn;
        private final int[] userIn;
        private int count;

        Membership(ListedGroups groups) {
            this.groups = groups;
            this.deviceIn = new int[groups.devices().size()];
            this.userIn = new int[groups.users().size()];
        }

        boolean isSound(Group group) {
            Listing listing = groups.listing(group);
            count++;
            return listing.size() == group.members().size() && areOnce(listing.devices(), deviceIn) && areOnce(listing.users(), userIn)
                    && listing.groups().stream().allMatch(groups.byId()::containsKey) && Set.copyOf(listing.groups()).size() == listing.groups().size();
        }

        private boolean areOnce(int[] numbers, int[] in) {
            boolean once = true;
            for (int number : numbers) {
                once &= in[number] != count;
                in[number] = count;
            }
            return once;
        }
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
            if (!isDevice.test(ids.get(i)) && !gone.contains(Target.device(ids.get(i)))) {
                problems.known(isDevice, "device", ids.get(i), place + "[" + i + "]");
            }
        }
    }

    private void kit(Kit kit, String at) {
        ids(titles::containsKey, "title", kit.titles(), at + ".titles");
    }

    private void assignment(Assignment assignment, String at) {
        Subject subject = assignment.subject();
        problems.known(subject.kit() ? kits::containsKey : titles::containsKey, subject.kit() ? "kit" : "title", subject.id(), at + ".subject");
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
        problems.known(isDevice, "device", request.device(), at + ".device");
        titleAndUser(request.title(), request.user(), at);
    }

    private boolean isKnown(Target target) {
        return switch (target.kind()) {
            case ALL_DEVICES, ALL_USERS -> true;
            case OU -> ous.containsKey(target.id());
            case GROUP -> groupsById.containsKey(target.id());
            case COLLECTION -> collections.containsKey(target.id());
            case DEVICE -> isDevice.test(target.id());
            case USER -> isUser.test(target.id());
        };
    }

    private void targets(List<Target> targets, String at) {
        for (int i = 0; i < targets.size(); i++) {
            Target target = targets.get(i);
            if (isKnown(target) || gone.contains(target)) {
                continue;
            }
            String kind = target.kind() == Target.Kind.OU ? "OU" : target.kind().word();
            problems.known(id -> false, kind, target.id(), at + "[" + i + "]");
        }
    }
}
