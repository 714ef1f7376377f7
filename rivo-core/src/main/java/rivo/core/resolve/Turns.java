package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

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
    /** By share, how strong it is, the lower the stronger, and how old. */
    private final long[] strength;
    private final long[] age;

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
        this.waitsFor = new int[shares.size()][];
        Arrays.fill(waitsFor, NONE);
        this.waiters = new int[shares.size()][];
        Arrays.fill(waiters, NONE);
        this.places = new int[shares.size()];
        this.strength = new long[shares.size()];
        this.age = new long[shares.size()];
        int[] inOrder = new int[shares.size()];
        int count = 0;
        for (int s = 0; s < shares.size(); s++) {
            int t = shares.get(s).title();
            strength[s] = shares.get(s).base().strength();
            age[s] = shares.get(s).base().age();
            byTitle[t] = with(byTitle[t], s);
            if (shares.get(s).base().outcome() != Outcome.UNINSTALL) {
                inOrder[count++] = s;
            }
        }
        TurnSort.sort(inOrder, count, new int[count], this::compare);
        OfLevel ofLevel = new OfLevel(family);
        for (int from = 0; from < count;) {
            int to = from;
            while (to < count && strength[inOrder[to]] == strength[inOrder[from]]) {
                places[inOrder[to]] = to;
                to++;
            }
            levels.add(ofLevel.level(Arrays.copyOfRange(inOrder, from, to)));
            from = to;
        }
    }

    private int compare(int one, int other) {
        int order = Long.compare(strength[one], strength[other]);
        order = order != 0 ? order : Long.compare(age[one], age[other]);
        return order != 0 ? order : Integer.compare(shares.get(one).title(), shares.get(other).title());
    }

    private static int[] with(int[] some, int more) {
        int[] all = Arrays.copyOf(some, some.length + 1);
        all[some.length] = more;
        return all;
    }

    /** Finds out who waits for whom, level by level. */
    private final class OfLevel {

        private final Family family;
        /** By title, one of its shares of the level; by share, the next one of the same title and level; -1 for none. */
        private final int[] first;
        private final int[] next;

        OfLevel(Family family) {
            this.family = family;
            this.first = new int[family.titles().size()];
            this.next = new int[shares.size()];
            Arrays.fill(first, -1);
        }

        /** @param level in the order of their turns */
        Level level(int[] level) {
            for (int share : level) {
                next[share] = first[title(share)];
                first[title(share)] = share;
            }
            boolean anyWaits = false;
            for (int share : level) {
                anyWaits |= waits(share);
            }
            int[] waiting = NONE;
            for (int i = 0; anyWaits && i < level.length; i++) {
                int share = level[i];
                waiting = waitsFor[share].length == 0 ? waiting : with(waiting, share);
                for (int other : waitsFor[share]) {
                    waiters[other] = with(waiters[other], share);
                }
            }
            for (int share : level) {
                first[title(share)] = -1;
            }
            return new Level(level, waiting);
        }

        /** Notes who of the level replaces a share; whether one of them has its turn later. */
        private boolean waits(int share) {
            boolean later = false;
            for (int neighbour : family.neighbours(title(share))) {
                for (int other = first[neighbour]; other >= 0; other = next[other]) {
                    if (family.replaces(shares.get(other).release(), title(share))) {
                        waitsFor[share] = with(waitsFor[share], other);
                        later |= places[other] > places[share];
                    }
                }
            }
            return later;
        }

        private int title(int share) {
            return shares.get(share).title();
        }
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
