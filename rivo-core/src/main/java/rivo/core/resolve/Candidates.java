package rivo.core.resolve;

import java.util.Arrays;
import java.util.function.BiConsumer;

/** Titles of which the one that began to stand first counts, and where: the sets of one turn. Of one thread. */
final class Candidates {

    /** Of a word that orders steps: the low bits count those of a title, the ones above the titles. */
    private static final int STEP = 18;
    private static final int MOST = (1 << 32 - STEP) - 1;

    private final FamilyBits bits;
    private final LaneSets sets;
    private int count;
    private int[] titles = {};
    private long[][] where = {};
    private long[] order = {};

    Candidates(FamilyBits bits) {
        this.bits = bits;
        this.sets = bits.sets();
    }

    /** Forgets those of the last turn. */
    void begin() {
        count = 0;
    }

    /** @param at the sets become these candidates' own */
    void add(int title, long[] at) {
        if (!sets.any(at)) {
            return;
        }
        if (count == titles.length) {
            titles = Arrays.copyOf(titles, 2 * count + 2);
            where = Arrays.copyOf(where, 2 * count + 2);
        }
        titles[count] = title;
        where[count++] = at;
    }

    boolean any() {
        return count > 0;
    }

    /** Where any is. */
    long[] all() {
        long[] all = sets.none();
        for (int i = 0; i < count; i++) {
            sets.add(all, where[i]);
        }
        return all;
    }

    /** Takes these units out of all. */
    void leave(long[] some) {
        for (int i = 0; i < count; i++) {
            sets.remove(where[i], some);
        }
    }

    /** Calls with each that is the first anywhere, and where it is. */
    void first(BiConsumer<Integer, long[]> taker) {
        if (count == 1 && sets.any(where[0])) {
            taker.accept(titles[0], where[0]);
        }
        if (count < 2) {
            return;
        }
        long[] several = several();
        for (int i = 0; i < count; i++) {
            long[] alone = sets.without(where[i], several);
            if (sets.any(alone)) {
                taker.accept(titles[i], alone);
            }
        }
        if (sets.any(several)) {
            firstOfSeveral(several, taker);
        }
    }

    private long[] several() {
        long[] once = sets.none();
        long[] several = sets.none();
        for (int i = 0; i < count; i++) {
            Bits.addBoth(several, once, where[i], sets.from(), sets.to());
            sets.add(once, where[i]);
        }
        return several;
    }

    /** Step by step, as they began to stand. */
    private void firstOfSeveral(long[] several, BiConsumer<Integer, long[]> taker) {
        int steps = 0;
        for (int i = 0; i < count; i++) {
            TitleBits title = bits.at(titles[i]);
            for (int s = 0; s < title.stoodCount(); s++) {
                if (steps == order.length) {
                    order = Arrays.copyOf(order, 2 * steps + 2);
                }
                order[steps++] = (long) title.step(s) << 32 | (long) i << STEP | s;
            }
        }
        Arrays.sort(order, 0, steps);
        int taken = sets.taken();
        long[] first = sets.some();
        for (int o = 0; o < steps && sets.any(several); o++) {
            int i = (int) (order[o] >>> STEP) & MOST;
            if (bits.at(titles[i]).stood((int) order[o] & (1 << STEP) - 1, several, where[i], first, sets.from(), sets.to())) {
                taker.accept(titles[i], first);
                sets.remove(several, first);
            }
        }
        sets.giveBack(taken);
    }
}
