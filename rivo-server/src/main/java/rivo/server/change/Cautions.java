package rivo.server.change;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Problem;
import rivo.core.estate.Subject;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.catalogue.Readiness.Look;
import rivo.server.catalogue.TitlePages;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.change.DraftRehearsal.Rehearsed;
import rivo.server.estate.Snapshot;

/** What the catalogue has to say of the titles that a draft would put on. */
@Component
class Cautions {

    /** Something that was looked at before the title is assigned, and is not well. */
    record Caution(String title, String titleName, String code, String sentence, String detail) {
    }

    private final TitlePages pages;

    Cautions(TitlePages pages) {
        this.pages = pages;
    }

    /** Everything that is not well with the releases that a draft would put on. */
    List<Caution> of(Rehearsed rehearsed) {
        List<Caution> cautions = new ArrayList<>();
        for (TitleRecord title : installed(rehearsed)) {
            for (Look look : pages.looks(rehearsed.after(), title)) {
                if (!look.well()) {
                    cautions.add(new Caution(title.id(), title.name(), look.code(), look.sentence(), look.detail()));
                }
            }
        }
        return cautions;
    }

    /** The titles that a draft would put on although nobody has accepted their licence text. */
    List<Problem> unaccepted(Rehearsed rehearsed) {
        return installed(rehearsed).stream().filter(title -> Licences.isMissing(rehearsed.after(), title))
                .map(title -> new Problem("licence-not-accepted", "edits", "The licence text of " + title.name()
                        + " has not been accepted; read and accept it on its page in the catalogue, or drop the edit.")).toList();
    }

    /** Those that an edited assignment installs, alone or in a kit, and those that some device gains by it, as what another needs. */
    private static List<TitleRecord> installed(Rehearsed rehearsed) {
        Set<String> ids = new LinkedHashSet<>();
        for (Edit edit : rehearsed.edits()) {
            AssignmentDocument document = edit.kind().equals(AssignmentDocument.KIND.word())
                    ? rehearsed.after().get(AssignmentDocument.KIND).find(edit.document()) : null;
            Assignment assignment = document == null ? null : document.assignment();
            if (assignment != null && assignment.state() == AssignmentState.ACTIVE && assignment.intent().installs()) {
                ids.addAll(titles(rehearsed.after(), assignment.subject()));
            }
        }
        rehearsed.titles().stream().filter(difference -> !difference.gains().isEmpty())
                .forEach(difference -> ids.add(difference.title().id()));
        return rehearsed.after().get(Titles.PART).all().stream().filter(t -> ids.contains(t.id())).toList();
    }

    private static List<String> titles(Snapshot snapshot, Subject subject) {
        KitDocument kit = subject.kit() ? snapshot.get(KitDocument.KIND).find(subject.id()) : null;
        return kit != null ? kit.titles() : subject.kit() ? List.of() : List.of(subject.id());
    }
}
