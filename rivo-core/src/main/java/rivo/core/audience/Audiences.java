package rivo.core.audience;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.function.ToIntFunction;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Group;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.core.rule.Clause;

/**
 * Who is meant: for every target, rule and OU of an estate the units that it holds (section 3 of the resolution rules).
 * Immutable but for its cache; safe for any thread.
 *
 * <p>Units of scope device are the devices, at their positions in OU order; units of scope user are the pairs of a device
 * and one of its people, as {@link PersonUnits} lays them out. Every set is worked out when it is first asked for and
 * kept; {@link #follow} carries over to a newer estate whatever cannot have changed.
 */
public final class Audiences {

    private final Estate estate;
    private final PersonUnits units;
    private final Groups groups;
    private final RuleSets rules;
    private final KeptSets kept;
    private final Map<Scope, UnitRanks> ranks = new ConcurrentHashMap<>();
    private final DevicesById byId;
    private final TargetNumbers numbers;
    private final TargetRows rows;
    private final WaveShares shares;

    private Audiences(Estate estate, PersonUnits units, Groups groups, RuleSets rules, KeptSets kept,
            DevicesById byId, TargetNumbers numbers, TargetRows rows, WaveShares shares) {
        this.estate = estate;
        this.units = units;
        this.groups = groups;
        this.rules = rules;
        this.kept = kept;
        this.byId = byId;
        this.numbers = numbers;
        this.rows = rows;
        this.shares = shares;
    }

    /** Costs one pass over the devices' people; everything else comes with the first question. */
    public static Audiences of(Estate estate) {
        PersonUnits units = PersonUnits.of(estate.devices(), estate.users());
        Groups groups = new Groups(estate);
        RuleSets rules = new RuleSets(estate, groups, units);
        TargetNumbers numbers = new TargetNumbers();
        return new Audiences(estate, units, groups, rules, new KeptSets(), DevicesById.of(estate.devices()), numbers,
                new TargetRows(estate, units, numbers, groups, rules), new WaveShares());
    }

    /**
     * The audiences of a newer estate, exactly as if they were made anew, sharing all that cannot have changed. Finds
     * what differs by identity, so that it costs next to nothing where the newer estate shares parts with this one.
     */
    public Audiences follow(Estate newer) {
        return step(newer).now();
    }

    /** The same, with what has become of everyone's place. */
    public Step step(Estate newer) {
        return new Following(this, newer).step();
    }

    /** With another estate of which no audience differs: only titles, assignments or requests do. */
    Audiences sharing(Estate newer) {
        Audiences next = new Audiences(newer, units, groups, rules, kept, byId, numbers, rows,
                shares.in(newer, Moves.none(estate.devices().size())));
        next.ranks.putAll(ranks);
        return next;
    }

    /**
     * With other sets; what is the same in both goes along.
     *
     * @param devices what has become of the devices
     * @param people what has become of the people
     */
    Audiences with(Estate newer, PersonUnits newUnits, Groups newGroups, RuleSets newRules, Moves devices, Moves people) {
        Audiences next = new Audiences(newer, newUnits, newGroups, newRules, new KeptSets(),
                byId.after(newer.devices(), devices), numbers,
                rows.after(newer, newUnits, newGroups, newRules, devices, people), shares.in(newer, devices));
        if (newUnits == units && devices.areNone()) {
            next.ranks.putAll(ranks);
        }
        if (next.standsAs(this)) {
            next.kept.keep(kept, target -> next.isSame(target, this), rule -> next.isSame(rule, this));
        }
        return next;
    }

    /** Whether everyone stands at the same position, in the same OU of the very same tree, in both. */
    public boolean standsAs(Audiences other) {
        return units == other.units && estate.devices().standAs(other.estate.devices())
                && estate.users().standAs(other.estate.users());
    }

    /**
     * Whether a target is known to hold the very same units as in others in which everyone stands as here, and to be inside
     * the same fences.
     */
    boolean isSame(Target target, Audiences other) {
        return Objects.equals(estate.gone().get(target), other.estate.gone().get(target)) && switch (target.kind()) {
            case ALL_DEVICES, ALL_USERS, OU, DEVICE, USER -> true;
            case GROUP -> groups.sharesWith(other.groups, target.id());
            case COLLECTION -> rules.sharesCollectionWith(other.rules, target.id())
                    && Objects.equals(base(target), other.base(target));
        };
    }

    private @Nullable String base(Target collection) {
        DeviceCollection known = estate.collections().get(collection.id());
        return known == null ? null : known.base();
    }

    /** Whether a rule is known to be satisfied by the very same devices as in others in which everyone stands as here. */
    public boolean isSame(String rule, Audiences other) {
        return rules.sharesRuleWith(other.rules, rule);
    }

    public Estate estate() {
        return estate;
    }

    public PersonUnits units() {
        return units;
    }

    Groups groups() {
        return groups;
    }

    RuleSets rules() {
        return rules;
    }

    /** Whether every set of the other is this one's: nothing that audiences look at differs. */
    public boolean sharesAllWith(Audiences other) {
        return kept == other.kept;
    }

    /**
     * The positions of the devices that a rule holds in one and not in others in which everyone stands as here, for those rules that look at the
     * instant. What nobody has asked yet is asked in both: so it cannot turn out to differ later.
     *
     * @param texts gives the rules that the estate has besides its collections'
     */
    public Positions differingByTime(Audiences other, Supplier<Set<String>> texts) {
        return sharesAllWith(other) || estate.asOf().equals(other.estate.asOf()) ? Positions.NONE
                : rules.differingByTime(other.rules, texts.get());
    }

    /** Whether every unit stands at the same position in both. */
    public boolean sameUnitsAs(Audiences other) {
        return units == other.units || estate.devices().sameOrderAs(other.estate.devices())
                && estate.users().sameOrderAs(other.estate.users()) && units.sameAs(other.units);
    }

    /** How many units of this scope there are. */
    public int size(Scope scope) {
        return switch (scope) {
            case DEVICE -> estate.devices().size();
            case USER -> units.size();
        };
    }

    /** Those of the units that a wave's share takes, kept for all units that the pair's target reaches. */
    Positions share(Waves waves, Target target, Follows side, Scope scope, int limit) {
        return keep(new KeptSets.WaveShare(target, waves.assignment().id(), limit), side, scope, () -> {
            Positions reached = reach(target, side, scope);
            Positions devices = scope == Scope.DEVICE ? reached : units.devicesOf(reached);
            return reached.and(ofDevices(shares.taken(waves.assignment().id(), waves.limits(), limit, devices, estate.devices()), scope));
        });
    }

    /** A number for each target that some pair has been made of, by the side that is followed. */
    int number(Target target, Follows follows) {
        return numbers.of(target, follows);
    }

    /**
     * Which of the targets that pairs have been made of hold this device, or following the user one of its people: what is
     * not in it need not be asked. Costs a step for each OU above, each group that holds it, and each collection.
     */
    public TargetRow row(int device) {
        return rows.row(device);
    }

    private Positions keep(KeptSets.Question question, Follows side, Scope scope, Supplier<Positions> compute) {
        return kept.get(new KeptSets.Key(question, side, scope), compute);
    }

    private Positions ofDevices(Positions devices, Scope scope) {
        return switch (scope) {
            case DEVICE -> devices;
            case USER -> units.ofDevices(devices);
        };
    }

    private Positions ofUsers(Positions users, Scope scope) {
        Positions own = units.ofUsers(users);
        return switch (scope) {
            case DEVICE -> units.devicesOf(own);
            case USER -> own;
        };
    }

    /**
     * The units that an included target reaches (section 3, rule 1). For a title of scope device that follows the user
     * these are the devices one of whose people it holds.
     */
    public Positions reach(Target target, Follows follows, Scope scope) {
        return keep(new KeptSets.Reach(target), follows, scope, () -> switch (follows) {
            case DEVICE -> ofDevices(devices(target), scope);
            case USER -> ofUsers(users(target), scope);
        });
    }

    /**
     * The units that a target holds in the sense of section 3, rule 3, which is that of exclusions and waves.
     *
     * @param side the side that the assignment follows; units of scope device are asked for following the device only
     */
    public Positions holds(Target target, Follows side, Scope scope) {
        return keep(new KeptSets.Holds(target), side, scope, () -> rests(target) ? Positions.NONE : switch (target.kind()) {
            case ALL_DEVICES -> Positions.range(0, size(scope));
            case ALL_USERS -> ofDevices(withPeople(), scope);
            case OU -> below(estate.ous().position(target.id()), side, scope);
            case DEVICE, COLLECTION -> ofDevices(devices(target), scope);
            case USER -> ofUsers(users(target), scope);
            case GROUP -> ofDevices(devices(target), scope).or(ofUsers(users(target), scope));
        });
    }

    /** Whether a target names something that the directory does not have any more (section 11). */
    public boolean rests(Target target) {
        return estate.gone().containsKey(target);
    }

    /** The units that an excluded target holds: one that rests goes on holding whom it last held (section 11). */
    Positions excludes(Target target, Follows side, Scope scope) {
        GoneReference gone = estate.gone().get(target);
        return gone == null ? holds(target, side, scope) : switch (target.kind()) {
            case OU -> lastHeld(gone, side, scope);
            case ALL_DEVICES, ALL_USERS, COLLECTION, DEVICE, USER, GROUP -> lastHeld(gone, Follows.DEVICE, scope)
                    .or(lastHeld(gone, Follows.USER, scope));
        };
    }

    private Positions lastHeld(GoneReference gone, Follows side, Scope scope) {
        return keep(new KeptSets.LastHeld(gone.target()), side, scope, () -> switch (side) {
            case DEVICE -> ofDevices(positions(gone.devices(), estate.devices()::positionOf), scope);
            case USER -> ofUsers(positions(gone.users(), estate.users()::positionOf), scope);
        });
    }

    private static Positions positions(List<String> ids, ToIntFunction<String> positionOf) {
        return Positions.of(ids.stream().mapToInt(positionOf).filter(p -> p >= 0).toArray());
    }

    /** The units that an assignment may not reach any more only because something that it names has gone: it has not left them. */
    public Positions keptByRest(Assignment assignment, Scope scope) {
        if (estate.gone().isEmpty()) {
            return Positions.NONE;
        }
        if (assignment.base() != null && rests(Target.ou(assignment.base()))) {
            return Positions.range(0, size(scope));
        }
        List<Positions> kept = new ArrayList<>();
        for (Target target : assignment.include()) {
            GoneReference gone = estate.gone().get(target);
            if (gone != null) {
                kept.add(lastHeld(gone, assignment.follows(), scope));
            }
        }
        return Positions.union(kept);
    }

    private Positions withPeople() {
        return units.devicesOf(Positions.range(0, units.size()));
    }

    /** The units whose device, or following the user whose person, is in this OU or below. */
    public Positions below(int ou, Follows side, Scope scope) {
        return switch (side) {
            case DEVICE -> ofDevices(Positions.range(estate.devices().from(ou), estate.devices().to(ou)), scope);
            case USER -> keep(new KeptSets.Below(ou), side, scope, () -> ofUsers(
                    Positions.range(estate.users().from(ou), estate.users().to(ou)), scope));
        };
    }

    public DeviceSet everyDevice() {
        return new DeviceSet(Positions.range(0, estate.devices().size()));
    }

    /** The devices that satisfy a rule; every device where there is none. */
    public DeviceSet devicesWhere(@Nullable String rule) {
        return rule == null ? everyDevice() : new DeviceSet(rules.satisfying(rule));
    }

    /** For rules that somebody is still writing. */
    public TriedRules trying() {
        return new TriedRules(rules);
    }

    /** The devices that a target holds by themselves, not those of its people; none of one that rests. */
    public DeviceSet devicesIn(Target target) {
        return new DeviceSet(devices(target));
    }

    /** The devices that an included target reaches: those it holds, or following the user those of the people it holds. */
    public DeviceSet devicesReached(Target target, Follows follows) {
        return new DeviceSet(reach(target, follows, Scope.DEVICE));
    }

    /** The units of a scope that an included target reaches; of the devices, or following the user those of the people it holds alone. */
    public UnitSet unitsReached(Target target, Follows follows, Scope scope) {
        return new UnitSet(scope, reach(target, follows, scope));
    }

    /** How many people a target holds by themselves, not those of its devices; none of one that rests. */
    public int peopleIn(Target target) {
        return users(target).size();
    }

    /** Those of the devices with these ids that are there. */
    public DeviceSet devicesOf(Collection<String> ids) {
        return new DeviceSet(positions(List.copyOf(ids), estate.devices()::positionOf));
    }

    /** The units' devices, each once. */
    public DeviceSet devicesOf(UnitSet set) {
        return new DeviceSet(set.scope() == Scope.DEVICE ? set.positions() : units.devicesOf(set.positions()));
    }

    /** How many of these units are on the devices from {@code from}, included, to {@code to}, excluded. */
    public int countOn(UnitSet set, int from, int to) {
        return set.positions().countIn(firstUnit(from, set.scope()), firstUnit(to, set.scope()));
    }

    /** Those of the units that are on these devices. */
    public UnitSet on(UnitSet set, DeviceSet devices) {
        return new UnitSet(set.scope(), set.positions().and(set.scope() == Scope.DEVICE ? devices.positions() : units.ofDevices(devices.positions())));
    }

    /** How many units of a scope the devices from {@code from}, included, to {@code to}, excluded, have: themselves, or their people. */
    public int unitsOn(Scope scope, int from, int to) {
        return firstUnit(to, scope) - firstUnit(from, scope);
    }

    private int firstUnit(int device, Scope scope) {
        return scope == Scope.DEVICE ? device : units.from(device);
    }

    /** The units, by the position of their device and then by the person's id. */
    public Stream<Unit> each(UnitSet set) {
        return set.positions().stream().mapToObj(unit -> unit(unit, set.scope()));
    }

    /** The units in the order in which they are written and given seats. */
    public Stream<Unit> ranked(UnitSet set) {
        UnitRanks order = ranks(set.scope());
        return set.positions().stream().map(order::rankOf).sorted().map(order::unitAt).mapToObj(unit -> unit(unit, set.scope()));
    }

    private Unit unit(int unit, Scope scope) {
        return new Unit(device(unit, scope), user(unit, scope));
    }

    /** The units whose device satisfies the rule. */
    public Positions satisfying(String rule, Scope scope) {
        Positions devices = rules.satisfying(rule);
        return scope == Scope.DEVICE ? devices
                : keep(new KeptSets.Satisfying(rule), Follows.DEVICE, scope, () -> units.ofDevices(devices));
    }

    /** The devices in a known collection. */
    public Positions collection(String id) {
        return rules.collection(id);
    }

    /** How many of the rules that have been asked so far the device at this position satisfies, asked anew. */
    public int satisfied(int device) {
        return rules.satisfied(device);
    }

    /** What each clause of a rule says of the device at this position. */
    public List<Clause> clauses(String rule, int device) {
        return rules.rule(rule).explain(rules.subject(device));
    }

    /** How a device or user belongs to a group: from this group down to the one that lists it; empty when it does not. */
    public List<Group> chain(String group, Target member) {
        return groups.chain(group, member);
    }

    /** Every way in which a device or user belongs to a known group: from this group down to one that lists it. None when it does not. */
    public List<List<Group>> ways(String group, Target member) {
        return groups.ways(group, member);
    }

    /** What a known group is made of. */
    public GroupMakeup makeup(String group) {
        return groups.makeup(group);
    }

    /** The ids of all groups that hold a device or user, nested ones too. Costs a probe for each group. */
    public Set<String> groupsHolding(Target member) {
        return groups.holding(member);
    }

    /** Whether a target holds this person by themselves. */
    public boolean holds(Target target, User user) {
        return users(target).contains(estate.users().positionOf(user.id()));
    }

    /** The people that a target holds by themselves, in OU order. */
    public Stream<User> people(Target target) {
        return users(target).stream().mapToObj(position -> estate.users().at(position));
    }

    private Positions devices(Target target) {
        return rests(target) ? Positions.NONE : switch (target.kind()) {
            case ALL_DEVICES -> Positions.range(0, estate.devices().size());
            case OU -> below(estate.ous().position(target.id()), Follows.DEVICE, Scope.DEVICE);
            case GROUP -> groups.of(target.id()).devices();
            case COLLECTION -> rules.collection(target.id());
            case DEVICE -> one(estate.devices().positionOf(target.id()));
            case ALL_USERS, USER -> Positions.NONE;
        };
    }

    private Positions users(Target target) {
        return rests(target) ? Positions.NONE : switch (target.kind()) {
            case ALL_USERS -> Positions.range(0, estate.users().size());
            case OU -> {
                int ou = estate.ous().position(target.id());
                yield Positions.range(estate.users().from(ou), estate.users().to(ou));
            }
            case GROUP -> groups.of(target.id()).users();
            case USER -> one(estate.users().positionOf(target.id()));
            case ALL_DEVICES, COLLECTION, DEVICE -> Positions.NONE;
        };
    }

    private static Positions one(int position) {
        return position < 0 ? Positions.NONE : Positions.range(position, position + 1);
    }

    /**
     * The units that fences stop (section 3, rule 4) for a pair that is not binding.
     *
     * @param fences the positions of the fenced OUs that the pair is not inside of
     * @param namesPerson whether the target names the person
     */
    Positions stopped(List<Integer> fences, Follows side, boolean namesPerson, Scope scope) {
        return keep(new KeptSets.Stopped(List.copyOf(fences), namesPerson), side, scope, () -> {
            List<Positions> sets = new ArrayList<>();
            for (int fence : fences) {
                sets.add(stopped(fence, side, namesPerson, scope));
            }
            return Positions.union(sets);
        });
    }

    /** The units that this one fence stops. */
    Positions stopped(int fence, Follows side, boolean namesPerson, Scope scope) {
        Positions devices = below(fence, Follows.DEVICE, scope);
        if (side == Follows.DEVICE) {
            return devices;
        }
        return keep(new KeptSets.Stopped(List.of(fence), namesPerson), side, scope, () -> {
            Positions people = below(fence, Follows.USER, scope);
            return namesPerson ? devices.without(people) : devices.or(people);
        });
    }

    /** The units of a scope in the order in which they are written and given seats. Sorted when first asked for. */
    public UnitRanks ranks(Scope scope) {
        return ranks.computeIfAbsent(scope, s -> new UnitRanks(byId.positions(), s == Scope.DEVICE ? null : units));
    }

    /** The unit's device. */
    public Device device(int unit, Scope scope) {
        return estate.devices().at(devicePosition(unit, scope));
    }

    /** The position of the unit's device. */
    public int devicePosition(int unit, Scope scope) {
        return scope == Scope.DEVICE ? unit : units.device(unit);
    }

    /** The id of the unit's person; empty for a unit of scope device. */
    public String user(int unit, Scope scope) {
        return scope == Scope.DEVICE ? "" : estate.users().at(units.user(unit)).id();
    }

    /** The unit of this device, and for scope user of this person; -1 when there is none. */
    public int unit(Scope scope, String device, @Nullable String user) {
        int position = estate.devices().positionOf(device);
        if (scope == Scope.DEVICE || position < 0) {
            return position;
        }
        return units.find(position, estate.users().positionOf(Objects.requireNonNull(user)));
    }
}
