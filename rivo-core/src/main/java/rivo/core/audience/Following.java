package rivo.core.audience;

import rivo.core.estate.Estate;

/**
 * Carries audiences over to a newer estate.
 *
 * <p><b>How.</b> Parts that are the very same object cannot differ. Where devices differ but keep their places, only the
 * rules' answers for those devices are asked anew. Where places have shifted, because something moved, appeared or went,
 * kept sets go along to the new places, and those that moved are asked anew. A changed group asks the devices that
 * entered or left it. At another instant only what looks at it is asked again. What is cheap to work out again, is.
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
        boolean sameGone = old.gone().equals(newer.gone());
        if (old.devices() == newer.devices() && old.users() == newer.users() && sameGroups && sameOus && sameCollections
                && sameTime && sameGone) {
            return before.sharing(newer);
        }
        boolean samePlaces = devices.areNone() && users.areNone();
        PersonUnits units = samePlaces && samePeople() ? before.units()
                : before.units().after(newer.devices(), newer.users(), devices, users);
        Groups groups = samePlaces && sameGroups ? before.groups().of(newer)
                : Groups.after(before.groups(), newer, devices, users);
        if (!sameCollections) {
            return before.with(newer, units, groups, RuleSets.anew(before.rules(), newer, groups, units, devices, users),
                    devices, users);
        }
        Positions changed = new Affected(before, newer, groups, units, devices, users).byRules();
        RuleSets rules = changed.size() * 2 > newer.devices().size() + 2
                ? RuleSets.anew(before.rules(), newer, groups, units, devices, users)
                : RuleSets.after(before.rules(), newer, groups, units, devices, users, changed);
        return before.with(newer, units, groups, rules, devices, users);
    }

    /** Whether every device, all at their old places, has the same people. */
    private boolean samePeople() {
        return devices.changed().stream()
                .allMatch(p -> old.devices().at(p).people().equals(newer.devices().at(p).people()));
    }
}
