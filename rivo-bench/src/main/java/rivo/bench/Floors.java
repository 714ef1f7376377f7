package rivo.bench;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import rivo.core.audience.Audiences;
import rivo.core.audience.Positions;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;

/** What the figures are measured against, in the same run: how fast this machine reads bits. */
final class Floors {

    private final List<long[]> sets = new ArrayList<>();
    private final int words;

    /** Lays every assignment's target out as a bit for each device; equal targets share theirs. */
    Floors(Audiences audiences) {
        Estate estate = audiences.estate();
        words = (estate.devices().size() + 63) / 64;
        Map<Target, long[]> known = new HashMap<>();
        for (Assignment assignment : estate.assignments().all()) {
            for (Target target : assignment.include()) {
                sets.add(known.computeIfAbsent(target, t -> dense(audiences.reach(t, assignment.follows(), Scope.DEVICE))));
            }
        }
    }

    private long[] dense(Positions positions) {
        long[] bits = new long[words];
        positions.forEach(p -> bits[p >> 6] |= 1L << p);
        return bits;
    }

    /** The bare dense pass: reads the target set of every assignment once, against what remains. */
    long pass() {
        long[] remaining = new long[words];
        java.util.Arrays.fill(remaining, -1L);
        long sum = 0;
        for (long[] set : sets) {
            for (int w = 0; w < words; w++) {
                sum += set[w] & remaining[w];
            }
        }
        return sum;
    }

    /** For the object loop: one device after the other, all assignments of all titles. */
    static long objectLoop(Audiences audiences) {
        Estate estate = audiences.estate();
        long reached = 0;
        for (int d = 0; d < estate.devices().size(); d++) {
            var device = estate.devices().at(d);
            for (Assignment assignment : estate.assignments().all()) {
                for (Target target : assignment.include()) {
                    reached += assignment.follows() == Follows.DEVICE && holds(estate, audiences, target, device.id(),
                            device.ou(), d) ? 1 : 0;
                }
            }
        }
        return reached;
    }

    private static boolean holds(Estate estate, Audiences audiences, Target target, String id, String ou, int position) {
        return switch (target.kind()) {
            case ALL_DEVICES -> true;
            case OU -> estate.ous().isAtOrBelow(estate.ous().position(ou), estate.ous().position(target.id()));
            case DEVICE -> target.id().equals(id);
            case GROUP, COLLECTION -> audiences.reach(target, Follows.DEVICE, Scope.DEVICE).contains(position);
            case ALL_USERS, USER -> false;
        };
    }
}
