package rivo.server.change;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.audience.CollectionDocument;
import rivo.server.audience.Names;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.document.Document;
import rivo.server.document.Kept;
import rivo.server.estate.Snapshot;
import rivo.server.window.WindowDocument;

/**
 * An edit of the draft, in words.
 *
 * @param id of the edit
 * @param revision of the document that it was made from; 0 for a new one
 * @param subject title:ID or kit:ID; absent for what is no assignment
 * @param name of the title or kit, or of the document
 * @param places whom it concerns, each as it is and as it would be; for assignments only
 * @param choices what it fixes, by the ids of the choices
 * @param changedSince what stands there now, where somebody has changed the document since the edit was made: nothing of it is overwritten
 */
record EditView(String id, @Schema(allowableValues = {"put", "retire", "open-wave", "accept"}) String act,
        @Schema(allowableValues = {"assignment", "collection", "fence", "kit", "window", "title"}) String kind, String document, long revision,
        @Nullable String subject, String name, List<Place> places, boolean binding, Map<String, String> choices,
        @Nullable ChangedSince changedSince) {

    /**
     * A target of an assignment.
     *
     * @param target written KIND:ID
     * @param name absent when it is not known any more
     * @param intent as it would be
     * @param was as it is now; absent when it is not a target now
     */
    record Place(String target, @Nullable String name,
            @Schema(allowableValues = {"required", "available", "uninstall", "none"}) String intent,
            @Schema(allowableValues = {"required", "available", "uninstall"}) @Nullable String was) {
    }

    /**
     * What somebody else has made of the document.
     *
     * @param now in words; absent when it has been deleted
     */
    record ChangedSince(@Nullable String by, @Nullable Instant at, @Nullable String now) {
    }

    static EditView of(Snapshot now, Edit edit) {
        if (!edit.kind().equals(AssignmentDocument.KIND.word())) {
            return new EditView(edit.id(), edit.act().word(), edit.kind(), edit.document(), edit.revision(), null, name(now, edit), List.of(),
                    false, Map.of(), changedSince(now, edit));
        }
        AssignmentDocument before = now.get(AssignmentDocument.KIND).find(edit.document());
        AssignmentDocument after = edit.act() == Act.PUT && edit.content() != null
                ? AssignmentDocument.KIND.parse(edit.content().toString()) : edit.act() == Act.RETIRE ? null : before;
        AssignmentDocument shown = after != null ? after : before;
        if (shown == null) {
            return new EditView(edit.id(), edit.act().word(), edit.kind(), edit.document(), edit.revision(), null, edit.document(), List.of(),
                    false, Map.of(), changedSince(now, edit));
        }
        return new EditView(edit.id(), edit.act().word(), edit.kind(), edit.document(), edit.revision(), shown.subject(),
                subject(now.estate(), shown.subject()), places(now.estate(), before, after), after != null && after.binding(),
                after == null ? Map.of() : after.delivery().choices(), changedSince(now, edit));
    }

    /** The targets that are different, or all where something else is. */
    private static List<Place> places(Estate estate, @Nullable AssignmentDocument before, @Nullable AssignmentDocument after) {
        AssignmentDocument was = before == null || AssignmentsAtOu.isRetired(before) ? null : before;
        AssignmentDocument is = after == null || AssignmentsAtOu.isRetired(after) ? null : after;
        Set<String> targets = new LinkedHashSet<>(is == null ? List.of() : is.include());
        targets.addAll(was == null ? List.of() : was.include());
        if (was != null && is != null && !was.equals(is) && was.equals(is.with(is.assignment().withInclude(was.assignment().include())))) {
            targets.removeIf(target -> was.include().contains(target) && is.include().contains(target));
        }
        List<Place> places = new ArrayList<>();
        for (String target : targets) {
            places.add(new Place(target, targetName(estate, target), is != null && is.include().contains(target) ? is.intent() : "none",
                    was != null && was.include().contains(target) ? was.intent() : null));
        }
        return places;
    }

    private static String targetName(Estate estate, String written) {
        Target target = Target.parse(written);
        return target == null ? written : Names.of(estate, target);
    }

    private static String subject(Estate estate, String written) {
        Subject about = Subject.parse(written);
        return about == null ? written : Names.subject(estate, about);
    }

    private static String name(Snapshot now, Edit edit) {
        String named = edit.content() == null ? "" : edit.content().path("name").asString("");
        Ou ou = now.estate().ous().find(edit.document());
        Title title = now.estate().title(edit.document());
        return !named.isEmpty() ? named : edit.kind().equals("fence") && ou != null ? ou.name() : title != null ? title.name() : edit.document();
    }

    private static @Nullable ChangedSince changedSince(Snapshot now, Edit edit) {
        if (!DraftedSnapshot.isChangedSince(now, edit)) {
            return null;
        }
        Kept<? extends Document> theirs = now.get(DraftKinds.of(edit.kind())).kept(edit.document());
        return theirs == null ? new ChangedSince(null, null, null)
                : new ChangedSince(theirs.changedBy(), theirs.changedAt(), words(now.estate(), theirs.document()));
    }

    private static String words(Estate estate, Document document) {
        if (!(document instanceof AssignmentDocument assignment)) {
            return document instanceof KitDocument kit ? kit.name() : document instanceof CollectionDocument collection ? collection.name()
                    : document instanceof WindowDocument window ? window.name() : document.id();
        }
        String state = assignment.state() == null ? assignment.intent() : assignment.state();
        return state + " on " + String.join(", ", assignment.include().stream().map(target -> targetName(estate, target)).toList());
    }
}
