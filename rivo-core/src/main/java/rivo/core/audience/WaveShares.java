package rivo.core.audience;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
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
    /** From so many devices on, the ids of all are laid out first. */
    private static final int MANY = 10_000;
    /** Of an id, in bytes. */
    private static final int USUAL_LENGTH = 16;

    /** @param limits of the assignment's waves: of ten thousand parts those below are taken */
    private record Share(String assignment, List<Integer> limits) {
    }

    /** @param devices those looked at so far; {@code taken} those of them that it takes, limit by limit */
    private record Found(Positions devices, List<Positions> taken) {

        static Found nothing(Share share) {
            return new Found(Positions.NONE, Collections.nCopies(share.limits.size(), Positions.NONE));
        }

        Found and(Found more) {
            return new Found(devices.or(more.devices), IntStream.range(0, taken.size()).mapToObj(i -> taken.get(i).or(more.taken.get(i))).toList());
        }

        Found at(Moves moves) {
            return new Found(moves.of(devices), taken.stream().map(moves::of).toList());
        }
    }

    /**
     * The ids of all devices one behind the other, in UTF-8. Going to each device for its id means to wait for memory three times.
     *
     * @param ends where each ends, by the device's position
     */
    private static final class Ids {

        private final byte[] utf8;
        private final int[] ends;

        private Ids(byte[] utf8, int[] ends) {
            this.utf8 = utf8;
            this.ends = ends;
        }

        static Ids of(Devices devices) {
            int[] ends = new int[devices.size()];
            byte[] utf8 = new byte[USUAL_LENGTH * devices.size()];
            int n = 0;
            for (int p = 0; p < ends.length; p++) {
                byte[] id = devices.at(p).id().getBytes(StandardCharsets.UTF_8);
                ends[p] = Math.addExact(n, id.length);
                if (ends[p] > utf8.length) {
                    utf8 = Arrays.copyOf(utf8, Math.max(ends[p], (int) Math.min(Integer.MAX_VALUE - Long.BYTES, 2L * utf8.length)));
                }
                System.arraycopy(id, 0, utf8, n, id.length);
                n = ends[p];
            }
            return new Ids(utf8, ends);
        }

        int part(Parts parts, int position) {
            int from = position == 0 ? 0 : ends[position - 1];
            return parts.of(utf8, from, ends[position] - from);
        }
    }

    private final Map<Share, Found> found = new ConcurrentHashMap<>();
    /** Of the devices that are asked about; found out when many are. */
    private volatile @Nullable Ids ids;

    /**
     * Those of the devices that a share takes. Costs a hash for each that has not been looked at yet, for all shares of the assignment together.
     *
     * @param limits of all shares of the assignment
     * @param limit the one of them that is asked about
     */
    Positions taken(String assignment, List<Integer> limits, int limit, Positions asked, Devices devices) {
        Share share = new Share(assignment, limits);
        Found known = found.getOrDefault(share, Found.nothing(share));
        Positions rest = asked.without(known.devices);
        if (!rest.isEmpty()) {
            known = known.and(find(share, rest, devices));
            found.put(share, known);
        }
        return asked.and(known.taken.get(limits.indexOf(limit)));
    }

    private Found find(Share share, Positions rest, Devices devices) {
        Parts parts = new Parts(share.assignment);
        Ids all = rest.size() < MANY ? null : ids(devices);
        int[] where = rest.toArray();
        int[] part = new int[where.length];
        Arrays.setAll(part, i -> all == null ? parts.of(devices.at(where[i]).id()) : all.part(parts, where[i]));
        return new Found(rest, share.limits.stream().map(limit -> Positions.ofSorted(IntStream.range(0, where.length).filter(i -> part[i] < limit)
                .map(i -> where[i]).toArray())).toList());
    }

    private Ids ids(Devices devices) {
        Ids known = ids;
        if (known == null) {
            known = Ids.of(devices);
            ids = known;
        }
        return known;
    }

    /** What is known in a newer estate, where the devices have moved so; of ended assignments nothing. */
    WaveShares in(Estate newer, Moves devices) {
        if (devices.areNone() && found.keySet().stream().allMatch(share -> isThere(newer, share))) {
            return this;
        }
        WaveShares next = new WaveShares();
        next.ids = devices.areNone() ? ids : null;
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
        Parts parts = new Parts(assignment);
        return id -> parts.of(id) < limit;
    }

    /** Which of ten thousand parts a device belongs to for an assignment. Of one thread. */
    private static final class Parts {

        private final MessageDigest sha256 = sha256();
        private final byte[] prefix;

        Parts(String assignment) {
            this.prefix = (assignment + "|").getBytes(StandardCharsets.UTF_8);
        }

        int of(String id) {
            byte[] utf8 = id.getBytes(StandardCharsets.UTF_8);
            return of(utf8, 0, utf8.length);
        }

        int of(byte[] utf8, int from, int length) {
            sha256.update(prefix);
            sha256.update(utf8, from, length);
            byte[] digest = sha256.digest();
            long first = 0;
            for (int i = 0; i < Long.BYTES; i++) {
                first = first << Byte.SIZE | digest[i] & 0xff;
            }
            return (int) Long.remainderUnsigned(first, PARTS);
        }
    }

    private static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
