package rivo.core.resolve;

/** The steps by which two candidates are compared; the first that differs decides. */
public enum LadderStep {
    BINDING, NEARNESS, SIDE, PRIORITY
}
