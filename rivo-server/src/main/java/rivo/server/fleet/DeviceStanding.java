package rivo.server.fleet;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Present;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.core.explain.Trails;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.server.audience.Names;

/** How a device stands with each title: what it shall have, what it has, and what it is doing about it. */
final class DeviceStanding {

    /**
     * One title on one device.
     *
     * @param group where it is shown
     * @param from the version that is there; absent when it is not there, or of unknown version
     * @param to the version that shall be there; absent when it shall not
     * @param line what is the case, in words
     * @param end the short form of it; absent where {@code percent} or {@code due} says it
     * @param percent of the job under way
     * @param due when it is expected to go on
     */
    record DeviceTitle(String title, String titleName,
            @Schema(allowableValues = {"under-way", "waiting", "needs", "in-place", "unasked"}) String group,
            @Schema(allowableValues = {"required", "available", "uninstall", "contested", "later", "unfit", "blocked",
                "replaced", "displaced", "waiting"}) @Nullable String outcome,
            boolean present, @Nullable String from, @Nullable String to, String line, @Nullable String end,
            @Nullable Integer percent, @Nullable Instant due) {
    }

    private final Resolver resolver;
    private final Trails trails;
    private final Estate estate;
    private final Device device;
    private final DeviceActivity doing;

    DeviceStanding(Resolver resolver, Device device, DeviceActivity doing) {
        this.resolver = resolver;
        this.trails = Trails.of(resolver);
        this.estate = resolver.estate();
        this.device = device;
        this.doing = doing;
    }

    /** All titles that have an outcome here or are found here. */
    List<DeviceTitle> lines() {
        Map<String, Decision> outcomes = new LinkedHashMap<>();
        resolver.device(device).stream().filter(o -> o.user().isEmpty())
                .forEach(o -> outcomes.put(o.title().id(), o.decision()));
        Set<String> titles = new LinkedHashSet<>(outcomes.keySet());
        device.present().forEach(present -> titles.add(present.title()));
        List<DeviceTitle> lines = new ArrayList<>();
        for (String id : titles) {
            Title title = estate.title(id);
            if (title != null) {
                lines.add(line(title, outcomes.get(id)));
            }
        }
        return lines;
    }

    private DeviceTitle line(Title title, @Nullable Decision decision) {
        Present present = device.present(title.id());
        if (decision == null) {
            return of(title, null, present).to(null).line("installed, but not assigned").end("left alone")
                    .in("unasked");
        }
        Outcome outcome = decision.outcome();
        return switch (outcome) {
            case REQUIRED -> required(title, decision, present);
            case UNINSTALL -> uninstall(title, decision, present);
            case CONTESTED -> of(title, outcome, present).to(null)
                    .line(decision.deciding().size() + " level assignments disagree; left as it is").end("contested")
                    .in("needs");
            case UNFIT -> of(title, outcome, present).to(null).line("no release is offered that fits this device")
                    .end("does not fit").in("needs");
            case BLOCKED -> of(title, outcome, present).to(null).line(why(title, decision)).end("blocked").in("needs");
            case AVAILABLE -> of(title, outcome, present).to(null).line("offered").end("offered").in("waiting");
            case LATER -> of(title, outcome, present).to(null).line(why(title, decision)).end("later").in("waiting");
            case WAITING -> of(title, outcome, present).to(null).line(why(title, decision)).end("waiting for a seat")
                    .in("waiting");
            case REPLACED -> of(title, outcome, present).to(null).line(why(title, decision)).end("replaced")
                    .in("in-place");
            case DISPLACED -> of(title, outcome, present).to(null).line(why(title, decision)).end("kept off")
                    .in("in-place");
        };
    }

    private String why(Title title, Decision decision) {
        return trails.of(title, resolver.audiences().unit(title.scope(), device.id(), null), decision)
                .sentence();
    }

    private DeviceTitle required(Title title, Decision decision, @Nullable Present present) {
        Version wanted = Objects.requireNonNull(decision.release()).version();
        Version there = present == null ? null : present.version();
        Builder line = of(title, decision.outcome(), present).to(wanted);
        if (there != null && there.compareTo(wanted) >= 0) {
            return line.line("required" + where(decision)).end("as assigned").in("in-place");
        }
        return underWay(line, title.id(), JobAction.INSTALL, wanted.toString());
    }

    private DeviceTitle uninstall(Title title, Decision decision, @Nullable Present present) {
        Builder line = of(title, decision.outcome(), present).to(null);
        if (present == null) {
            return line.line("to be absent" + where(decision)).end("as assigned").in("in-place");
        }
        return underWay(line, title.id(), JobAction.REMOVE, null);
    }

    private DeviceTitle underWay(Builder line, String title, JobAction action, @Nullable String version) {
        Progress job = doing.jobs().get(title);
        if (job == null || job.action() != action || !Objects.equals(job.version(), version)
                || job.state() == JobState.DONE) {
            return notStarted(line);
        }
        return switch (job.state()) {
            case RUNNING -> line.line("step " + job.step() + " of " + job.steps() + " · " + job.message())
                    .percent(job.percent()).in("under-way");
            case WAITING -> line.line(job.message()).end("waits").in("waiting");
            case FAILED -> line.line(job.message()).end("failed").in("needs");
            case DONE -> throw new IllegalStateException("handled before");
        };
    }

    private DeviceTitle notStarted(Builder line) {
        if (doing.lastSeen() == null) {
            return line.line("the device has never called in").end("unreached").in("waiting");
        }
        return line.line("at its next call-in").due(doing.nextDue()).in("waiting");
    }

    /** Through what it comes: the OU, group or other target that holds the device, or the title that needs it. */
    private String where(Decision decision) {
        Assignment winner = decision.winner();
        if (winner == null) {
            Title by = decision.by() == null ? null : estate.title(decision.by());
            return by == null ? "" : ", needed by " + by.name();
        }
        int position = estate.devices().position(device.id());
        List<Target> holding = winner.include().stream().filter(target -> resolver.audiences().devicesReached(target, winner.follows()).contains(position)).toList();
        return holding.stream().filter(target -> target.kind() == Target.Kind.OU).findFirst().or(() -> holding.stream().findFirst())
                .map(target -> ", " + Names.of(estate, target)).orElse("");
    }

    private static Builder of(Title title, @Nullable Outcome outcome, @Nullable Present present) {
        return new Builder(title, outcome, present);
    }

    /** Puts one line together; {@link #in} ends it. */
    private static final class Builder {
        private final Title title;
        private final @Nullable Outcome outcome;
        private final @Nullable Present present;
        private @Nullable String to;
        private String line = "";
        private @Nullable String end;
        private @Nullable Integer percent;
        private @Nullable Instant due;

        Builder(Title title, @Nullable Outcome outcome, @Nullable Present present) {
            this.title = title;
            this.outcome = outcome;
            this.present = present;
        }

        Builder to(@Nullable Version version) {
            to = version == null ? null : version.toString();
            return this;
        }

        Builder line(String words) {
            line = words;
            return this;
        }

        Builder end(String words) {
            end = words;
            return this;
        }

        Builder percent(int done) {
            percent = done;
            return this;
        }

        Builder due(@Nullable Instant at) {
            due = at;
            return this;
        }

        DeviceTitle in(String group) {
            Version there = present == null ? null : present.version();
            return new DeviceTitle(title.id(), title.name(), group, outcome == null ? null : outcome.word(),
                    present != null, there == null ? null : there.toString(), to, line, end, percent, due);
        }
    }
}
