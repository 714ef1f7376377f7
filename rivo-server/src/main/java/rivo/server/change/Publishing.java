package rivo.server.change;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Target;
import rivo.server.catalogue.FixedChoices;
import rivo.server.change.DraftRehearsal.Rehearsed;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.EstateRecords;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.estate.WorkingEstate;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** Publishing a draft: one act, with a reason, and only of what was looked at. */
@Component
public class Publishing {

    private static final int SHORTEST_REASON = 3;
    private static final int LONGEST_REASON = 1000;

    /** What was published. */
    public record Published(long change, Instant at) {
    }

    private final ChangeWriter writer;
    private final Drafts drafts;
    private final DraftRehearsal rehearsals;
    private final Origins origins;
    private final Cautions cautions;
    private final FixedChoices fixed;
    private final WorkingEstate working;
    private final LiveEvents events;

    Publishing(ChangeWriter writer, Drafts drafts, DraftRehearsal rehearsals, Origins origins, Cautions cautions,
            FixedChoices fixed, WorkingEstate working, LiveEvents events) {
        this.writer = writer;
        this.drafts = drafts;
        this.rehearsals = rehearsals;
        this.origins = origins;
        this.cautions = cautions;
        this.fixed = fixed;
        this.working = working;
        this.events = events;
    }

    /** The token of the rehearsal of this administrator's draft as it is now. */
    public String token(String who) {
        List<DraftEdit> edits = drafts.edits(who);
        return RehearsalToken.of(edits, rehearsals.rehearse(working.resolver(), edits));
    }

    /**
     * Publishes the draft of {@code who}.
     *
     * @param token of the rehearsal that was looked at
     * @throws ApiException when the draft is empty, or would no longer do what was looked at
     * @throws RefusedException when the reason is missing, an edit has become impossible, or a title would go on whose licence
     *     text nobody has accepted
     */
    public Published publish(String who, String reason, String token) {
        String why = reason.strip();
        if (why.length() < SHORTEST_REASON || why.length() > LONGEST_REASON) {
            throw new RefusedException("no-reason", "reason", "A change is published with a reason of "
                    + SHORTEST_REASON + " to " + LONGEST_REASON + " characters; say why.");
        }
        return writer.take(context -> publish(context, who, why, token));
    }

    private Published publish(ChangeContext context, String who, String reason, String token) {
        List<DraftEdit> edits = Drafts.written(context.db(), who);
        if (edits.isEmpty()) {
            throw ApiException.conflict("empty-draft", "The draft is empty; there is nothing to publish.");
        }
        Estate before = context.estate();
        Rehearsed rehearsed = rehearsals.rehearse(working.resolver().follow(before), edits);
        if (!RehearsalToken.of(edits, rehearsed).equals(token)) {
            throw ApiException.conflict("looks-different", "The draft would do something else than when you looked at "
                    + "it. Nothing was published; look through it again.");
        }
        List<Problem> unaccepted = cautions.unaccepted(edits, rehearsed.rehearsal());
        if (!unaccepted.isEmpty()) {
            throw new RefusedException(unaccepted);
        }
        Edits.Changes changes = rehearsed.changes();
        List<Assignment> changed = changes.assignments();
        long number = context.db().sql("select coalesce(max(number), 0) + 1 from changes").query(Long.class).single();
        context.db().sql("insert into changes (number, who, at, reason) values (?, ?, ?, ?)")
                .params(number, who, Rows.at(context.now()), reason).update();
        changed.forEach(assignment -> write(context, assignment, changes.choices().get(assignment.id()), number));
        context.db().sql("delete from drafts where who = ?").params(who).update();
        context.journal(who, "published", "change:" + number, reason, changed.stream()
                .map(a -> before.assignments().find(a.id())).filter(a -> a != null).toList(),
                Map.of("edits", edits, "assignments", changed));
        Estate after = before.withAssignments(changed);
        EstateRecords.writeGone(context, before, after);
        context.becomes(after);
        Origins.Origin origin = new Origins.Origin(number, context.now());
        context.afterwards(() -> {
            changed.forEach(assignment -> origins.put(assignment.id(), origin));
            changes.choices().forEach(fixed::remember);
            drafts.forgetAndTell(who, List.of());
            events.changed(Topics.ESTATE);
        });
        return new Published(number, context.now());
    }

    /** An assignment keeps the number of the change that made it. */
    private static void write(ChangeContext context, Assignment a, @Nullable Map<String, String> choices, long change) {
        int updated = context.db().sql("update assignments set state = ? where id = ?")
                .params(a.state().name(), a.id()).update();
        if (updated == 0) {
            context.db().sql("insert into assignments (id, seq, state, title, kit, intent, binding, priority, "
                    + "choices, change_number) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")
                    .params(a.id(), a.seq(), a.state().name(), a.subject().kit() ? null : a.subject().id(),
                            a.subject().kit() ? a.subject().id() : null, a.intent().name(), a.binding(), a.priority(),
                            Json.write(choices == null ? Map.of() : choices), change)
                    .update();
        }
        context.db().sql("delete from assignment_ous where assignment = ?").params(a.id()).update();
        a.include().stream().filter(target -> target.kind() == Target.Kind.OU).forEach(target -> context.db()
                .sql("insert into assignment_ous (assignment, ou) values (?, ?)").params(a.id(), target.id()).update());
    }
}
