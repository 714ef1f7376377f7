package rivo.server.directory;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.directory.Differences;
import rivo.directory.DirectoryPicture;
import rivo.directory.DirectoryPicture.ComputerEntry;
import rivo.directory.DirectoryPicture.GroupEntry;
import rivo.directory.DirectoryPicture.Identified;
import rivo.directory.DirectoryPicture.Member;
import rivo.directory.DirectoryPicture.MemberKind;
import rivo.directory.DirectoryPicture.OuEntry;
import rivo.directory.DirectoryPicture.UserEntry;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.EstateRecords;
import rivo.server.estate.GroupLists;

/** The directory's rows in H2: the picture that is held, and how differences are written to it. */
final class DirectoryRecords {

    private DirectoryRecords() {
    }

    static DirectoryPicture held(JdbcClient db) {
        List<OuEntry> ous = db.sql("select * from ous").query((row, n) -> new OuEntry(row.getString("id"),
                row.getString("dn"), row.getString("name"), row.getString("parent"))).list();
        List<UserEntry> users = db.sql("select * from users").query((row, n) -> new UserEntry(row.getString("id"),
                row.getString("dn"), row.getString("account"), row.getString("full_name"), row.getString("mail"),
                row.getString("department"), row.getString("ou"), row.getBoolean("enabled"))).list();
        Map<String, List<String>> people = new LinkedHashMap<>();
        db.sql("select * from computer_people order by computer, place").query((row, n) -> people
                .computeIfAbsent(row.getString("computer"), k -> new ArrayList<>()).add(row.getString("person")))
                .list();
        List<ComputerEntry> computers = db.sql("select * from computers").query((row, n) -> new ComputerEntry(
                row.getString("id"), row.getString("dn"), row.getString("name"), row.getString("ou"),
                row.getBoolean("enabled"), people.getOrDefault(row.getString("id"), List.of()))).list();
        GroupLists<Member> lists = lists(db, null);
        List<GroupEntry> groups = db.sql("select * from directory_groups").query((row, n) -> new GroupEntry(
                row.getString("id"), row.getString("dn"), row.getString("name"), lists.of(row.getString("id")))).list();
        return new DirectoryPicture(ous, users, computers, groups, List.of());
    }

    /** @param only the ids of the groups; null for all */
    static GroupLists<Member> lists(JdbcClient db, @Nullable Set<String> only) {
        return new EstateRecords(db).lists(only, member -> new Member(MemberKind.valueOf(member.kind().name()), member.id()));
    }

    static void writeOus(ChangeContext context, Differences<OuEntry> ous) {
        write(context, ous, "ous", "(id, dn, name, parent) values (?, ?, ?, ?)",
                ou -> new Object[] {ou.id(), ou.dn(), ou.name(), ou.parent()});
    }

    static void writeUsers(ChangeContext context, Differences<UserEntry> users) {
        MembershipChanges.noteUsers(context, users);
        write(context, users, "users",
                "(id, dn, account, full_name, mail, department, ou, enabled) values (?, ?, ?, ?, ?, ?, ?, ?)",
                user -> new Object[] {user.id(), user.dn(), user.account(), user.fullName(), user.mail(),
                    user.department(), user.ou(), user.enabled()});
    }

    static void writeComputers(ChangeContext context, Differences<ComputerEntry> computers) {
        MembershipChanges.noteComputers(context, computers);
        write(context, computers, "computers", "(id, dn, name, ou, enabled) values (?, ?, ?, ?, ?)",
                computer -> new Object[] {computer.id(), computer.dn(), computer.name(), computer.ou(),
                    computer.enabled()});
        dependents(context, computers, "delete from computer_people where computer = ?",
                "insert into computer_people (computer, place, person) values (?, ?, ?)", computer -> {
                    List<Object[]> rows = new ArrayList<>();
                    computer.people().forEach(p -> rows.add(new Object[] {computer.id(), rows.size(), p}));
                    return rows;
                });
    }

    static void writeGroups(ChangeContext context, Differences<GroupEntry> groups) {
        MembershipChanges.noteGroups(context, groups.changed());
        write(context, groups, "directory_groups", "(id, dn, name) values (?, ?, ?)",
                group -> new Object[] {group.id(), group.dn(), group.name()});
        dependents(context, groups, GroupLists.DELETE, GroupLists.INSERT,
                group -> GroupLists.rows(group.id(), group.members().stream().map(MembershipChanges::target).toList()));
    }

    private static <T extends Identified> void write(ChangeContext context, Differences<T> differences, String table,
            String columns, Function<T, Object[]> row) {
        context.batch("delete from " + table + " where id = ?", outdated(differences));
        context.batch("insert into " + table + " " + columns, differences.put().stream().map(row).toList());
    }

    private static <T extends Identified> void dependents(ChangeContext context, Differences<T> differences, String delete,
            String insert, Function<T, List<Object[]>> rowsOf) {
        context.batch(delete, outdated(differences));
        context.batch(insert, differences.put().stream().flatMap(one -> rowsOf.apply(one).stream()).toList());
    }

    /** What a statement takes that deletes by id, row by row. */
    static List<Object[]> outdated(Differences<? extends Identified> differences) {
        return differences.outdated().stream().map(id -> new Object[] {id}).toList();
    }
}
