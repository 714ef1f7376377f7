package rivo.server.fleet;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.estate.Version;
import rivo.core.plan.Action;
import rivo.core.plan.Plan;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.StepKind;
import rivo.devices.protocol.Work;
import rivo.server.catalogue.Catalogue;
import rivo.server.catalogue.Contents;
import rivo.server.catalogue.TitleRecord.VariantRecord;
import rivo.server.catalogue.TitleRecord;

/** A device's plan in the words of the device protocol, with the commands and content of the catalogue. */
@Component
class WorkOfDevice {

    private static final int FETCH_LIMIT_SECONDS = 3600;
    private static final int LOOK_LIMIT_SECONDS = 60;

    private final Catalogue catalogue;

    WorkOfDevice(Catalogue catalogue) {
        this.catalogue = catalogue;
    }

    Work of(Resolver resolver, Device device) {
        List<Job> jobs = new ArrayList<>();
        for (Action action : Plan.of(resolver, device).actions()) {
            Job job = job(action, device);
            if (job != null) {
                jobs.add(job);
            }
        }
        return new Work(jobs, catalogue.titles().stream()
                .map(title -> new Work.Check(title.id(), title.inventoryName())).toList());
    }

    private @Nullable Job job(Action action, Device device) {
        return switch (action.kind()) {
            case INSTALL -> install(action);
            case REMOVE -> remove(action, device);
        };
    }

    private @Nullable Job install(Action action) {
        Version version = Objects.requireNonNull(action.version());
        VariantRecord variant = catalogue.variant(action.title(), version, action.variant());
        if (variant == null) {
            return null;
        }
        List<Job.Step> steps = new ArrayList<>();
        Contents.Content content = variant.content();
        if (content != null) {
            steps.add(new Job.Step(StepKind.FETCH, "fetching " + content.fileName(), null, FETCH_LIMIT_SECONDS));
            steps.add(new Job.Step(StepKind.VERIFY, "checking its SHA-256", null, LOOK_LIMIT_SECONDS));
        }
        steps.add(new Job.Step(StepKind.RUN, "running the installer, quietly", variant.installCommand(),
                variant.limitSeconds()));
        steps.add(new Job.Step(StepKind.LOOK, "looking whether it is there", null, LOOK_LIMIT_SECONDS));
        return new Job(action.title(), name(action), JobAction.INSTALL, version.toString(), content == null ? null
                : new Job.Content(content.sha256(), content.size(), content.fileName()), steps);
    }

    /** Taken off with the command of the version that is there; where that is unknown, of the newest. */
    private @Nullable Job remove(Action action, Device device) {
        TitleRecord title = catalogue.record(action.title());
        var present = device.present(action.title());
        VariantRecord variant = present == null || present.version() == null ? null
                : firstVariant(title, present.version());
        if (variant == null) {
            variant = title.releases().stream().flatMap(r -> r.variants().stream()).findFirst().orElse(null);
        }
        if (variant == null) {
            return null;
        }
        return new Job(action.title(), name(action), JobAction.REMOVE, null, null, List.of(
                new Job.Step(StepKind.RUN, "running the removal, quietly", variant.removeCommand(),
                        variant.limitSeconds()),
                new Job.Step(StepKind.LOOK, "looking whether it is gone", null, LOOK_LIMIT_SECONDS)));
    }

    private static @Nullable VariantRecord firstVariant(TitleRecord title, Version version) {
        return title.releases().stream().filter(r -> Version.of(r.version()).equals(version))
                .flatMap(r -> r.variants().stream()).findFirst().orElse(null);
    }

    private String name(Action action) {
        return catalogue.record(action.title()).name();
    }
}
