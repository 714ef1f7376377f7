package rivo.devices.fleet;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;

/**
 * Chance from a seed: the same question has the same answer on every run.
 *
 * <p>Each device has its own; immutable.
 *
 * @param spared whether nothing goes wrong with its jobs by chance
 */
record Luck(long seed, String device, boolean spared) {

    /** Of a thousand devices, this many fail at a job each time, and the rest of the second at the first try. */
    private static final int KEEP_FAILING = 10;
    private static final int FAIL_AT_FIRST = 20;

    Luck(long seed, String device) {
        this(seed, device, false);
    }

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
        if (spared) {
            return Mishap.NONE;
        }
        int n = perMille(job + "|" + attempt);
        if (perMille(job) < KEEP_FAILING || attempt == 1 && perMille(job) < FAIL_AT_FIRST) {
            return Mishap.INSTALLER_FAILS;
        }
        if (attempt > 1) {
            return Mishap.NONE;
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
