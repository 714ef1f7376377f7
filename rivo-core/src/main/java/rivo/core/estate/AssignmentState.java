package rivo.core.estate;

/** Whether an assignment has a say. */
public enum AssignmentState {
    ACTIVE, RETIRED
}
