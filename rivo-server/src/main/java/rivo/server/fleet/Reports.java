package rivo.server.fleet;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Facts;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.server.audience.Accounts;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.EstateRecords;
import rivo.server.estate.EstateRecords.PresentRecord;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.estate.SharedEntries;
import rivo.server.estate.SignIns;
import rivo.server.estate.Snapshot;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.mirror.Traffic;
import rivo.server.notice.Notices;
import rivo.server.request.RequestDocument;
import rivo.server.request.Requests;

/** Takes devices' reports: each is on disk before it is acknowledged, and taken once. */
@Component
class Reports {

    /** How far a number may run ahead, so that one wrong report cannot make the server deaf to all that follow. */
    private static final long LARGEST_LEAP = 1_000_000;
    private final ChangeWriter writer;
    private final CurrentSnapshot current;
    private final Accounts accounts;
    private final Fleet fleet;
    private final LiveEvents events;
    private final Traffic traffic;
    private final UsualDurations durations;
    private final ArrivedReports arrived;

    Reports(ChangeWriter writer, CurrentSnapshot current, Accounts accounts, Fleet fleet, LiveEvents events, Traffic traffic, UsualDurations durations,
            ArrivedReports arrived) {
        this.arrived = arrived;
        this.durations = durations;
        this.current = current;
        this.accounts = accounts;
        this.traffic = traffic;
        this.writer = writer;
        this.fleet = fleet;
        this.events = events;
    }

    ReportAnswer take(String deviceId, Report report) {
        Map<JobKey, String> putOn = putOn(deviceId, report);
        return writer.take(context -> {
            Device device = context.estate().devices().find(deviceId);
            if (device == null) {
                throw Fleet.gone();
            }
            SignedInPeople people = new SignedInPeople(context.estate(), device, accounts);
            ReportChecks.check(context.estate(), people, report);
            long last = context.get(ArrivedReports.LAST_NUMBERS).getOrDefault(deviceId, 0L);
            if (report.number() <= last) {
                return new ReportAnswer(false, last);
            }
            if (report.number() - last > LARGEST_LEAP) {
                throw new RefusedException("leaping-number", "number", "The report has the number " + report.number()
                        + ", more than " + LARGEST_LEAP + " above the last one, " + last + ". Go on above the last one; a device "
                        + "that has lost count enrols anew, and counts from 1.");
            }
            SignIns before = context.get(SignIns.PART).get(deviceId);
            SignIns signIns = report.signedIn() == null ? null : SignIns.after(context, deviceId, people.ids(report.signedIn()));
            boolean grows = before == null || signIns == null || signIns.hasAllOf(before);
            Device newer = newer(device.withPeople(SignIns.peopleOf(grows ? device.people() : named(context, deviceId), signIns)), report, putOn);
            boolean changed = !newer.equals(device) || !areWrittenAlike(newer.present(), device.present());
            if (changed) {
                write(context, device, newer);
                noteChange(context, device, newer);
            }
            if (signIns != null) {
                SignIns.keep(context, Map.of(deviceId, signIns));
            }
            if (changed) {
                context.becomes(context.estate().withDevice(newer));
            }
            List<ReportAnswer.RefusedAnswer> refused = Notices.take(context, newer, report.notices() == null ? List.of() : report.notices(),
                    told -> Courtesies.allowed(context.snapshot(), newer, told.kind(), told.titles(), told.person()));
            List<Progress> said = progress(newer, report);
            arrived.take(context, deviceId, report.number(), said);
            Requests.forget(context, over(context.snapshot(), newer, said));
            List<Report.Fetched> fetched = report.fetched() == null ? List.of() : report.fetched();
            context.afterwards(() -> {
                fetched.forEach(traffic::fetched);
                durations.reported(deviceId, said);
                tell(deviceId, context.now(), changed);
            });
            return new ReportAnswer(true, report.number(), refused.isEmpty() ? null : refused);
        });
    }

    /** What is said of somebody who does not use the device, since they have been forgotten meanwhile, is passed over. */
    private static boolean isOfItsPeople(Device device, @Nullable String person) {
        return person == null || device.people().contains(person);
    }

    private static List<Progress> progress(Device device, Report report) {
        return report.progress() == null ? List.of() : report.progress().stream().filter(one -> isOfItsPeople(device, one.person())).toList();
    }

    private static List<String> named(ChangeContext context, String device) {
        return EstateRecords.named(context.db(), device).stream().filter(person -> context.estate().users().find(person) != null).toList();
    }

    /** What was given back and is not there any more, nor on its way; and what was wanted sooner, and is said to be installed. */
    private static List<RequestDocument> over(Snapshot snapshot, Device device, List<Progress> said) {
        Map<JobKey, Progress> jobs = snapshot.get(ArrivedReports.JOBS).getOrDefault(device.id(), Map.of());
        return RequestDocument.of(snapshot, device.id()).stream().filter(one -> {
            JobKey key = JobKey.of(one.title(), one.user());
            Progress job = jobs.get(key);
            boolean gone = one.isGivenBack() && device.present(one.title(), one.user()) == null
                    && (job == null || job.action() == JobAction.REMOVE || job.state() != JobState.RUNNING);
            boolean installed = said.stream().anyMatch(it -> JobKey.of(it).equals(key) && it.action() == JobAction.INSTALL && it.state() == JobState.DONE);
            return gone || one.isSooner() && installed;
        }).toList();
    }

    /** Under which assignments the report says that something has been installed, as they decide now. */
    private Map<JobKey, String> putOn(String device, Report report) {
        Map<JobKey, String> putOn = new HashMap<>();
        Resolver resolver = current.now().resolver();
        for (Progress one : report.progress() == null ? List.<Progress>of() : report.progress()) {
            Title title = one.title() == null ? null : resolver.estate().title(one.title());
            boolean isUnit = title != null && (title.scope() == Scope.DEVICE || one.person() != null);
            if (title != null && isUnit && one.action() == JobAction.INSTALL && one.state() == JobState.DONE) {
                int unit = resolver.audiences().unit(title.scope(), device, one.person());
                Decision decision = unit < 0 ? null : resolver.at(title, unit);
                Assignment winner = decision == null || decision.outcome() != Outcome.REQUIRED ? null : decision.winner();
                if (winner != null) {
                    putOn.put(JobKey.of(one), winner.id());
                }
            }
        }
        return putOn;
    }

    private void tell(String device, Instant now, boolean factsChanged) {
        fleet.reported(device, now);
        events.changed(Topics.device(device));
        if (factsChanged) {
            events.changed(Topics.FACTS);
        }
    }

    private static Device newer(Device device, Report report, Map<JobKey, String> putOn) {
        Facts facts = report.facts() == null ? device.facts() : Facts.of(report.facts());
        List<Installed> software = report.software() == null ? device.software() : report.software().stream()
                .map(s -> SharedEntries.installed(s.name(), s.publisher(), s.version())).toList();
        return device.withReport(facts, software, report.present() == null ? device.present()
                : present(device, report.present(), putOn));
    }

    /** Whoever installed it stays known for as long as it stays. */
    private static List<Present> present(Device device, List<Report.Found> found, Map<JobKey, String> putOn) {
        List<Present> present = new ArrayList<>();
        for (Report.Found one : found.stream().filter(each -> isOfItsPeople(device, each.person())).toList()) {
            Present before = device.present(one.title(), one.person());
            String by = putOn.getOrDefault(JobKey.of(one), before == null ? null : before.by());
            present.add(SharedEntries.present(one.title(), one.version(), one.person(), by));
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
        if (!areWrittenAlike(before.present(), after.present())) {
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

    /** Versions that compare equal may be written in two ways: 4.2 and 4.2.0. What was reported is what is shown. Most reports leave the very same list. */
    private static boolean areWrittenAlike(List<Present> some, List<Present> others) {
        return some == others || some.equals(others) && records(some).equals(records(others));
    }

    private static List<PresentRecord> records(List<Present> present) {
        return present.stream().map(PresentRecord::of).toList();
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
            was.put(words(one), one.version() == null ? "" : one.version());
        }
        for (PresentRecord one : records(after.present())) {
            String version = one.version() == null ? "" : one.version();
            if (!version.equals(was.remove(words(one)))) {
                is.put(words(one), version);
            }
        }
        after.people().stream().filter(person -> !before.people().contains(person)).forEach(person -> is.put("person " + person, "signs in here"));
        if (!was.isEmpty() || !is.isEmpty()) {
            context.db().sql("insert into device_changes (device, at, before_value, after_value) values (?, ?, ?, ?)")
                    .params(after.id(), Rows.at(context.now()), Json.write(was), Json.write(is)).update();
        }
    }

    private static String words(PresentRecord one) {
        return "present " + one.title() + (one.user() == null ? "" : " for " + one.user());
    }
}
