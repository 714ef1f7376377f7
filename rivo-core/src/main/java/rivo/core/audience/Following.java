package rivo.core.audience;

import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.function.IntUnaryOperator;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Devices;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.User;

/**
 * Carries audiences over to a newer estate.
 *
 * <p><b>How.</b> Parts that are the very same object cannot differ. Where devices differ but keep their places, only the
 * rules' answers for those devices are asked anew. Where places have shifted, because something moved, appeared or went,
 * kept answers go along to the new places, and those that moved are asked anew. A changed group asks the devices that
 * entered or left it. What is cheap to work out again, is.
 */
final class Following {

    private final Audiences before;
    private final Estate old;
    private final Estate newer;

    Following(Audiences before, Estate newer) {
        this.before = before;
        this.old = before.estate();
        this.newer = newer;
    }

    Audiences audiences() {
        boolean sameDevices = old.devices() == newer.devices();
        boolean sameUsers = old.users() == newer.users();
        boolean sameGroups = old.groups().equals(newer.groups());
        boolean sameOus = old.ous() == newer.ous();
        boolean sameCollections = old.collections().equals(newer.collections());
        boolean sameTime = old.asOf().equals(newer.asOf());
        if (sameDevices && sameUsers && sameGroups && sameOus && sameCollections && sameTime) {
            return before.sharing(newer);
        }
        boolean samePlaces = old.devices().sameOrderAs(newer.devices()) && old.users().sameOrderAs(newer.users());
        PersonUnits units = samePlaces && samePeople() ? before.units()
                : new PersonUnits(newer.devices(), newer.users());
        Groups groups = samePlaces && sameGroups ? before.groups().of(newer)
                : samePlaces ? Groups.after(before.groups(), newer) : new Groups(newer);
        if (!sameCollections || !sameTime) {
            return before.with(newer, units, groups, RuleSets.anew(before.rules(), newer, groups, units));
        }
        Positions changed = changed(groups, samePlaces);
        RuleSets rules = changed.size() * 2 > newer.devices().size() + 2
                ? RuleSets.anew(before.rules(), newer, groups, units)
                : RuleSets.after(before.rules(), newer, groups, units, samePlaces ? null : moved(), changed);
        return before.with(newer, units, groups, rules);
    }

    /** Where each old position is now; -1 for what has gone, which no set then holds. */
    private IntUnaryOperator moved() {
        Devices from = old.devices();
        return p -> newer.devices().positionOf(from.at(p).id());
    }

    /** The new positions of the devices about which a rule may say something else now. */
    private Positions changed(Groups groups, boolean samePlaces) {
        PositionsBuilder changed = new PositionsBuilder(0, newer.devices().size());
        if (old.ous() == newer.ous() && old.users() == newer.users() && samePlaces) {
            addChanged(changed);
        } else {
            addChangedOrMoved(changed);
        }
        if (!old.groups().equals(newer.groups())) {
            addMembersOfChanged(groups, changed);
        }
        return changed.build();
    }

    /** A look at each device, and no more. */
    private void addChanged(PositionsBuilder changed) {
        for (int p = 0; p < newer.devices().size(); p++) {
            if (old.devices().at(p) != newer.devices().at(p)) {
                changed.add(p);
            }
        }
    }

    private void addChangedOrMoved(PositionsBuilder changed) {
        Map<String, Boolean> sameOu = new HashMap<>();
        for (int p = 0; p < newer.devices().size(); p++) {
            Device device = newer.devices().at(p);
            if (old.devices().find(device.id()) != device || !samePlace(device.ou(), sameOu)
                    || !samePeople(device, sameOu)) {
                changed.add(p);
            }
        }
    }

    /** Whether every device, all at their old places, has the same people. */
    private boolean samePeople() {
        for (int p = 0; p < newer.devices().size(); p++) {
            Device was = old.devices().at(p);
            Device is = newer.devices().at(p);
            if (was != is && !was.people().equals(is.people())) {
                return false;
            }
        }
        return true;
    }

    private boolean samePeople(Device device, Map<String, Boolean> sameOu) {
        for (String id : device.people()) {
            User user = newer.users().find(id);
            if (user == null || user != old.users().find(id) || !samePlace(user.ou(), sameOu)) {
                return false;
            }
        }
        return true;
    }

    /** Whether the OU has the same DNs above it as before. */
    private boolean samePlace(@Nullable String ou, Map<String, Boolean> known) {
        return old.ous() == newer.ous() || ou == null || known.computeIfAbsent(ou, id -> old.ous().find(id) != null
                && Elements.dns(old, id).equals(Elements.dns(newer, id)));
    }

    private void addMembersOfChanged(Groups groups, PositionsBuilder changed) {
        for (Group group : newer.groups().values()) {
            Groups.Members now = groups.of(group.id());
            if (!group.equals(old.groups().get(group.id())) || !isShared(group.id(), now)) {
                add(now, newer, changed);
            }
        }
        for (Group group : old.groups().values()) {
            if (!newer.groups().containsKey(group.id()) || !isShared(group.id(), groups.of(group.id()))) {
                add(before.groups().of(group.id()), old, changed);
            }
        }
    }

    private boolean isShared(String group, Groups.Members now) {
        return old.groups().containsKey(group) && before.groups().of(group) == now
                && Objects.equals(old.groups().get(group), newer.groups().get(group));
    }

    /** The devices of the members and of their people, at their new places. */
    private void add(Groups.Members members, Estate estate, PositionsBuilder changed) {
        PersonUnits units = estate == old ? before.units() : new PersonUnits(newer.devices(), newer.users());
        Positions all = members.devices().or(units.devicesOf(units.ofUsers(members.users())));
        all.forEach(p -> changed.add(newer.devices().positionOf(estate.devices().at(p).id())));
    }
}
