package rivo.server.fleet;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Follows;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.explain.Trails;
import rivo.core.plan.Action;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Reason;
import rivo.core.resolve.Resolver;
import rivo.core.state.Contact;
import rivo.core.state.PersonThere;
import rivo.core.state.Situation;
import rivo.core.state.UnitState;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.server.assignment.DeviceClock;
import rivo.server.audience.Names;
import rivo.server.fleet.DeviceStanding.UnitTitle;

/** The reason for the state of one device's units, in words. Used by one thread. */
final class StateSentences {

    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);
    private static final long KIBIBYTE = 1 << 10;
    private static final long MEBIBYTE = 1 << 20;
    /** From here on told in MiB. */
    private static final long LARGE = 10 * MEBIBYTE;
    /** What is found is reported with the end of a job, or right after it. */
    private static final Duration SETTLES = Duration.ofMinutes(1);

    /**
     * @param line a sentence
     * @param end its short form; null where {@code percent} or {@code due} says it
     * @param since when the device said so; null where it has not spoken of it
     * @param due when it is expected to go on; null where that cannot be said
     */
    record Said(String line, @Nullable String end, @Nullable Integer percent, @Nullable Instant since, @Nullable Instant due) {

        static Said of(String line, @Nullable String end) {
            return new Said(line, end, null, null, null);
        }

        Said due(@Nullable Instant at) {
            return new Said(line, end, percent, since, at);
        }

        Said since(@Nullable Instant at) {
            return new Said(line, end, percent, at, due);
        }
    }

    private final Resolver resolver;
    private final Trails trails;
    private final Device device;
    private final DeviceActivity doing;
    private final FromShelf fromShelf;
    private final UnitSituations situations;

    StateSentences(Resolver resolver, Device device, DeviceActivity doing, FromShelf fromShelf, UnitSituations situations) {
        this.resolver = resolver;
        this.trails = Trails.of(resolver);
        this.device = device;
        this.doing = doing;
        this.fromShelf = fromShelf;
        this.situations = situations;
    }

    Said of(UnitTitle unit, Situation at, UnitState state) {
        return switch (state) {
            case IN_PLACE, UNVERIFIED -> inPlace(unit, at, state);
            case GONE -> Said.of("to be absent" + where(unit, at), "as assigned").since(at.present() == null ? doneAt(unit, at) : null);
            case AFTER_SIGN_IN -> afterSignIn(unit, at);
            case FAILED -> failed(unit, at);
            case RUNNING, FETCHING, AFTER_RESTART, WAITS_WINDOW, WAITS_DEADLINE, WAITS_NEED, WAITS_ANSWER, WAITS_SIGN_IN, WAITS_CONTENT, WAITS_TRY ->
                    underWay(unit, at, state);
            case WAITS_DEVICE -> device(unit, at);
            case WAITS_WAVE -> Said.of(why(unit, at), "later");
            case WAITS_SEAT -> Said.of(why(unit, at), "waiting for a seat");
            case WAITS_APPROVAL -> Said.of("asked for; waits for approval", "waits");
            case CONTESTED -> Said.of(decision(at).deciding().size() + " level assignments disagree; left as it is", "contested");
            case UNFIT -> Said.of("no release is offered that fits this device", "does not fit");
            case BLOCKED -> Said.of(why(unit, at), "blocked");
            case KEPT_OFF -> Said.of(why(unit, at), "kept off");
            case REPLACED -> Said.of(why(unit, at), "replaced");
            case OFFERED -> Said.of("offered", "offered");
            case NOTHING -> nothing(unit);
        };
    }

    private static Decision decision(Situation at) {
        return Objects.requireNonNull(at.decision());
    }

    private String why(UnitTitle unit, Situation at) {
        return trails.of(unit.title(), resolver.audiences().unit(unit.title().scope(), device.id(), unit.person()), decision(at)).sentence();
    }

    String name(@Nullable String person) {
        User user = person == null ? null : resolver.estate().users().find(person);
        return user == null ? "somebody who has gone" : Names.of(user);
    }

    private Said nothing(UnitTitle unit) {
        String by = fromShelf.takenBy().get(unit.key());
        return Said.of(by == null ? "installed, but not assigned" : "taken from the shelf by " + by + "; not offered any more", "left alone");
    }

    private Said inPlace(UnitTitle unit, Situation at, UnitState state) {
        if (decision(at).outcome() == Outcome.AVAILABLE) {
            return Said.of("there already; offered", "offered");
        }
        String unverified = state == UnitState.UNVERIFIED ? "; installed, as its installer said: nothing can be looked for" : "";
        return Said.of(asAssigned(unit, at) + unverified, state == UnitState.UNVERIFIED ? "unverified" : "as assigned").since(doneAt(unit, at));
    }

    private String asAssigned(UnitTitle unit, Situation at) {
        String by = fromShelf.takenBy().get(unit.key());
        String words = decision(at).reason() == Reason.REQUESTED && by != null ? "taken from the shelf by " + by + "; offered" : "required";
        return words + where(unit, at);
    }

    private @Nullable Instant doneAt(UnitTitle unit, Situation at) {
        Progress job = at.currentJob() == null ? null : doing.jobs().get(unit.key());
        return job != null && job.state() == JobState.DONE ? job.at() : null;
    }

    /** What is in place on the device may not be whole for everybody yet. */
    private Said afterSignIn(UnitTitle unit, Situation at) {
        List<Progress> rests = situations.rests(unit.title(), String.valueOf(at.wanted()));
        if (rests.isEmpty()) {
            return underWay(unit, at, UnitState.AFTER_SIGN_IN);
        }
        String people = rests.stream().map(job -> name(job.person())).collect(Collectors.joining(", "));
        String said = rests.get(0).message();
        String doing = rests.size() > 1 ? "at their next sign-in" : said.contains(people) ? "at the next sign-in" : said;
        return Said.of("in place for the device; for " + people + ": " + doing, "waits").since(rests.get(0).at());
    }

    private Said failed(UnitTitle unit, Situation at) {
        Progress job = doing.jobs().get(unit.key());
        if (at.currentJob() != null && job != null && job.state() == JobState.FAILED) {
            Instant again = job.waits() == null ? null : job.waits().until();
            return Said.of(job.message() + (again == null ? "" : "; next try " + when(again)), "failed").since(job.at());
        }
        Progress rest = situations.rests(unit.title(), String.valueOf(at.wanted())).stream().filter(one -> one.state() == JobState.FAILED).findFirst().orElseThrow();
        return Said.of(asAssigned(unit, at) + "; for " + name(rest.person()) + ": " + rest.message(), "failed").since(rest.at());
    }

    /** What the device says, as far as it has spoken of it. */
    private Said underWay(UnitTitle unit, Situation at, UnitState state) {
        Progress job = at.currentJob() == null ? null : doing.jobs().get(unit.key());
        if (job != null && job.state() == JobState.RUNNING) {
            Progress.Fetching fetching = job.fetching();
            String fetched = fetching == null ? "" : ", " + of(fetching);
            return new Said("step " + job.step() + " of " + job.steps() + " · " + job.message() + fetched, null, job.percent(), job.at(), null);
        }
        if (job != null && job.state() == JobState.WAITING) {
            return Said.of(job.message(), "waits").since(job.at()).due(job.waits() == null ? null : job.waits().until());
        }
        return switch (state) {
            case WAITS_WINDOW, WAITS_DEADLINE -> {
                Instant begins = situations.begins(unit.title(), unit.person(), at).at();
                yield Said.of((state == UnitState.WAITS_WINDOW ? "waits for its window, which opens " : "waits for its deadline, ") + when(Objects.requireNonNull(begins)),
                        "waits").due(begins);
            }
            case WAITS_SIGN_IN -> Said.of("waits for the next sign-in of " + name(unit.person()), "waits");
            case WAITS_NEED -> Said.of("waits for " + Objects.requireNonNull(situations.need(unit.title(), unit.person(), at)).name() + ", which is installed first", "waits")
                    .due(doing.nextDue());
            default -> Said.of(state.words(), "waits");
        };
    }

    private static String of(Progress.Fetching fetching) {
        boolean large = fetching.all() >= LARGE;
        long unit = large ? MEBIBYTE : KIBIBYTE;
        return Math.round((double) fetching.bytes() / unit) + " of " + Math.round((double) fetching.all() / unit) + (large ? " MiB" : " KiB");
    }

    /** By the device's own clock. */
    private String when(Instant at) {
        return LocalDateTime.ofInstant(at, DeviceClock.zone(device)).format(WHEN);
    }

    private Said device(UnitTitle unit, Situation at) {
        if (at.contact() == Contact.NEVER) {
            return Said.of("the device has never called in", "unreached");
        }
        if (at.contact() == Contact.AWAY) {
            Instant seen = Objects.requireNonNull(doing.lastSeen());
            return Said.of("the device is away; it was last heard of " + when(seen), "away").since(seen);
        }
        Progress job = at.currentJob() == null ? null : doing.jobs().get(unit.key());
        if (job != null && job.state() == JobState.WAITING) {
            return Said.of(job.message(), "waits").since(job.at());
        }
        if (at.person() == PersonThere.NOT_TOLD) {
            return Said.of("the device does not tell who signs in; its agent is too old to serve people", "unreached");
        }
        boolean wasDone = job != null && job.state() == JobState.DONE && !job.at().plus(SETTLES).isAfter(Objects.requireNonNull(doing.lastSeen()));
        String again = !wasDone ? "" : at.action() == Action.Kind.INSTALL ? "it was removed by hand; installed again " : "it was installed again by hand; removed ";
        return Said.of(again + "at its next call-in", null).due(doing.nextDue());
    }

    /** Through what it comes: the OU, group or other target that holds the device or person, or the title that needs it. */
    private String where(UnitTitle unit, Situation at) {
        Decision decision = decision(at);
        Assignment winner = decision.winner();
        if (winner == null) {
            Title by = decision.by() == null ? null : resolver.estate().title(decision.by());
            return by == null ? "" : ", needed by " + by.name();
        }
        List<Target> holding = winner.include().stream().filter(target -> holds(target, winner, unit.person())).toList();
        return holding.stream().filter(target -> target.kind() == Target.Kind.OU).findFirst().or(() -> holding.stream().findFirst())
                .map(target -> ", " + Names.of(resolver.estate(), target)).orElse("");
    }

    private boolean holds(Target target, Assignment assignment, @Nullable String person) {
        User user = person == null || assignment.follows() == Follows.DEVICE ? null : resolver.estate().users().find(person);
        return user != null ? resolver.audiences().holds(target, user)
                : resolver.audiences().devicesReached(target, assignment.follows()).contains(resolver.estate().devices().position(device.id()));
    }
}
