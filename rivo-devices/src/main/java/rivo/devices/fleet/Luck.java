package rivo.devices.fleet;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;

/**
 * Chance from a seed: the same question has the same answer on every run.
 *
 * <p>Each device has its own; immutable.
 */
record Luck(long seed, String device) {

    /** A number from 0 to 999, evenly spread, for the question. */
    int perMille(String question) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256")
                    .digest((seed + "|" + device + "|" + question).getBytes(StandardCharsets.UTF_8));
            return (((hash[0] & 0xff) << 16) | ((hash[1] & 0xff) << 8) | (hash[2] & 0xff)) % 1000;
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    /** What befalls a try at a job. */
    Mishap mishap(String job, int attempt) {
        int n = perMille(job + "|" + attempt);
        if (attempt > 1) {
            // Most of what went wrong once goes well the next time; a few devices keep failing.
            return n < 250 && perMille(job) < 20 ? Mishap.INSTALLER_FAILS : Mishap.NONE;
        }
        if (perMille(job) < 20) {
            return Mishap.INSTALLER_FAILS;
        }
        if (n < 30) {
            return Mishap.FETCH_BREAKS_OFF;
        }
        if (n < 50) {
            return Mishap.ANOTHER_INSTALLER_RUNS;
        }
        if (n < 90) {
            return Mishap.NEEDS_RESTART;
        }
        return n < 95 ? Mishap.RAN_BUT_NOT_THERE : Mishap.NONE;
    }

    /** What can go wrong, in ways that real devices know. */
    enum Mishap {
        NONE, FETCH_BREAKS_OFF, ANOTHER_INSTALLER_RUNS, INSTALLER_FAILS, NEEDS_RESTART, RAN_BUT_NOT_THERE
    }
}
