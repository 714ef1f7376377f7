package rivo.server.change;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.catalogue.licence.Licences;
import rivo.server.change.DraftRehearsal.Rehearsed;
import rivo.server.change.DraftedSnapshot.By;
import rivo.server.change.DraftedSnapshot.Documented;
import rivo.server.document.Document;
import rivo.server.document.Kept;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.EstateRecords;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/**
 * Publishing a draft: one act, with a reason, and only of what was looked at.
 *
 * <p><b>How.</b> The draft is rehearsed outside the writer. Inside, it is enough that the rehearsal was of the very snapshot that stands
 * there; then what it resolved is put in place as it is. Where something it looked at has become another meanwhile, it is rehearsed anew;
 * and where that goes on, the last time inside the writer, so that a busy fleet cannot keep anybody from publishing.
 */
@Component
public class Publishing {

    private static final int SHORTEST_REASON = 3;
    private static final int LONGEST_REASON = 1000;
    private static final int TRIES_OUTSIDE = 3;
    /** Who is on record as having acted; no account has a colon in its name. */
    static final String BY_RULE = "rule: waves";

    /** What was published. */
    public record Published(long change, Instant at) {
    }

    private final ChangeWriter writer;
    private final DraftRehearsal rehearsals;
    private final Cautions cautions;
    private final CurrentSnapshot current;
    private final LiveEvents events;

    Publishing(ChangeWriter writer, DraftRehearsal rehearsals, Cautions cautions, CurrentSnapshot current, LiveEvents events) {
        this.writer = writer;
        this.rehearsals = rehearsals;
        this.cautions = cautions;
        this.current = current;
        this.events = events;
    }

    /** The token of the rehearsal of this administrator's draft as it is now. */
    public String token(String who) {
        Snapshot now = current.now();
        List<Edit> edits = Drafts.of(now, who).edits();
        return RehearsalToken.of(rehearsals.rehearse(now, who, edits));
    }

    /**
     * Publishes the draft of {@code who}.
     *
     * @param token of the rehearsal that was looked at
     * @throws ApiException when the draft is empty, or would no longer do what was looked at
     * @throws RefusedException when the reason is missing, an edit has become impossible or its document was changed since, or a title
     *     would go on whose licence text nobody has accepted
     */
    public Published publish(String who, String reason, String token) {
        String why = reason.strip();
        if (why.length() < SHORTEST_REASON || why.length() > LONGEST_REASON) {
            throw new RefusedException("no-reason", "reason", "A change is published with a reason of "
                    + SHORTEST_REASON + " to " + LONGEST_REASON + " characters; say why.");
        }
        for (int i = 0; i < TRIES_OUTSIDE; i++) {
            Rehearsed looked = checked(current.now(), who, token);
            Published published = writer.take(context -> looked.holdsFor(context.snapshot(), who) ? publish(context, who, why, looked)
                    : null);
            if (published != null) {
                return published;
            }
        }
        return Objects.requireNonNull(writer.take(context -> publish(context, who, why, checked(context.snapshot(), who, token))));
    }

    /** Rehearses the draft as it is, and refuses it where it is not what was looked at. */
    private Rehearsed checked(Snapshot now, String who, String token) {
        List<Edit> edits = Drafts.of(now, who).edits();
        if (edits.isEmpty()) {
            throw ApiException.conflict("empty-draft", "The draft is empty; there is nothing to publish.");
        }
        Rehearsed rehearsed = rehearsals.rehearse(now, who, edits);
        if (!RehearsalToken.of(rehearsed).equals(token)) {
            throw ApiException.conflict("looks-different", "The draft would do something else than when you looked at "
                    + "it. Nothing was published; look through it again.");
        }
        List<Problem> unaccepted = cautions.unaccepted(rehearsed);
        if (!unaccepted.isEmpty()) {
            throw new RefusedException(unaccepted);
        }
        return rehearsed;
    }

    /**
     * Publishes what a rule makes of an assignment, as a change of its own. Nobody's draft has part in it.
     *
     * @param revision that it was made from
     * @throws RefusedException when it was changed since, or a title would go on whose licence text nobody has accepted
     */
    public Published byRule(AssignmentDocument document, long revision, String reason) {
        List<Edit> edits = List.of(Drafts.putting(AssignmentDocument.KIND, document.id(), revision, Json.tree(document)));
        return writer.take(context -> {
            Rehearsed rehearsed = rehearsals.rehearse(context.snapshot(), BY_RULE, edits);
            List<Problem> unaccepted = cautions.unaccepted(rehearsed);
            if (!unaccepted.isEmpty()) {
                throw new RefusedException(unaccepted);
            }
            return publish(context, BY_RULE, reason, rehearsed);
        });
    }

    private Published publish(ChangeContext context, String who, String reason, Rehearsed rehearsed) {
        long number = context.db().sql("select coalesce(max(number), 0) + 1 from changes").query(Long.class).single();
        context.db().sql("insert into changes (number, who, at, reason) values (?, ?, ?, ?)")
                .params(number, who, Rows.at(context.now()), reason).update();
        List<Object> before = new ArrayList<>();
        List<Object> after = new ArrayList<>();
        Snapshot was = context.snapshot();
        // The estate is the one that was rehearsed; the documents are the same, with who published them and when.
        context.becomes(was.with(rehearsed.after().resolver()));
        By by = new By(who, context.now(), number);
        for (Documented<?> documented : rehearsed.documented()) {
            write(context, documented.by(by));
            noteDifference(was, documented, before, after);
        }
        rehearsed.edits().stream().filter(edit -> edit.act() == Act.ACCEPT).forEach(edit -> accept(context, who, edit));
        EstateRecords.writeGone(context, was.estate(), context.estate());
        Drafts.become(context, who, Draft.EMPTY);
        context.journal(who, "published", "change:" + number, reason, before, after);
        context.afterwards(() -> tell(who, rehearsed));
        return new Published(number, context.now());
    }

    /** Assignments concern the titles that were looked at and the kits they assign; other documents, and texts that were accepted, may concern anything. */
    private void tell(String who, Rehearsed rehearsed) {
        events.changed(Topics.draft(who), Topics.KITS);
        events.changed(Topics.titles(rehearsed.titles().stream().map(difference -> difference.title().id()).toList()));
        if (rehearsed.documented().stream().anyMatch(one -> one.kind() != AssignmentDocument.KIND)
                || rehearsed.edits().stream().anyMatch(edit -> edit.act() == Act.ACCEPT)) {
            events.changed(Topics.ESTATE);
        }
    }

    private static <D extends Document> void write(ChangeContext context, Documented<D> documented) {
        documented.kind().become(context, documented.put(), documented.retired());
    }

    private static <D extends Document> void noteDifference(Snapshot was, Documented<D> documented, List<Object> before, List<Object> after) {
        for (Kept<D> kept : documented.put()) {
            D known = was.get(documented.kind()).find(kept.document().id());
            if (known != null) {
                before.add(known);
            }
            after.add(kept.document());
        }
        documented.retired().forEach(id -> before.add(Objects.requireNonNull(was.get(documented.kind()).find(id))));
    }

    private static void accept(ChangeContext context, String who, Edit edit) {
        String text = Objects.requireNonNull(edit.content()).asString();
        context.becomes(Licences.accepted(context.snapshot(), edit.document(), text, who, context.now()));
        Licences.write(context, who, edit.document(), text);
    }
}
