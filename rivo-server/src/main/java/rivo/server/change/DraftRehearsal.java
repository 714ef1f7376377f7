package rivo.server.change;

import java.util.Arrays;
import java.util.List;
import org.springframework.stereotype.Component;
import rivo.core.audience.Positions;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.core.rehearse.Difference;
import rivo.core.rehearse.Rehearsal;
import rivo.core.rehearse.TitleDifference;
import rivo.core.resolve.Choice;
import rivo.core.resolve.Resolver;
import rivo.server.catalogue.Catalogue;
import rivo.server.catalogue.Contents;
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

    DraftRehearsal(Catalogue catalogue) {
        this.catalogue = catalogue;
    }

    /** An edited draft with what it would do, from the estate of {@code before} to that of {@code after}. */
    record Rehearsed(Resolver before, Resolver after, Rehearsal rehearsal) {

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
        Resolver after = before.follow(estate.withAssignments(Edits.changes(estate, edits)));
        return new Rehearsed(before, after, Rehearsal.of(before, after));
    }

    /** How much the devices that gain have to fetch, in bytes. */
    long bytes(Rehearsed rehearsed, TitleDifference difference) {
        Positions fetching = difference.fetches(rehearsed.after().audiences());
        long bytes = 0;
        for (Difference part : difference.differences()) {
            Choice choice = part.after() == null ? null : part.after().choice();
            VariantRecord variant = choice == null ? null : catalogue.variant(difference.title().id(),
                    choice.release().version(), choice.variant().id());
            long size = variant == null ? 0 : variant.contents().stream().mapToLong(Contents.Content::size).sum();
            bytes += size * part.units().and(fetching).size();
        }
        return bytes;
    }

    /**
     * Stands for what somebody has looked at: the same for the same edits with the same effect. What devices merely
     * have on them changes all the time and plays no part.
     */
    static String token(List<DraftEdit> edits, Rehearsed rehearsal) {
        int hash = edits.hashCode();
        for (TitleDifference difference : rehearsal.titles()) {
            for (Part part : Part.values()) {
                hash = 31 * hash + Arrays.hashCode(part.of(difference).toArray());
            }
        }
        return Integer.toHexString(hash) + "-" + rehearsal.devices();
    }
}
