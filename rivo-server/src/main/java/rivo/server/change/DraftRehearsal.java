package rivo.server.change;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Estate;
import rivo.core.estate.Release;
import rivo.core.rehearse.Rehearsal;
import rivo.core.rehearse.Rehearsal.TitleDifference;
import rivo.server.catalogue.Catalogue;
import rivo.server.catalogue.Contents;
import rivo.server.catalogue.TitleRecord.VariantRecord;

/** Rehearses a draft against the whole fleet. Pure reading. */
@Component
class DraftRehearsal {

    /** The parts of the fleet that a rehearsal counts. */
    enum Part {
        GAINS, LOSES, REMOVES, CONTESTED, SETTLED;

        DeviceSet of(TitleDifference difference) {
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

    Rehearsal rehearse(Estate before, List<DraftEdit> edits) {
        Estate after = before.withAssignments(Edits.changes(before, edits));
        Set<String> titles = new LinkedHashSet<>();
        edits.forEach(edit -> titles.add(edit.title()));
        return Rehearsal.of(before, after, titles);
    }

    /** How much the devices that gain have to fetch, in bytes. */
    long bytes(TitleDifference difference) {
        Release newest = catalogue.title(difference.title()).newest();
        if (newest == null) {
            return 0;
        }
        VariantRecord variant = catalogue.variant(difference.title(), newest.version(), newest.variants().get(0));
        Contents.Content content = variant == null ? null : variant.content();
        return content == null ? 0 : content.size() * difference.fetches().size();
    }

    /**
     * Stands for what somebody has looked at: the same for the same edits with the same effect. What devices merely
     * have on them changes all the time and plays no part.
     */
    static String token(List<DraftEdit> edits, Rehearsal rehearsal) {
        int hash = edits.hashCode();
        for (TitleDifference difference : rehearsal.titles()) {
            for (Part part : Part.values()) {
                hash = 31 * hash + part.of(difference).hashCode();
            }
        }
        return Integer.toHexString(hash) + "-" + rehearsal.devices();
    }
}
