package rivo.server.fleet;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.explain.Trail;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.server.audience.Names;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.Snapshot;
import rivo.server.reach.RungView;
import rivo.server.reach.Rungs;
import rivo.server.web.ApiException;

/** One title on one device, or in one person's profile there: why, which release, and what the device is doing. */
@Component
class TitleOnDevice {

    private static final int MOST_LOG_LINES = 60;

    /**
     * @param person in whose profile, as {@code personName} calls them; absent for the device
     * @param steps of the job, when there is one
     * @param log what the device said, the newest first
     */
    record DeviceTitleWhy(String title, String titleName, @Nullable String person, @Nullable String personName, @Nullable String release, String sentence, List<RungView> rungs,
            List<ReleaseView> releases, List<StepView> steps, List<LogLine> log) {
    }

    /** @param note why it is taken or passed over */
    record ReleaseView(String version, boolean chosen, String note) {
    }

    /** @param at when it began; absent while it has not */
    record StepView(String text, @Schema(allowableValues = {"done", "running", "waiting", "failed", "ahead"}) String state,
            @Nullable Instant at, @Nullable Integer limitSeconds) {
    }

    /** One thing that the device said. */
    record LogLine(Instant at, @Schema(allowableValues = {"running", "waiting", "done", "failed"}) String state,
            int step, String message) {
    }

    private final Fleet fleet;
    private final ArrivedReports reports;

    TitleOnDevice(Fleet fleet, ArrivedReports reports) {
        this.fleet = fleet;
        this.reports = reports;
    }

    /**
     * @param whose the person, of a title that is installed for each person; null for the first of them
     * @throws ApiException when the title has no such unit there
     */
    DeviceTitleWhy of(Snapshot snapshot, Device device, String id, @Nullable String whose) {
        Title title = Titles.title(snapshot, id);
        Resolver resolver = snapshot.resolver();
        String person = whose == null && title.scope() == Scope.USER ? device.people().stream().findFirst().orElse(null) : whose;
        int unit = (title.scope() == Scope.USER) == (person != null) ? resolver.audiences().unit(title.scope(), device.id(), person) : -1;
        if (unit < 0) {
            throw ApiException.notFound("unknown-person", title.scope() == Scope.DEVICE ? title.name() + " is installed for the device; ask without a person."
                    : title.name() + " is installed for each person, and " + (person == null ? "nobody uses " + device.name() + " yet."
                            : "that is none of those who use " + device.name() + "."));
        }
        Trail trail = Trail.of(resolver, title, unit);
        Release chosen = trail.decision().map(Decision::release).orElse(null);
        JobKey key = JobKey.of(id, person);
        List<LogLine> log = log(device.id(), key);
        Job job = WorkOfDevice.of(snapshot, device).jobs().stream().filter(j -> JobKey.of(j.title(), j.person()).equals(key)).findFirst().orElse(null);
        return new DeviceTitleWhy(id, title.name(), person, person == null ? null : Names.of(resolver.estate(), Target.user(person)), chosen == null ? null : chosen.version().toString(), trail.sentence(),
                Rungs.of(snapshot, trail), releases(title, chosen), steps(job, fleet.progress(snapshot, device.id(), key), log), log);
    }

    private static List<ReleaseView> releases(Title title, @Nullable Release chosen) {
        List<ReleaseView> views = new ArrayList<>();
        boolean found = false;
        for (Release release : title.newestFirst()) {
            boolean is = release.equals(chosen);
            found |= is;
            String note = release.state() == ReleaseState.WITHDRAWN ? "withdrawn"
                    : is ? "the newest that is offered, variant " + release.variants().get(0).id()
                            : found ? "older" : "offered";
            views.add(new ReleaseView(release.version().toString(), is, note));
        }
        return views;
    }

    private List<LogLine> log(String device, JobKey job) {
        return reports.log(device, job, MOST_LOG_LINES).stream().map(said -> new LogLine(said.at(),
                said.state().name().toLowerCase(Locale.ROOT), said.step(), said.message())).toList();
    }

    private static List<StepView> steps(@Nullable Job job, @Nullable Progress progress, List<LogLine> newestFirst) {
        if (job == null) {
            return List.of();
        }
        boolean same = progress != null && progress.action() == job.action()
                && java.util.Objects.equals(progress.version(), job.version());
        List<StepView> steps = new ArrayList<>();
        for (int i = 1; i <= job.steps().size(); i++) {
            Job.Step step = job.steps().get(i - 1);
            steps.add(new StepView(step.text(), same && progress != null ? state(i, progress) : "ahead",
                    same ? began(i, newestFirst) : null, step.limitSeconds()));
        }
        return steps;
    }

    private static String state(int step, Progress progress) {
        if (progress.state() == JobState.DONE || step < progress.step()) {
            return "done";
        }
        if (step > progress.step()) {
            return "ahead";
        }
        return switch (progress.state()) {
            case RUNNING -> "running";
            case WAITING -> "waiting";
            case FAILED -> "failed";
            case DONE -> "done";
        };
    }

    /** When this step began in the last try: its newest running line. */
    private static @Nullable Instant began(int step, List<LogLine> newestFirst) {
        return newestFirst.stream().filter(l -> l.step() == step && "running".equals(l.state())).map(LogLine::at)
                .findFirst().orElse(null);
    }
}
