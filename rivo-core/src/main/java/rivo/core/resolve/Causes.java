package rivo.core.resolve;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Positions;

/** Gathers what relations make of titles, cause by cause: where in the block that is settled, and at which units of all blocks. Of one thread. */
final class Causes implements Settlement.Sink {

    /** What relations make of a title, and by what. */
    record Cause(int title, int part, Settlement.State state, int by, @Nullable Reason reason) {

        boolean is(int ofTitle, int ofPart, Settlement.State comes, int who, @Nullable Reason why) {
            return part == ofPart && by == who && state == comes && title == ofTitle && reason == why;
        }
    }

    /** A power of two. */
    private static final int LATEST = 1 << 12;
    private static final int STATES = Settlement.State.values().length;

    /** @param units at which it comes to that */
    record Changed(Cause cause, Decision decision, GrowingUnits units) {
    }

    private final int words;
    private final Function<Cause, Decision> decision;
    /** Of which the units are. */
    private final Positions among;
    private final Map<Cause, Integer> numbers = new HashMap<>();
    /** Numbers of those that came last, each at the place that its parts give it: most come again and again, block by block. */
    private final int[] latest = new int[LATEST];
    private final List<Changed> changed = new ArrayList<>();
    /** By the number of a cause, where in the block it is; null where nowhere. Those that are somewhere; and memory for more. */
    private final List<long @Nullable []> where = new ArrayList<>();
    private final List<Integer> found = new ArrayList<>();
    private final Deque<long[]> free = new ArrayDeque<>();

    Causes(int words, Function<Cause, Decision> decision, Positions among) {
        this.words = words;
        this.decision = decision;
        this.among = among;
    }

    @Override
    public void comesTo(int title, int part, Settlement.State state, int by, @Nullable Reason reason, long[] lanes, int from, int to) {
        int place = (title * 31 + part) * 31 + by * STATES + state.ordinal() & LATEST - 1;
        int number = latest[place];
        if (number >= changed.size() || !changed.get(number).cause().is(title, part, state, by, reason)) {
            number = number(new Cause(title, part, state, by, reason));
            latest[place] = number;
        }
        long[] at = where.get(number);
        if (at == null) {
            at = memory();
            where.set(number, at);
            found.add(number);
        }
        for (int w = from; w < to; w++) {
            at[w] |= lanes[w];
        }
    }

    private int number(Cause cause) {
        Integer known = numbers.get(cause);
        if (known != null) {
            return known;
        }
        int number = changed.size();
        numbers.put(cause, number);
        changed.add(new Changed(cause, decision.apply(cause), new GrowingUnits(among.first(), among.end())));
        where.add(null);
        return number;
    }

    private long[] memory() {
        long[] set = free.poll();
        if (set == null) {
            return new long[words];
        }
        Arrays.fill(set, 0);
        return set;
    }

    /** Adds to the titles' sets where in the block one of them comes to something by a cause here that it does not come to by the same cause there. */
    void addDiffering(Causes other, long[] @Nullable [] byTitle) {
        for (int number : found) {
            Cause cause = changed.get(number).cause();
            Integer there = other.numbers.get(cause);
            long[] same = there == null ? null : other.where.get(there);
            long[] here = Objects.requireNonNull(where.get(number));
            for (int w = 0; w < words; w++) {
                long differing = same == null ? here[w] : here[w] & ~same[w];
                if (differing != 0) {
                    long[] of = byTitle[cause.title()];
                    of = of == null ? new long[words] : of;
                    byTitle[cause.title()] = of;
                    of[w] |= differing;
                }
            }
        }
    }

    /** Gives each cause its units of the block, and forgets the block. */
    void giveOut(Lanes lanes) {
        for (int number : found) {
            give(lanes, number, Objects.requireNonNull(where.get(number)));
        }
        found.clear();
    }

    /** The same with no other units than these, by title. */
    void giveOut(Lanes lanes, long[] @Nullable [] byTitle) {
        for (int number : found) {
            long[] at = Objects.requireNonNull(where.get(number));
            long[] within = byTitle[changed.get(number).cause().title()];
            for (int w = 0; w < words; w++) {
                at[w] &= within == null ? 0 : within[w];
            }
            give(lanes, number, at);
        }
        found.clear();
    }

    private void give(Lanes lanes, int number, long[] at) {
        changed.get(number).units().add(lanes, at);
        where.set(number, null);
        free.push(at);
    }

    /** What was gathered. */
    List<Changed> changed() {
        return changed;
    }
}
