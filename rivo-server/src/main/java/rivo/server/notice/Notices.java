package rivo.server.notice;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Device;
import rivo.core.estate.RefusedException;
import rivo.devices.protocol.Courtesy.Interruption;
import rivo.devices.protocol.NoticeAnswer;
import rivo.devices.protocol.NoticeKind;
import rivo.devices.protocol.NoticeState;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.devices.protocol.Work;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;

/** What devices tell of their notices, and what is answered to them: each on disk before it counts. Pure functions of the change they are part of. */
public final class Notices {

    /** How many may be open on a device. */
    public static final int MOST_OPEN = 200;

    /** What is open, by the device's id, in the order in which it was first told of. */
    public static final SnapshotPart<PMap<String, List<OpenNotice>>> OPEN = new SnapshotPart<>() {
        @Override
        public PMap<String, List<OpenNotice>> read(JdbcClient db) {
            Map<String, List<OpenNotice>> open = new HashMap<>();
            db.sql("select device, notices from open_notices").query(row -> {
                open.put(row.getString("device"), List.copyOf(Json.readList(row.getString("notices"), OpenNotice.class)));
            });
            return HashTreePMap.from(open);
        }
    };

    private Notices() {
    }

    public static List<OpenNotice> open(Snapshot snapshot, String device) {
        return snapshot.get(OPEN).getOrDefault(device, List.of());
    }

    /** What people have said on their shelves and the device has not told of yet. */
    public static List<Work.Answered> answers(Snapshot snapshot, String device) {
        return open(snapshot, device).stream().filter(one -> one.said() != null).map(one -> {
            OpenNotice.Said said = Objects.requireNonNull(one.said());
            return new Work.Answered(one.notice(), said.answer(), said.until(), said.person());
        }).toList();
    }

    /**
     * Takes what a device tells of its notices.
     *
     * @param allowed how often and how long each may be put off, as its assignment has it now
     * @return the answers that do not count; for them it stays as it was
     */
    public static List<ReportAnswer.RefusedAnswer> take(ChangeContext context, Device device, List<Report.Told> told, Function<Report.Told, Interruption> allowed) {
        if (told.isEmpty()) {
            return List.of();
        }
        List<OpenNotice> open = new ArrayList<>(open(context.snapshot(), device.id()));
        List<ReportAnswer.RefusedAnswer> refused = new ArrayList<>();
        for (Report.Told sent : told) {
            OpenNotice before = open.stream().filter(each -> each.notice().equals(sent.notice())).findFirst().orElse(null);
            if (before == null && sent.state() == NoticeState.OVER && sent.answer() == null) {
                // Nobody knew of it.
                continue;
            }
            Report.Told one = known(context.snapshot(), sent, before == null ? sent.kind() : before.kind());
            String person = one.person() != null && device.people().contains(one.person()) ? one.person() : null;
            ReportAnswer.RefusedAnswer refusal = refusal(before, one, allowed, context.now());
            write(context, device.id(), one, person, refusal == null ? null : refusal.code());
            if (refusal != null) {
                refused.add(refusal);
                continue;
            }
            if (one.state().isOpen(one.kind())) {
                OpenNotice after = OpenNotice.told(before, one, person, context.now());
                open.replaceAll(each -> each.notice().equals(one.notice()) ? after : each);
                if (before == null) {
                    open.add(after);
                }
            } else {
                open.removeIf(each -> each.notice().equals(one.notice()));
            }
        }
        if (open.size() > MOST_OPEN) {
            throw new RefusedException("too-many", "notices", "A device has at most " + MOST_OPEN + " notices open; report those that are over as over.");
        }
        keep(context, device.id(), open);
        return List.copyOf(refused);
    }

    /** As exact as the rows have it, and of titles that there still are. */
    private static Report.Told known(Snapshot snapshot, Report.Told one, NoticeKind kind) {
        List<String> titles = one.titles().stream().filter(title -> snapshot.estate().title(title) != null).toList();
        return new Report.Told(one.notice(), kind, titles, one.person(), one.state(), exact(one.at()), exactOrNull(one.until()), one.left(),
                exactOrNull(one.last()), one.answer());
    }

    private static Instant exact(Instant at) {
        return at.truncatedTo(ChangeContext.ON_DISK);
    }

    private static @Nullable Instant exactOrNull(@Nullable Instant at) {
        return at == null ? null : exact(at);
    }

    private static ReportAnswer.@Nullable RefusedAnswer refusal(@Nullable OpenNotice before, Report.Told told, Function<Report.Told, Interruption> allowed,
            Instant now) {
        NoticeAnswer answer = told.answer();
        if (answer == null) {
            return null;
        }
        if (before == null) {
            return new ReportAnswer.RefusedAnswer(told.notice(), "withdrawn", "This notice is not open: report it as shown before it is answered.");
        }
        if (before.said() != null && before.said().answer() == answer && Objects.equals(before.said().person(), told.person())) {
            // It was looked at when it was said on the shelf.
            return null;
        }
        try {
            before.check(answer, told.until(), allowed.apply(told), now);
            return null;
        } catch (RefusedException e) {
            return new ReportAnswer.RefusedAnswer(told.notice(), e.problems().get(0).code(), String.valueOf(e.getMessage()));
        }
    }

    /**
     * Takes what somebody says on their shelf; the device hears it with its next work.
     *
     * @param allowed how often and how long it may be put off
     * @throws RefusedException where that is not allowed
     */
    public static void answer(ChangeContext context, String device, OpenNotice notice, OpenNotice.Said said, Interruption allowed) {
        OpenNotice.Said exact = new OpenNotice.Said(said.answer(), exactOrNull(said.until()), said.person());
        notice.check(exact.answer(), exact.until(), allowed, context.now());
        if (exact.equals(notice.said())) {
            return;
        }
        keep(context, device, open(context.snapshot(), device).stream().map(one -> one.notice().equals(notice.notice()) ? one.said(exact) : one).toList());
    }

    private static void keep(ChangeContext context, String device, List<OpenNotice> open) {
        PMap<String, List<OpenNotice>> all = context.get(OPEN);
        if (open.isEmpty()) {
            if (all.containsKey(device)) {
                context.db().sql("delete from open_notices where device = ?").params(device).update();
                context.becomes(OPEN, all.minus(device));
            }
        } else if (!open.equals(all.get(device))) {
            context.db().sql("merge into open_notices (device, notices) values (?, ?)").params(device, Json.write(open)).update();
            context.becomes(OPEN, all.plus(device, List.copyOf(open)));
        }
    }

    /** A device that begins anew knows nothing of what it has asked. */
    public static void forget(ChangeContext context, String device) {
        keep(context, device, List.of());
    }

    private static void write(ChangeContext context, String device, Report.Told one, @Nullable String person, @Nullable String refused) {
        context.db().sql("insert into notices (device, notice, at, kind, titles, person, state, until_at, times_left, answer, refused) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")
                .params(device, one.notice(), Rows.at(context.now()), one.kind().name(), Json.write(one.titles()), person, one.state().name(),
                        one.until() == null ? null : Rows.at(one.until()), one.left(), one.answer() == null ? null : one.answer().name(), refused)
                .update();
    }

    /** A line of what was told, asked and answered. @param refused why an answer did not count; null where it did */
    public record Line(String device, Instant at, NoticeKind kind, List<String> titles, @Nullable String person, NoticeState state,
            @Nullable Instant until, @Nullable Integer left, @Nullable NoticeAnswer answer, @Nullable String refused) {
    }

    /** What was told on a device, the newest first. */
    public static List<Line> ofDevice(JdbcClient db, String device, int most) {
        return db.sql("select * from notices where device = ? order by number desc fetch first ? rows only").params(device, most).query(Notices::line).list();
    }

    /** What somebody was told and has answered, on all devices, the newest first. */
    public static List<Line> ofPerson(JdbcClient db, String person, int most) {
        return db.sql("select * from notices where person = ? order by number desc fetch first ? rows only").params(person, most).query(Notices::line).list();
    }

    private static Line line(ResultSet row, int number) throws SQLException {
        String answer = row.getString("answer");
        return new Line(row.getString("device"), Rows.instant(row, "at"), NoticeKind.valueOf(row.getString("kind")),
                Json.readList(row.getString("titles"), String.class), row.getString("person"), NoticeState.valueOf(row.getString("state")),
                row.getObject("until_at") == null ? null : Rows.instant(row, "until_at"), Rows.integer(row, "times_left"),
                answer == null ? null : NoticeAnswer.valueOf(answer), row.getString("refused"));
    }
}
