package rivo.server.fleet;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Version;
import rivo.core.plan.Action;
import rivo.core.plan.Plan;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Reason;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.Courtesy;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.StepKind;
import rivo.devices.protocol.Work;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Delivery;
import rivo.server.assignment.DeviceClock;
import rivo.server.audience.Names;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.Chosen;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.StepsOnDevice;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.SignIns;
import rivo.server.estate.Snapshot;
import rivo.server.mirror.Mirrors;
import rivo.server.notice.Notices;
import rivo.server.notice.QuietHoursDocument;
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
    private final @Nullable List<Work.Person> people;

    private WorkOfDevice(Snapshot snapshot, Device device) {
        this.snapshot = snapshot;
        this.resolver = snapshot.resolver();
        this.titles = snapshot.get(Titles.PART);
        this.device = device;
        this.times = new JobTimes(snapshot, device);
        this.people = people(snapshot, device);
    }

    private Work work() {
        List<Job> jobs = new ArrayList<>();
        GivenBack.of(snapshot, device).forEach(one -> jobs.addAll(jobs(new Action(Action.Kind.REMOVE, one.title(), Objects.requireNonNullElse(one.user(), ""),
                null, null, null, "given back"))));
        for (Action action : Plan.of(resolver, device, this::deadline).actions()) {
            jobs.addAll(jobs(action));
        }
        Work work = new Work(jobs, titles.checks(), Mirrors.of(snapshot, device), MaintenanceWindows.of(snapshot, device));
        Work told = work.withNotices(QuietHoursDocument.hours(snapshot), Notices.answers(snapshot, device.id()));
        return (people == null ? told : told.withPeople(people, titles.personChecks())).withMenu(menu());
    }

    /** What is offered here with an entry in the menu, whether it has been taken or not. */
    private List<Work.Entry> menu() {
        Set<String> inMenus = OffersInMenus.of(snapshot);
        if (inMenus.isEmpty()) {
            return List.of();
        }
        List<Work.Entry> entries = new ArrayList<>();
        for (Resolver.UnitOutcome one : resolver.device(device)) {
            Assignment winner = one.decision().winner();
            boolean isOffered = one.decision().outcome() == Outcome.AVAILABLE || one.decision().reason() == Reason.REQUESTED;
            if (isOffered && winner != null && inMenus.contains(winner.id()) && (one.user().isEmpty() || people != null)) {
                entries.add(new Work.Entry(one.title().id(), one.title().name(), one.user().isEmpty() ? null : one.user()));
            }
        }
        return entries;
    }

    /** Until when it shall hold; null without a deadline. */
    private @Nullable Instant deadline(Assignment assignment) {
        AssignmentDocument document = snapshot.get(AssignmentDocument.KIND).find(assignment.id());
        return document == null ? null : DeviceClock.deadline(document.delivery().deadline(), device);
    }

    /** Who uses a device; null for one that does not say who signs in: it would do for itself what is a person's. */
    static @Nullable List<Work.Person> people(Snapshot snapshot, Device device) {
        return !snapshot.get(SignIns.PART).containsKey(device.id()) ? null : device.people().stream()
                .map(id -> snapshot.estate().users().find(id)).filter(Objects::nonNull)
                .map(user -> new Work.Person(user.id(), user.name(), Names.of(user))).toList();
    }

    /** One, or none where there is nothing to carry out, and what is left of it for each person. */
    private List<Job> jobs(Action action) {
        if (!action.user().isEmpty() && people == null) {
            return List.of();
        }
        Part part = switch (action.kind()) {
            case INSTALL -> install(action);
            case REMOVE -> remove(action);
        };
        List<Job> jobs = new ArrayList<>();
        if (part != null && !part.device().steps().isEmpty()) {
            jobs.add(action.user().isEmpty() ? part.device() : part.device().of(action.user(), false));
        }
        if (part != null && !part.rest().steps().isEmpty() && people != null) {
            people.forEach(person -> jobs.add(part.rest().of(person.id(), true)));
        }
        return jobs;
    }

    /** @param rest what each person gets when they next sign in */
    private record Part(Job device, Job rest) {
    }

    private @Nullable Part install(Action action) {
        Version version = Objects.requireNonNull(action.version());
        ReleaseRecord release = titles.release(action.title(), version);
        VariantRecord variant = release == null ? null : release.variant(action.variant());
        if (release == null || variant == null) {
            return null;
        }
        Chosen chosen = FixedChoices.on(snapshot, device, action.user(), action.title(), release, action.assignment());
        List<Contents.Content> contents = chosen.contents(variant);
        List<Job.Step> fetching = contents.isEmpty() ? List.of() : List.of(
                Job.Step.of(StepKind.FETCH, "fetching " + files(contents), null, FETCH_LIMIT_SECONDS),
                Job.Step.of(StepKind.VERIFY, "checking its SHA-256", null, LOOK_LIMIT_SECONDS));
        Job.Step look = variant.presence().checks().isEmpty() ? null
                : Job.Step.of(StepKind.LOOK, "checking that it is installed", null, LOOK_LIMIT_SECONDS);
        return part(action, JobAction.INSTALL, version.toString(), contents, fetching, steps(action, chosen, variant, variant.install()),
                variant.install(), look);
    }

    private List<Job.Step> steps(Action action, Chosen chosen, VariantRecord variant, List<Step> program) {
        return new StepsOnDevice(resolver, device, chosen).of(program, variant.asPerson() || !action.user().isEmpty());
    }

    private Part part(Action action, JobAction does, @Nullable String version, List<Contents.Content> contents, List<Job.Step> fetching,
            List<Job.Step> steps, List<Step> program, Job.@Nullable Step look) {
        int own = (int) program.stream().takeWhile(step -> !step.atSignIn()).count();
        List<Job.Step> device = new ArrayList<>(fetching);
        addAll(device, steps.subList(0, own), 0);
        if (look != null) {
            device.add(look);
        }
        List<Job.Step> rest = new ArrayList<>();
        if (own < steps.size()) {
            rest.addAll(fetching);
            addAll(rest, steps.subList(own, steps.size()), own);
        }
        List<Job.Content> files = contents.stream().map(c -> new Job.Content(c.sha256(), c.size(), c.fileName())).toList();
        return new Part(job(action, false, does, version, files, device), job(action, true, does, version, files, rest));
    }

    private Job job(Action action, boolean isRest, JobAction does, @Nullable String version, List<Job.Content> files, List<Job.Step> steps) {
        Job job = new Job(action.title(), name(action), null, isRest, does, version, files, steps, times.anyTimeFrom(action), Courtesy.SILENT);
        Delivery delivery = times.delivery(action.assignment(), action.title(), action.user());
        return steps.isEmpty() ? job : job.with(Courtesies.of(job, delivery == null ? null : delivery.courtesy()));
    }

    /** The steps lead to one another by their numbers: some come before them now, and those of the part before no longer do. */
    private static void addAll(List<Job.Step> steps, List<Job.Step> program, int without) {
        int before = steps.size() - without;
        program.forEach(step -> steps.add(step.after(before)));
    }

    private static String files(List<Contents.Content> contents) {
        return contents.size() == 1 ? contents.get(0).fileName() : contents.size() + " files";
    }

    /** Taken off as the version that is there says; where that is unknown, as the first that can. */
    private @Nullable Part remove(Action action) {
        TitleRecord title = titles.record(action.title());
        var present = device.present(action.title(), action.user().isEmpty() ? null : action.user());
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
                : FixedChoices.on(snapshot, device, action.user(), action.title(), there, action.assignment());
        return part(action, JobAction.REMOVE, null, List.of(), List.of(), steps(action, chosen, variant, variant.remove()), variant.remove(),
                Job.Step.of(StepKind.LOOK, "checking that it is removed", null, LOOK_LIMIT_SECONDS));
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
