package rivo.server.change;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;
import rivo.core.estate.Intent;
import rivo.core.estate.Problem;
import rivo.core.rehearse.Rehearsal;
import rivo.server.catalogue.Catalogue;
import rivo.server.catalogue.Kits;
import rivo.server.catalogue.Licences;
import rivo.server.catalogue.Readiness.Look;
import rivo.server.catalogue.TitlePages;
import rivo.server.catalogue.TitleRecord;

/** What the catalogue has to say of the titles that a draft would put on. */
@Component
class Cautions {

    /** Something that was looked at before the title is assigned, and is not well. */
    record Caution(String title, String titleName, String code, String sentence, String detail) {
    }

    private final Catalogue catalogue;
    private final Kits kits;
    private final Licences licences;
    private final TitlePages pages;

    Cautions(Catalogue catalogue, Kits kits, Licences licences, TitlePages pages) {
        this.catalogue = catalogue;
        this.kits = kits;
        this.licences = licences;
        this.pages = pages;
    }

    /** Everything that is not well with the releases that a draft would put on. */
    List<Caution> of(List<DraftEdit> edits, Rehearsal rehearsal) {
        List<Caution> cautions = new ArrayList<>();
        for (TitleRecord title : installed(edits, rehearsal)) {
            for (Look look : pages.looks(title)) {
                if (!look.well()) {
                    cautions.add(new Caution(title.id(), title.name(), look.code(), look.sentence(), look.detail()));
                }
            }
        }
        return cautions;
    }

    /** The titles that a draft would put on although nobody has accepted their licence text. */
    List<Problem> unaccepted(List<DraftEdit> edits, Rehearsal rehearsal) {
        return installed(edits, rehearsal).stream().filter(licences::isMissing).map(title -> new Problem("licence-not-accepted",
                "edits", "The licence text of " + title.name() + " has not been accepted; read and accept it on its page in the "
                        + "catalogue, or take the title out of the draft.")).toList();
    }

    /** Those that an edit requires, alone or in a kit, and those that some device gains by it, as what another needs. */
    private List<TitleRecord> installed(List<DraftEdit> edits, Rehearsal rehearsal) {
        Set<String> ids = new LinkedHashSet<>();
        for (DraftEdit edit : edits) {
            if (edit.wanted() == Intent.REQUIRED) {
                var kit = edit.about().kit() ? kits.find(edit.about().id()) : null;
                ids.addAll(kit != null ? kit.titles() : edit.about().kit() ? List.of() : List.of(edit.about().id()));
            }
        }
        rehearsal.titles().stream().filter(difference -> !difference.gains().isEmpty())
                .forEach(difference -> ids.add(difference.title().id()));
        return catalogue.titles().stream().filter(t -> ids.contains(t.id())).toList();
    }
}
