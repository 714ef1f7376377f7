package rivo.server.fleet;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import rivo.core.estate.RefusedException;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.WaitReason;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.estate.SnapshotPart;

/**
 * What devices report again and again, which is their number and what they say of their jobs, on its way to their rows.
 *
 * <p><b>How.</b> H2 writes whole pages. Reports that come together are of devices that stand anywhere, so that each would have several pages
 * written before it may be acknowledged. Instead all are appended to one table, a page for dozens; and half a minute later they are
 * <em>settled</em>: put into the rows of their devices, in the order of the devices and all at once, so that each page is written once, and
 * taken out of that table. Whoever reads H2 when the server starts reads the rows and then what has arrived since, in its order. The snapshot
 * knows nothing of it: it has each report at once. So this is done beside the writer, which nobody then waits for: nobody else writes those
 * rows, and the writer only appends to the table.
 */
@Component
class ArrivedReports {

    private static final Comparator<JobKey> IN_ORDER = Comparator.comparing(JobKey::title).thenComparing(JobKey::person);
    private static final int READ_TOGETHER = 1_000;
    /** Of one device, whatever it says of whom. */
    private static final int MOST_JOBS = 20_000;
    /** What a row takes besides what it says, about. */
    private static final int ROW_CHARACTERS = 300;
    /** What may be in memory of them at once, so that no reports, however long, can fill it. */
    private static final int MOST_CHARACTERS_SETTLED_TOGETHER = 32_000_000;

    /** The number of the last report that was taken of each device; 0 or nothing where none was since it enrolled. */
    static final SnapshotPart<PMap<String, Long>> LAST_NUMBERS = new SnapshotPart<>() {
        @Override
        public PMap<String, Long> read(JdbcClient db) {
            Map<String, Long> numbers = new HashMap<>();
            db.sql("select device, last_number from report_numbers").query(row -> {
                numbers.put(row.getString("device"), row.getLong("last_number"));
            });
            each(db, Long.MAX_VALUE, one -> numbers.put(one.device(), one.number()));
            return HashTreePMap.from(numbers);
        }
    };

    /** What devices have said of their jobs: by the device's id, then by job. */
    static final SnapshotPart<PMap<String, Map<JobKey, Progress>>> JOBS = new SnapshotPart<>() {
        @Override
        public PMap<String, Map<JobKey, Progress>> read(JdbcClient db) {
            Map<String, Map<JobKey, Progress>> jobs = new HashMap<>();
            db.sql("select * from jobs").query(row -> {
                JobKey key = new JobKey(row.getString("title"), row.getString("person"));
                jobs.computeIfAbsent(row.getString("device"), k -> new HashMap<>()).put(key, new Progress(
                        key.title(), key.person().isEmpty() ? null : key.person(), JobAction.valueOf(row.getString("action")), row.getString("version"),
                        JobState.valueOf(row.getString("state")), row.getInt("step"), row.getInt("steps"), row.getInt("percent"),
                        row.getString("message"), Rows.integer(row, "exit_code"), Rows.instant(row, "at"), waits(row), fetching(row)));
            });
            each(db, Long.MAX_VALUE, report -> report.progress().forEach(one -> jobs
                    .computeIfAbsent(report.device(), k -> new HashMap<>()).put(JobKey.of(one), one)));
            jobs.replaceAll((device, own) -> Map.copyOf(own));
            return HashTreePMap.from(jobs);
        }
    };

    private static Progress.@Nullable Wait waits(ResultSet row) throws SQLException {
        String reason = row.getString("waits_for");
        return reason == null ? null : new Progress.Wait(WaitReason.valueOf(reason), row.getObject("waits_until") == null ? null : Rows.instant(row, "waits_until"));
    }

    private static Progress.@Nullable Fetching fetching(ResultSet row) throws SQLException {
        long all = row.getLong("fetching_all");
        return row.wasNull() ? null : new Progress.Fetching(row.getLong("fetching_bytes"), all);
    }

    private record Arrived(long arrival, String device, long number, Instant at, List<Progress> progress) {
    }

    /** A line of what a device says of a job. @param at when it said so first */
    record Said(Instant at, JobAction action, JobState state, int step, String message) {

        static Said of(Progress one) {
            return new Said(one.at(), one.action(), one.state(), one.step(), one.message());
        }

        static Said of(ResultSet row) throws SQLException {
            return new Said(Rows.instant(row, "at"), JobAction.valueOf(row.getString("action")), JobState.valueOf(row.getString("state")),
                    row.getInt("step"), row.getString("message"));
        }

        /** Whether it says nothing else than this one: how far a step has got makes no line of its own. */
        boolean isAgain(@Nullable Said before) {
            return before != null && action == before.action && state == before.state && step == before.step && message.equals(before.message);
        }
    }

    private final JdbcClient db;
    private final JdbcTemplate batches;
    private final TransactionTemplate transaction;

    ArrivedReports(JdbcClient db, JdbcTemplate batches, PlatformTransactionManager transactions) {
        this.db = db;
        this.batches = batches;
        this.transaction = new TransactionTemplate(transactions);
    }

    /** Gives what has arrived, the first first, until that many characters have been given; whether that was all. */
    private static boolean each(JdbcClient db, long mostCharacters, Consumer<Arrived> taker) {
        long[] last = {0, 0};
        int rows = READ_TOGETHER;
        while (rows == READ_TOGETHER && last[1] < mostCharacters) {
            rows = db.sql("select * from arrived_reports where arrival > ? order by arrival fetch first " + READ_TOGETHER + " rows only")
                    .params(last[0]).query(row -> {
                        int taken = 0;
                        while (last[1] < mostCharacters && row.next()) {
                            String progress = row.getString("progress");
                            last[0] = row.getLong("arrival");
                            last[1] += ROW_CHARACTERS + progress.length();
                            taker.accept(new Arrived(last[0], row.getString("device"), row.getLong("report_number"), Rows.instant(row, "at"),
                                    Json.readList(progress, Progress.class)));
                            taken++;
                        }
                        return taken;
                    });
        }
        return last[1] < mostCharacters;
    }

    /** Takes a report: number and jobs are in the snapshot at once. */
    static void take(ChangeContext context, String device, long number, List<Progress> said) {
        List<Progress> progress = said.stream().map(ArrivedReports::asKept).toList();
        context.append("insert into arrived_reports (device, report_number, at, progress) values (?, ?, ?, ?)",
                device, number, Rows.at(context.now()), Json.write(progress));
        context.becomes(LAST_NUMBERS, context.get(LAST_NUMBERS).plus(device, number));
        if (!progress.isEmpty()) {
            PMap<String, Map<JobKey, Progress>> jobs = context.get(JOBS);
            Map<JobKey, Progress> own = new HashMap<>(jobs.getOrDefault(device, Map.of()));
            progress.forEach(one -> own.put(JobKey.of(one), one));
            if (own.size() > MOST_JOBS) {
                throw new RefusedException("too-many", "progress", "A device has at most " + MOST_JOBS + " jobs, those of its people included; "
                        + "report those that its work names.");
            }
            context.becomes(JOBS, jobs.plus(device, Map.copyOf(own)));
        }
    }

    /** With the instant as exact as the rows have it. */
    private static Progress asKept(Progress one) {
        Progress.Wait waits = one.waits() == null || one.waits().until() == null ? one.waits()
                : new Progress.Wait(one.waits().reason(), one.waits().until().truncatedTo(ChangeContext.ON_DISK));
        return new Progress(one.title(), one.person(), one.action(), one.version(), one.state(), one.step(), one.steps(), one.percent(), one.message(),
                one.exitCode(), one.at().truncatedTo(ChangeContext.ON_DISK), waits, one.fetching());
    }

    /** A device that has enrolled anew counts from 1. */
    static void countAnew(ChangeContext context, String device) {
        if (context.get(LAST_NUMBERS).getOrDefault(device, 0L) > 0) {
            take(context, device, 0, List.of());
        }
    }

    /**
     * What a device has said of a job, the newest first, as one statement finds it: settled or not, each once, and what it says again and
     * again with the instant of the first time.
     *
     * @param most at least 1
     */
    static List<Said> log(JdbcClient db, String device, JobKey job, int most) {
        List<Said> said = new ArrayList<>();
        db.sql("select progress, null at, null action, null state, null step, null message, arrival number, 0 part from arrived_reports where device = ? "
                + "union all (select null, at, action, state, step, message, number, 1 from job_log where device = ? and title = ? and person = ? "
                + "order by number desc fetch first ? rows only) order by part, number desc").params(device, device, job.title(), job.person(), most).query(row -> {
                    String arrived = row.getString("progress");
                    if (arrived == null) {
                        addOlder(said, Said.of(row));
                    } else {
                        List<Progress> progress = Json.readList(arrived, Progress.class);
                        for (int i = progress.size() - 1; i >= 0; i--) {
                            if (JobKey.of(progress.get(i)).equals(job)) {
                                addOlder(said, Said.of(progress.get(i)));
                            }
                        }
                    }
                });
        return List.copyOf(said.subList(0, Math.min(most, said.size())));
    }

    private static void addOlder(List<Said> said, Said older) {
        if (!said.isEmpty() && said.get(said.size() - 1).isAgain(older)) {
            said.remove(said.size() - 1);
        }
        said.add(older);
    }

    @Scheduled(fixedDelayString = "PT30S")
    void settle() {
        boolean isAll = false;
        while (!isAll) {
            isAll = Objects.requireNonNull(transaction.execute(status -> {
                List<Arrived> arrived = new ArrayList<>();
                boolean all = each(db, MOST_CHARACTERS_SETTLED_TOGETHER, arrived::add);
                settle(arrived);
                return all;
            }));
        }
    }

    private void settle(List<Arrived> arrived) {
        SortedMap<String, Object[]> numbers = new TreeMap<>();
        SortedMap<String, SortedMap<JobKey, List<Progress>>> jobs = new TreeMap<>();
        long last = 0;
        for (Arrived report : arrived) {
            last = report.arrival();
            numbers.put(report.device(), new Object[] {report.device(), report.number(), Rows.at(report.at())});
            report.progress().forEach(one -> jobs.computeIfAbsent(report.device(), k -> new TreeMap<>(IN_ORDER))
                    .computeIfAbsent(JobKey.of(one), k -> new ArrayList<>()).add(one));
        }
        List<Object[]> latest = new ArrayList<>();
        List<Object[]> lines = new ArrayList<>();
        jobs.forEach((device, own) -> own.forEach((key, said) -> {
            Progress job = said.get(said.size() - 1);
            Progress.Wait waits = job.waits();
            Progress.Fetching fetching = job.fetching();
            latest.add(new Object[] {device, key.title(), key.person(), job.action().name(), job.version(), job.state().name(), job.step(), job.steps(),
                job.percent(), job.message(), job.exitCode(), Rows.at(job.at()), waits == null ? null : waits.reason().name(),
                waits == null || waits.until() == null ? null : Rows.at(waits.until()), fetching == null ? null : (Long) fetching.bytes(),
                fetching == null ? null : (Long) fetching.all()});
            lines.addAll(lines(device, key, said));
        }));
        batch("merge into report_numbers (device, last_number, at) values (?, ?, ?)", List.copyOf(numbers.values()));
        batch("merge into jobs (device, title, person, action, version, state, step, steps, percent, message, exit_code, at, waits_for, "
                + "waits_until, fetching_bytes, fetching_all) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)", latest);
        batch("insert into job_log (device, title, person, action, state, step, message, at) values (?, ?, ?, ?, ?, ?, ?, ?)", lines);
        db.sql("delete from arrived_reports where arrival <= ?").params(last).update();
    }

    /** A row of the log for each time that the device says something else than it said before. */
    private List<Object[]> lines(String device, JobKey key, List<Progress> progress) {
        List<Object[]> lines = new ArrayList<>();
        Said before = db.sql("select at, action, state, step, message from jobs where device = ? and title = ? and person = ?")
                .params(device, key.title(), key.person()).query((row, n) -> Said.of(row)).optional().orElse(null);
        for (Progress one : progress) {
            Said said = Said.of(one);
            if (!said.isAgain(before)) {
                lines.add(new Object[] {device, key.title(), key.person(), one.action().name(), one.state().name(), one.step(), one.message(), Rows.at(one.at())});
            }
            before = said;
        }
        return lines;
    }

    private void batch(String sql, List<Object[]> rows) {
        if (!rows.isEmpty()) {
            batches.batchUpdate(sql, rows);
        }
    }
}
