package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Gathers what relations make of titles, cause by cause: where in the block that is settled, and at which units of all blocks. Of one thread.
 *
 * <p><b>How.</b> Most causes are somewhere in few words of a block, and there are many: what is told is noted one after the other, each run of words that are not empty by
 * itself, and the runs of one cause are put together when the block is given out.
 */
final class Causes implements Settlement.Sink {

    private static final int NONE = -1;
    /** How many causes there is room for at first. */
    private static final int ROOM = 64;

    /** What relations make of a title, and by what. */
    record Cause(int title, int part, Settlement.State state, int by, @Nullable Reason reason) {

        boolean is(int ofTitle, int ofPart, Settlement.State comes, int who, @Nullable Reason why) {
            return part == ofPart && by == who && state == comes && title == ofTitle && reason == why;
        }
    }

    /** Numbers the causes of one or of two states, from 0 on, as they come. */
    static final class Numbers {

        private static final int STATES = Settlement.State.values().length;

        private final List<Cause> causes = new ArrayList<>();
        /** One more than the number of a cause, at the first free place from the one that its parts give it; a power of two, at least half of it 0. */
        private int[] table = new int[1 << 12];

        int of(int title, int part, Settlement.State state, int by, @Nullable Reason reason) {
            int place = place(title, part, state, by);
            while (table[place] != 0) {
                if (causes.get(table[place] - 1).is(title, part, state, by, reason)) {
                    return table[place] - 1;
                }
                place = place + 1 & table.length - 1;
            }
            causes.add(new Cause(title, part, state, by, reason));
            table[place] = causes.size();
            if (2 * causes.size() > table.length) {
                grow();
            }
            return causes.size() - 1;
        }

        private int place(int title, int part, Settlement.State state, int by) {
            int mixed = ((title * 31 + part) * 31 + by) * STATES + state.ordinal();
            mixed *= 0x9E3779B9;
            return (mixed ^ mixed >>> 15) & table.length - 1;
        }

        private void grow() {
            table = new int[2 * table.length];
            for (int number = 0; number < causes.size(); number++) {
                Cause cause = causes.get(number);
                int place = place(cause.title(), cause.part(), cause.state(), cause.by());
                while (table[place] != 0) {
                    place = place + 1 & table.length - 1;
                }
                table[place] = number + 1;
            }
        }
    }

    /** @param units at which it comes to that */
    record Changed(Cause cause, Decision decision, GrowingUnits units) {
    }

    private final Numbers numbers;
    private final Function<Cause, Decision> decision;
    /** Those of all blocks. */
    private final Lanes all;
    /** By the number of a cause; null for one that has no units yet. */
    private final List<@Nullable Changed> changed = new ArrayList<>();
    /** The numbers of those that are somewhere in the block; and by number the first and the last run of where. */
    private int[] found = {};
    private int foundCount;
    private int[] head = {};
    private int[] tail = {};
    /** By run its first word, where its words begin among all, and the next run of the same cause. */
    private int[] first = {};
    private int[] start = {};
    private int[] next = {};
    private int runs;
    private long[] words = {};
    private int wordCount;
    /** Where one cause is; empty between two. */
    private final long[] where;

    /** @param words of a block, at the most */
    Causes(Numbers numbers, int words, Function<Cause, Decision> decision, Lanes all) {
        this.numbers = numbers;
        this.where = new long[words];
        this.decision = decision;
        this.all = all;
    }

    @Override
    public void comesTo(int title, int part, Settlement.State state, int by, @Nullable Reason reason, long[] at, int from, int to) {
        int number = numbers.of(title, part, state, by, reason);
        makeRoom(number, to - from);
        for (int w = from; w < to; w++) {
            if (at[w] != 0) {
                begin(w, number);
                while (w < to && at[w] != 0) {
                    words[wordCount++] = at[w++];
                }
                start[runs] = wordCount;
            }
        }
    }

    private void begin(int word, int number) {
        first[runs] = word;
        start[runs] = wordCount;
        next[runs] = NONE;
        if (head[number] == NONE) {
            found[foundCount++] = number;
            head[number] = runs;
        } else {
            next[tail[number]] = runs;
        }
        tail[number] = runs++;
    }

    /** For as many words, and runs, as one call may bring of the cause of this number. */
    private void makeRoom(int number, int more) {
        if (wordCount + more > words.length) {
            words = Arrays.copyOf(words, 2 * (wordCount + more));
        }
        if (runs + more + 1 > first.length) {
            first = Arrays.copyOf(first, 2 * (runs + more + 1));
            start = Arrays.copyOf(start, first.length);
            next = Arrays.copyOf(next, first.length);
        }
        if (foundCount == found.length) {
            found = Arrays.copyOf(found, 2 * foundCount + ROOM);
        }
        if (number >= head.length) {
            int known = head.length;
            head = Arrays.copyOf(head, 2 * number + ROOM);
            tail = Arrays.copyOf(tail, head.length);
            Arrays.fill(head, known, head.length, NONE);
        }
    }

    /** The first run of a cause; {@link #NONE} where it is nowhere. */
    private int head(int number) {
        return number < head.length ? head[number] : NONE;
    }

    /** Adds to the titles' sets where in the block one of them comes to something by a cause here that it does not come to by the same cause there. */
    void addDiffering(Causes other, long[] @Nullable [] byTitle) {
        for (int f = 0; f < foundCount; f++) {
            int number = found[f];
            for (int run = head[number]; run != NONE; run = next[run]) {
                for (int w = first[run], i = start[run]; i < start[run + 1]; i++, w++) {
                    where[w] |= words[i];
                }
            }
            for (int run = other.head(number); run != NONE; run = other.next[run]) {
                for (int w = other.first[run], i = other.start[run]; i < other.start[run + 1]; i++, w++) {
                    where[w] &= ~other.words[i];
                }
            }
            addWhere(number, byTitle);
        }
    }

    private void addWhere(int number, long[] @Nullable [] byTitle) {
        int title = numbers.causes.get(number).title();
        for (int run = head[number]; run != NONE; run = next[run]) {
            for (int w = first[run], i = start[run]; i < start[run + 1]; i++, w++) {
                if (where[w] != 0) {
                    long[] of = byTitle[title];
                    of = of == null ? new long[where.length] : of;
                    byTitle[title] = of;
                    of[w] |= where[w];
                    where[w] = 0;
                }
            }
        }
    }

    /** Gives each cause its units of the block, and forgets the block. */
    void giveOut(Lanes block) {
        for (int i = 0; i < foundCount; i++) {
            give(block, found[i], null);
        }
        forget();
    }

    /** The same with no other units than these, by title. */
    void giveOut(Lanes block, long[] @Nullable [] byTitle) {
        for (int i = 0; i < foundCount; i++) {
            long[] within = byTitle[numbers.causes.get(found[i]).title()];
            if (within != null) {
                give(block, found[i], within);
            }
        }
        forget();
    }

    private void give(Lanes block, int number, long @Nullable [] within) {
        int count = 0;
        for (int run = head[number]; run != NONE; run = next[run]) {
            for (int w = first[run], i = start[run]; i < start[run + 1]; i++, w++) {
                words[i] &= within == null ? -1 : within[w];
                count += Long.bitCount(words[i]);
            }
        }
        if (count == 0) {
            return;
        }
        GrowingUnits units = units(number);
        units.expect(count);
        for (int run = head[number]; run != NONE; run = next[run]) {
            for (int w = first[run], i = start[run]; i < start[run + 1]; i++, w++) {
                if (words[i] != 0) {
                    units.add(block.first() + w * Long.SIZE, words[i]);
                }
            }
        }
    }

    private GrowingUnits units(int number) {
        while (changed.size() <= number) {
            changed.add(null);
        }
        Changed known = changed.get(number);
        if (known == null) {
            Cause cause = numbers.causes.get(number);
            known = new Changed(cause, decision.apply(cause), new GrowingUnits(all));
            changed.set(number, known);
        }
        return known.units();
    }

    private void forget() {
        for (int i = 0; i < foundCount; i++) {
            head[found[i]] = NONE;
        }
        foundCount = 0;
        runs = 0;
        wordCount = 0;
    }

    /** What was gathered. */
    List<Changed> changed() {
        return changed.stream().filter(Objects::nonNull).toList();
    }
}
