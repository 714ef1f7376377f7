package rivo.core.audience;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
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
    /** Of an older estate, for each side: what is the same in both is taken from them. Not the estate itself. */
    private volatile List<Memberships> earlier;
    private volatile @Nullable Tables tables;

    TargetRows(Estate estate, PersonUnits units, TargetNumbers numbers, Groups groups, RuleSets rules,
            @Nullable TargetRows before) {
        this.estate = estate;
        this.units = units;
        this.numbers = numbers;
        this.groups = groups;
        this.rules = rules;
        this.earlier = before == null ? List.of() : before.memberships();
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
        if (known == null || known.of != numbers.size()) {
            known = new Tables(memberships());
            tables = known;
            earlier = List.of();
        }
        return known;
    }

    private List<Memberships> memberships() {
        Tables known = tables;
        return known == null ? earlier : List.of(known.devices.memberships, known.people.memberships);
    }

    /** What is there for so many numbers. */
    private final class Tables {

        private final int of = numbers.size();
        private final Side devices;
        private final Side people;
        private final Positions[] collections;
        private final int[] collectionNumbers;

        Tables(List<Memberships> before) {
            devices = new Side(Follows.DEVICE, estate.devices().size(), id -> groups.of(id).devices(),
                    before.isEmpty() ? null : before.get(0));
            people = new Side(Follows.USER, estate.users().size(), id -> groups.of(id).users(),
                    before.isEmpty() ? null : before.get(1));
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

        Side(Follows side, int size, Function<String, Positions> members, @Nullable Memberships before) {
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
                    sets.add(members.apply(id));
                    found.add(number);
                }
            }
            int[] names = found.stream().mapToInt(n -> n).toArray();
            this.memberships = before != null && before.isOf(size, sets, names) ? before
                    : new Memberships(size, sets, names);
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
