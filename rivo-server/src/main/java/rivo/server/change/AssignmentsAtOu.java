package rivo.server.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Delivery;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.title.Titles;
import rivo.server.document.Documents;
import rivo.server.estate.Json;
import rivo.server.estate.Snapshot;

/**
 * Puts what shall be assigned to an OU into edits of assignments: one that is for this OU alone is edited in place, one that is for others
 * as well goes on there without it, and where none is there a new one is made. Works on the draft as it is so far.
 */
final class AssignmentsAtOu {

    private final Documents<AssignmentDocument> published;
    private final Map<String, AssignmentDocument> drafted = new LinkedHashMap<>();
    private final Draft draft;
    private final OuAssignment wish;
    private final List<Edit> edits = new ArrayList<>();

    private AssignmentsAtOu(Snapshot now, Draft draft, OuAssignment wish) {
        this.published = now.get(AssignmentDocument.KIND);
        this.draft = draft;
        this.wish = wish;
        published.stream().filter(AssignmentsAtOu::isActive).forEach(document -> drafted.put(document.id(), document));
        for (Edit edit : draft.edits()) {
            if (edit.kind().equals(AssignmentDocument.KIND.word())) {
                drafted.remove(edit.document());
                if (edit.act() == Act.PUT && edit.content() != null) {
                    drafted.put(edit.document(), AssignmentDocument.KIND.parse(edit.content().toString()));
                }
            }
        }
    }

    private static boolean isActive(AssignmentDocument document) {
        return document.state() == null;
    }

    /**
     * The edits that bring it about; none where it is so already.
     *
     * @throws RefusedException when the title, kit or OU does not exist, or a value may not be chosen
     */
    static List<Edit> edits(Snapshot now, Draft draft, OuAssignment wish) {
        check(now, wish);
        AssignmentsAtOu at = new AssignmentsAtOu(now, draft, wish);
        at.bringAbout();
        return at.edits;
    }

    private static void check(Snapshot now, OuAssignment wish) {
        List<Problem> problems = new ArrayList<>();
        Estate estate = now.estate();
        Subject about = wish.about();
        if (about.kit() ? !estate.kits().containsKey(about.id()) : estate.title(about.id()) == null) {
            problems.add(new Problem(about.kit() ? "unknown-kit" : "unknown-title", "subject",
                    "There is no " + (about.kit() ? "kit " : "title ") + about.id() + "; pick one from the catalogue."));
        }
        if (about.kit() && !wish.fixes().isEmpty()) {
            problems.add(new Problem("kit-has-no-choices", "choices", "A kit has no choices; assign the title itself to set them."));
        }
        boolean dropsWhatRests = wish.wanted() == null && estate.gone().containsKey(Target.ou(wish.ou()));
        if (estate.ous().find(wish.ou()) == null && !dropsWhatRests) {
            problems.add(new Problem("unknown-ou", "ou", "The OU is not in the directory, or no longer; choose another."));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        if (!about.kit() && !wish.fixes().isEmpty()) {
            FixedChoices.check(now.get(Titles.PART).record(about.id()), wish.fixes(), "choices");
        }
    }

    private void bringAbout() {
        Intent wanted = wish.wanted();
        List<AssignmentDocument> there = drafted.values().stream().filter(this::isThere).toList();
        AssignmentDocument stays = wanted == null ? null : there.stream().filter(one -> isAsWanted(one, wanted)).findFirst()
                .orElseGet(() -> there.stream().filter(one -> one.include().size() == 1).findFirst().orElse(null));
        for (AssignmentDocument one : there) {
            if (one != stays) {
                withoutTheOu(one);
            }
        }
        if (wanted != null) {
            AssignmentDocument base = stays != null ? stays : endedByTheDraft();
            put(base == null ? added(wanted) : changed(base, wanted));
        }
    }

    /** One for this OU alone that stands there and that the draft ends: it goes on instead of a new one. */
    private @Nullable AssignmentDocument endedByTheDraft() {
        return published.stream().filter(one -> isThere(one) && one.include().size() == 1 && !drafted.containsKey(one.id())).findFirst()
                .orElse(null);
    }

    private boolean isThere(AssignmentDocument document) {
        return isActive(document) && document.subject().equals(wish.subject()) && document.include().contains(target());
    }

    private String target() {
        return Target.ou(wish.ou()).toString();
    }

    private boolean isAsWanted(AssignmentDocument document, Intent wanted) {
        return document.intent().equals(wanted.word()) && document.binding() == wish.binding()
                && document.delivery().choices().equals(wish.fixes());
    }

    private AssignmentDocument changed(AssignmentDocument document, Intent wanted) {
        return AssignmentDocument.of(document.assignment().withIntent(wanted).withBinding(wish.binding()),
                document.delivery().withChoices(wish.fixes()));
    }

    private AssignmentDocument added(Intent wanted) {
        Assignment assignment = Assignment.of(Ids.random("a-"), 0, wish.about(), wanted, List.of(Target.ou(wish.ou())))
                .withBinding(wish.binding());
        return AssignmentDocument.of(assignment, Delivery.AS_USUAL.withChoices(wish.fixes()));
    }

    private void withoutTheOu(AssignmentDocument document) {
        List<Target> rest = document.assignment().include().stream().filter(target -> !target.equals(Target.ou(wish.ou()))).toList();
        if (!rest.isEmpty()) {
            put(document.with(document.assignment().withInclude(rest)));
        } else if (published.find(document.id()) == null) {
            dropWhatIsDrafted(document.id());
        } else {
            add(Act.RETIRE, document.id(), null);
        }
    }

    /** An edit that leaves the document as it is published is none. */
    private void put(AssignmentDocument document) {
        if (document.equals(drafted.get(document.id()))) {
            return;
        }
        if (document.equals(published.find(document.id()))) {
            dropWhatIsDrafted(document.id());
        } else {
            add(Act.PUT, document.id(), document);
        }
    }

    private void dropWhatIsDrafted(String id) {
        draft.edits().stream().filter(edit -> edit.kind().equals(AssignmentDocument.KIND.word()) && edit.document().equals(id))
                .forEach(edit -> edits.add(edit.dropped()));
    }

    private void add(Act act, String id, @Nullable AssignmentDocument content) {
        edits.add(new Edit(Ids.random("e-"), act, AssignmentDocument.KIND.word(), id, published.revision(id),
                content == null ? null : Json.tree(content)));
    }

    /** The state of an assignment that counts no more. */
    static boolean isRetired(AssignmentDocument document) {
        return AssignmentState.RETIRED.word().equals(document.state());
    }
}
