package rivo.server.directory;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Target;
import rivo.directory.Differences;
import rivo.directory.DirectoryPicture.ComputerEntry;
import rivo.directory.DirectoryPicture.GroupEntry;
import rivo.directory.DirectoryPicture.Identified;
import rivo.directory.DirectoryPicture.Member;
import rivo.directory.DirectoryPicture.MemberKind;
import rivo.directory.DirectoryPicture.UserEntry;
import rivo.server.audience.Names;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.Rows;

/**
 * Who came into groups, OUs and collections and who left them: groups by what each of them lists itself, OUs by what is in each of them itself.
 * Kept for three months. Where more than {@value #MOST_AT_ONCE} come and go at once, none is told by itself.
 */
public final class MembershipChanges {

    public static final int MOST_AT_ONCE = 1000;

    private static final Duration KEPT = Duration.ofDays(90);
    private static final int LONGEST_WHY = 1000;

    /**
     * One of them.
     *
     * @param audience the group, OU or collection
     * @param came whether the member came; else it left
     * @param why in words; null where it goes without saying
     * @param name of the member as it was then; null where nothing was known of it yet
     */
    public record MembershipChange(Target audience, Target member, boolean came, Instant at, @Nullable String why, @Nullable String name) {
    }

    private MembershipChanges() {
    }

    /** Those of these audiences, the newest first. */
    public static List<MembershipChange> of(JdbcClient db, Collection<Target> audiences, int most) {
        return audiences.isEmpty() ? List.of() : db.sql("select * from membership_changes where audience in (:audiences) order by number desc limit :most")
                .param("audiences", audiences.stream().map(Target::toString).toList()).param("most", most).query((row, n) -> new MembershipChange(
                        Objects.requireNonNull(Target.parse(row.getString("audience"))), target(MemberKind.valueOf(row.getString("kind")),
                                row.getString("member")), row.getBoolean("came"), Rows.instant(row, "at"), row.getString("why"), row.getString("name"))).list();
    }

    static Target target(Member member) {
        return target(member.kind(), member.id());
    }

    private static Target target(MemberKind kind, String id) {
        return switch (kind) {
            case DEVICE -> Target.device(id);
            case USER -> Target.user(id);
            case GROUP -> Target.group(id);
        };
    }

    /** Notes how groups will differ from what is on record of them; called before that is replaced. */
    static void noteGroups(ChangeContext context, List<GroupEntry> changed) {
        List<MembershipChange> all = new ArrayList<>();
        for (GroupEntry group : changed) {
            Set<Member> before = new LinkedHashSet<>(DirectoryRecords.lists(context.db(), Set.of(group.id())).of(group.id()));
            Set<Member> after = new LinkedHashSet<>(group.members());
            List<MembershipChange> own = new ArrayList<>();
            after.stream().filter(member -> !before.contains(member)).forEach(member -> own.add(change(context, group, member, true)));
            before.stream().filter(member -> !after.contains(member)).forEach(member -> own.add(change(context, group, member, false)));
            if (own.size() <= MOST_AT_ONCE) {
                all.addAll(own);
            }
        }
        write(context, all);
    }

    private static MembershipChange change(ChangeContext context, GroupEntry group, Member member, boolean came) {
        return new MembershipChange(Target.group(group.id()), target(member), came, context.now(), null,
                nameOf(context, target(member)));
    }

    /**
     * Notes which computers come into an OU and leave it, and why; called before that is on record. One whose account is disabled is nowhere.
     */
    static void noteComputers(ChangeContext context, Differences<ComputerEntry> computers) {
        noteMoves(context, computers, "computers where enabled", Target::device, computer -> computer.enabled() ? computer.ou() : null,
                computer -> computer.enabled() ? "moved out of every OU" : "its account was disabled");
    }

    /** The same of people, who stay where they are with a disabled account. */
    static void noteUsers(ChangeContext context, Differences<UserEntry> users) {
        noteMoves(context, users, "users where true", Target::user, UserEntry::ou, user -> "moved out of every OU");
    }

    /** @param those the rows of those that are in an OU */
    private static <T extends Identified> void noteMoves(ChangeContext context, Differences<T> differences, String those, Function<String, Target> target,
            Function<T, @Nullable String> ou, Function<T, String> nowhere) {
        boolean isFirst = context.db().sql("select 1 from " + those + " fetch first row only").query(Integer.class).optional().isEmpty();
        if (isFirst || differences.added().size() + differences.changed().size() + differences.gone().size() > MOST_AT_ONCE) {
            return;
        }
        List<MembershipChange> all = new ArrayList<>();
        differences.added().forEach(one -> move(context, all, target.apply(one.id()), new Move(null, ou.apply(one), "new in the directory", "")));
        differences.changed().forEach(one -> move(context, all, target.apply(one.id()), new Move(known(context, those, one.id()), ou.apply(one),
                "enabled, or back in an OU", nowhere.apply(one))));
        differences.gone().forEach(one -> move(context, all, target.apply(one.id()), new Move(known(context, those, one.id()), null, "", "left the directory")));
        write(context, all);
    }

    private static @Nullable String known(ChangeContext context, String those, String id) {
        return context.db().sql("select ou from " + those + " and id = ?").params(id).query((row, n) -> Objects.requireNonNullElse(row.getString("ou"), ""))
                .optional().filter(ou -> !ou.isEmpty()).orElse(null);
    }

    /**
     * One that moves.
     *
     * @param from null where it was in no OU
     * @param to null where it will be in none
     * @param appears why it comes out of nowhere; {@code disappears} why it goes there
     */
    private record Move(@Nullable String from, @Nullable String to, String appears, String disappears) {
    }

    private static void move(ChangeContext context, List<MembershipChange> all, Target who, Move move) {
        if (Objects.equals(move.from(), move.to())) {
            return;
        }
        if (move.to() != null) {
            all.add(new MembershipChange(Target.ou(move.to()), who, true, context.now(), move.from() == null ? move.appears()
                    : "moved from " + name(context, move.from()), nameOf(context, who)));
        }
        if (move.from() != null) {
            all.add(new MembershipChange(Target.ou(move.from()), who, false, context.now(), move.to() == null ? move.disappears()
                    : "moved to " + name(context, move.to()), nameOf(context, who)));
        }
    }

    /** As the estate has it before the change. */
    private static @Nullable String nameOf(ChangeContext context, Target member) {
        return Names.isThere(context.estate(), member) ? Names.of(context.estate(), member) : null;
    }

    private static String name(ChangeContext context, String ou) {
        return context.db().sql("select name from ous where id = ?").params(ou).query(String.class).optional().orElse(ou);
    }

    /** Puts them on record, and forgets what is older than three months. */
    public static void write(ChangeContext context, List<MembershipChange> all) {
        if (all.isEmpty()) {
            return;
        }
        context.db().sql("delete from membership_changes where at < ?").params(Rows.at(context.now().minus(KEPT))).update();
        context.batch("insert into membership_changes (audience, kind, member, came, at, why, name) values (?, ?, ?, ?, ?, ?, ?)", all.stream().map(one ->
                new Object[] {one.audience().toString(), one.member().kind().name(), one.member().id(), one.came(), Rows.at(one.at()),
                    one.why() == null ? null : one.why().substring(0, Math.min(LONGEST_WHY, one.why().length())), one.name()}).toList());
    }

    /** Without those that only moved within these audiences: they left one and came into another at the same instant. */
    public static List<MembershipChange> withoutInnerMoves(List<MembershipChange> all) {
        record Moved(Target who, Instant at) {
        }

        Map<Moved, Integer> balance = new LinkedHashMap<>();
        all.forEach(one -> balance.merge(new Moved(one.member(), one.at()), one.came() ? 1 : -1, Integer::sum));
        return all.stream().filter(one -> balance.get(new Moved(one.member(), one.at())) != 0).toList();
    }
}
