package rivo.server.directory;

import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import rivo.directory.Differences;
import rivo.directory.DirectoryPicture;
import rivo.directory.DirectoryPicture.ComputerEntry;
import rivo.directory.DirectoryPicture.GroupEntry;
import rivo.directory.DirectoryPicture.Member;
import rivo.directory.DirectoryPicture.MemberKind;
import rivo.server.estate.ChangeContext;

/**
 * What one scan changes about the computers with a disabled account that groups list. They have rows of their own ({@code disabled_members}),
 * since the lists are kept by group, and nothing else is asked by member.
 *
 * @param rows those of them in groups that are new or have changed, and those that are new or have changed in every group
 * @param enabledIn the ids of the groups that list a computer which is enabled again: nothing about them is new, and they hold it again
 */
record DisabledMembers(Set<Row> rows, Set<String> enabledIn) {

    /** One computer on the list of one group. */
    record Row(String group, String computer) {
    }

    /** Looks through every group where a computer was enabled or disabled, and else through those alone that are new or have changed. */
    static DisabledMembers between(DirectoryPicture held, DirectoryPicture found, Differences<ComputerEntry> computers, Differences<GroupEntry> groups) {
        Set<String> before = disabled(held.computers());
        Set<String> after = disabled(found.computers());
        Set<String> newlyDisabled = disabled(computers.put());
        Set<String> enabled = computers.put().stream().filter(ComputerEntry::enabled).map(ComputerEntry::id).filter(before::contains).collect(Collectors.toSet());
        Set<String> written = groups.put().stream().map(GroupEntry::id).collect(Collectors.toSet());
        List<GroupEntry> looked = newlyDisabled.isEmpty() && enabled.isEmpty() ? groups.put() : found.groups();
        DisabledMembers all = new DisabledMembers(new LinkedHashSet<>(), new HashSet<>());
        for (GroupEntry group : looked) {
            Set<String> told = written.contains(group.id()) ? after : newlyDisabled;
            for (Member member : group.members()) {
                if (member.kind() == MemberKind.DEVICE && told.contains(member.id())) {
                    all.rows.add(new Row(group.id(), member.id()));
                } else if (member.kind() == MemberKind.DEVICE && enabled.contains(member.id())) {
                    all.enabledIn.add(group.id());
                }
            }
        }
        return all;
    }

    private static Set<String> disabled(Collection<ComputerEntry> computers) {
        return computers.stream().filter(computer -> !computer.enabled()).map(ComputerEntry::id).collect(Collectors.toSet());
    }

    void write(ChangeContext context, Differences<ComputerEntry> computers, Differences<GroupEntry> groups) {
        context.batch("delete from disabled_members where group_id = ?", DirectoryRecords.outdated(groups));
        context.batch("delete from disabled_members where computer = ?", DirectoryRecords.outdated(computers));
        context.batch("insert into disabled_members (group_id, computer) values (?, ?)",
                rows.stream().map(row -> new Object[] {row.group(), row.computer()}).toList());
    }
}
