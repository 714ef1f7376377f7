package rivo.core.audience;

import java.util.HashSet;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.OuTree;

/**
 * Carries audiences over to a newer estate.
 *
 * <p><b>How.</b> Parts that are the very same object cannot differ. Where devices differ but keep their places, only the
 * rules' answers for those devices are asked anew. Where places have shifted, because something moved, appeared or went,
 * kept sets go along to the new places, and those that moved are asked anew. A changed group asks the devices that
 * entered or left it. What is cheap to work out again, is.
 */
final class Following {

    private final Audiences before;
    private final Estate old;
    private final Estate newer;
    private final Moves devices;
    private final Moves users;

    Following(Audiences before, Estate newer) {
        this.before = before;
        this.old = before.estate();
        this.newer = newer;
        this.devices = Moves.between(old.devices(), newer.devices());
        this.users = Moves.between(old.users(), newer.users());
    }

    Step step() {
        return new Step(before, audiences(), devices, users);
    }

    private Audiences audiences() {
        boolean sameGroups = old.groups().equals(newer.groups());
        boolean sameOus = old.ous() == newer.ous();
        boolean sameCollections = old.collections().equals(newer.collections());
        boolean sameTime = old.asOf().equals(newer.asOf());
        if (old.devices() == newer.devices() && old.users() == newer.users() && sameGroups && sameOus && sameCollections
                && sameTime) {
            return before.sharing(newer);
        }
        boolean samePlaces = devices.areNone() && users.areNone();
        PersonUnits units = samePlaces && samePeople() ? before.units()
                : before.units().after(newer.devices(), newer.users(), devices, users);
        Groups groups = samePlaces && sameGroups ? before.groups().of(newer)
                : Groups.after(before.groups(), newer, devices, users);
        if (!sameCollections || !sameTime) {
            return before.with(newer, units, groups, RuleSets.anew(before.rules(), newer, groups, units, devices, users),
                    devices);
        }
        Positions changed = changed(groups, units);
        RuleSets rules = changed.size() * 2 > newer.devices().size() + 2
                ? RuleSets.anew(before.rules(), newer, groups, units, devices, users)
                : RuleSets.after(before.rules(), newer, groups, units, devices, users, changed);
        return before.with(newer, units, groups, rules, devices);
    }

    /** Whether every device, all at their old places, has the same people. */
    private boolean samePeople() {
        return devices.changed().stream()
                .allMatch(p -> old.devices().at(p).people().equals(newer.devices().at(p).people()));
    }

    /** The new positions of the devices about which a rule may say something else now. */
    private Positions changed(Groups groups, PersonUnits units) {
        PositionsBuilder changed = new PositionsBuilder(0, newer.devices().size());
        changed.addAll(devices.changed());
        PositionsBuilder people = new PositionsBuilder(0, newer.users().size());
        people.addAll(users.changed());
        if (old.ous() != newer.ous()) {
            addUnderOtherOus(changed, people);
        }
        if (!old.groups().equals(newer.groups())) {
            addMembersOfChanged(groups, changed, people);
        }
        return changed.addAll(units.devicesOf(units.ofUsers(people.build()))).build();
    }

    /** Adds what is in an OU that is not where it was, or is called otherwise, or something above it is. */
    private void addUnderOtherOus(PositionsBuilder changed, PositionsBuilder people) {
        OuTree ous = newer.ous();
        boolean[] same = new boolean[ous.size()];
        for (int p = 0; p < same.length; p++) {
            same[p] = ous.at(p).dn().equals(dnBefore(ous.at(p).id())) && Objects.equals(parentBefore(ous.at(p).id()),
                    ous.at(p).parent()) && (p == 0 || same[ous.parent(p)]);
            if (!same[p]) {
                changed.addAll(Positions.range(newer.devices().from(p), newer.devices().to(p)));
                people.addAll(Positions.range(newer.users().from(p), newer.users().to(p)));
            }
        }
    }

    private @Nullable String dnBefore(String ou) {
        var known = old.ous().find(ou);
        return known == null ? null : known.dn();
    }

    private @Nullable String parentBefore(String ou) {
        var known = old.ous().find(ou);
        return known == null ? null : known.parent();
    }

    private void addMembersOfChanged(Groups groups, PositionsBuilder changed, PositionsBuilder people) {
        Set<String> all = new HashSet<>(old.groups().keySet());
        all.addAll(newer.groups().keySet());
        for (String id : all) {
            Group was = old.groups().get(id);
            Group is = newer.groups().get(id);
            boolean renamed = was != null && is != null && !was.name().equals(is.name());
            if (!renamed && groups.isUnchanged(id)) {
                continue;
            }
            Groups.Members had = was == null ? Groups.Members.NONE : before.groups().of(id).at(devices, users);
            Groups.Members has = is == null ? Groups.Members.NONE : groups.of(id);
            changed.addAll(renamed ? had.devices().or(has.devices()) : either(had.devices(), has.devices()));
            people.addAll(renamed ? had.users().or(has.users()) : either(had.users(), has.users()));
        }
    }

    /** What is in one of the two only. */
    private static Positions either(Positions one, Positions other) {
        return one.without(other).or(other.without(one));
    }
}
