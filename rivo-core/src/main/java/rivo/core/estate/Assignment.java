package rivo.core.estate;

import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What an administrator decided: a title or kit, an intent, and whom it speaks for (section 3 of the resolution rules).
 *
 * @param seq its place in the order of publishing; the lower is the older
 * @param include whom it reaches; each with the assignment is a pair that may become a candidate
 * @param exclude whom it leaves out; one match is enough
 * @param within a rule that the device has to satisfy; null when there is none
 * @param base the id of the OU below which alone it has effect; null for the root
 * @param binding whether it crosses fences and cannot be undone below
 * @param priority 0 to 1000, both included; the higher wins between level ones
 * @param pin the one release that may be chosen; null for the newest that fits
 * @param from the instant from which it is live; null when it is live at once
 * @param waves in order; none means everybody at once
 */
public record Assignment(String id, long seq, AssignmentState state, Subject subject, Intent intent, Follows follows,
        List<Target> include, List<Target> exclude, @Nullable String within, @Nullable String base, boolean binding,
        int priority, @Nullable Version pin, @Nullable Instant from, Leaving leaving, List<Wave> waves) {

    /** The priority of an assignment that names none. */
    public static final int USUAL_PRIORITY = 500;
    public static final int HIGHEST_PRIORITY = 1000;

    public Assignment {
        Objects.requireNonNull(id);
        Objects.requireNonNull(state);
        Objects.requireNonNull(subject);
        Objects.requireNonNull(intent);
        Objects.requireNonNull(follows);
        Objects.requireNonNull(leaving);
        include = List.copyOf(include);
        exclude = List.copyOf(exclude);
        waves = List.copyOf(waves);
        if (priority < 0 || priority > HIGHEST_PRIORITY) {
            throw new RefusedException("bad-priority", "assignment:" + id,
                    "The priority " + priority + " is outside 0 to 1000; choose one inside.");
        }
    }

    /** A plain one, which the {@code with} methods make more of: active, following the device, newest release. */
    public static Assignment of(String id, long seq, Subject subject, Intent intent, List<Target> include) {
        return new Assignment(id, seq, AssignmentState.ACTIVE, subject, intent, Follows.DEVICE, include, List.of(),
                null, null, false, USUAL_PRIORITY, null, null, Leaving.KEEP, List.of());
    }

    /** Whether it has a say at this instant. */
    public boolean isLive(Instant asOf) {
        return state == AssignmentState.ACTIVE && (from == null || !from.isAfter(asOf));
    }

    /** Whether what it put on is taken off where it no longer reaches: a paused one removes nothing. */
    public boolean removesWhatItLeaves(Instant asOf) {
        return leaving == Leaving.REMOVE && (isLive(asOf) || state == AssignmentState.RETIRED);
    }

    public Assignment retired() {
        return withState(AssignmentState.RETIRED);
    }

    public Assignment withSeq(long newSeq) {
        return new Assignment(id, newSeq, state, subject, intent, follows, include, exclude, within, base, binding, priority, pin, from,
                leaving, waves);
    }

    public Assignment withState(AssignmentState newState) {
        return new Assignment(id, seq, newState, subject, intent, follows, include, exclude, within, base, binding,
                priority, pin, from, leaving, waves);
    }

    public Assignment withIntent(Intent newIntent) {
        return new Assignment(id, seq, state, subject, newIntent, follows, include, exclude, within, base, binding,
                priority, pin, from, leaving, waves);
    }

    public Assignment withFollows(Follows side) {
        return new Assignment(id, seq, state, subject, intent, side, include, exclude, within, base, binding, priority,
                pin, from, leaving, waves);
    }

    public Assignment withInclude(List<Target> targets) {
        return new Assignment(id, seq, state, subject, intent, follows, targets, exclude, within, base, binding,
                priority, pin, from, leaving, waves);
    }

    public Assignment withExclude(List<Target> targets) {
        return new Assignment(id, seq, state, subject, intent, follows, include, targets, within, base, binding,
                priority, pin, from, leaving, waves);
    }

    public Assignment withWithin(@Nullable String rule) {
        return new Assignment(id, seq, state, subject, intent, follows, include, exclude, rule, base, binding, priority,
                pin, from, leaving, waves);
    }

    public Assignment withBase(@Nullable String ou) {
        return new Assignment(id, seq, state, subject, intent, follows, include, exclude, within, ou, binding, priority,
                pin, from, leaving, waves);
    }

    public Assignment withBinding(boolean isBinding) {
        return new Assignment(id, seq, state, subject, intent, follows, include, exclude, within, base, isBinding,
                priority, pin, from, leaving, waves);
    }

    public Assignment withPriority(int newPriority) {
        return new Assignment(id, seq, state, subject, intent, follows, include, exclude, within, base, binding,
                newPriority, pin, from, leaving, waves);
    }

    public Assignment withPin(@Nullable Version version) {
        return new Assignment(id, seq, state, subject, intent, follows, include, exclude, within, base, binding,
                priority, version, from, leaving, waves);
    }

    public Assignment withFrom(@Nullable Instant start) {
        return new Assignment(id, seq, state, subject, intent, follows, include, exclude, within, base, binding,
                priority, pin, start, leaving, waves);
    }

    public Assignment withLeaving(Leaving newLeaving) {
        return new Assignment(id, seq, state, subject, intent, follows, include, exclude, within, base, binding,
                priority, pin, from, newLeaving, waves);
    }

    public Assignment withWaves(List<Wave> newWaves) {
        return new Assignment(id, seq, state, subject, intent, follows, include, exclude, within, base, binding,
                priority, pin, from, leaving, newWaves);
    }

    /** By the id alone, which is enough to tell assignments apart, and quick. */
    @Override
    public int hashCode() {
        return id.hashCode();
    }
}
