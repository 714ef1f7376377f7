package rivo.core.resolve;

import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The needs of a title that is required and has its seat (section 7, step 2), at many units at once. What is pulled in, and what is decided on the way, is
 * taken back at the units at which a need is not met after all. Of one thread.
 */
final class Needs {

    /** Why a need is not met whatever the base outcome, in the order in which they are looked at. */
    private static final List<Reason> LATER_REASONS = List.of(Reason.NEEDS_UNFIT, Reason.NEEDS_SEAT, Reason.NEEDS_REPLACED, Reason.NEEDS_DISPLACED, Reason.NEEDS_BLOCKED,
            Reason.NEEDS_NEWER);

    private final Family family;
    private final Turns turns;
    private final FamilyBits bits;
    private final LaneSets sets;
    private final Settlement.Sink sink;
    private final UndisputedNeeds undisputed;

    /** How the need for a title is met, where it is not on its way: it is pulled in, stays as it is, or is {@linkplain UndisputedNeeds undisputed}. */
    private enum Met {
        PULLED, AS_IT_IS, UNDISPUTED
    }

    /** What is taken for the title whose turn it is: one after the other. */
    private int count;
    private int[] titles = {};
    private int[] parts = {};
    private Met[] ways = {};
    private long[][] where = {};

    Needs(Family family, Turns turns, FamilyBits bits, Settlement.Sink sink, UndisputedNeeds undisputed) {
        this.family = family;
        this.turns = turns;
        this.bits = bits;
        this.sets = bits.sets();
        this.sink = sink;
        this.undisputed = undisputed;
    }

    /**
     * Accepts a title where its needs are met, with all that they take.
     *
     * @param step when it begins to stand: the next ones are taken
     * @param open where it is its turn; afterwards, where it is accepted
     * @return the step after the last
     */
    int accept(int share, int step, long[] open) {
        int t = turns.share(share).title();
        count = 0;
        for (Family.LocalNeed need : family.needs(turns.share(share).release())) {
            int taken = sets.taken();
            long[] failing = sets.some();
            if (keepMet(t, need, open, failing)) {
                block(share, need, failing);
                takeBack(0, failing);
            }
            sets.giveBack(taken);
        }
        return settle(t, step, open);
    }

    private int settle(int t, int step, long[] open) {
        int next = step;
        if (!sets.any(open)) {
            return next;
        }
        for (int i = 0; i < count; i++) {
            if (ways[i] == Met.UNDISPUTED) {
                undisputed.ask(titles[i], t, where[i]);
            } else if (ways[i] == Met.AS_IT_IS && sets.any(where[i])) {
                bits.at(titles[i]).stands(next++, where[i], sets.from(), sets.to());
                stays(titles[i], where[i]);
            }
        }
        TitleBits own = bits.at(t);
        own.stands(next++, open, sets.from(), sets.to());
        comes(own, open);
        for (int i = 0; i < count; i++) {
            if (ways[i] == Met.PULLED && sets.any(where[i])) {
                TitleBits of = bits.at(titles[i]);
                of.stands(next++, where[i], sets.from(), sets.to());
                comes(of, where[i]);
                sets.remove(of.pulling, where[i]);
                implied(i, t);
            }
        }
        return next;
    }

    private void comes(TitleBits of, long[] at) {
        sets.add(of.comes, at);
        of.decide(at, sets.from(), sets.to());
        if (of.needed) {
            sets.remove(of.kept, at);
        }
    }

    /** Without a base outcome, it stays where it is because it is needed. */
    private void stays(int n, long[] at) {
        int taken = sets.taken();
        long[] bare = sets.without(at, bits.at(n).assigned);
        if (sets.any(bare)) {
            sink.comesTo(n, FamilyBits.NO_PART, Settlement.State.KEPT, Settlement.NOBODY, null, bare, sets.from(), sets.to());
        }
        sets.giveBack(taken);
    }

    /** What is required on its own account is accepted, which it is by itself. */
    private void implied(int i, int t) {
        TitleBits of = bits.at(titles[i]);
        sets.remove(where[i], of.required);
        if (sets.any(where[i])) {
            sink.comesTo(titles[i], parts[i], Settlement.State.IMPLIED, t, null, where[i], sets.from(), sets.to());
        }
    }

    /** Leaves of a set where the need is met, and writes to another where it is not; whether there is any such. */
    private boolean keepMet(int t, Family.LocalNeed need, long[] open, long[] failing) {
        int taken = sets.taken();
        long[] met;
        if (need.title() < 0) {
            met = need.deviceNeed() < 0 ? sets.none() : bits.meeting(need.deviceNeed());
        } else if (undisputed.areFor(need.title())) {
            met = undisputed.met(need);
        } else {
            met = sets.some();
            meet(t, need, open, met);
        }
        Bits.without(open, met, failing, sets.from(), sets.to());
        sets.keep(open, met);
        sets.giveBack(taken);
        if (need.title() >= 0 && undisputed.areFor(need.title()) && undisputed.isOpen(need.title(), open)) {
            note(need.title(), FamilyBits.NO_PART, Met.UNDISPUTED, open);
        }
        return sets.any(failing);
    }

    private void meet(int t, Family.LocalNeed need, long[] asked, long[] met) {
        TitleBits n = bits.at(need.title());
        Bits.both(asked, n.comes, met, sets.from(), sets.to());
        if (isPulled(need.title())) {
            Bits.addBoth(met, asked, n.pulling, sets.from(), sets.to());
        }
        bits.keepMeeting(need, met);
        int taken = sets.taken();
        long[] rest = sets.without(asked, met);
        if (sets.any(rest)) {
            pullIn(t, need, rest, met);
            if (sets.meet(rest, n.present)) {
                asItIs(t, need, rest, met);
            }
        }
        sets.giveBack(taken);
    }

    private void pullIn(int t, Family.LocalNeed need, long[] rest, long[] met) {
        TitleBits n = bits.at(need.title());
        int taken = sets.taken();
        long[] free = sets.some();
        n.findFree(rest, family.hasSeats(need.title()), free, sets.from(), sets.to());
        if (sets.any(free)) {
            for (int share : turns.of(need.title())) {
                pullIn(t, need, share, bits.share(share), free, rest, met);
            }
            sets.remove(free, n.assigned);
            if (sets.any(free)) {
                long[] @Nullable [] newest = bits.newest(need.title());
                for (int o = 0; o < newest.length; o++) {
                    pullIn(t, need, -1 - o, newest[o], free, rest, met);
                }
            }
        }
        sets.giveBack(taken);
    }

    private void pullIn(int t, Family.LocalNeed need, int part, long @Nullable [] of, long[] free, long[] rest, long[] met) {
        if (of == null || !sets.meet(free, of) || !family.meets(bits.release(need.title(), part), need)) {
            return;
        }
        int taken = sets.taken();
        long[] pulling = sets.both(free, of);
        if (takeOpposed(need.title(), t, pulling)) {
            int mark = count;
            add(need.title(), part, Met.PULLED, pulling);
            Family.LocalNeed[] needs = family.needs(bits.release(need.title(), part));
            for (int i = 0; i < needs.length && sets.any(pulling); i++) {
                long[] failing = sets.some();
                if (keepMet(t, needs[i], pulling, failing)) {
                    takeBack(mark, failing);
                }
            }
            sets.add(met, pulling);
            sets.remove(rest, pulling);
        }
        sets.giveBack(taken);
    }

    private void asItIs(int t, Family.LocalNeed need, long[] rest, long[] met) {
        TitleBits n = bits.at(need.title());
        int taken = sets.taken();
        long[] there = sets.none();
        n.addReaching(need.reaches(), there, sets.from(), sets.to());
        sets.keep(there, rest);
        long[] held = sets.both(there, n.standing);
        sets.remove(held, n.comes);
        sets.add(met, held);
        long[] deciding = sets.without(there, held);
        sets.remove(deciding, n.decided);
        sets.remove(deciding, n.pulling);
        sets.remove(deciding, n.uninstall);
        sets.remove(deciding, n.required);
        if (sets.any(deciding) && takeOpposed(need.title(), t, deciding)) {
            add(need.title(), FamilyBits.NO_PART, Met.AS_IT_IS, deciding);
            sets.add(met, deciding);
        }
        sets.giveBack(taken);
    }

    /** Whether a title may be pulled in anywhere for the one whose turn it is: of all others that set is empty. */
    private boolean isPulled(int n) {
        for (int i = 0; i < count; i++) {
            if (titles[i] == n && ways[i] == Met.PULLED) {
                return true;
            }
        }
        return false;
    }

    private void add(int n, int part, Met way, long[] at) {
        note(n, part, way, at);
        mark(bits.at(n), way, at, true);
    }

    private void note(int n, int part, Met way, long[] at) {
        if (count == titles.length) {
            titles = Arrays.copyOf(titles, 2 * count + 2);
            parts = Arrays.copyOf(parts, 2 * count + 2);
            ways = Arrays.copyOf(ways, 2 * count + 2);
            where = Arrays.copyOf(where, 2 * count + 2);
        }
        titles[count] = n;
        parts[count] = part;
        ways[count] = way;
        long[] held = where[count];
        if (held == null) {
            held = new long[sets.words()];
            where[count] = held;
        }
        System.arraycopy(at, sets.from(), held, sets.from(), sets.to() - sets.from());
        count++;
    }

    /** Undoes what was pulled in or decided on the way beyond so many, at these units. */
    private void takeBack(int beyond, long[] at) {
        int taken = sets.taken();
        for (int i = beyond; i < count; i++) {
            if (sets.meet(where[i], at)) {
                mark(bits.at(titles[i]), ways[i], sets.both(where[i], at), false);
                sets.remove(where[i], at);
            }
        }
        sets.giveBack(taken);
    }

    private void mark(TitleBits n, Met way, long[] at, boolean on) {
        if (way == Met.PULLED) {
            mark(n.pulling, at, on);
        } else if (way == Met.AS_IT_IS) {
            mark(n.kept, at, on);
            mark(n.decided, at, on);
            mark(n.standing, at, on);
        }
    }

    private void mark(long[] set, long[] at, boolean on) {
        if (on) {
            sets.add(set, at);
        } else {
            sets.remove(set, at);
        }
    }

    /** Takes out of a set where something that stands, or {@code t}, or what is being pulled in for it, stands against {@code n}; whether any is left. */
    private boolean takeOpposed(int n, int t, long[] set) {
        int[] neighbours = family.neighbours(n);
        for (int k = 0; k < neighbours.length; k++) {
            int s = neighbours[k];
            if (s == t || bits.knows(s) && (sets.meet(set, bits.at(s).standing) || isPulled(s) && sets.meet(set, bits.at(s).pulling))) {
                int taken = sets.taken();
                long[] against = sets.copy(set);
                if (s != t) {
                    sets.keepEither(against, bits.at(s).standing, bits.at(s).pulling);
                }
                bits.keepAgainst(n, k, against);
                sets.remove(set, against);
                sets.giveBack(taken);
            }
        }
        return sets.any(set);
    }

    /** Blocks the title by the first need that is not met, with the first reason that applies. */
    private void block(int share, Family.LocalNeed need, long[] failing) {
        if (need.title() < 0) {
            blocked(share, -1 - need.deviceNeed(), Reason.NEEDS_DEVICE, failing);
            return;
        }
        int t = turns.share(share).title();
        int n = need.title();
        int taken = sets.taken();
        long[] rest = sets.copy(failing);
        for (int part : turns.of(n)) {
            Reason reason = ofBase(turns.share(part).base().outcome());
            long[] at = bits.share(part);
            if (reason != null && at != null) {
                block(share, n, reason, rest, at);
            }
        }
        for (Reason reason : LATER_REASONS) {
            if (sets.any(rest)) {
                block(share, n, reason, rest, applying(reason, need, t, rest));
            }
        }
        sets.giveBack(taken);
    }

    /** Where a reason applies to the title that is needed, among others perhaps, where none before it does. */
    private long[] applying(Reason reason, Family.LocalNeed need, int t, long[] rest) {
        int n = need.title();
        return switch (reason) {
            case NEEDS_UNFIT -> unfit(n, rest);
            case NEEDS_SEAT -> family.hasSeats(n) ? sets.without(rest, bits.at(n).required) : sets.none();
            case NEEDS_REPLACED -> replaced(n, t);
            case NEEDS_DISPLACED -> displaced(n, t, rest);
            case NEEDS_BLOCKED -> meeting(need, rest);
            default -> rest;
        };
    }

    private long[] unfit(int n, long[] rest) {
        long[] bare = sets.without(rest, bits.at(n).assigned);
        if (sets.any(bare)) {
            for (long[] fitting : bits.newest(n)) {
                if (fitting != null) {
                    sets.remove(bare, fitting);
                }
            }
        }
        return bare;
    }

    private long[] meeting(Family.LocalNeed need, long[] rest) {
        long[] meeting = sets.copy(rest);
        bits.keepMeeting(need, meeting);
        return meeting;
    }

    /** Where it is replaced, or would be. */
    private long[] replaced(int n, int t) {
        long[] at = sets.copy(bits.at(n).replaced);
        int[] neighbours = family.neighbours(n);
        for (int k = 0; k < neighbours.length; k++) {
            int s = neighbours[k];
            if (family.mayReplace(s, n) && (s == t || bits.knows(s))) {
                long[] by = sets.copy(bits.replacedBy(n, k));
                if (s != t) {
                    sets.keepEither(by, bits.at(s).pulling, bits.at(s).comes);
                }
                sets.add(at, by);
            }
        }
        return at;
    }

    /** Where it is displaced, or would be. */
    private long[] displaced(int n, int t, long[] rest) {
        long[] free = sets.copy(rest);
        takeOpposed(n, t, free);
        long[] at = sets.without(rest, free);
        sets.add(at, bits.at(n).displaced);
        return at;
    }

    /** Those of the rest that are here are blocked so, and leave it. */
    private void block(int share, int n, Reason reason, long[] rest, long[] at) {
        if (sets.meet(rest, at)) {
            int taken = sets.taken();
            long[] blocked = sets.both(rest, at);
            blocked(share, n, reason, blocked);
            sets.remove(rest, blocked);
            sets.giveBack(taken);
        }
    }

    private void blocked(int share, int by, Reason reason, long[] at) {
        sink.comesTo(turns.share(share).title(), share, Settlement.State.BLOCKED, by, reason, at, sets.from(), sets.to());
    }

    /** Why a title with this base outcome does not meet a need; null where that alone says nothing. */
    static @Nullable Reason ofBase(Outcome outcome) {
        return switch (outcome) {
            case UNINSTALL -> Reason.NEEDS_REMOVED;
            case CONTESTED -> Reason.NEEDS_CONTESTED;
            case LATER -> Reason.NEEDS_LATER;
            case UNFIT, BLOCKED -> Reason.NEEDS_UNFIT;
            case WAITING -> Reason.NEEDS_SEAT;
            case REQUIRED, AVAILABLE, REPLACED, DISPLACED -> null;
        };
    }
}
