package rivo.core.audience;

import java.util.List;
import rivo.core.estate.Group;

/**
 * What a group is made of. Immutable; safe for any thread.
 *
 * @param devices that it lists itself
 * @param people how many it lists itself
 * @param parts the groups that it lists, in the directory's order
 * @param holders the groups that list it
 * @param circle the other groups with which it holds each other, so that all of them hold the same; none where it is in no circle
 */
public record GroupMakeup(DeviceSet devices, int people, List<Part> parts, List<Group> holders, List<Group> circle) {

    public GroupMakeup {
        parts = List.copyOf(parts);
        holders = List.copyOf(holders);
        circle = List.copyOf(circle);
    }

    /**
     * A group that is listed.
     *
     * @param devices that it holds, nested ones too
     * @param people how many it holds, nested ones too
     * @param inCircle whether it holds the group that lists it
     */
    public record Part(Group group, DeviceSet devices, int people, boolean inCircle) {
    }
}
