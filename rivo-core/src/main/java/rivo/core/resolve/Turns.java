package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * The base outcomes of a family's titles, and in which order they have their turns (the head of section 7): the strongest first, which is the same order at
 * every unit; and on one level the oldest first, but for those that have to wait at the units at which another of the level replaces them. Immutable.
 */
final class Turns {

    private static final int[] NONE = {};

    private final List<Share> shares;
    private final int[][] byTitle;
    private final List<Level> levels = new ArrayList<>();
    /** By share: those of its level that replace it, where any of that level may have to wait. */
    private final int[][] waitsFor;
    /** By share: those of its level that may have to wait for it, in the order of their turns. */
    private final int[][] waiters;
    /** By share that is not uninstalled, its place in the order of turns. */
    private final int[] places;

    /**
     * What a title comes to by itself, at some units.
     *
     * @param title its place in the family
     * @param release its number in the family
     */
    record Share(int title, BaseOutcome base, int release) {
    }

    /**
     * Those that are level: their numbers, in the order of their turns.
     *
     * @param waiting those that may have to wait for another, in the same order; none, when none has to wait for a later one
     */
    record Level(int[] shares, int[] waiting) {
    }

    /** @param shares by their numbers; of one title at disjoint units */
    Turns(Family family, List<Share> shares) {
        this.shares = shares;
        this.byTitle = new int[family.titles().size()][];
        Arrays.fill(byTitle, NONE);
        for (int s = 0; s < shares.size(); s++) {
            int t = shares.get(s).title();
            byTitle[t] = with(byTitle[t], s);
        }
        this.waitsFor = new int[shares.size()][];
        Arrays.fill(waitsFor, NONE);
        this.waiters = new int[shares.size()][];
        Arrays.fill(waiters, NONE);
        this.places = new int[shares.size()];
        Comparator<Integer> order = Comparator.comparing((Integer s) -> shares.get(s).base(), BaseOutcome.STRONGEST_THEN_OLDEST)
                .thenComparing(s -> shares.get(s).title());
        int[] inOrder = IntStream.range(0, shares.size()).filter(s -> shares.get(s).base().outcome() != Outcome.UNINSTALL).boxed()
                .sorted(order).mapToInt(s -> s).toArray();
        for (int i = 0; i < inOrder.length; i++) {
            places[inOrder[i]] = i;
        }
        for (int from = 0; from < inOrder.length;) {
            int to = from + 1;
            while (to < inOrder.length && isLevel(inOrder[from], inOrder[to])) {
                to++;
            }
            levels.add(level(family, IntStream.range(from, to).map(i -> inOrder[i]).toArray()));
            from = to;
        }
    }

    private static int[] with(int[] some, int more) {
        int[] all = Arrays.copyOf(some, some.length + 1);
        all[some.length] = more;
        return all;
    }

    private boolean isLevel(int one, int other) {
        return shares.get(one).base().rank().compareTo(shares.get(other).base().rank()) == 0;
    }

    private Level level(Family family, int[] level) {
        Map<Integer, List<Integer>> places = new HashMap<>();
        for (int i = 0; i < level.length; i++) {
            places.computeIfAbsent(shares.get(level[i]).title(), t -> new ArrayList<>(1)).add(i);
        }
        boolean anyWaits = false;
        for (int i = 0; i < level.length; i++) {
            int title = shares.get(level[i]).title();
            List<Integer> others = new ArrayList<>(0);
            for (int neighbour : family.neighbours(title)) {
                for (int other : places.getOrDefault(neighbour, List.of())) {
                    if (family.replaces(shares.get(level[other]).release(), title)) {
                        others.add(level[other]);
                        anyWaits |= other > i;
                    }
                }
            }
            waitsFor[level[i]] = others.stream().mapToInt(o -> o).toArray();
        }
        int[] waiting = anyWaits ? Arrays.stream(level).filter(share -> waitsFor[share].length > 0).toArray() : NONE;
        for (int share : waiting) {
            for (int other : waitsFor[share]) {
                waiters[other] = with(waiters[other], share);
            }
        }
        return new Level(level, waiting);
    }

    int size() {
        return shares.size();
    }

    Share share(int number) {
        return shares.get(number);
    }

    /** The numbers of a title's shares. */
    int[] of(int title) {
        return byTitle[title];
    }

    /** The strongest first, without those that are uninstalled. */
    List<Level> levels() {
        return levels;
    }

    /** The numbers of those that replace it and are level with it; of one that is not uninstalled. */
    int[] waitsFor(int share) {
        return waitsFor[share];
    }

    /** Those that may have to wait for it, in the order of their turns. */
    int[] waiters(int share) {
        return waiters[share];
    }

    /** The place of one that is not uninstalled in the order of turns. */
    int place(int share) {
        return places[share];
    }

    /** Whether it may have to wait for another of its level, or another for it. */
    boolean isTied(int share) {
        return waiters[share].length > 0 || waitsFor[share].length > 0;
    }
}
