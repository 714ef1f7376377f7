package rivo.server.catalogue.title;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;

/** Titles that come out of an estate file, which says nothing of how they are installed. */
public final class TitlesOfEstate {

    private TitlesOfEstate() {
    }

    /** A variant with made-up commands, which say so: no file belongs to them. */
    public static VariantRecord variant(String title, String id, @Nullable String fits) {
        return new VariantRecord(id, fits, false, List.of(), List.of(step("Install it (made up: the estate file has no steps)",
                "install " + title + " --silent")), List.of(step("Remove it (made up: the estate file has no steps)", "remove " + title + " --silent")),
                List.of(), Presence.inventory(title));
    }

    private static Step step(String text, String command) {
        return Step.run(text, command, Step.USUAL_CODES);
    }

    /** Writes the rows of titles that are not there yet. */
    public static void write(JdbcClient db, List<TitleRecord> titles, String who, Instant at) {
        TitleRows rows = new TitleRows(db);
        titles.forEach(title -> rows.replace(new KeptTitle(title, 1, who, at), false));
    }
}
