package rivo.server.fleet;

import java.time.Duration;
import java.time.Instant;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Title;
import rivo.core.plan.Action;
import rivo.core.state.CallInHabit;
import rivo.core.state.Contact;
import rivo.core.state.PersonThere;
import rivo.core.state.Situation;
import rivo.core.state.UnitState;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;

/**
 * When the units of one device are expected to be as they shall be (section 7 of the delivery rules): its next call-in, as it said or as it is used
 * to; then its windows or the deadline; then as long as the title's jobs usually take. All three with the same likelihood. Used by one thread.
 */
final class ExpectedTimes {

    private final DeviceActivity doing;
    private final UnitSituations situations;
    private final JobDurations durations;
    private final Instant now;

    ExpectedTimes(DeviceActivity doing, UnitSituations situations, JobDurations durations, Instant now) {
        this.doing = doing;
        this.situations = situations;
        this.durations = durations;
        this.now = now;
    }

    /** Whether a time can be said of what waits so, unless the device is away. */
    static boolean isExpected(UnitState state) {
        return switch (state) {
            case RUNNING, FETCHING, WAITS_WINDOW, WAITS_DEADLINE, WAITS_NEED, WAITS_TRY, WAITS_DEVICE, AFTER_RESTART -> true;
            default -> false;
        };
    }

    /** Whether the device has not called in for so long that nothing is expected of it, or never has. */
    boolean isAway() {
        return doing.lastSeen() == null || doing.lastSeen().plus(CallInHabit.REACH).isBefore(now);
    }

    /**
     * By when it is so with this likelihood.
     *
     * @param likelihood 0 to 1
     * @return null where nobody can say, or where it takes longer than two weeks
     */
    @Nullable Instant by(double likelihood, Title title, @Nullable String person, Situation at, UnitState state) {
        if (!isExpected(state) || isAway() || at.person() == PersonThere.NOT_TOLD) {
            return null;
        }
        Progress job = at.currentJob() == null ? null : doing.jobs().get(JobKey.of(title.id(), person));
        JobAction action = at.action() == Action.Kind.REMOVE ? JobAction.REMOVE : JobAction.INSTALL;
        Duration takes = Objects.requireNonNullElse(durations.within(title.id(), action, likelihood), Duration.ZERO);
        if (job != null && job.state() == JobState.RUNNING) {
            return later(job.at().plus(takes), now);
        }
        if (state == UnitState.AFTER_RESTART) {
            return job == null || job.waits() == null || job.waits().until() == null ? null : later(job.waits().until(), now);
        }
        Instant from = callsIn(likelihood, at.contact());
        if (from == null) {
            return null;
        }
        Instant tried = job != null && job.state() == JobState.WAITING && job.waits() != null && job.waits().until() != null ? later(job.waits().until(), from) : from;
        return situations.begins(title, person, at, tried).plus(takes);
    }

    private @Nullable Instant callsIn(double likelihood, Contact contact) {
        Instant due = doing.nextDue();
        return contact == Contact.LATELY && due != null ? later(due, now) : doing.habit().callsInBy(likelihood, now);
    }

    private static Instant later(Instant one, Instant other) {
        return one.isBefore(other) ? other : one;
    }
}
