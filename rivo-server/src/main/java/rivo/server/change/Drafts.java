package rivo.server.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Problem;
import rivo.core.estate.ProblemList;
import rivo.core.estate.RefusedException;
import rivo.server.document.Document;
import rivo.server.document.DocumentKind;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Json;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;
import rivo.server.web.Malformed;
import rivo.server.web.ReadValues;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;

/** Each administrator's draft: the edits that wait to be published. Kept in H2, so that nothing is lost with a browser. */
@Component
public class Drafts {

    static final int MOST_EDITS = 500;
    private static final int LONGEST_DOCUMENT = 256 * 1024;

    /** The drafts that have a step, done or undone, by account. */
    public static final SnapshotPart<Map<String, Draft>> PART = new SnapshotPart<>() {
        @Override
        public Map<String, Draft> read(JdbcClient db) {
            Map<String, Draft> read = new HashMap<>();
            db.sql("select who, draft from drafts").query(row -> {
                read.put(row.getString("who"), Json.readWhole(row.getString("draft"), Draft.class));
            });
            return Map.copyOf(read);
        }
    };

    private final ChangeWriter writer;
    private final LiveEvents events;
    private final CurrentSnapshot current;

    Drafts(ChangeWriter writer, LiveEvents events, CurrentSnapshot current) {
        this.writer = writer;
        this.events = events;
        this.current = current;
    }

    static Draft of(Snapshot snapshot, String who) {
        return snapshot.get(PART).getOrDefault(who, Draft.EMPTY);
    }

    /** How many edits this administrator's draft has now. */
    public int size(String who) {
        return of(current.now(), who).edits().size();
    }

    /**
     * The snapshot as it would be with this administrator's draft. Where the draft has become impossible, because an OU has gone or
     * something was changed since, it is the snapshot as it is.
     */
    public static Snapshot after(Snapshot now, String who) {
        List<Edit> edits = of(now, who).edits();
        if (edits.isEmpty()) {
            return now;
        }
        try {
            return DraftedSnapshot.of(now, edits, new DraftedSnapshot.By(who, now.estate().asOf(), null)).after();
        } catch (RefusedException e) {
            // The draft bar shows the same refusal, with its remedy.
            return now;
        }
    }

    /**
     * The snapshot as it would be with this administrator's draft and an assignment that they are only writing.
     *
     * @throws RefusedException when it makes no sense, names what there is not, was changed since, or the rest of the draft is impossible
     */
    public static Snapshot after(Snapshot now, String who, WrittenAssignment written) {
        List<Edit> edits = written.edits();
        return afterOthers(now, who, edits, edits);
    }

    /** With the rest of the draft, which is without edits of the same documents, and with some edits more. */
    static Snapshot afterOthers(Snapshot now, String who, List<Edit> same, List<Edit> more) {
        List<Edit.Key> keys = same.stream().map(Edit::key).toList();
        List<Edit> all = new ArrayList<>(of(now, who).edits().stream().filter(one -> !keys.contains(one.key())).toList());
        all.addAll(more);
        return all.isEmpty() ? now : DraftedSnapshot.of(now, all, new DraftedSnapshot.By(who, now.estate().asOf(), null)).after();
    }

    /**
     * Has something else assigned to an OU. What is the case already leaves the draft without it.
     *
     * @throws RefusedException when the title, kit or OU does not exist, a value may not be chosen, or the draft is full
     */
    public void put(String who, OuAssignment wish) {
        change(who, (now, draft) -> draft.with(AssignmentsAtOu.edits(now, draft, wish)));
    }

    /**
     * Puts a document into the draft, in place of an edit of the same document.
     *
     * @param id of the document
     * @param revision that it was made from; 0 for a new one
     * @throws RefusedException when it is no document of its kind, makes no sense, was changed since, or the draft is full
     */
    void put(String who, DocumentKind<?> kind, String id, long revision, JsonNode content) {
        edit(who, putting(kind, id, revision, content));
    }

    /**
     * An edit that puts a document in, or in place of what stands there.
     *
     * @throws RefusedException when it is no document of its kind, or has another id
     */
    static Edit putting(DocumentKind<?> kind, String id, long revision, JsonNode content) {
        String json = content.toString();
        Document document = json.length() > LONGEST_DOCUMENT ? null : parsed(kind, json);
        if (document == null || !document.id().equals(id)) {
            throw new RefusedException("bad-document", kind.word(), document == null ? "A document has at most "
                    + LONGEST_DOCUMENT / 1024 + " KiB; make it smaller." : "The document in the body has the id " + document.id()
                            + ", not the one in the address.");
        }
        List<Problem> problems = new ArrayList<>(ReadValues.problems(document));
        if (id.isEmpty() || id.length() > ProblemList.LONGEST_ID || id.indexOf(';') >= 0) {
            problems.add(new Problem("bad-id", "id", "An id has 1 to " + ProblemList.LONGEST_ID + " characters without ';'; give another."));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        return new Edit(Ids.random("e-"), Act.PUT, kind.word(), id, revision, Json.tree(document));
    }

    /** Puts a document into the draft, made from what is published of it now. @throws RefusedException as for one that comes from outside */
    public <D extends Document> void put(String who, DocumentKind<D> kind, D document) {
        put(who, kind, document.id(), current.now().get(kind).revision(document.id()), Json.tree(document));
    }

    private static Document parsed(DocumentKind<?> kind, String json) {
        try {
            return kind.parse(json);
        } catch (JacksonException e) {
            String path = Malformed.path(e);
            throw new RefusedException("bad-document", kind.word(), "This is no " + kind.word() + (path.isEmpty() ? "; c"
                    : ": " + path + " is not known, of another kind, or missing. C") + "heck it against docs/schema/" + kind.word() + ".schema.json.");
        }
    }

    /** Has a document end with the draft. */
    void retire(String who, DocumentKind<?> kind, String id, long revision) {
        edit(who, new Edit(Ids.random("e-"), Act.RETIRE, kind.word(), id, revision, null));
    }

    /** Puts an act into the draft. @param content the licence text that was read */
    void act(String who, Act act, String kind, String document, @Nullable String content) {
        edit(who, new Edit(Ids.random("e-"), act, kind, document, 0, content == null ? null : Json.tree(content)));
    }

    private void edit(String who, Edit edit) {
        put(who, List.of(edit));
    }

    /** Puts edits in, in one step. @throws RefusedException with what is wrong with them, or the draft is full */
    void put(String who, List<Edit> edits) {
        change(who, (now, draft) -> {
            Draft after = draft.with(edits);
            List<Problem> before = problems(now, who, draft);
            List<Problem> problems = new ArrayList<>(problems(now, who, after));
            problems.removeIf(problem -> before.contains(problem)
                    && edits.stream().noneMatch(edit -> problem.place().startsWith(edit.kind() + ":" + edit.document())));
            if (!problems.isEmpty()) {
                throw new RefusedException(problems);
            }
            return after;
        });
    }

    private static List<Problem> problems(Snapshot now, String who, Draft draft) {
        try {
            DraftedSnapshot.of(now, draft.edits(), new DraftedSnapshot.By(who, now.estate().asOf(), null));
            return List.of();
        } catch (RefusedException e) {
            return e.problems();
        }
    }

    /** Takes one edit out of the draft. @throws ApiException when it is not there any more */
    void drop(String who, String edit) {
        change(who, (now, draft) -> draft.with(List.of(found(draft, edit).dropped())));
    }

    /** Has an edit count although its document was changed since: it takes the place of what stands there now. */
    void keep(String who, String edit) {
        change(who, (now, draft) -> {
            Edit mine = found(draft, edit);
            return draft.with(List.of(mine.madeFrom(now.get(DraftKinds.of(mine.kind())).revision(mine.document()))));
        });
    }

    private static Edit found(Draft draft, String edit) {
        Edit found = draft.find(edit);
        if (found == null) {
            throw ApiException.notFound("unknown-edit", "The edit is not in the draft any more; reload the draft.");
        }
        return found;
    }

    /** Takes the last step back; nothing where there is none. */
    void undo(String who) {
        change(who, (now, draft) -> draft.undone());
    }

    /** Does the step again that was undone last; nothing where there is none. */
    void redo(String who) {
        change(who, (now, draft) -> draft.redone());
    }

    /** Takes every edit out, in one step. */
    public void clear(String who) {
        change(who, (now, draft) -> draft.with(draft.edits().stream().map(Edit::dropped).toList()));
    }

    /** Checking an edit may take a resolution of what it touches: that is done before it is the draft's turn to be written. */
    private void change(String who, BiFunction<Snapshot, Draft, Draft> change) {
        Snapshot looked = current.now();
        Draft was = of(looked, who);
        Draft would = change.apply(looked, was);
        writer.take(context -> {
            Draft before = of(context.snapshot(), who);
            Draft after = before == was && looked.isSameAs(context.snapshot(), DraftedSnapshot.LOOKED_AT) ? would
                    : change.apply(context.snapshot(), before);
            if (after.edits().size() > MOST_EDITS) {
                throw new RefusedException("draft-full", "", "A draft holds at most " + MOST_EDITS + " edits. Publish it, or drop some.");
            }
            if (!after.equals(before)) {
                become(context, who, after);
                context.journal(who, "draft-edited", "draft:" + who, null, before.edits(), after.edits());
                context.afterwards(() -> events.changed(Topics.draft(who)));
            }
            return Objects.requireNonNull(who);
        });
    }

    /** Writes a draft and puts it into the snapshot. */
    static void become(ChangeContext context, String who, Draft draft) {
        Map<String, Draft> drafts = new HashMap<>(context.get(PART));
        if (draft.steps().isEmpty()) {
            drafts.remove(who);
            context.db().sql("delete from drafts where who = ?").params(who).update();
        } else {
            drafts.put(who, draft);
            context.db().sql("merge into drafts (who, draft) values (?, ?)").params(who, Json.write(draft)).update();
        }
        context.becomes(PART, Map.copyOf(drafts));
    }
}
