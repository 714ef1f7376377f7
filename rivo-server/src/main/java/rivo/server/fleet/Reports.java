package rivo.server.fleet;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.estate.Facts;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Version;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.EstateRecords.PresentRecord;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.mirror.Traffic;

/** Takes devices' reports: each is on disk before it is acknowledged, and taken once. */
@Component
class Reports {

    /** How far a number may run ahead, so that one wrong report cannot make the server deaf to all that follow. */
    private static final long LARGEST_LEAP = 1_000_000;
    private final ChangeWriter writer;
    private final Fleet fleet;
    private final LiveEvents events;
    private final Traffic traffic;

    Reports(ChangeWriter writer, Fleet fleet, LiveEvents events, Traffic traffic) {
        this.traffic = traffic;
        this.writer = writer;
        this.fleet = fleet;
        this.events = events;
    }

    ReportAnswer take(String deviceId, Report report) {
        return writer.take(context -> {
            Device device = context.estate().devices().find(deviceId);
            if (device == null) {
                throw Fleet.gone();
            }
            ReportChecks.check(context.estate(), report);
            long last = context.get(ArrivedReports.LAST_NUMBERS).getOrDefault(deviceId, 0L);
            if (report.number() <= last) {
                return new ReportAnswer(false, last);
            }
            if (report.number() - last > LARGEST_LEAP) {
                throw new RefusedException("leaping-number", "number", "The report has the number " + report.number()
                        + ", more than " + LARGEST_LEAP + " above the last one, " + last + ". Go on above the last one; a device "
                        + "that has lost count enrols anew, and counts from 1.");
            }
            Device newer = newer(device, report);
            if (!newer.equals(device)) {
                write(context, device, newer);
                noteChange(context, device, newer);
                context.becomes(context.estate().withDevice(newer));
            }
            ArrivedReports.take(context, deviceId, report.number(), report.progress() == null ? List.of() : report.progress());
            List<Report.Fetched> fetched = report.fetched() == null ? List.of() : report.fetched();
            context.afterwards(() -> {
                fetched.forEach(traffic::fetched);
                tell(deviceId, context.now(), !newer.equals(device));
            });
            return new ReportAnswer(true, report.number());
        });
    }

    private void tell(String device, Instant now, boolean factsChanged) {
        fleet.reported(device, now);
        events.changed(Topics.device(device));
        if (factsChanged) {
            events.changed(Topics.FACTS);
        }
    }

    private static Device newer(Device device, Report report) {
        Facts facts = report.facts() == null ? device.facts() : Facts.of(report.facts());
        List<Installed> software = report.software() == null ? device.software() : report.software().stream()
                .map(s -> new Installed(s.name(), s.publisher(), s.version())).toList();
        return device.withReport(facts, software, report.present() == null ? device.present()
                : present(report.present()));
    }

    private static List<Present> present(List<Report.Found> found) {
        List<Present> present = new ArrayList<>();
        for (Report.Found one : found) {
            present.add(Present.of(one.title(), one.version() == null ? null : Version.of(one.version())));
        }
        return present;
    }

    /** Only what has changed is written anew: lists of software have thousands of entries and seldom change. */
    private static void write(ChangeContext context, Device before, Device after) {
        Map<String, Object> changed = new LinkedHashMap<>();
        if (!before.facts().equals(after.facts())) {
            changed.put("facts", after.facts().asMap());
        }
        if (!before.software().equals(after.software())) {
            changed.put("software", after.software());
        }
        if (!before.present().equals(after.present())) {
            changed.put("present", records(after.present()));
        }
        int updated = 1;
        for (Map.Entry<String, Object> column : changed.entrySet()) {
            updated = Math.min(updated, context.db().sql("update device_reports set " + column.getKey() + " = ? where device = ?")
                    .params(Json.write(column.getValue()), after.id()).update());
        }
        if (updated == 0) {
            context.db().sql("insert into device_reports (device, facts, software, present) values (?, ?, ?, ?)")
                    .params(after.id(), Json.write(after.facts().asMap()), Json.write(after.software()), Json.write(records(after.present())))
                    .update();
        }
    }

    private static List<PresentRecord> records(List<Present> present) {
        return present.stream().map(p -> new PresentRecord(p.title(), text(p.version()))).toList();
    }

    private static @Nullable String text(@Nullable Version version) {
        return version == null ? null : version.toString();
    }

    /** What is different, and nothing else. */
    private static void noteChange(ChangeContext context, Device before, Device after) {
        Map<String, Object> was = new TreeMap<>();
        Map<String, Object> is = new TreeMap<>();
        Map<String, String> factsBefore = before.facts().asMap();
        Map<String, String> factsAfter = after.facts().asMap();
        Set<String> names = new TreeSet<>(factsBefore.keySet());
        names.addAll(factsAfter.keySet());
        for (String name : names) {
            String one = factsBefore.get(name);
            String other = factsAfter.get(name);
            if (!Objects.equals(one, other)) {
                was.put("fact " + name, one == null ? "" : one);
                is.put("fact " + name, other == null ? "" : other);
            }
        }
        for (PresentRecord one : records(before.present())) {
            was.put("present " + one.title(), one.version() == null ? "" : one.version());
        }
        for (PresentRecord one : records(after.present())) {
            String version = one.version() == null ? "" : one.version();
            if (!version.equals(was.remove("present " + one.title()))) {
                is.put("present " + one.title(), version);
            }
        }
        if (!was.isEmpty() || !is.isEmpty()) {
            context.db().sql("insert into device_changes (device, at, before_value, after_value) values (?, ?, ?, ?)")
                    .params(after.id(), Rows.at(context.now()), Json.write(was), Json.write(is)).update();
        }
    }
}
