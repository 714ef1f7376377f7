package rivo.server.directory;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Target;
import rivo.directory.DirectoryPicture.GroupEntry;
import rivo.directory.DirectoryPicture.Member;
import rivo.directory.DirectoryPicture.MemberKind;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.Rows;

/** Who came into the groups of the directory and who left them, by what each group itself lists. */
public final class MembershipChanges {

    private static final Duration KEPT = Duration.ofDays(90);
    /** Of a group that changes more at once no member is told by itself. */
    private static final int MOST_AT_ONCE = 1000;

    /** One of them. @param came whether the member came; else it left */
    public record MembershipChange(String group, Target member, boolean came, Instant at) {
    }

    private MembershipChanges() {
    }

    /** Those of these groups, the newest first. */
    public static List<MembershipChange> of(JdbcClient db, Collection<String> groups, int most) {
        return groups.isEmpty() ? List.of() : db.sql("select * from membership_changes where group_id in (:groups) order by number desc limit :most")
                .param("groups", groups).param("most", most).query((row, n) -> new MembershipChange(row.getString("group_id"),
                        target(MemberKind.valueOf(row.getString("kind")), row.getString("member")), row.getBoolean("came"), Rows.instant(row, "at"))).list();
    }

    private static Target target(MemberKind kind, String id) {
        return switch (kind) {
            case DEVICE -> Target.device(id);
            case USER -> Target.user(id);
            case GROUP -> Target.group(id);
        };
    }

    /** Notes how groups will differ from what is on record of them; called before that is replaced. */
    static void note(ChangeContext context, List<GroupEntry> changed) {
        List<Object[]> rows = new ArrayList<>();
        for (GroupEntry group : changed) {
            Set<Member> before = new LinkedHashSet<>(context.db().sql("select kind, member from group_members where group_id = ?").params(group.id())
                    .query((row, n) -> new Member(MemberKind.valueOf(row.getString("kind")), row.getString("member"))).list());
            Set<Member> after = new LinkedHashSet<>(group.members());
            List<Object[]> own = new ArrayList<>();
            after.stream().filter(member -> !before.contains(member)).forEach(member -> own.add(row(context, group, member, true)));
            before.stream().filter(member -> !after.contains(member)).forEach(member -> own.add(row(context, group, member, false)));
            if (own.size() <= MOST_AT_ONCE) {
                rows.addAll(own);
            }
        }
        if (!rows.isEmpty()) {
            context.db().sql("delete from membership_changes where at < ?").params(Rows.at(context.now().minus(KEPT))).update();
            context.batch("insert into membership_changes (group_id, kind, member, came, at) values (?, ?, ?, ?, ?)", rows);
        }
    }

    private static Object[] row(ChangeContext context, GroupEntry group, Member member, boolean came) {
        return new Object[] {group.id(), member.kind().name(), member.id(), came, Rows.at(context.now())};
    }
}
