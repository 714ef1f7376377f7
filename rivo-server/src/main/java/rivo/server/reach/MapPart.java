package rivo.server.reach;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.PriorityQueue;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.IntStream;
import rivo.core.estate.Estate;
import rivo.core.estate.OuTree;

/**
 * Which OUs a map shows: some levels from an OU down, of each OU its largest ones, and no more in all than can be drawn and read. What is
 * left out is gathered at its parent. Costs a look at each OU of those levels.
 *
 * @param ous their positions, an OU before what is below it
 */
record MapPart(Estate estate, List<Integer> ous) {

    static final int LEVELS = 4;
    static final int MOST_OF_AN_OU = 24;
    static final int MOST = 300;
    static final int MOST_OF_AN_OPENED = 2000;

    /** The OUs that one is gathered of. @param devices how many devices are in them and below */
    record Rest(int ous, int devices) {
    }

    /**
     * @param top the position of the OU at the left
     * @param opened those of which all are shown, up to {@link #MOST_OF_AN_OPENED}, whatever there is besides
     */
    static MapPart of(Estate estate, int top, Set<Integer> opened) {
        int deepest = estate.ous().depth(top) + LEVELS - 1;
        SortedSet<Integer> shown = new TreeSet<>(Set.of(top));
        PriorityQueue<Integer> largest = new PriorityQueue<>(bySize(estate));
        offer(estate, top, opened, deepest, shown, largest);
        int room = MOST;
        while (room > 0 && !largest.isEmpty()) {
            int next = largest.remove();
            shown.add(next);
            room--;
            offer(estate, next, opened, deepest, shown, largest);
        }
        return new MapPart(estate, List.copyOf(shown));
    }

    private static void offer(Estate estate, int ou, Set<Integer> opened, int deepest, SortedSet<Integer> shown, PriorityQueue<Integer> largest) {
        if (estate.ous().depth(ou) == deepest) {
            return;
        }
        if (opened.contains(ou)) {
            for (int child : below(estate.ous(), ou).stream().limit(MOST_OF_AN_OPENED).toList()) {
                shown.add(child);
                offer(estate, child, opened, deepest, shown, largest);
            }
        } else {
            below(estate.ous(), ou).stream().filter(child -> devices(estate, child) > 0).sorted(bySize(estate)).limit(MOST_OF_AN_OU)
                    .forEach(largest::add);
        }
    }

    private static Comparator<Integer> bySize(Estate estate) {
        return Comparator.comparingInt((Integer ou) -> -devices(estate, ou)).thenComparing(Comparator.naturalOrder());
    }

    private static int devices(Estate estate, int ou) {
        return estate.devices().to(ou) - estate.devices().from(ou);
    }

    /** The positions of the OUs that stand in an OU itself, in the directory's order. */
    static List<Integer> below(OuTree tree, int ou) {
        List<Integer> below = new ArrayList<>();
        for (int child = ou + 1; child < tree.end(ou); child = tree.end(child)) {
            below.add(child);
        }
        return below;
    }

    /** What of an OU is left out; of one at the right edge, where nothing more is shown, all of it. */
    Rest rest(int ou) {
        IntStream left = below(estate.ous(), ou).stream().filter(child -> Collections.binarySearch(ous, child) < 0).mapToInt(child -> devices(estate, child));
        int[] devices = left.toArray();
        return new Rest(devices.length, IntStream.of(devices).sum());
    }
}
