package rivo.server.change;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.RefusedException;
import rivo.core.rehearse.Difference;
import rivo.core.rehearse.Rehearsal;
import rivo.core.rehearse.TitleDifference;
import rivo.core.resolve.Choice;
import rivo.core.resolve.Decision;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.title.Chosen;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.change.DraftedSnapshot.Documented;
import rivo.server.estate.Snapshot;

/** Rehearses a draft against the whole fleet. Pure reading; safe for any number of threads. */
@Component
class DraftRehearsal {

    /** The parts of the fleet that a rehearsal counts. */
    enum Part {
        GAINS, LOSES, REMOVES, CONTESTED, SETTLED;

        UnitSet of(TitleDifference difference) {
            return switch (this) {
                case GAINS -> difference.gains();
                case LOSES -> difference.loses();
                case REMOVES -> difference.removes();
                case CONTESTED -> difference.newlyContested();
                case SETTLED -> difference.settled();
            };
        }
    }

    private final Clock clock;

    DraftRehearsal(Clock clock) {
        this.clock = clock;
    }

    /**
     * A draft with what it would do.
     *
     * @param edits that were rehearsed
     * @param documented what becomes of documents
     */
    record Rehearsed(Snapshot before, List<Edit> edits, Snapshot after, List<Documented<?>> documented, Rehearsal rehearsal) {

        List<TitleDifference> titles() {
            return rehearsal.titles();
        }

        /** How many devices were looked at: all of them. */
        int devices() {
            return after.estate().devices().size();
        }

        /** Whether it would come to the very same from this snapshot. */
        boolean holdsFor(Snapshot now, String who) {
            return before.isSameAs(now, DraftedSnapshot.LOOKED_AT) && Drafts.of(now, who).edits().equals(edits);
        }
    }

    /** @throws RefusedException when an edit has become impossible, or its document was changed since */
    Rehearsed rehearse(Snapshot before, String who, List<Edit> edits) {
        DraftedSnapshot drafted = DraftedSnapshot.of(before, edits, new DraftedSnapshot.By(who, clock.instant(), null));
        Snapshot after = drafted.after();
        return new Rehearsed(before, edits, after, drafted.documented(), Rehearsal.of(before.resolver(), after.resolver()));
    }

    /** How much the devices that gain have to fetch, in bytes. */
    long bytes(Snapshot afterwards, TitleDifference difference) {
        UnitSet fetching = difference.fetches(afterwards.resolver().audiences());
        long bytes = 0;
        for (Difference part : difference.differences()) {
            Decision after = part.after();
            if (after != null && after.choice() != null) {
                bytes += size(afterwards, difference.title().id(), after.choice(), after.winner()) * part.units().and(fetching)
                        .size();
            }
        }
        return bytes;
    }

    /** What one device fetches, with what the assignment fixes; what its people have fixed is left out. */
    private static long size(Snapshot after, String title, Choice choice, @Nullable Assignment winner) {
        ReleaseRecord release = after.get(Titles.PART).release(title, choice.release().version());
        VariantRecord variant = release == null ? null : release.variant(choice.variant().id());
        if (release == null || variant == null) {
            return 0;
        }
        Map<String, String> fixed = winner == null ? Map.of() : FixedChoices.of(after, winner.id());
        return Chosen.of(release, List.of(new Chosen.Fixed("", fixed))).bytes(variant);
    }
}
