package rivo.core.audience;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Target;
import rivo.core.rule.Folding;
import rivo.core.rule.Rule;
import rivo.core.rule.ValueCondition;

/**
 * The devices that satisfy each rule, and those in each collection, worked out when first asked for and kept. Safe for
 * any thread.
 *
 * <p><b>Patched.</b> When a few devices have changed, every kept set is put right for just those devices: the
 * collections first, each after those it asks about, so that whoever asks about one sees its final set.
 */
final class RuleSets {

    private final Estate estate;
    private final Groups groups;
    private final DeviceAlgebra algebra;
    /** By folded name. */
    private final Map<String, DeviceCollection> byName = new HashMap<>();
    private final Map<String, Positions> collections = new ConcurrentHashMap<>();
    private final Map<String, Positions> rules = new ConcurrentHashMap<>();
    private final Map<String, Rule> compiled;
    /** Side by side, for whoever asks all of them of one device; made anew when there are more. */
    private volatile Rule[] asked = {};

    RuleSets(Estate estate, Groups groups, PersonUnits units) {
        this.estate = estate;
        this.groups = groups;
        this.compiled = new ConcurrentHashMap<>();
        this.algebra = new DeviceAlgebra(estate, groups, units, this::named);
        nameCollections();
    }

    private RuleSets(RuleSets before, Estate estate, Groups groups, PersonUnits units, Moves devices, Moves people) {
        this.estate = estate;
        this.groups = groups;
        this.compiled = before.compiled;
        this.algebra = before.algebra.after(estate, groups, units, devices, people, this::named);
        nameCollections();
    }

    private void nameCollections() {
        estate.collections().values().stream().filter(c -> !c.name().isEmpty())
                .forEach(c -> byName.put(Folding.fold(c.name()), c));
    }

    /** Those of an estate in which every set may be another; what devices and people say of themselves goes along. */
    static RuleSets anew(RuleSets before, Estate newer, Groups groups, PersonUnits units, Moves devices, Moves people) {
        return new RuleSets(before, newer, groups, units, devices, people);
    }

    /**
     * Those of a newer estate with the same collections.
     *
     * @param changed the new positions of the devices of which something that rules look at may have changed
     */
    static RuleSets after(RuleSets before, Estate newer, Groups groups, PersonUnits units, Moves devices, Moves people,
            Positions changed) {
        RuleSets sets = new RuleSets(before, newer, groups, units, devices, people);
        // One worked out halfway through the patching would be of devices old and new.
        newer.collections().keySet().forEach(before::collection);
        before.collections.forEach((id, set) -> sets.collections.put(id, devices.of(set)));
        before.rules.forEach((text, set) -> sets.rules.put(text, devices.of(set)));
        if (!changed.isEmpty()) {
            sets.patch(changed);
        }
        if (!before.estate.asOf().equals(newer.asOf())) {
            sets.renewTimed();
        }
        return sets;
    }

    /**
     * Asks again what looks at the instant, and what asks about such a collection. A set that has the same members stays the very same, so
     * that a tick that changes nothing costs nothing afterwards.
     */
    private void renewTimed() {
        Set<String> timed = new HashSet<>();
        for (DeviceCollection collection : inOrder(estate.collections().values())) {
            if (collection.rule() != null && isTimed(rule(collection.rule()), timed)) {
                timed.add(Folding.fold(collection.name()));
                collections.computeIfPresent(collection.id(), (id, set) -> same(set, compute(collection)));
            }
        }
        List<String> texts = rules.keySet().stream().filter(text -> isTimed(rule(text), timed)).toList();
        texts.forEach(text -> rules.computeIfPresent(text, (t, set) -> same(set, rule(t).condition().over(algebra))));
    }

    /**
     * The devices that whatever looks at the instant, collections and these rules, holds in one and not in the other; asks what has not been
     * asked yet.
     */
    Positions differingByTime(RuleSets other, Set<String> texts) {
        Positions differing = Positions.NONE;
        Set<String> timed = new HashSet<>();
        for (DeviceCollection collection : inOrder(estate.collections().values())) {
            if (collection.rule() != null && isTimed(rule(collection.rule()), timed)) {
                timed.add(Folding.fold(collection.name()));
                differing = differing.or(differing(collection(collection.id()), other.collection(collection.id())));
            }
        }
        for (String text : texts) {
            if (isTimed(rule(text), timed)) {
                differing = differing.or(differing(satisfying(text), other.satisfying(text)));
            }
        }
        return differing;
    }

    private static Positions differing(Positions one, Positions other) {
        return one == other ? Positions.NONE : one.without(other).or(other.without(one));
    }

    /** @param timed the folded names of the collections whose members depend on the instant */
    private static boolean isTimed(Rule rule, Set<String> timed) {
        return rule.looksAtTime() || rule.collections().stream().anyMatch(name -> timed.contains(Folding.fold(name)));
    }

    private static Positions same(Positions before, Positions now) {
        return now.equals(before) ? before : now;
    }

    private void patch(Positions changed) {
        List<DeviceCollection> order = inOrder(estate.collections().values());
        Map<String, PositionsPatch> ofCollections = new LinkedHashMap<>();
        Map<String, PositionsPatch> ofRules = new LinkedHashMap<>();
        changed.forEach(p -> {
            Set<DeviceCollection> holding = new LinkedHashSet<>();
            DeviceSubject subject = new DeviceSubject(estate, groups, estate.devices().at(p),
                    () -> holding.stream().map(DeviceCollection::name).filter(name -> !name.isEmpty()).toList());
            for (DeviceCollection collection : order) {
                if (holds(collection, p, subject)) {
                    holding.add(collection);
                }
                note(ofCollections, collections, collection.id(), p, holding.contains(collection));
                subject.forgetCollections();
            }
            rules.keySet().forEach(text -> note(ofRules, rules, text, p, rule(text).holds(subject)));
        });
        ofCollections.forEach((id, patch) -> collections.put(id, patch.apply()));
        ofRules.forEach((text, patch) -> rules.put(text, patch.apply()));
    }

    private static void note(Map<String, PositionsPatch> patches, Map<String, Positions> sets, String key, int position,
            boolean in) {
        Positions set = Objects.requireNonNull(sets.get(key));
        if (set.contains(position) != in) {
            patches.computeIfAbsent(key, k -> new PositionsPatch(set)).put(position, in);
        }
    }

    /** Members to put in and take out, all at once. */
    private static final class PositionsPatch {
        private final Positions before;
        private final List<Integer> in = new ArrayList<>();
        private final List<Integer> out = new ArrayList<>();

        PositionsPatch(Positions before) {
            this.before = before;
        }

        void put(int position, boolean isIn) {
            (isIn ? in : out).add(position);
        }

        Positions apply() {
            return before.without(of(out)).or(of(in));
        }

        private static Positions of(List<Integer> positions) {
            return Positions.of(positions.stream().mapToInt(p -> p).toArray());
        }
    }

    /** The device at this position as rules see it. */
    DeviceSubject subject(int position) {
        return new DeviceSubject(estate, groups, estate.devices().at(position), () -> namesHolding(position));
    }

    private List<String> namesHolding(int position) {
        return byName.values().stream().filter(c -> collection(c.id()).contains(position)).map(DeviceCollection::name)
                .toList();
    }

    private boolean holds(DeviceCollection collection, int position, DeviceSubject subject) {
        Device device = estate.devices().at(position);
        if (rests(collection)) {
            return false;
        }
        int base = estate.ous().position(collection.base());
        return position >= estate.devices().from(base) && position < estate.devices().to(base)
                && !collection.exclude().contains(device.id())
                && (collection.include().contains(device.id())
                        || collection.rule() != null && rule(collection.rule()).holds(subject));
    }

    int satisfied(int position) {
        DeviceSubject subject = subject(position);
        int satisfied = 0;
        for (Rule rule : asked()) {
            satisfied += rule.holds(subject) ? 1 : 0;
        }
        return satisfied;
    }

    /** The compiled rules that have been asked for. */
    private Rule[] asked() {
        Rule[] known = asked;
        if (known.length != rules.size()) {
            known = rules.keySet().stream().map(this::rule).toArray(Rule[]::new);
            asked = known;
        }
        return known;
    }

    Rule rule(String text) {
        return compiled.computeIfAbsent(text, Rule::parse);
    }

    DeviceAlgebra algebra() {
        return algebra;
    }

    /** The devices that satisfy the rule. */
    Positions satisfying(String text) {
        Positions known = rules.get(text);
        if (known == null) {
            known = rule(text).condition().over(algebra);
            rules.put(text, known);
        }
        return known;
    }

    /** Whether the devices that satisfy the rule have been worked out, and are the very same in both. */
    boolean sharesRuleWith(RuleSets other, String text) {
        Positions mine = rules.get(text);
        return mine != null && mine == other.rules.get(text);
    }

    /** Whether the devices in the collection have been worked out, and are the very same in both. */
    boolean sharesCollectionWith(RuleSets other, String id) {
        Positions mine = collections.get(id);
        return mine != null && mine == other.collections.get(id);
    }

    /** The devices in a known collection. */
    Positions collection(String id) {
        Positions known = collections.get(id);
        if (known == null) {
            for (DeviceCollection asked : inOrder(List.of(Objects.requireNonNull(estate.collections().get(id))))) {
                if (!collections.containsKey(asked.id())) {
                    collections.put(asked.id(), compute(asked));
                }
            }
            known = Objects.requireNonNull(collections.get(id));
        }
        return known;
    }

    private Positions compute(DeviceCollection collection) {
        if (rests(collection)) {
            return Positions.NONE;
        }
        int base = estate.ous().position(collection.base());
        Positions picked = collection.rule() == null ? Positions.NONE
                : rule(collection.rule()).condition().over(algebra);
        return picked.or(devices(collection.include())).without(devices(collection.exclude()))
                .in(estate.devices().from(base), estate.devices().to(base));
    }

    /** Whether its base has gone: then it holds nothing (section 11). */
    private boolean rests(DeviceCollection collection) {
        return collection.base() != null && estate.gone().containsKey(Target.ou(collection.base()));
    }

    /** Those that have gone rest. */
    private Positions devices(List<String> ids) {
        return Positions.of(ids.stream().mapToInt(id -> estate.devices().positionOf(id)).filter(p -> p >= 0).toArray());
    }

    private Positions named(ValueCondition condition) {
        List<Positions> sets = new ArrayList<>();
        for (DeviceCollection collection : byName.values()) {
            if (condition.accepts(collection.name(), estate.asOf())) {
                sets.add(collection(collection.id()));
            }
        }
        return Positions.union(sets);
    }

    /** These and all they ask about, each after those it asks about. Without recursion: chains may be long. */
    private List<DeviceCollection> inOrder(Collection<DeviceCollection> asked) {
        List<DeviceCollection> order = new ArrayList<>();
        Set<String> entered = new HashSet<>();
        Set<String> left = new HashSet<>();
        Deque<DeviceCollection> open = new ArrayDeque<>(asked);
        while (!open.isEmpty()) {
            DeviceCollection next = open.peek();
            if (entered.add(next.id())) {
                asks(next).stream().filter(c -> !entered.contains(c.id())).forEach(open::push);
            } else {
                open.pop();
                if (left.add(next.id())) {
                    order.add(next);
                }
            }
        }
        return order;
    }

    private List<DeviceCollection> asks(DeviceCollection collection) {
        return collection.rule() == null ? List.of() : rule(collection.rule()).collections().stream()
                .map(name -> byName.get(Folding.fold(name))).filter(Objects::nonNull).toList();
    }
}
