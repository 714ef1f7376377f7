package rivo.core.audience;

import java.util.HashSet;
import java.util.Objects;
import java.util.Set;
import rivo.core.estate.Assignment;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.OuTree;
import rivo.core.estate.Target;

/**
 * The devices for which something may be different in a newer estate, at their new positions: they or their people are
 * another object, stand under other OUs or behind other fences, or entered or left a group or collection. Of one thread.
 */
final class Affected {

    private final Audiences before;
    private final Estate old;
    private final Estate newer;
    private final Groups groups;
    private final PersonUnits units;
    private final Moves devices;
    private final Moves users;
    private final PositionsBuilder affected;
    private final PositionsBuilder people;

    /**
     * @param groups of the newer estate
     * @param units of the newer estate
     */
    Affected(Audiences before, Estate newer, Groups groups, PersonUnits units, Moves devices, Moves users) {
        this.before = before;
        this.old = before.estate();
        this.newer = newer;
        this.groups = groups;
        this.units = units;
        this.devices = devices;
        this.users = users;
        this.affected = new PositionsBuilder(0, newer.devices().size()).addAll(devices.changed());
        this.people = new PositionsBuilder(0, newer.users().size()).addAll(users.changed());
    }

    /** Those about which a rule may say something else, in an estate with the same collections at the same time. */
    Positions byRules() {
        if (old.ous() != newer.ous()) {
            addUnderOtherOus();
        }
        if (!old.groups().equals(newer.groups())) {
            addMembersOfChanged();
        }
        return affected.addAll(units.devicesOf(units.ofUsers(people.build()))).build();
    }

    /** Those for whom anything in the audiences may be different, at the same time. */
    Positions byAnything(RuleSets was, RuleSets is) {
        if (!old.gone().equals(newer.gone())) {
            addLastHeldByOthers();
        }
        if (old.ous() != newer.ous()) {
            addBehindOtherFences();
        }
        if (was != is) {
            addMembersOfOtherCollections(was, is);
        }
        return byRules();
    }

    /** Adds what is in an OU that is not where it was, or is called otherwise, or something above it is. */
    private void addUnderOtherOus() {
        OuTree ous = newer.ous();
        boolean[] same = new boolean[ous.size()];
        for (int p = 0; p < same.length; p++) {
            Ou ou = ous.at(p);
            Ou known = old.ous().find(ou.id());
            same[p] = known != null && ou.dn().equals(known.dn()) && Objects.equals(known.parent(), ou.parent())
                    && (p == 0 || same[ous.parent(p)]);
            if (!same[p]) {
                addAllIn(p);
            }
        }
    }

    private void addAllIn(int ou) {
        affected.addAll(Positions.range(newer.devices().from(ou), newer.devices().to(ou)));
        people.addAll(Positions.range(newer.users().from(ou), newer.users().to(ou)));
    }

    private void addBehindOtherFences() {
        for (int p = 0; p < newer.ous().size(); p++) {
            Ou known = old.ous().find(newer.ous().at(p).id());
            if (known == null || known.fenced() != newer.ous().at(p).fenced()) {
                addAllIn(p);
            }
        }
    }

    /** What has gone holds nobody, but keeps those out whom it last held. */
    private void addLastHeldByOthers() {
        Set<GoneReference> others = new HashSet<>(old.gone().values());
        others.addAll(newer.gone().values());
        for (GoneReference gone : others) {
            if (!gone.equals(old.gone().get(gone.target())) || !gone.equals(newer.gone().get(gone.target()))) {
                gone.devices().stream().mapToInt(newer.devices()::positionOf).filter(p -> p >= 0).forEach(affected::add);
                gone.users().stream().mapToInt(newer.users()::positionOf).filter(p -> p >= 0).forEach(people::add);
                addWhereLeaving(gone.target());
            }
        }
    }

    /** Where a base has gone or is back, what its assignments put on anywhere stays or may leave. */
    private void addWhereLeaving(Target base) {
        Set<String> leaving = new HashSet<>();
        for (Assignment assignment : newer.assignments().all()) {
            if (base.equals(assignment.base() == null ? null : Target.ou(assignment.base())) && assignment.removesWhatItLeaves(newer.asOf())) {
                leaving.add(assignment.id());
            }
        }
        for (int d = 0; !leaving.isEmpty() && d < newer.devices().size(); d++) {
            if (newer.devices().at(d).present().stream().anyMatch(p -> p.by() != null && leaving.contains(p.by()))) {
                affected.add(d);
            }
        }
    }

    private void addMembersOfChanged() {
        Set<String> changed = groups.changedSince(before.groups());
        Set<String> all = new HashSet<>(old.groups().keySet());
        all.addAll(newer.groups().keySet());
        for (String id : all) {
            Group was = old.groups().get(id);
            Group is = newer.groups().get(id);
            boolean renamed = was != null && is != null && !was.name().equals(is.name());
            if (!renamed && is != null && !changed.contains(id)) {
                continue;
            }
            Groups.Members had = was == null ? Groups.Members.NONE : before.groups().of(id).at(devices, users);
            Groups.Members has = is == null ? Groups.Members.NONE : groups.of(id);
            affected.addAll(renamed ? had.devices().or(has.devices()) : either(had.devices(), has.devices()));
            people.addAll(renamed ? had.users().or(has.users()) : either(had.users(), has.users()));
        }
    }

    /** Rules ask for a collection's name, and fences for its base: where these differ, all its members are concerned. */
    private void addMembersOfOtherCollections(RuleSets was, RuleSets is) {
        Set<String> all = new HashSet<>(old.collections().keySet());
        all.addAll(newer.collections().keySet());
        for (String id : all) {
            DeviceCollection before = old.collections().get(id);
            DeviceCollection now = newer.collections().get(id);
            Positions had = before == null ? Positions.NONE : devices.of(was.collection(id));
            Positions has = now == null ? Positions.NONE : is.collection(id);
            boolean alike = before != null && now != null && before.name().equals(now.name())
                    && Objects.equals(before.base(), now.base());
            affected.addAll(alike ? either(had, has) : had.or(has));
        }
    }

    /** What is in one of the two only. */
    private static Positions either(Positions one, Positions other) {
        return one.without(other).or(other.without(one));
    }
}
