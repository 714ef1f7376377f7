package rivo.server.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.server.catalogue.Catalogue;
import rivo.server.catalogue.FixedChoices;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Json;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;

/**
 * Each administrator's draft: the edits that wait to be published. Kept in H2, so that nothing is lost with a browser;
 * held in memory for reading.
 */
@Component
public class Drafts {

    private static final int MOST_EDITS = 500;

    private final ChangeWriter writer;
    private final LiveEvents events;
    private final Catalogue catalogue;
    private final FixedChoices fixed;
    private final Map<String, List<DraftEdit>> drafts = new ConcurrentHashMap<>();

    Drafts(ChangeWriter writer, LiveEvents events, Catalogue catalogue, FixedChoices fixed, JdbcClient db) {
        this.writer = writer;
        this.catalogue = catalogue;
        this.fixed = fixed;
        this.events = events;
        db.sql("select who, edits from drafts").query((row, n) -> drafts.put(row.getString("who"),
                Json.readList(row.getString("edits"), DraftEdit.class))).list();
    }

    /** The edits of this administrator, the oldest first. */
    public List<DraftEdit> edits(String who) {
        return drafts.getOrDefault(who, List.of());
    }

    /**
     * The estate as it would be with this administrator's draft. Where the draft has become impossible, because an OU
     * has gone, it is the estate as it is.
     */
    public Estate after(Estate now, String who) {
        List<DraftEdit> edits = edits(who);
        if (edits.isEmpty()) {
            return now;
        }
        try {
            return now.withAssignments(Edits.changes(now, fixed::of, edits).assignments());
        } catch (RefusedException e) {
            // The draft bar shows the same refusal, with its remedy.
            return now;
        }
    }

    /**
     * Puts an edit into the draft, in place of one for the same title or kit and OU. One that asks for what is the case
     * already leaves the draft without it.
     *
     * @throws RefusedException when the title, kit or OU does not exist, a value may not be chosen, or the draft is full
     */
    public void put(String who, DraftEdit edit) {
        if (!edit.about().kit() && !edit.fixes().isEmpty()) {
            FixedChoices.check(catalogue.record(edit.about().id()), edit.fixes(), "choices");
        }
        change(who, (estate, edits) -> {
            edits.removeIf(edit::sameTarget);
            if (!Edits.isSo(estate, fixed::of, edit)) {
                edits.add(edit);
            }
            if (edits.size() > MOST_EDITS) {
                throw new RefusedException("draft-full", "", "A draft holds at most " + MOST_EDITS
                        + " edits. Publish it, or take some out.");
            }
        });
    }

    /** Takes the edit for this title or kit and OU out, if there is one. */
    public void remove(String who, String subject, String ou) {
        change(who, (estate, edits) -> edits.removeIf(e -> e.subject().equals(subject) && e.ou().equals(ou)));
    }

    public void clear(String who) {
        change(who, (estate, edits) -> edits.clear());
    }

    /** The edits that are written, by earlier commands of this transaction too. */
    static List<DraftEdit> written(JdbcClient db, String who) {
        return db.sql("select edits from drafts where who = ?").params(who).query(String.class).optional()
                .map(json -> Json.readList(json, DraftEdit.class)).orElse(List.of());
    }

    private interface Change {
        void to(Estate estate, List<DraftEdit> edits);
    }

    private void change(String who, Change change) {
        writer.take(context -> {
            List<DraftEdit> edits = new ArrayList<>(written(context.db(), who));
            List<DraftEdit> before = List.copyOf(edits);
            change.to(context.estate(), edits);
            context.db().sql("merge into drafts (who, edits) values (?, ?)").params(who, Json.write(edits)).update();
            context.journal(who, "draft-edited", "draft:" + who, null, before, edits);
            context.afterwards(() -> forgetAndTell(who, edits));
            return edits;
        });
    }

    /** Called after the draft is on disk. */
    void forgetAndTell(String who, List<DraftEdit> edits) {
        if (edits.isEmpty()) {
            drafts.remove(who);
        } else {
            drafts.put(who, List.copyOf(edits));
        }
        events.changed(Topics.draft(who));
    }
}
