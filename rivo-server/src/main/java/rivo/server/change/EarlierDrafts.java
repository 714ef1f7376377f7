package rivo.server.change;

import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationStartedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.RefusedException;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Json;

/** Takes over drafts of versions in which an edit was a wish for one OU. What has become impossible meanwhile is left out, and logged. */
@Component
class EarlierDrafts {

    private static final Logger LOG = LoggerFactory.getLogger(EarlierDrafts.class);

    private record Row(String who, String edits) {
    }

    private final JdbcClient db;
    private final Drafts drafts;
    private final ChangeWriter writer;

    EarlierDrafts(JdbcClient db, Drafts drafts, ChangeWriter writer) {
        this.db = db;
        this.drafts = drafts;
        this.writer = writer;
    }

    @EventListener(ApplicationStartedEvent.class)
    void takeOver() {
        List<Row> rows = db.sql("select who, edits from earlier_drafts").query((row, n) -> new Row(row.getString("who"), row.getString("edits")))
                .list();
        for (Row row : rows) {
            Json.readList(row.edits(), OuAssignment.class).forEach(wish -> put(row.who(), wish));
            writer.take(context -> context.db().sql("delete from earlier_drafts where who = ?").params(row.who()).update());
        }
    }

    private void put(String who, OuAssignment wish) {
        try {
            drafts.put(who, wish);
        } catch (RefusedException e) {
            LOG.warn("An edit of {}'s draft from before is left out: {}", who, e.getMessage());
        }
    }
}
