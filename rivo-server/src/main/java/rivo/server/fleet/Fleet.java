package rivo.server.fleet;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.estate.Title;
import rivo.core.resolve.Decision;
import rivo.core.state.CallInHabit;
import rivo.core.state.UnitState;
import rivo.devices.protocol.Progress;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.ChangesRefusedException;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

/**
 * What every device is doing. What devices report is a part of the snapshot. When they were last heard of is held beside it, since a
 * call-in changes nothing else: those instants, and when they used to call in, are written once a minute and at the end. Safe for any number of threads.
 */
@Component
public class Fleet {

    /** @param nextDue when it said it would call in again */
    private record Heard(Instant at, Instant nextDue, CallInHabit habit) {
    }

    private final Map<String, Heard> heard = new ConcurrentHashMap<>();
    private final Set<String> heardSinceWritten = ConcurrentHashMap.newKeySet();
    private final ChangeWriter writer;
    private final Clock clock;
    private final JobDurations durations;

    Fleet(ChangeWriter writer, JdbcClient db, Clock clock, JobDurations durations) {
        this.durations = durations;
        this.writer = writer;
        this.clock = clock;
        db.sql("select device, at, hours from call_ins").query(row -> {
            Instant at = Rows.instant(row, "at");
            heard.put(row.getString("device"), new Heard(at, at, CallInHabit.of(row.getBytes("hours"))));
        });
    }

    DeviceActivity of(Snapshot snapshot, String device) {
        Heard last = heard.get(device);
        Map<JobKey, Progress> jobs = snapshot.get(ArrivedReports.JOBS).getOrDefault(device, Map.of());
        return last == null ? jobs.isEmpty() ? DeviceActivity.NOTHING : new DeviceActivity(null, null, jobs)
                : new DeviceActivity(last.at(), last.nextDue(), jobs, last.habit());
    }

    /** When a device was last heard of; null when it never called in. */
    public @Nullable Instant lastSeen(String device) {
        Heard last = heard.get(device);
        return last == null ? null : last.at();
    }

    /** How a device, and each of its people there, stands with its titles. */
    public List<DeviceStanding.DeviceTitle> standing(Snapshot snapshot, Device device) {
        return DeviceStanding.of(snapshot, device, of(snapshot, device.id()), durations, clock.instant()).lines();
    }

    /** In which state one unit is. @param person in whose profile; null for the device */
    public UnitState state(Snapshot snapshot, Device device, Title title, @Nullable String person, @Nullable Decision decision) {
        return look(snapshot, device, title, person, decision).state();
    }

    /** In which state one unit is, and when it is expected to be as it shall. Parameters as above. */
    UnitLook look(Snapshot snapshot, Device device, Title title, @Nullable String person, @Nullable Decision decision) {
        Instant now = clock.instant();
        DeviceActivity doing = of(snapshot, device.id());
        UnitSituations situations = new UnitSituations(snapshot, device, doing, FromShelf.of(snapshot, device), now);
        return UnitLook.of(title, person, situations.of(title, person, decision), new ExpectedTimes(doing, situations, durations, now));
    }

    /** The last job of this kind on a device, as it was last reported; null without one. */
    public @Nullable Progress progress(Snapshot snapshot, String device, JobKey job) {
        return snapshot.get(ArrivedReports.JOBS).getOrDefault(device, Map.of()).get(job);
    }

    void calledIn(String device, Instant now, Duration nextIn) {
        heard.compute(device, (id, before) -> new Heard(now, now.plus(nextIn), (before == null ? CallInHabit.NONE : before.habit()).with(now)));
        heardSinceWritten.add(device);
    }

    /** When the next call-in is due stays as it was. */
    void reported(String device, Instant now) {
        heard.compute(device, (id, before) -> new Heard(now, before == null ? now : before.nextDue(), before == null ? CallInHabit.NONE : before.habit()));
        heardSinceWritten.add(device);
    }

    /** @throws ApiException when there is no such device */
    static Device device(Snapshot snapshot, String id) {
        Device device = snapshot.estate().devices().find(id);
        if (device == null) {
            throw unknown(id);
        }
        return device;
    }

    static ApiException unknown(String id) {
        return ApiException.notFound("unknown-device", "There is no device " + id
                + " in the directory; look for it by its name.");
    }

    static ApiException gone() {
        return ApiException.refused(HttpStatus.GONE, "device-gone",
                "This device is no longer in the directory. Put it back there to go on.");
    }

    @Scheduled(fixedDelayString = "PT1M")
    void writeCallIns() {
        Map<String, Heard> seen = new LinkedHashMap<>();
        for (String device : List.copyOf(heardSinceWritten)) {
            heardSinceWritten.remove(device);
            Heard last = heard.get(device);
            if (last != null) {
                seen.put(device, last);
            }
        }
        if (!seen.isEmpty()) {
            List<Object[]> rows = new ArrayList<>();
            seen.forEach((device, last) -> rows.add(new Object[] {device, Rows.at(last.at()), last.habit().bytes()}));
            writer.take(context -> {
                context.batch("merge into call_ins (device, at, hours) values (?, ?, ?)", rows);
                return rows.size();
            });
        }
    }

    @PreDestroy
    void stop() {
        try {
            writeCallIns();
        } catch (ChangesRefusedException e) {
            // The instants of the last minute's call-ins are all that is lost.
            return;
        }
    }
}
