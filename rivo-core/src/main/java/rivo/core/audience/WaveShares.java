package rivo.core.audience;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Devices;
import rivo.core.estate.Estate;

/**
 * Which devices the shares of waves take (section 3, rule 5). That is a matter of ids alone: what has once been found of a device holds
 * wherever it stands, and whatever reaches it, and is a SHA-256 for each device to find out again. Immutable but for what it has found;
 * safe for any thread.
 */
final class WaveShares {

    /** Of how many parts a share takes some. */
    static final int PARTS = 10_000;

    /** @param limit of ten thousand parts those below it are taken */
    private record Share(String assignment, int limit) {
    }

    /** @param devices those looked at so far; {@code taken} those of them that it takes */
    private record Found(Positions devices, Positions taken) {

        static final Found NOTHING = new Found(Positions.NONE, Positions.NONE);

        Found and(Positions more, Positions moreTaken) {
            return new Found(devices.or(more), taken.or(moreTaken));
        }

        Found at(Moves moves) {
            return new Found(moves.of(devices), moves.of(taken));
        }
    }

    private final Map<Share, Found> found = new ConcurrentHashMap<>();

    /** Those of the devices that a share takes. Costs a hash for each that has not been looked at yet. */
    Positions taken(String assignment, int limit, Positions asked, Devices devices) {
        Share share = new Share(assignment, limit);
        Found known = found.getOrDefault(share, Found.NOTHING);
        Positions rest = asked.without(known.devices);
        if (!rest.isEmpty()) {
            Predicate<String> takes = taking(assignment, limit);
            known = known.and(rest, rest.filter(p -> takes.test(devices.at(p).id())));
            found.put(share, known);
        }
        return asked.and(known.taken);
    }

    /** What is known in a newer estate, where the devices have moved so; of ended assignments nothing. */
    WaveShares in(Estate newer, Moves devices) {
        if (devices.areNone() && found.keySet().stream().allMatch(share -> isThere(newer, share))) {
            return this;
        }
        WaveShares next = new WaveShares();
        found.forEach((share, known) -> {
            if (isThere(newer, share)) {
                next.found.put(share, known.at(devices));
            }
        });
        return next;
    }

    private static boolean isThere(Estate estate, Share share) {
        var assignment = estate.assignments().find(share.assignment);
        return assignment != null && assignment.state() != AssignmentState.RETIRED;
    }

    /** Whether a share takes the device of an id. To be used by one thread. */
    static Predicate<String> taking(String assignment, int limit) {
        MessageDigest sha256 = sha256();
        byte[] prefix = (assignment + "|").getBytes(StandardCharsets.UTF_8);
        return id -> {
            sha256.update(prefix);
            byte[] digest = sha256.digest(id.getBytes(StandardCharsets.UTF_8));
            long first = 0;
            for (int i = 0; i < Long.BYTES; i++) {
                first = first << Byte.SIZE | digest[i] & 0xff;
            }
            return Long.remainderUnsigned(first, PARTS) < limit;
        };
    }

    private static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
