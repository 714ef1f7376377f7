package rivo.server.fleet;

import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.ChangesRefusedException;
import rivo.server.estate.Rows;
import rivo.server.estate.WorkingEstate;
import rivo.server.web.ApiException;

/**
 * What every device is doing, in memory: call-ins touch nothing else. Reports are in H2 before they come here; the
 * instants of call-ins are written once a minute and at the end. Safe for any number of threads.
 */
@Component
public class Fleet {

    private final Map<String, DeviceActivity> doing = new ConcurrentHashMap<>();
    private final Set<String> seenSinceWritten = ConcurrentHashMap.newKeySet();
    private final ChangeWriter writer;
    private final WorkingEstate working;

    Fleet(ChangeWriter writer, WorkingEstate working, JdbcClient db) {
        this.writer = writer;
        this.working = working;
        Map<String, List<Progress>> jobs = new HashMap<>();
        db.sql("select * from jobs").query((row, n) -> jobs.computeIfAbsent(row.getString("device"),
                k -> new ArrayList<>()).add(new Progress(row.getString("title"),
                        JobAction.valueOf(row.getString("action")), row.getString("version"),
                        JobState.valueOf(row.getString("state")), row.getInt("step"), row.getInt("steps"),
                        row.getInt("percent"), row.getString("message"), Rows.integer(row, "exit_code"),
                        Rows.instant(row, "at")))).list();
        jobs.forEach((device, progress) -> doing.put(device, DeviceActivity.NOTHING.reported(progress, null)));
        db.sql("select device, at from call_ins").query((row, n) -> {
            Instant at = Rows.instant(row, "at");
            return doing.merge(row.getString("device"), DeviceActivity.NOTHING.seen(at, at), (d, x) -> d.seen(at, at));
        }).list();
    }

    DeviceActivity of(String device) {
        return doing.getOrDefault(device, DeviceActivity.NOTHING);
    }

    void seen(String device, Instant now, Duration nextIn) {
        doing.merge(device, DeviceActivity.NOTHING.seen(now, now.plus(nextIn)), (d, x) -> d.seen(now, now.plus(nextIn)));
        seenSinceWritten.add(device);
    }

    /** A report counts as having been seen; when the next call-in is due stays as it was. */
    void reported(String device, List<Progress> progress, Instant now) {
        doing.compute(device, (id, d) -> (d == null ? DeviceActivity.NOTHING : d).reported(progress, now));
        seenSinceWritten.add(device);
    }

    /** @throws ApiException when there is no such device */
    public Device device(String id) {
        Device device = working.now().devices().find(id);
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
        Map<String, Instant> seen = new LinkedHashMap<>();
        for (String device : List.copyOf(seenSinceWritten)) {
            seenSinceWritten.remove(device);
            Instant at = of(device).lastSeen();
            if (at != null) {
                seen.put(device, at);
            }
        }
        if (!seen.isEmpty()) {
            List<Object[]> rows = new ArrayList<>();
            seen.forEach((device, at) -> rows.add(new Object[] {device, Rows.at(at)}));
            writer.take(context -> {
                context.batch("merge into call_ins (device, at) values (?, ?)", rows);
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
