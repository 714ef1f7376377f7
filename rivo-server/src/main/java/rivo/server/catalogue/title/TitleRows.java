package rivo.server.catalogue.title;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.ReleaseState;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.TitleRecord.About;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.estate.EstateRecords.NeedRecord;
import rivo.server.estate.EstateRecords.ReplacementRecord;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import tools.jackson.core.type.TypeReference;

/** The catalogue's rows. */
record TitleRows(JdbcClient db) {

    /** What the column {@code variants.program} holds. */
    private record Program(boolean asPerson, List<Contents.Content> contents, List<Step> install, List<Step> remove,
            List<Step> repair, Presence presence, @Nullable String family) {
    }

    Map<String, KeptTitle> read() {
        Map<String, List<VariantRecord>> variants = new LinkedHashMap<>();
        db.sql("select v.*, t.inventory_name from variants v join titles t on t.id = v.title "
                + "order by v.title, v.version, v.place").query((row, n) -> variants.computeIfAbsent(
                        row.getString("title") + " " + row.getString("version"), k -> new ArrayList<>()).add(variant(
                                row.getString("id"), row.getString("fits"), row.getString("program") == null
                                        ? fromBefore(row) : Json.read(row.getString("program"), new TypeReference<>() {
                                        })))).list();
        Map<String, List<ReleaseRecord>> releases = new LinkedHashMap<>();
        db.sql("select * from releases").query((row, n) -> releases.computeIfAbsent(row.getString("title"),
                k -> new ArrayList<>()).add(new ReleaseRecord(row.getString("version"),
                        ReleaseState.valueOf(row.getString("state")) == ReleaseState.OFFERED, row.getString("note"),
                        Json.readList(row.getString("needs"), NeedRecord.class),
                        Json.readList(row.getString("replaces"), ReplacementRecord.class),
                        Json.readList(row.getString("choices"), ChoiceRecord.class), variants.getOrDefault(
                                row.getString("title") + " " + row.getString("version"), List.of())))).list();
        Map<String, KeptTitle> titles = new LinkedHashMap<>();
        db.sql("select * from titles order by place").query((row, n) -> titles.put(row.getString("id"), new KeptTitle(
                new TitleRecord(row.getString("id"), row.getString("name"), row.getString("maker"),
                        about(row.getString("about")), row.getString("scope"), row.getObject("seats", Integer.class), asks(row.getString("asks")),
                        Json.readList(row.getString("trusted_signers"), String.class),
                        Json.readList(row.getString("conflicts_with"), String.class),
                        releases.getOrDefault(row.getString("id"), List.of())),
                row.getLong("revision"), row.getString("changed_by"), row.getObject("changed_at") == null ? null
                        : Rows.instant(row, "changed_at")))).list();
        return titles;
    }

    private static TitleRecord.Asks asks(@Nullable String json) {
        return json == null ? TitleRecord.Asks.NOTHING : Json.read(json, new TypeReference<>() {
        });
    }

    private static About about(@Nullable String json) {
        return json == null ? About.NOTHING : Json.read(json, new TypeReference<>() {
        });
    }

    private static VariantRecord variant(String id, @Nullable String fits, Program program) {
        return new VariantRecord(id, fits, program.asPerson(), program.contents(), program.install(), program.remove(),
                program.repair(), program.presence(), program.family());
    }

    /** A variant of the first version of the catalogue: one command each, and seen by the title's inventory name. */
    private static Program fromBefore(java.sql.ResultSet row) throws java.sql.SQLException {
        String sha256 = row.getString("sha256");
        return new Program(false, sha256 == null ? List.of()
                : List.of(new Contents.Content(sha256, row.getLong("size"), row.getString("file_name"))),
                step("Run the installer silently", row.getString("install_command")),
                step("Run the uninstaller silently", row.getString("remove_command")), List.of(),
                Presence.inventory(row.getString("inventory_name")), null);
    }

    private static List<Step> step(String text, @Nullable String command) {
        return command == null || command.isBlank() ? List.of()
                : List.of(Step.run(text, command, Step.USUAL_CODES));
    }

    void replace(KeptTitle kept, boolean known) {
        TitleRecord record = kept.record();
        if (known) {
            db.sql("delete from variants where title = ?").params(record.id()).update();
            db.sql("delete from releases where title = ?").params(record.id()).update();
        } else {
            db.sql("insert into titles (id, name, maker, inventory_name) values (?, '', '', '')").params(record.id())
                    .update();
        }
        db.sql("update titles set name = ?, maker = ?, about = ?, scope = ?, seats = ?, asks = ?, trusted_signers = ?, conflicts_with = ?, "
                + "revision = ?, changed_by = ?, changed_at = ? where id = ?")
                .params(record.name(), record.maker(), Json.write(record.about()), record.scope(), record.seats(),
                        Json.write(record.asks()), Json.write(record.trustedSigners()), Json.write(record.conflictsWith()), kept.revision(), kept.changedBy(),
                        kept.changedAt() == null ? null : Rows.at(kept.changedAt()), record.id())
                .update();
        record.releases().forEach(release -> insert(record.id(), release));
    }

    private void insert(String title, ReleaseRecord release) {
        db.sql("insert into releases (title, version, state, note, needs, replaces, choices) "
                + "values (?, ?, ?, ?, ?, ?, ?)")
                .params(title, release.version(), (release.offered() ? ReleaseState.OFFERED : ReleaseState.WITHDRAWN)
                        .name(), release.note(), Json.write(release.needs()), Json.write(release.replaces()),
                        Json.write(release.choices()))
                .update();
        int place = 0;
        for (VariantRecord variant : release.variants()) {
            db.sql("insert into variants (title, version, place, id, fits, program, limit_seconds) "
                    + "values (?, ?, ?, ?, ?, ?, 0)")
                    .params(title, release.version(), place++, variant.id(), variant.fits(),
                            Json.write(new Program(variant.asPerson(), variant.contents(), variant.install(),
                                    variant.remove(), variant.repair(), variant.presence(), variant.family())))
                    .update();
        }
    }
}
