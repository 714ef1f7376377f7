package rivo.server.change;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.Titles;
import rivo.server.document.Document;
import rivo.server.document.DocumentKind;
import rivo.server.document.Documents;
import rivo.server.document.Kept;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.web.ApiException;

/**
 * A snapshot as a draft would make it. Nothing is written. What it looks at of the snapshot are the estate and the parts of
 * {@link #LOOKED_AT}; where these are the very same, it comes to the very same.
 */
final class DraftedSnapshot {

    static final List<SnapshotPart<?>> LOOKED_AT = lookedAt();

    /** What becomes of the documents of one kind. @param retired the ids of those of which nothing stays */
    record Documented<D extends Document>(DocumentKind<D> kind, List<Kept<D>> put, Set<String> retired) {

        /** The same with who published them, and when. */
        Documented<D> by(By by) {
            return new Documented<>(kind, put.stream().map(kept -> new Kept<>(kept.document(), kept.revision(), by.who(), by.at(), by.change()))
                    .toList(), retired);
        }

        Snapshot apply(Snapshot before) {
            return put.isEmpty() && retired.isEmpty() ? before : kind.with(before, put, retired);
        }
    }

    private final Snapshot before;
    private final By by;
    private final List<Problem> problems = new ArrayList<>();
    private final Map<DocumentKind<?>, Documented<?>> documented = new LinkedHashMap<>();
    private Snapshot after;

    /**
     * By whom and in which change, as it is kept with the documents.
     *
     * @param change null while it is only rehearsed
     */
    record By(String who, Instant at, @Nullable Long change) {
    }

    private DraftedSnapshot(Snapshot before, By by) {
        this.before = before;
        this.after = before;
        this.by = by;
    }

    private static List<SnapshotPart<?>> lookedAt() {
        List<SnapshotPart<?>> parts = new ArrayList<>(DraftKinds.IN_ORDER);
        parts.add(Titles.PART);
        parts.add(Licences.PART);
        return List.copyOf(parts);
    }

    /**
     * @throws RefusedException with every edit whose document has been changed since, or that has become impossible
     */
    static DraftedSnapshot of(Snapshot before, List<Edit> edits, By by) {
        DraftedSnapshot drafted = new DraftedSnapshot(before, by);
        for (DocumentKind<?> kind : DraftKinds.IN_ORDER) {
            drafted.put(kind, edits.stream().filter(edit -> edit.kind().equals(kind.word()) && edit.act() != Act.ACCEPT).toList());
        }
        edits.stream().filter(edit -> edit.act() == Act.ACCEPT).forEach(drafted::accept);
        if (!drafted.problems.isEmpty()) {
            throw new RefusedException(drafted.problems);
        }
        return drafted;
    }

    /** What becomes of the documents, kind by kind. */
    List<Documented<?>> documented() {
        return List.copyOf(documented.values());
    }

    Snapshot after() {
        return after;
    }

    /** Whether the document of an edit was changed since the edit was made. */
    static boolean isChangedSince(Snapshot now, Edit edit) {
        return (edit.act() == Act.PUT || edit.act() == Act.RETIRE)
                && now.get(DraftKinds.of(edit.kind())).revision(edit.document()) != edit.revision();
    }

    private <D extends Document> void put(DocumentKind<D> kind, List<Edit> edits) {
        Documents<D> documents = before.get(kind);
        List<Kept<D>> put = new ArrayList<>();
        Set<String> retired = new HashSet<>();
        long seq = before.estate().assignments().nextSeq();
        for (Edit edit : edits) {
            Kept<D> known = documents.kept(edit.document());
            if (isChangedSince(before, edit)) {
                changedSince(edit, known);
            } else if (known == null && edit.act() != Act.PUT) {
                problems.add(new Problem("gone", place(edit), "What this edit is about is not there, or no longer; drop the edit."));
            } else {
                D document = document(kind, edit, known);
                if (document instanceof AssignmentDocument assignment) {
                    document = kind.type().cast(published(assignment, known == null ? null : (AssignmentDocument) known.document(), seq));
                    seq += known == null ? 1 : 0;
                }
                if (document == null) {
                    retired.add(edit.document());
                } else {
                    put.add(new Kept<>(document, documents.revision(edit.document()) + 1, by.who(), by.at(), by.change()));
                }
            }
        }
        if (!put.isEmpty() || !retired.isEmpty()) {
            Documented<D> all = new Documented<>(kind, put, retired);
            documented.put(kind, all);
            apply(all);
        }
    }

    private void apply(Documented<?> all) {
        try {
            after = all.apply(after);
        } catch (RefusedException e) {
            problems.addAll(e.problems());
        }
    }

    private static String place(Edit edit) {
        return edit.kind() + ":" + edit.document();
    }

    /** Null where nothing of it stays. */
    private <D extends Document> @Nullable D document(DocumentKind<D> kind, Edit edit, @Nullable Kept<D> known) {
        return switch (edit.act()) {
            case PUT -> kind.parse(Objects.requireNonNull(edit.content()).toString());
            case RETIRE -> kind.retired(Objects.requireNonNull(known).document());
            case OPEN_WAVE -> kind.type().cast(opened((AssignmentDocument) Objects.requireNonNull(known).document()));
            case ACCEPT, DROP -> throw new IllegalArgumentException("not an edit of a document");
        };
    }

    private AssignmentDocument opened(AssignmentDocument document) {
        AssignmentDocument next = document.withNextWave();
        if (next == null) {
            problems.add(new Problem("no-wave", "assignment:" + document.id(), "Every wave of this assignment is open already; drop the edit."));
        }
        return next == null ? document : next;
    }

    /** As it is published: at its place in the order, and with when its last wave was opened. */
    private AssignmentDocument published(AssignmentDocument document, @Nullable AssignmentDocument known, long seq) {
        AssignmentDocument numbered = document.numbered(known == null ? seq : known.seq());
        try {
            return numbered.inPlaceOf(known, by.at());
        } catch (RefusedException e) {
            problems.addAll(e.problems());
            return numbered;
        }
    }

    private void changedSince(Edit edit, @Nullable Kept<?> theirs) {
        problems.add(new Problem("changed-since", place(edit), theirs == null
                ? "What you edited has been deleted since. Nothing was overwritten; drop your edit."
                : theirs.changedBy() + " has changed what you edited since. Nothing was overwritten: look at both, then drop your edit or "
                        + "keep it in place of theirs."));
    }

    private void accept(Edit edit) {
        try {
            after = Licences.accepted(after, edit.document(), Objects.requireNonNull(edit.content()).asString(), by.who(), by.at());
        } catch (ApiException e) {
            problems.add(new Problem("other-text", "title:" + edit.document(), String.valueOf(e.getMessage())));
        }
    }
}
