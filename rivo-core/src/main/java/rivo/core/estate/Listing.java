package rivo.core.estate;

import java.util.ArrayList;
import java.util.List;

/**
 * What a group lists itself.
 *
 * @param devices the numbers of those of its devices that there are, in its order; the array must not be changed
 * @param users the same of its people
 * @param groups the ids of its groups, in its order
 */
record Listing(int[] devices, int[] users, List<String> groups) {

    static Listing of(Group group, IdIndex devices, IdIndex users) {
        NumberList listedDevices = new NumberList(0);
        NumberList listedUsers = new NumberList(0);
        IdIndex.Finder findDevices = devices.new Finder(number -> addKnown(listedDevices, number));
        IdIndex.Finder findUsers = users.new Finder(number -> addKnown(listedUsers, number));
        List<String> groups = new ArrayList<>();
        for (Target member : group.members()) {
            switch (member.kind()) {
                case DEVICE -> findDevices.ask(member.id());
                case USER -> findUsers.ask(member.id());
                case GROUP -> groups.add(member.id());
                default -> { }
            }
        }
        findDevices.end();
        findUsers.end();
        return new Listing(listedDevices.toArray(), listedUsers.toArray(), List.copyOf(groups));
    }

    private static void addKnown(NumberList numbers, int number) {
        if (number >= 0) {
            numbers.add(number);
        }
    }

    /** How many members these are. */
    int size() {
        return devices.length + users.length + groups.size();
    }
}
