package rivo.server.fleet;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.WaitReason;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Json;

/**
 * How long jobs take, from their first step to their end, or until only a restart or sign-out is left: the last of each title. What has come since
 * the last minute is lost with a sudden death, and nothing else. Safe for any number of threads.
 */
@Component
class UsualDurations implements JobDurations {

    /** How many of a title and action are remembered. */
    private static final int REMEMBERED = 64;
    /** What takes longer has waited for something that was not reported. */
    private static final Duration LONGEST = Duration.ofDays(1);
    /** Of jobs under way. */
    private static final int MOST_BEGUN = 200_000;

    private record Of(String title, JobAction action) {
    }

    private record Begun(String device, JobKey job, JobAction action) {
    }

    /** @param sorted in seconds, the shortest first */
    private record Known(List<Integer> newestLast, int[] sorted) {

        static Known of(List<Integer> newestLast) {
            return new Known(newestLast, newestLast.stream().mapToInt(Integer::intValue).sorted().toArray());
        }

        Known and(int seconds) {
            List<Integer> next = new ArrayList<>(newestLast.subList(Math.max(0, newestLast.size() + 1 - REMEMBERED), newestLast.size()));
            next.add(seconds);
            return of(List.copyOf(next));
        }
    }

    private final Map<Of, Known> known = new ConcurrentHashMap<>();
    /** Of all titles, the shortest first; found out again once one has changed. */
    private final Map<JobAction, int[]> medians = new ConcurrentHashMap<>();
    private final Map<Begun, Instant> begun = new ConcurrentHashMap<>();
    private final Set<Of> sinceWritten = ConcurrentHashMap.newKeySet();
    private final ChangeWriter writer;
    private final Clock clock;

    UsualDurations(ChangeWriter writer, JdbcClient db, Clock clock) {
        this.writer = writer;
        this.clock = clock;
        db.sql("select title, action, seconds from usual_durations").query(row -> {
            known.put(new Of(row.getString("title"), JobAction.valueOf(row.getString("action"))), Known.of(List.copyOf(Json.readList(row.getString("seconds"), Integer.class))));
        });
    }

    /** Takes what a device has said, the newest last. */
    void reported(String device, List<Progress> said) {
        for (Progress one : said) {
            Begun job = new Begun(device, JobKey.of(one), one.action());
            if (one.state() == JobState.RUNNING) {
                if (begun.size() < MOST_BEGUN) {
                    begun.putIfAbsent(job, one.at());
                }
                continue;
            }
            Instant since = begun.remove(job);
            boolean onlyRestart = one.waits() != null && (one.waits().reason() == WaitReason.RESTART || one.waits().reason() == WaitReason.SIGN_OUT);
            if (since != null && (one.state() == JobState.DONE || one.state() == JobState.WAITING && onlyRestart)) {
                took(new Of(one.title(), one.action()), Duration.between(since, one.at()));
            }
        }
    }

    private void took(Of which, Duration time) {
        if (!time.isNegative() && time.compareTo(LONGEST) <= 0) {
            known.merge(which, Known.of(List.of((int) time.toSeconds())), (before, now) -> before.and(now.newestLast().get(0)));
            sinceWritten.add(which);
            medians.remove(which.action());
        }
    }

    @Override
    public @Nullable Duration within(String title, JobAction action, double share) {
        Known of = known.get(new Of(title, action));
        if (of != null) {
            return at(of.sorted(), share);
        }
        // One that nobody has installed yet takes as long as others do.
        int[] others = medians.computeIfAbsent(action, this::medians);
        return others.length == 0 ? null : at(others, share);
    }

    private int[] medians(JobAction action) {
        return known.entrySet().stream().filter(one -> one.getKey().action() == action).map(one -> one.getValue().sorted()).mapToInt(all -> all[all.length / 2]).sorted()
                .toArray();
    }

    private static Duration at(int[] sorted, double share) {
        return Duration.ofSeconds(sorted[Math.min(sorted.length - 1, (int) (share * sorted.length))]);
    }

    @Scheduled(fixedDelayString = "PT1M")
    void write() {
        Instant oldest = clock.instant().minus(LONGEST);
        begun.values().removeIf(since -> since.isBefore(oldest));
        List<Object[]> rows = new ArrayList<>();
        for (Of which : List.copyOf(sinceWritten)) {
            sinceWritten.remove(which);
            Known of = known.get(which);
            if (of != null) {
                rows.add(new Object[] {which.title(), which.action().name(), Json.write(of.newestLast())});
            }
        }
        if (!rows.isEmpty()) {
            writer.take(context -> {
                context.batch("merge into usual_durations (title, action, seconds) values (?, ?, ?)", rows);
                return rows.size();
            });
        }
    }
}
