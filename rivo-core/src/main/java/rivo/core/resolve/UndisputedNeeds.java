package rivo.core.resolve;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * The needs for undisputed titles ({@link Family#isUndisputed}), at many units at once. Whether one is met does not depend on what is decided of others, nor when it is
 * asked: so such a title has no turn of its own, and all that is left to find out is who is the first that is accepted and needs it. Of one thread.
 */
final class UndisputedNeeds {

    private final FamilyUnits units;
    private final FamilyBits bits;
    private final LaneSets sets;
    private final Settlement.Sink sink;
    /** By title, where it comes for whoever needs it; and, by how many of its versions are asked for, where a need is met. Null as long as nobody has asked. */
    private final long[] @Nullable [] coming;
    private final long @Nullable [] @Nullable [] @Nullable [] met;
    /** By title, where it comes, or stays as it is, as soon as somebody is accepted who needs it. */
    private final long[] @Nullable [] open;
    /** Another state of the same units, in which the same are accepted for now; null while it goes its own way. */
    private @Nullable UndisputedNeeds alike;

    /** @param sink is told what is implied, and what stays as it is */
    UndisputedNeeds(FamilyUnits units, FamilyBits bits, Settlement.Sink sink) {
        this.units = units;
        this.bits = bits;
        this.sets = bits.sets();
        this.sink = sink;
        int titles = units.family().titles().size();
        this.coming = new long[titles][];
        this.met = new long[titles][][];
        this.open = new long[titles][];
    }

    /** Forgets all, for other units. */
    void begin() {
        Arrays.fill(coming, null);
        Arrays.fill(met, null);
        Arrays.fill(open, null);
    }

    /** Whether needs for a title are looked after here. */
    boolean areFor(int title) {
        return units.isUndisputed(title);
    }

    /** Whether what is accepted from now on is accepted in another state, too: that is told only what does not come to the same in both. */
    void goWith(@Nullable UndisputedNeeds other) {
        alike = other;
    }

    /** Where a need for such a title is met. */
    long[] met(Family.LocalNeed need) {
        int title = need.title();
        long[] @Nullable [] byVersions = met[title];
        if (byVersions == null || byVersions.length <= need.reaches()) {
            byVersions = byVersions == null ? new long[need.reaches() + 1][] : Arrays.copyOf(byVersions, need.reaches() + 1);
            met[title] = byVersions;
        }
        long[] found = byVersions[need.reaches()];
        if (found == null) {
            found = new long[sets.words()];
            TitleBits of = bits.at(title);
            of.addReaching(need.reaches(), found);
            Bits.remove(found, of.uninstall);
            Bits.add(found, coming(title));
            byVersions[need.reaches()] = found;
        }
        return found;
    }

    /** Where it is required or offered, or has a release that fits without a base outcome. */
    private long[] coming(int title) {
        long[] found = coming[title];
        if (found == null) {
            found = new long[sets.words()];
            for (long[] fitting : bits.newest(title)) {
                if (fitting != null) {
                    Bits.add(found, fitting);
                }
            }
            Bits.add(found, bits.at(title).required);
            Bits.add(found, bits.at(title).available);
            coming[title] = found;
        }
        return found;
    }

    private long[] open(int title) {
        long[] found = open[title];
        if (found == null) {
            TitleBits of = bits.at(title);
            found = of.present.clone();
            Bits.remove(found, of.uninstall);
            Bits.add(found, coming(title));
            Bits.remove(found, of.required);
            open[title] = found;
        }
        return found;
    }

    /** Whether it makes a difference anywhere there that a title is needed. */
    boolean isOpen(int title, long[] at) {
        return sets.meet(open(title), at) || alike != null && sets.meet(alike.open(title), at);
    }

    /** Somebody is accepted there who needs a title, and the need is met. */
    void ask(int title, int by, long[] at) {
        int taken = sets.taken();
        long[] first = sets.both(open(title), at);
        sets.remove(open(title), at);
        if (alike != null) {
            long[] firstThere = sets.both(alike.open(title), at);
            sets.remove(alike.open(title), at);
            long[] both = sets.both(first, firstThere);
            sets.remove(first, both);
            sets.remove(firstThere, both);
            alike.tell(title, by, firstThere);
        }
        tell(title, by, first);
        sets.giveBack(taken);
    }

    /** It comes there because of this one; where it cannot, what is present without a base outcome stays. */
    private void tell(int title, int by, long[] where) {
        if (!sets.any(where)) {
            return;
        }
        TitleBits of = bits.at(title);
        int taken = sets.taken();
        if (sets.meet(where, of.available)) {
            for (int share : units.turns().of(title)) {
                long[] at = bits.share(share);
                if (at != null && units.turns().share(share).base().outcome() == Outcome.AVAILABLE) {
                    tell(title, share, Settlement.State.IMPLIED, by, sets.both(where, at));
                }
            }
        }
        long[] bare = sets.without(where, of.assigned);
        if (sets.any(bare)) {
            long[] @Nullable [] newest = bits.newest(title);
            for (int o = 0; o < newest.length; o++) {
                long[] at = newest[o];
                if (at != null) {
                    tell(title, -1 - o, Settlement.State.IMPLIED, by, sets.both(bare, at));
                }
            }
            tell(title, FamilyBits.NO_PART, Settlement.State.KEPT, Settlement.NOBODY, sets.without(bare, coming(title)));
        }
        sets.giveBack(taken);
    }

    private void tell(int title, int part, Settlement.State state, int by, long[] at) {
        if (sets.any(at)) {
            sink.comesTo(title, part, state, by, null, at, sets.from(), sets.to());
        }
    }
}
