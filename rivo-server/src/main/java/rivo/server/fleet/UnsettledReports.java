package rivo.server.fleet;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.server.estate.Rows;

/**
 * What reports have brought since the rows of their devices were last written: of each device the last number, of each job what was said of
 * it last and the lines of its log. What says nothing new takes no room. Not safe for several threads.
 */
final class UnsettledReports {

    /** What a device, and a line, take besides the message, about. */
    private static final int BESIDES = 300;
    private static final Comparator<JobKey> IN_ORDER = Comparator.comparing(JobKey::title).thenComparing(JobKey::person);

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

    /** Of one job: what was said last, and each line, the first first. */
    static final class OfJob {
        private Progress last;
        private final List<Said> lines = new ArrayList<>();

        private OfJob(Progress first) {
            this.last = first;
        }

        Progress last() {
            return last;
        }

        List<Said> lines() {
            return lines;
        }

        /** Whether it is a line of its own. */
        private boolean add(Said said) {
            boolean isNew = !said.isAgain(lines.isEmpty() ? null : lines.get(lines.size() - 1));
            if (isNew) {
                lines.add(said);
            }
            return isNew;
        }
    }

    /** Of one device. */
    static final class OfDevice {
        private long number;
        private Instant at = Instant.EPOCH;
        private final Map<JobKey, OfJob> jobs = new HashMap<>();

        /** Of the last report. */
        long number() {
            return number;
        }

        /** When the last report came. */
        Instant at() {
            return at;
        }

        /** By title and person, in their order. */
        Map<JobKey, OfJob> jobs() {
            Map<JobKey, OfJob> sorted = new TreeMap<>(IN_ORDER);
            sorted.putAll(jobs);
            return sorted;
        }
    }

    private final Map<String, OfDevice> devices = new HashMap<>();
    private long upTo;
    private long characters;

    /** The last batch that it holds; 0 where it holds none. */
    long upTo() {
        return upTo;
    }

    /** How much memory its messages take, and what goes with them, about. */
    long characters() {
        return characters;
    }

    /** By the device's id, in their order. */
    Map<String, OfDevice> devices() {
        return new TreeMap<>(devices);
    }

    /** What was said of a job, the first first; nothing where nothing was. */
    List<Said> lines(String device, JobKey job) {
        OfDevice own = devices.get(device);
        OfJob said = own == null ? null : own.jobs.get(job);
        return said == null ? List.of() : List.copyOf(said.lines);
    }

    /** @param batch in which it was written; no less than before */
    void add(long batch, ArrivedReport report) {
        upTo = batch;
        OfDevice own = device(report.device());
        own.number = report.number();
        own.at = report.at();
        for (Progress one : report.progress()) {
            OfJob job = own.jobs.computeIfAbsent(JobKey.of(one), k -> new OfJob(one));
            job.last = one;
            count(job, Said.of(one));
        }
    }

    /** Adds what came after it. */
    void add(UnsettledReports later) {
        upTo = Math.max(upTo, later.upTo);
        later.devices.forEach((device, theirs) -> {
            OfDevice own = device(device);
            own.number = theirs.number;
            own.at = theirs.at;
            theirs.jobs.forEach((key, said) -> {
                OfJob job = own.jobs.computeIfAbsent(key, k -> new OfJob(said.last));
                job.last = said.last;
                said.lines.forEach(line -> count(job, line));
            });
        });
    }

    private OfDevice device(String device) {
        return devices.computeIfAbsent(device, k -> {
            characters += BESIDES;
            return new OfDevice();
        });
    }

    private void count(OfJob job, Said line) {
        if (job.add(line)) {
            characters += BESIDES + line.message().length();
        }
    }
}
