package rivo.server.fleet;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.locks.ReentrantLock;
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
import rivo.server.estate.Gathered;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.estate.SnapshotPart;
import rivo.server.fleet.UnsettledReports.Said;

/**
 * What devices report again and again, which is their number and what they say of their jobs, on its way to their rows.
 *
 * <p><b>How.</b> H2 writes whole pages. Reports that come together are of devices that stand anywhere, so that each would have several pages
 * written before it may be acknowledged. Instead those that come together are written as one row, a <em>batch</em>; what they say is held in
 * memory besides, as far as it is new, and half a minute later it is <em>settled</em>: put into the rows of the devices, in their order and
 * all at once, so that each page is written once; up to which batch that is done is noted with it, and those batches are deleted afterwards. Whoever reads H2 when the server starts reads the rows and
 * then the batches, in their order. The snapshot knows nothing of it: it has each report at once. So this is done beside the writer, which
 * nobody then waits for: nobody else writes those rows, and the writer only adds batches. Only where more is unsettled than memory may
 * hold does the writer settle it itself before it goes on.
 */
@Component
class ArrivedReports implements Gathered<ArrivedReport> {

    private static final int READ_TOGETHER = 20;
    /** Few at a time: until it is committed, what is deleted is kept to be put back, and the writer would write that to disk. */
    private static final int DELETED_TOGETHER = 50;
    /** Of one device, whatever it says of whom. */
    private static final int MOST_JOBS = 20_000;
    /** Of a batch: a row has room for a million. */
    private static final int MOST_BYTES_WRITTEN_TOGETHER = 500_000;
    /** What may be in memory of them, so that no reports, however long, can fill it. */
    private static final int MOST_CHARACTERS_UNSETTLED = 32_000_000;

    /** The number of the last report that was taken of each device; 0 or nothing where none was since it enrolled. */
    static final SnapshotPart<PMap<String, Long>> LAST_NUMBERS = new SnapshotPart<>() {
        @Override
        public PMap<String, Long> read(JdbcClient db) {
            Map<String, Long> numbers = new HashMap<>();
            db.sql("select device, last_number from report_numbers").query(row -> {
                numbers.put(row.getString("device"), row.getLong("last_number"));
            });
            each(db, (batch, one) -> numbers.put(one.device(), one.number()));
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
            each(db, (batch, report) -> report.progress().forEach(one -> jobs
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

    private interface Taker {
        void take(long batch, ArrivedReport report);
    }

    private final JdbcClient db;
    private final JdbcTemplate batches;
    private final TransactionTemplate transaction;
    private final ReentrantLock settles = new ReentrantLock();
    /** The writer's alone. */
    private long lastBatch;
    /** These two by whoever holds this object's monitor. */
    private UnsettledReports unsettled = new UnsettledReports();
    private @Nullable UnsettledReports beingSettled;

    ArrivedReports(JdbcClient db, JdbcTemplate batches, PlatformTransactionManager transactions) {
        this.db = db;
        this.batches = batches;
        this.transaction = new TransactionTemplate(transactions);
        each(db, unsettled::add);
        this.lastBatch = Math.max(unsettled.upTo(), settledUpTo(db));
    }

    private static long settledUpTo(JdbcClient db) {
        return db.sql("select up_to from settled_batches").query(Long.class).single();
    }

    /** Gives what has arrived and is in no rows yet, the first first. */
    private static void each(JdbcClient db, Taker taker) {
        long[] last = {settledUpTo(db)};
        int rows = READ_TOGETHER;
        while (rows == READ_TOGETHER) {
            rows = db.sql("select * from report_batches where batch > ? order by batch fetch first " + READ_TOGETHER + " rows only").params(last[0])
                    .query(row -> {
                        int read = 0;
                        while (row.next()) {
                            last[0] = row.getLong("batch");
                            Json.readList(row.getBytes("reports"), ArrivedReport.class).forEach(one -> taker.take(last[0], one));
                            read++;
                        }
                        return read;
                    });
        }
    }

    /** Takes a report: number and jobs are in the snapshot at once. */
    void take(ChangeContext context, String device, long number, List<Progress> said) {
        List<Progress> progress = said.stream().map(ArrivedReports::asKept).toList();
        context.gather(this, new ArrivedReport(device, number, context.now(), progress));
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

    /** As few rows as have room for them. */
    @Override
    public void write(List<ArrivedReport> brought) {
        List<Object[]> rows = new ArrayList<>();
        List<ArrivedReport> together = new ArrayList<>();
        int bytes = 0;
        for (ArrivedReport report : brought) {
            for (ArrivedReport part : report.parts()) {
                if (bytes + part.bytes() > MOST_BYTES_WRITTEN_TOGETHER && !together.isEmpty()) {
                    rows.add(row(together));
                    together.clear();
                    bytes = 0;
                }
                together.add(part);
                bytes += part.bytes();
            }
        }
        rows.add(row(together));
        batch("insert into report_batches (batch, reports) values (?, ?)", rows);
    }

    private Object[] row(List<ArrivedReport> together) {
        return new Object[] {++lastBatch, Json.bytes(together)};
    }

    @Override
    public void isWritten(List<ArrivedReport> brought) {
        long characters;
        synchronized (this) {
            brought.forEach(one -> unsettled.add(lastBatch, one));
            characters = unsettled.characters();
        }
        if (characters > MOST_CHARACTERS_UNSETTLED) {
            settle();
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
    void countAnew(ChangeContext context, String device) {
        if (context.get(LAST_NUMBERS).getOrDefault(device, 0L) > 0) {
            take(context, device, 0, List.of());
        }
    }

    /**
     * What a device has said of a job, the newest first: settled or not, each once, and what it says again and again with the instant of the
     * first time.
     *
     * @param most at least 1
     */
    List<Said> log(String device, JobKey job, int most) {
        List<Lines> parts = unsettledLines(device, job);
        List<Said> settled = new ArrayList<>();
        long[] upTo = {0};
        // One statement: what is settled while it is read is found either in the rows or in memory.
        db.sql("select up_to number, null at, null action, null state, null step, null message, 0 part from settled_batches "
                + "union all (select number, at, action, state, step, message, 1 from job_log where device = ? and title = ? and person = ? "
                + "order by number desc fetch first ? rows only) order by part, number desc").params(device, job.title(), job.person(), most).query(row -> {
                    if (row.getInt("part") > 0) {
                        settled.add(Said.of(row));
                    } else {
                        upTo[0] = row.getLong("number");
                    }
                });
        List<Said> said = new ArrayList<>();
        for (Lines part : parts) {
            if (part.upTo() > upTo[0]) {
                part.newestFirst().forEach(line -> addOlder(said, line));
            }
        }
        settled.forEach(line -> addOlder(said, line));
        return List.copyOf(said.subList(0, Math.min(most, said.size())));
    }

    /** @param upTo the last batch of those that they are from */
    private record Lines(long upTo, List<Said> newestFirst) {

        static Lines of(UnsettledReports reports, String device, JobKey job) {
            List<Said> lines = new ArrayList<>(reports.lines(device, job));
            Collections.reverse(lines);
            return new Lines(reports.upTo(), lines);
        }
    }

    private synchronized List<Lines> unsettledLines(String device, JobKey job) {
        Lines newer = Lines.of(unsettled, device, job);
        return beingSettled == null ? List.of(newer) : List.of(newer, Lines.of(beingSettled, device, job));
    }

    private static void addOlder(List<Said> said, Said older) {
        if (!said.isEmpty() && said.get(said.size() - 1).isAgain(older)) {
            said.remove(said.size() - 1);
        }
        said.add(older);
    }

    @Scheduled(fixedDelayString = "PT30S")
    void settle() {
        settles.lock();
        try {
            UnsettledReports taken = begin();
            boolean isSettled = false;
            try {
                transaction.executeWithoutResult(status -> settle(taken));
                isSettled = true;
            } finally {
                end(taken, isSettled);
            }
            forget();
        } finally {
            settles.unlock();
        }
    }

    private synchronized UnsettledReports begin() {
        UnsettledReports taken = unsettled;
        beingSettled = taken;
        unsettled = new UnsettledReports();
        return taken;
    }

    /** What could not be settled is settled the next time, before what has come since. */
    private synchronized void end(UnsettledReports taken, boolean isSettled) {
        beingSettled = null;
        if (!isSettled) {
            taken.add(unsettled);
            unsettled = taken;
        }
    }

    private void settle(UnsettledReports reports) {
        List<Object[]> numbers = new ArrayList<>();
        List<Object[]> latest = new ArrayList<>();
        List<Object[]> lines = new ArrayList<>();
        reports.devices().forEach((device, own) -> {
            numbers.add(new Object[] {device, own.number(), Rows.at(own.at())});
            own.jobs().forEach((key, job) -> {
                latest.add(latest(device, key, job.last()));
                lines.addAll(newLines(device, key, job.lines()));
            });
        });
        batch("merge into report_numbers (device, last_number, at) values (?, ?, ?)", numbers);
        batch("merge into jobs (device, title, person, action, version, state, step, steps, percent, message, exit_code, at, waits_for, "
                + "waits_until, fetching_bytes, fetching_all) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)", latest);
        batch("insert into job_log (device, title, person, action, state, step, message, at) values (?, ?, ?, ?, ?, ?, ?, ?)", lines);
        if (reports.upTo() > 0) {
            db.sql("update settled_batches set up_to = ?").params(reports.upTo()).update();
        }
    }

    /** Deletes the batches that are settled. */
    private void forget() {
        int deleted = DELETED_TOGETHER;
        while (deleted == DELETED_TOGETHER) {
            deleted = db.sql("delete from report_batches where batch <= (select up_to from settled_batches) fetch first " + DELETED_TOGETHER + " rows only")
                    .update();
        }
    }

    private static Object[] latest(String device, JobKey key, Progress job) {
        Progress.Wait waits = job.waits();
        Progress.Fetching fetching = job.fetching();
        return new Object[] {device, key.title(), key.person(), job.action().name(), job.version(), job.state().name(), job.step(), job.steps(),
            job.percent(), job.message(), job.exitCode(), Rows.at(job.at()), waits == null ? null : waits.reason().name(),
            waits == null || waits.until() == null ? null : Rows.at(waits.until()), fetching == null ? null : (Long) fetching.bytes(),
            fetching == null ? null : (Long) fetching.all()};
    }

    /** A row of the log for each; without the first, where the device says by it what it said before. */
    private List<Object[]> newLines(String device, JobKey key, List<Said> lines) {
        Said before = db.sql("select at, action, state, step, message from jobs where device = ? and title = ? and person = ?")
                .params(device, key.title(), key.person()).query((row, n) -> Said.of(row)).optional().orElse(null);
        return lines.stream().skip(lines.get(0).isAgain(before) ? 1 : 0).map(one -> new Object[] {device, key.title(), key.person(), one.action().name(),
            one.state().name(), one.step(), one.message(), Rows.at(one.at())}).toList();
    }

    private void batch(String sql, List<Object[]> rows) {
        if (!rows.isEmpty()) {
            batches.batchUpdate(sql, rows);
        }
    }
}
