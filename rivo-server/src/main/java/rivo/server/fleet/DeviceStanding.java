package rivo.server.fleet;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.Present;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Version;
import rivo.core.explain.Trails;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Reason;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.server.audience.Names;
import rivo.server.estate.SignIns;
import rivo.server.estate.Snapshot;

/** How a device, and each of its people there, stands with each title: what they shall have, what they have, and what is done about it. */
public final class DeviceStanding {

    /**
     * One title on one device, or in one person's profile there.
     *
     * @param person the id of that person; absent for the device
     * @param personName likewise
     * @param group where it is shown
     * @param from the version that is there; absent when it is not there, or of unknown version
     * @param to the version that shall be there; absent when it shall not
     * @param line what is the case, in words
     * @param end the short form of it; absent where {@code percent} or {@code due} says it
     * @param percent of the job under way
     * @param due when it is expected to go on
     */
    public record DeviceTitle(String title, String titleName, @Nullable String person, @Nullable String personName,
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
    private final @Nullable SignIns signIns;
    private final FromShelf fromShelf;

    static DeviceStanding of(Snapshot snapshot, Device device, DeviceActivity doing) {
        return new DeviceStanding(snapshot.resolver(), device, doing, snapshot.get(SignIns.PART).get(device.id()),
                FromShelf.of(snapshot, device));
    }

    /**
     * @param signIns null where the device does not tell who signs in
     * @param fromShelf what people have taken and given back
     */
    DeviceStanding(Resolver resolver, Device device, DeviceActivity doing, @Nullable SignIns signIns, FromShelf fromShelf) {
        this.signIns = signIns;
        this.fromShelf = fromShelf;
        this.resolver = resolver;
        this.trails = Trails.of(resolver);
        this.estate = resolver.estate();
        this.device = device;
        this.doing = doing;
    }

    /** A title for the device, or for one of its people. */
    private record UnitTitle(Title title, @Nullable String person) {
    }

    /** All titles that have an outcome here or are found here, for the device and for each of its people. */
    List<DeviceTitle> lines() {
        Map<UnitTitle, Decision> outcomes = new LinkedHashMap<>();
        resolver.device(device).forEach(o -> outcomes.put(new UnitTitle(o.title(), o.user().isEmpty() ? null : o.user()), o.decision()));
        Set<UnitTitle> all = new LinkedHashSet<>(outcomes.keySet());
        for (Present present : device.present()) {
            Title title = estate.title(present.title());
            if (title != null) {
                all.add(new UnitTitle(title, present.user()));
            }
        }
        return all.stream().map(one -> line(one, outcomes.get(one))).toList();
    }

    private DeviceTitle line(UnitTitle title, @Nullable Decision decision) {
        Present present = device.present(title.title().id(), title.person());
        JobKey key = JobKey.of(title.title().id(), title.person());
        if (fromShelf.givenBack().contains(key)) {
            return underWay(of(title, Outcome.UNINSTALL, present).to(null), title, JobAction.REMOVE, null);
        }
        if (decision == null) {
            String by = fromShelf.takenBy().get(key);
            return of(title, null, present).to(null).line(by == null ? "installed, but not assigned" : "taken from the shelf by " + by
                    + "; not offered any more").end("left alone").in("unasked");
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

    private String why(UnitTitle title, Decision decision) {
        return trails.of(title.title(), unit(title), decision).sentence();
    }

    private int unit(UnitTitle title) {
        return resolver.audiences().unit(title.title().scope(), device.id(), title.person());
    }

    private DeviceTitle required(UnitTitle title, Decision decision, @Nullable Present present) {
        Version wanted = Objects.requireNonNull(decision.release()).version();
        Version there = present == null ? null : present.version();
        Builder line = of(title, decision.outcome(), present).to(wanted);
        if (there != null && there.compareTo(wanted) >= 0) {
            String by = fromShelf.takenBy().get(JobKey.of(title.title().id(), title.person()));
            String words = decision.reason() == Reason.REQUESTED && by != null ? "taken from the shelf by " + by + "; offered" : "required";
            return inPlace(line, title, wanted.toString(), words + where(title, decision));
        }
        return underWay(line, title, JobAction.INSTALL, wanted.toString());
    }

    /** What is in place on the device may not be whole for everybody yet. */
    private DeviceTitle inPlace(Builder line, UnitTitle title, String version, String words) {
        List<Progress> rests = title.person() != null ? List.of() : device.people().stream()
                .map(person -> doing.jobs().get(new JobKey(title.title().id(), person))).filter(Objects::nonNull)
                .filter(job -> job.action() == JobAction.INSTALL && version.equals(job.version()) && job.state() != JobState.DONE).toList();
        Progress failed = rests.stream().filter(job -> job.state() == JobState.FAILED).findFirst().orElse(null);
        if (failed != null) {
            return line.line(words + "; for " + name(failed.person()) + ": " + failed.message()).end("failed").in("needs");
        }
        if (!rests.isEmpty()) {
            String people = rests.stream().map(job -> name(job.person())).collect(Collectors.joining(", "));
            String said = rests.get(0).message();
            String doing = rests.size() > 1 ? "at their next sign-in" : said.contains(people) ? "at the next sign-in" : said;
            return line.line("in place for the device; for " + people + ": " + doing).end("as assigned").in("in-place");
        }
        return line.line(words).end("as assigned").in("in-place");
    }

    private String name(@Nullable String person) {
        User user = person == null ? null : estate.users().find(person);
        return user == null ? "somebody who has gone" : Names.of(user);
    }

    private DeviceTitle uninstall(UnitTitle title, Decision decision, @Nullable Present present) {
        Builder line = of(title, decision.outcome(), present).to(null);
        if (present == null) {
            return line.line("to be absent" + where(title, decision)).end("as assigned").in("in-place");
        }
        return underWay(line, title, JobAction.REMOVE, null);
    }

    private DeviceTitle underWay(Builder line, UnitTitle title, JobAction action, @Nullable String version) {
        Progress job = doing.jobs().get(JobKey.of(title.title().id(), title.person()));
        if (job == null || job.action() != action || !Objects.equals(job.version(), version)
                || job.state() == JobState.DONE) {
            return notStarted(line, title.person());
        }
        return switch (job.state()) {
            case RUNNING -> line.line("step " + job.step() + " of " + job.steps() + " · " + job.message())
                    .percent(job.percent()).in("under-way");
            case WAITING -> line.line(job.message()).end("waits").in("waiting");
            case FAILED -> line.line(job.message()).end("failed").in("needs");
            case DONE -> throw new IllegalStateException("handled before");
        };
    }

    private DeviceTitle notStarted(Builder line, @Nullable String person) {
        if (doing.lastSeen() == null) {
            return line.line("the device has never called in").end("unreached").in("waiting");
        }
        if (person != null && signIns == null) {
            return line.line("the device does not tell who signs in; its agent is too old to serve people").end("unreached").in("needs");
        }
        if (person != null && !signIns.isSignedIn(person)) {
            return line.line("waits for the next sign-in of " + name(person)).end("waits").in("waiting");
        }
        return line.line("at its next call-in").due(doing.nextDue()).in("waiting");
    }

    /** Through what it comes: the OU, group or other target that holds the device or person, or the title that needs it. */
    private String where(UnitTitle title, Decision decision) {
        Assignment winner = decision.winner();
        if (winner == null) {
            Title by = decision.by() == null ? null : estate.title(decision.by());
            return by == null ? "" : ", needed by " + by.name();
        }
        List<Target> holding = winner.include().stream().filter(target -> holds(target, winner, title.person())).toList();
        return holding.stream().filter(target -> target.kind() == Target.Kind.OU).findFirst().or(() -> holding.stream().findFirst())
                .map(target -> ", " + Names.of(estate, target)).orElse("");
    }

    private boolean holds(Target target, Assignment assignment, @Nullable String person) {
        User user = person == null || assignment.follows() == Follows.DEVICE ? null : estate.users().find(person);
        return user != null ? resolver.audiences().holds(target, user)
                : resolver.audiences().devicesReached(target, assignment.follows()).contains(estate.devices().position(device.id()));
    }

    private Builder of(UnitTitle title, @Nullable Outcome outcome, @Nullable Present present) {
        return new Builder(title, title.person() == null ? null : name(title.person()), outcome, present);
    }

    /** Puts one line together; {@link #in} ends it. */
    private static final class Builder {
        private final UnitTitle title;
        private final @Nullable String personName;
        private final @Nullable Outcome outcome;
        private final @Nullable Present present;
        private @Nullable String to;
        private String line = "";
        private @Nullable String end;
        private @Nullable Integer percent;
        private @Nullable Instant due;

        Builder(UnitTitle title, @Nullable String personName, @Nullable Outcome outcome, @Nullable Present present) {
            this.title = title;
            this.personName = personName;
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
            return new DeviceTitle(title.title().id(), title.title().name(), title.person(), personName, group, outcome == null ? null : outcome.word(),
                    present != null, there == null ? null : there.toString(), to, line, end, percent, due);
        }
    }
}
