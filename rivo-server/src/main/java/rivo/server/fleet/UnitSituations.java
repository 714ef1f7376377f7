package rivo.server.fleet;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Need;
import rivo.core.estate.Present;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.plan.Action;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.state.Contact;
import rivo.core.state.JobReport;
import rivo.core.state.Opening;
import rivo.core.state.PersonThere;
import rivo.core.state.Rest;
import rivo.core.state.Situation;
import rivo.core.state.WaitsFor;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Window;
import rivo.server.assignment.DeviceClock;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.SignIns;
import rivo.server.estate.Snapshot;
import rivo.server.window.MaintenanceWindows;

/** What the states of one device's units hang on, of one snapshot. Looked up as far as it counts. Used by one thread. */
final class UnitSituations {

    /**
     * When a job that nothing else keeps may begin.
     *
     * @param at null for now
     */
    record Begins(Opening opening, @Nullable Instant at) {
        static final Begins NOW = new Begins(Opening.OPEN, null);
    }

    private final Snapshot snapshot;
    private final Device device;
    private final DeviceActivity doing;
    private final Instant now;
    private final @Nullable SignIns signIns;
    private final FromShelf fromShelf;
    private final JobTimes times;
    private final Contact contact;
    private @Nullable Optional<Instant> nextWindow;
    private @Nullable List<Window> windows;

    UnitSituations(Snapshot snapshot, Device device, DeviceActivity doing, FromShelf fromShelf, Instant now) {
        this.snapshot = snapshot;
        this.device = device;
        this.doing = doing;
        this.now = now;
        this.signIns = snapshot.get(SignIns.PART).get(device.id());
        this.fromShelf = fromShelf;
        this.times = new JobTimes(snapshot, device);
        this.contact = doing.lastSeen() == null ? Contact.NEVER : doing.isOverdue(now) ? Contact.AWAY : Contact.LATELY;
    }

    Situation of(Title title, @Nullable String person, @Nullable Decision decision) {
        JobKey key = JobKey.of(title.id(), person);
        boolean isWebPage = snapshot.get(Titles.PART).isWebPage(title.id());
        Present present = isWebPage ? webPage(title, person, decision) : device.present(title.id(), person);
        Progress job = doing.jobs().get(key);
        Situation plain = new Situation(decision, present, isWebPage || snapshot.get(Titles.PART).canBeSeen(title.id()), fromShelf.givenBack().contains(key),
                fromShelf.asked().contains(key), job == null ? null : report(job), false, Rest.NONE, contact, there(person), Opening.OPEN);
        if (plain.action() == null) {
            return plain;
        }
        return new Situation(decision, present, plain.canBeSeen(), plain.givenBack(), plain.asked(), plain.job(), need(title, person, plain) != null,
                rest(title, person, plain), contact, plain.person(), begins(title, person, plain).opening());
    }

    /** What is only opened is there as soon as one may open it. */
    private static @Nullable Present webPage(Title title, @Nullable String person, @Nullable Decision decision) {
        return decision == null || decision.outcome() != Outcome.REQUIRED || decision.release() == null ? null
                : new Present(title.id(), decision.release().version(), person, null);
    }

    private static JobReport report(Progress job) {
        return new JobReport(job.action() == JobAction.INSTALL ? Action.Kind.INSTALL : Action.Kind.REMOVE, job.version(),
                JobReport.Stage.valueOf(job.state().name()), job.fetching() != null,
                job.waits() == null ? null : WaitsFor.valueOf(job.waits().reason().name()));
    }

    private PersonThere there(@Nullable String person) {
        return person == null ? PersonThere.NOBODY : signIns == null ? PersonThere.NOT_TOLD
                : signIns.isSignedIn(person) ? PersonThere.SIGNED_IN : PersonThere.AWAY;
    }

    /** The first title that is to be installed before this one and is not there; null without one. */
    @Nullable Title need(Title title, @Nullable String person, Situation at) {
        if (at.action() != Action.Kind.INSTALL || at.decision() == null || at.decision().release() == null) {
            return null;
        }
        for (Need need : at.decision().release().needs()) {
            Title needed = snapshot.estate().title(need.title());
            if (needed != null && device.present(needed.id(), needed.scope() == Scope.USER ? person : null) == null
                    && snapshot.get(Titles.PART).canBeSeen(needed.id())) {
                return needed;
            }
        }
        return null;
    }

    /** How the parts that come at people's sign-ins stand, of what is there for the device. */
    private Rest rest(Title title, @Nullable String person, Situation at) {
        if (person != null || !at.isThere()) {
            return Rest.NONE;
        }
        List<Progress> rests = rests(title, String.valueOf(at.wanted()));
        return rests.stream().anyMatch(job -> job.state() == JobState.FAILED) ? Rest.FAILED : rests.isEmpty() ? Rest.NONE : Rest.AHEAD;
    }

    /** What is left to do for people of an installation on the device. */
    List<Progress> rests(Title title, String version) {
        return device.people().stream().map(one -> doing.jobs().get(new JobKey(title.id(), one))).filter(Objects::nonNull)
                .filter(job -> job.action() == JobAction.INSTALL && version.equals(job.version()) && job.state() != JobState.DONE).toList();
    }

    /** Whether a job of this unit may begin now, as far as windows and deadlines say. */
    Begins begins(Title title, @Nullable String person, Situation at) {
        Instant window = nextWindow();
        if (window == null) {
            return Begins.NOW;
        }
        Instant anyTime = times.anyTimeFrom(at.decision() == null ? null : at.decision().winner(), title.id(), person == null ? "" : person);
        if (anyTime != null && !anyTime.isAfter(now)) {
            return Begins.NOW;
        }
        return anyTime != null && anyTime.isBefore(window) ? new Begins(Opening.AT_DEADLINE, anyTime) : new Begins(Opening.AT_WINDOW, window);
    }

    /** When a job of this unit may begin at the earliest from an instant on, as far as windows and deadlines say. */
    Instant begins(Title title, @Nullable String person, Situation at, Instant from) {
        List<Window> own = windows();
        if (own.isEmpty()) {
            return from;
        }
        LocalDateTime local = LocalDateTime.ofInstant(from, DeviceClock.zone(device));
        if (own.stream().anyMatch(window -> !window.left(local).isZero())) {
            return from;
        }
        Instant opens = own.stream().map(window -> window.next(local)).min(Comparator.naturalOrder()).map(next -> DeviceClock.instant(next, DeviceClock.zone(device)))
                .orElse(from);
        Instant anyTime = times.anyTimeFrom(at.decision() == null ? null : at.decision().winner(), title.id(), person == null ? "" : person);
        return anyTime == null || anyTime.isAfter(opens) ? opens : anyTime.isBefore(from) ? from : anyTime;
    }

    private List<Window> windows() {
        List<Window> known = windows;
        if (known == null) {
            known = MaintenanceWindows.of(snapshot, device);
            windows = known;
        }
        return known;
    }

    /** When the first of its windows opens; null where one is open, or it has none. */
    private @Nullable Instant nextWindow() {
        Optional<Instant> known = nextWindow;
        if (known == null) {
            List<Window> all = windows();
            LocalDateTime local = LocalDateTime.ofInstant(now, DeviceClock.zone(device));
            known = all.stream().anyMatch(window -> !window.left(local).isZero()) ? Optional.empty()
                    : all.stream().map(window -> window.next(local)).min(Comparator.naturalOrder())
                            .map(opens -> DeviceClock.instant(opens, DeviceClock.zone(device)));
            nextWindow = known;
        }
        return known.orElse(null);
    }
}
