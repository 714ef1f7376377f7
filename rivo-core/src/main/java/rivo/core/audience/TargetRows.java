package rivo.core.audience;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.OuTree;
import rivo.core.estate.Target;
import rivo.core.estate.User;

/**
 * Makes the rows of targets: which of those that pairs have been made of hold a device, or one of its people. Safe for
 * any thread.
 *
 * <p><b>How.</b> The numbers of OUs stand by the OUs' positions, those of groups by their members', so that a row is read
 * off rather than probed for. These tables are laid out when the first row is asked for, and again when more targets have
 * got a number.
 */
final class TargetRows {

    private final Estate estate;
    private final PersonUnits units;
    private final TargetNumbers numbers;
    private final Groups groups;
    private final RuleSets rules;
    /** What is the same is taken from it. */
    private volatile @Nullable Earlier earlier;
    private volatile @Nullable Tables tables;

    /**
     * What an older estate had, without that estate itself.
     *
     * @param devices what has become of the devices since
     * @param sameGroups whether every group lists the same since
     */
    private record Earlier(Memberships ofDevices, Memberships ofPeople, Moves devices, Moves people, boolean sameGroups) {

        Earlier then(Moves nextDevices, Moves nextPeople, boolean nextSameGroups) {
            return new Earlier(ofDevices, ofPeople, devices.then(nextDevices), people.then(nextPeople), sameGroups && nextSameGroups);
        }
    }

    private TargetRows(Estate estate, PersonUnits units, TargetNumbers numbers, Groups groups, RuleSets rules, @Nullable Earlier earlier) {
        this.estate = estate;
        this.units = units;
        this.numbers = numbers;
        this.groups = groups;
        this.rules = rules;
        this.earlier = earlier;
    }

    TargetRows(Estate estate, PersonUnits units, TargetNumbers numbers, Groups groups, RuleSets rules) {
        this(estate, units, numbers, groups, rules, null);
    }

    /** Those of a newer estate. */
    TargetRows after(Estate newer, PersonUnits newUnits, Groups newGroups, RuleSets newRules, Moves devices, Moves people) {
        Earlier known = known();
        return new TargetRows(newer, newUnits, numbers, newGroups, newRules, known == null ? null
                : known.then(devices, people, estate.groups().equals(newer.groups())));
    }

    /** Costs a step for each OU above, each group that holds the device or its people, and each collection. */
    TargetRow row(int position) {
        Tables now = tables();
        Device device = estate.devices().at(position);
        int from = units.from(position);
        int to = units.to(position);
        boolean simple = to - from <= 1 && !estate.ous().isFenced(estate.ous().position(device.ou()));
        TargetRow row = new TargetRow(numbers.size());
        now.devices.add(row, position, estate.ous().position(device.ou()), Target.device(device.id()));
        for (int c = 0; c < now.collections.length; c++) {
            if (now.collections[c].contains(position)) {
                row.add(now.collectionNumbers[c]);
            }
        }
        for (int unit = from; unit < to; unit++) {
            int user = units.user(unit);
            User person = estate.users().at(user);
            int ou = estate.ous().position(person.ou());
            simple = simple && !estate.ous().isFenced(ou);
            now.people.add(row, user, ou, Target.user(person.id()));
        }
        if (simple) {
            row.markSimple();
        }
        return row;
    }

    private Tables tables() {
        Tables known = tables;
        return known == null || known.of != numbers.size() ? laidOut() : known;
    }

    /** By one of those who ask at once; the others wait for it. */
    private synchronized Tables laidOut() {
        Tables known = tables;
        if (known == null || known.of != numbers.size()) {
            known = new Tables(known());
            tables = known;
            earlier = null;
        }
        return known;
    }

    private @Nullable Earlier known() {
        Tables known = tables;
        return known == null ? earlier : new Earlier(known.devices.memberships, known.people.memberships, Moves.none(estate.devices().size()),
                Moves.none(estate.users().size()), true);
    }

    /** @param moves since those before, where the sets are the same but for them; null where they are not */
    private static Memberships memberships(int size, List<Positions> sets, int[] names, @Nullable Memberships before, @Nullable Moves moves) {
        if (before != null && before.isOf(size, sets, names)) {
            return before;
        }
        return before != null && moves != null && !moves.haveNew() && before.areCalled(names) ? before.moved(moves, size, sets)
                : new Memberships(size, sets, names);
    }

    /** What is there for so many numbers. */
    private final class Tables {

        private final int of = numbers.size();
        private final Side devices;
        private final Side people;
        private final Positions[] collections;
        private final int[] collectionNumbers;

        Tables(@Nullable Earlier before) {
            devices = new Side(Follows.DEVICE, (sets, names) -> memberships(estate.devices().size(), sets, names,
                    before == null ? null : before.ofDevices, before == null || !before.sameGroups ? null : before.devices));
            people = new Side(Follows.USER, (sets, names) -> memberships(estate.users().size(), sets, names,
                    before == null ? null : before.ofPeople, before == null || !before.sameGroups ? null : before.people));
            List<String> named = estate.collections().keySet().stream()
                    .filter(id -> numbers.find(Target.collection(id), Follows.DEVICE) >= 0).toList();
            collections = named.stream().map(rules::collection).toArray(Positions[]::new);
            collectionNumbers = named.stream().mapToInt(id -> numbers.find(Target.collection(id), Follows.DEVICE)).toArray();
        }
    }

    /** The targets by which one side is meant: the devices themselves, or people. */
    private final class Side {

        private final Follows side;
        private final int everyone;
        /** By the position of the OU; -1 for one of which no pair has been made. */
        private final int[] ofOu;
        private final Memberships memberships;

        /** @param layOut lays out the sets of the groups, which are called so */
        Side(Follows side, BiFunction<List<Positions>, int[], Memberships> layOut) {
            this.side = side;
            OuTree ous = estate.ous();
            this.everyone = numbers.find(side == Follows.DEVICE ? Target.ALL_DEVICES : Target.ALL_USERS, side);
            this.ofOu = new int[ous.size()];
            for (int p = 0; p < ofOu.length; p++) {
                ofOu[p] = numbers.find(Target.ou(ous.at(p).id()), side);
            }
            List<Positions> sets = new ArrayList<>();
            List<Integer> found = new ArrayList<>();
            for (String id : estate.groups().keySet()) {
                int number = numbers.find(Target.group(id), side);
                if (number >= 0) {
                    sets.add(side == Follows.DEVICE ? groups.of(id).devices() : groups.of(id).users());
                    found.add(number);
                }
            }
            this.memberships = layOut.apply(sets, found.stream().mapToInt(n -> n).toArray());
        }

        void add(TargetRow row, int position, int ou, Target one) {
            if (everyone >= 0) {
                row.add(everyone);
            }
            int number = numbers.find(one, side);
            if (number >= 0) {
                row.add(number);
            }
            for (int p = ou; p >= 0; p = estate.ous().parent(p)) {
                if (ofOu[p] >= 0) {
                    row.add(ofOu[p]);
                }
            }
            memberships.addTo(row, position);
        }
    }
}
