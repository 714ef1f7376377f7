package rivo.core.state;

/** What a device says that a job waits for. */
public enum WaitsFor {
    /** A maintenance window that is open long enough. */
    WINDOW(UnitState.WAITS_WINDOW),
    /** The deadline, from when on windows do not count. */
    DEADLINE(UnitState.WAITS_DEADLINE),
    /** Another title that has to be there first. */
    NEED(UnitState.WAITS_NEED),
    /** What somebody at the device says to a question. */
    ANSWER(UnitState.WAITS_ANSWER),
    /** The next sign-in of the person whose job it is. */
    SIGN_IN(UnitState.WAITS_SIGN_IN),
    /** Content that neither a mirror nor the server gives. */
    CONTENT(UnitState.WAITS_CONTENT),
    /** The time of the next try. */
    TRY(UnitState.WAITS_TRY),
    /** A restart; all else is done. */
    RESTART(UnitState.AFTER_RESTART),
    /** Somebody's signing out and in again; all else is done. */
    SIGN_OUT(UnitState.AFTER_SIGN_IN);

    private final UnitState state;

    WaitsFor(UnitState state) {
        this.state = state;
    }

    /** In which state such a job leaves its unit. */
    UnitState state() {
        return state;
    }
}
