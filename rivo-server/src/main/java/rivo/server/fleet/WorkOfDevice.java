package rivo.server.fleet;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Version;
import rivo.core.plan.Action;
import rivo.core.plan.Plan;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.StepKind;
import rivo.devices.protocol.Work;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.Chosen;
import rivo.server.catalogue.title.StepsOnDevice;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.Snapshot;
import rivo.server.mirror.Mirrors;
import rivo.server.window.MaintenanceWindows;

/** A device's plan in the words of the device protocol, with the steps and content of the titles. */
final class WorkOfDevice {

    private static final int FETCH_LIMIT_SECONDS = 3600;
    private static final int LOOK_LIMIT_SECONDS = 60;

    /** @param snapshot of which everything is taken */
    static Work of(Snapshot snapshot, Device device) {
        return new WorkOfDevice(snapshot, device).work();
    }

    private final Snapshot snapshot;
    private final Resolver resolver;
    private final Titles titles;
    private final Device device;
    private final JobTimes times;

    private WorkOfDevice(Snapshot snapshot, Device device) {
        this.snapshot = snapshot;
        this.resolver = snapshot.resolver();
        this.titles = snapshot.get(Titles.PART);
        this.device = device;
        this.times = new JobTimes(snapshot, device);
    }

    private Work work() {
        List<Job> jobs = new ArrayList<>();
        for (Action action : Plan.of(resolver, device).actions()) {
            Job job = job(action);
            if (job != null) {
                jobs.add(job);
            }
        }
        return new Work(jobs, titles.checks(), Mirrors.of(snapshot, device), MaintenanceWindows.of(snapshot, device));
    }

    private @Nullable Job job(Action action) {
        return switch (action.kind()) {
            case INSTALL -> install(action);
            case REMOVE -> remove(action);
        };
    }

    private @Nullable Job install(Action action) {
        Version version = Objects.requireNonNull(action.version());
        ReleaseRecord release = titles.release(action.title(), version);
        VariantRecord variant = release == null ? null : release.variant(action.variant());
        if (release == null || variant == null) {
            return null;
        }
        Chosen chosen = FixedChoices.on(snapshot, device, action.title(), release, action.assignment());
        List<Contents.Content> contents = chosen.contents(variant);
        List<Job.Step> steps = new ArrayList<>();
        if (!contents.isEmpty()) {
            steps.add(Job.Step.of(StepKind.FETCH, "fetching " + files(contents), null, FETCH_LIMIT_SECONDS));
            steps.add(Job.Step.of(StepKind.VERIFY, "checking its SHA-256", null, LOOK_LIMIT_SECONDS));
        }
        addAll(steps, new StepsOnDevice(resolver, device, chosen).of(variant.install(), variant.asPerson()));
        if (!variant.presence().checks().isEmpty()) {
            steps.add(Job.Step.of(StepKind.LOOK, "checking that it is installed", null, LOOK_LIMIT_SECONDS));
        }
        return steps.isEmpty() ? null : new Job(action.title(), name(action), JobAction.INSTALL, version.toString(),
                contents.stream().map(c -> new Job.Content(c.sha256(), c.size(), c.fileName())).toList(), steps, times.anyTimeFrom(action));
    }

    /** The steps lead to one another by their numbers, which those before them move. */
    private static void addAll(List<Job.Step> steps, List<Job.Step> program) {
        int before = steps.size();
        program.forEach(step -> steps.add(step.after(before)));
    }

    private static String files(List<Contents.Content> contents) {
        return contents.size() == 1 ? contents.get(0).fileName() : contents.size() + " files";
    }

    /** Taken off as the version that is there says; where that is unknown, as the first that can. */
    private @Nullable Job remove(Action action) {
        TitleRecord title = titles.record(action.title());
        var present = device.present(action.title());
        VariantRecord variant = present == null || present.version() == null ? null
                : firstVariant(title, present.version());
        if (variant == null) {
            variant = title.releases().stream().flatMap(r -> r.variants().stream()).filter(v -> !v.remove().isEmpty())
                    .findFirst().orElse(null);
        }
        if (variant == null || variant.remove().isEmpty()) {
            return null;
        }
        ReleaseRecord there = present == null || present.version() == null ? null
                : titles.release(action.title(), present.version());
        Chosen chosen = there == null ? Chosen.NOTHING
                : FixedChoices.on(snapshot, device, action.title(), there, action.assignment());
        List<Job.Step> steps = new ArrayList<>(new StepsOnDevice(resolver, device, chosen).of(variant.remove(),
                variant.asPerson()));
        steps.add(Job.Step.of(StepKind.LOOK, "checking that it is removed", null, LOOK_LIMIT_SECONDS));
        return new Job(action.title(), name(action), JobAction.REMOVE, null, List.of(), steps, times.anyTimeFrom(action));
    }

    private static @Nullable VariantRecord firstVariant(TitleRecord title, Version version) {
        return title.releases().stream().filter(r -> Version.of(r.version()).equals(version))
                .map(ReleaseRecord::variants).flatMap(List::stream).filter(v -> !v.remove().isEmpty()).findFirst()
                .orElse(null);
    }

    private String name(Action action) {
        return titles.record(action.title()).name();
    }
}
