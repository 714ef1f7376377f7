package rivo.server.change;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.audience.Positions;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.core.rehearse.Difference;
import rivo.core.rehearse.Rehearsal;
import rivo.core.rehearse.TitleDifference;
import rivo.core.resolve.Choice;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Resolver;
import rivo.server.catalogue.Catalogue;
import rivo.server.catalogue.Chosen;
import rivo.server.catalogue.FixedChoices;
import rivo.server.catalogue.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.TitleRecord.VariantRecord;

/** Rehearses a draft against the whole fleet. Pure reading. */
@Component
class DraftRehearsal {

    /** The parts of the fleet that a rehearsal counts. */
    enum Part {
        GAINS, LOSES, REMOVES, CONTESTED, SETTLED;

        Positions of(TitleDifference difference) {
            return switch (this) {
                case GAINS -> difference.gains();
                case LOSES -> difference.loses();
                case REMOVES -> difference.removes();
                case CONTESTED -> difference.newlyContested();
                case SETTLED -> difference.settled();
            };
        }
    }

    private final Catalogue catalogue;
    private final FixedChoices fixed;

    DraftRehearsal(Catalogue catalogue, FixedChoices fixed) {
        this.catalogue = catalogue;
        this.fixed = fixed;
    }

    /** An edited draft with what it would do, from the estate of {@code before} to that of {@code after}. */
    record Rehearsed(Resolver before, Resolver after, Rehearsal rehearsal, Edits.Changes changes) {

        List<TitleDifference> titles() {
            return rehearsal.titles();
        }

        /** How many devices were looked at: all of them. */
        int devices() {
            return after.estate().devices().size();
        }
    }

    /** @throws RefusedException when an edit has become impossible */
    Rehearsed rehearse(Resolver before, List<DraftEdit> edits) {
        Estate estate = before.estate();
        Edits.Changes changes = Edits.changes(estate, fixed::of, edits);
        Resolver after = before.follow(estate.withAssignments(changes.assignments()));
        return new Rehearsed(before, after, Rehearsal.of(before, after), changes);
    }

    /** How much the devices that gain have to fetch, in bytes. */
    long bytes(Rehearsed rehearsed, TitleDifference difference) {
        Positions fetching = difference.fetches(rehearsed.after().audiences());
        long bytes = 0;
        for (Difference part : difference.differences()) {
            Decision after = part.after();
            if (after != null && after.choice() != null) {
                bytes += size(rehearsed, difference.title().id(), after.choice(), after.winner()) * part.units().and(fetching)
                        .size();
            }
        }
        return bytes;
    }

    /** What one device fetches, with what the assignment fixes; what its people have fixed is left out. */
    private long size(Rehearsed rehearsed, String title, Choice choice, @Nullable Assignment winner) {
        ReleaseRecord release = catalogue.release(title, choice.release().version());
        VariantRecord variant = release == null ? null : release.variant(choice.variant().id());
        if (release == null || variant == null) {
            return 0;
        }
        String id = winner == null ? "" : winner.id();
        return Chosen.of(release, List.of(new Chosen.Fixed("", rehearsed.changes().choices().getOrDefault(id, fixed.of(id)))))
                .bytes(variant);
    }
}
