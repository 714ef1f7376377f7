package rivo.core.state;

import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rivo.core.plan.Action;
import rivo.core.resolve.Decision;

/** In which state a unit of a title is: always exactly one (section 7 of the delivery rules). */
public enum UnitState {
    IN_PLACE("in place", StateGroup.IN_PLACE),
    /** Its installation ended well, and nothing can be looked for. */
    UNVERIFIED("in place, unverified", StateGroup.IN_PLACE),
    AFTER_RESTART("in place after a restart", StateGroup.WAITING),
    /** It is installed, and a part of it comes at somebody's next sign-in. */
    AFTER_SIGN_IN("in place after a sign-in", StateGroup.WAITING),
    /** It is not there, as assigned. */
    GONE("gone", StateGroup.GONE),
    RUNNING("running", StateGroup.UNDER_WAY),
    FETCHING("fetching", StateGroup.UNDER_WAY),
    WAITS_WINDOW("waits for its window", StateGroup.WAITING),
    WAITS_DEADLINE("waits for its deadline", StateGroup.WAITING),
    WAITS_WAVE("waits for its wave", StateGroup.WAITING),
    WAITS_SEAT("waits for a seat", StateGroup.WAITING),
    WAITS_APPROVAL("waits for approval", StateGroup.WAITING),
    WAITS_NEED("waits for a title that it needs", StateGroup.WAITING),
    WAITS_ANSWER("waits for an answer", StateGroup.WAITING),
    WAITS_SIGN_IN("waits for a sign-in", StateGroup.WAITING),
    WAITS_CONTENT("waits for content", StateGroup.WAITING),
    WAITS_TRY("waits for another try", StateGroup.WAITING),
    WAITS_DEVICE("waits for the device", StateGroup.WAITING),
    FAILED("failed", StateGroup.FAILED),
    CONTESTED("contested", StateGroup.HELD),
    UNFIT("does not fit", StateGroup.HELD),
    BLOCKED("blocked", StateGroup.HELD),
    KEPT_OFF("kept off", StateGroup.HELD),
    REPLACED("replaced", StateGroup.HELD),
    OFFERED("offered, not taken", StateGroup.OFFERED),
    NOTHING("not assigned", StateGroup.NOTHING);

    private final String words;
    private final StateGroup group;

    UnitState(String words, StateGroup group) {
        this.words = words;
        this.group = group;
    }

    /** As it is written in the API and in addresses. */
    public String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** As people read it. */
    public String words() {
        return words;
    }

    public StateGroup group() {
        return group;
    }

    /** The state of a unit in this situation. */
    public static UnitState of(Situation at) {
        Action.Kind action = at.action();
        if (action == Action.Kind.REMOVE) {
            return at.present() == null ? GONE : underWay(at);
        }
        if (action == Action.Kind.INSTALL) {
            return installed(at);
        }
        Decision decision = at.decision();
        return decision == null ? NOTHING : switch (decision.outcome()) {
            case AVAILABLE -> at.asked() ? WAITS_APPROVAL : at.present() == null ? OFFERED : IN_PLACE;
            case LATER -> WAITS_WAVE;
            case WAITING -> WAITS_SEAT;
            case CONTESTED -> CONTESTED;
            case UNFIT -> UNFIT;
            case BLOCKED -> BLOCKED;
            case REPLACED -> REPLACED;
            case DISPLACED -> KEPT_OFF;
            case REQUIRED, UNINSTALL -> throw new IllegalStateException("these act");
        };
    }

    private static UnitState installed(Situation at) {
        JobReport job = at.currentJob();
        boolean done = job != null && job.stage() == JobReport.Stage.DONE;
        boolean isThere = at.isThere() || done && !at.canBeSeen();
        if (!isThere) {
            return underWay(at);
        }
        boolean waits = job != null && job.stage() == JobReport.Stage.WAITING && job.waitsFor() != null;
        if (waits && (job.waitsFor() == WaitsFor.RESTART || job.waitsFor() == WaitsFor.SIGN_OUT)) {
            return job.waitsFor().state();
        }
        return switch (at.rest()) {
            case FAILED -> FAILED;
            case AHEAD -> AFTER_SIGN_IN;
            case NONE -> at.isThere() ? IN_PLACE : UNVERIFIED;
        };
    }

    private static UnitState underWay(Situation at) {
        JobReport job = at.currentJob();
        JobReport.Stage stage = job == null ? JobReport.Stage.DONE : job.stage();
        if (stage == JobReport.Stage.FAILED) {
            return FAILED;
        }
        if (at.contact() != Contact.LATELY) {
            return WAITS_DEVICE;
        }
        return switch (stage) {
            case RUNNING -> job != null && job.fetching() ? FETCHING : RUNNING;
            case WAITING -> waiting(job == null ? null : job.waitsFor());
            // It was taken off by hand, or the device has not spoken of it yet.
            case DONE -> notBegun(at);
            case FAILED -> FAILED;
        };
    }

    private static UnitState waiting(@Nullable WaitsFor what) {
        return what == null ? WAITS_DEVICE : what.state();
    }

    private static UnitState notBegun(Situation at) {
        return switch (at.person()) {
            case NOT_TOLD -> WAITS_DEVICE;
            case AWAY -> WAITS_SIGN_IN;
            case NOBODY, SIGNED_IN -> at.needsFirst() ? WAITS_NEED : switch (at.opening()) {
                case AT_WINDOW -> WAITS_WINDOW;
                case AT_DEADLINE -> WAITS_DEADLINE;
                case OPEN -> WAITS_DEVICE;
            };
        };
    }
}
