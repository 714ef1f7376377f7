package rivo.server.catalogue;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.server.catalogue.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.TitleRecord.VariantRecord;
import rivo.server.estate.Journey;
import rivo.server.estate.Road;
import rivo.server.estate.WorkingEstate;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** The titles there are. Held in memory, read by any number of threads. */
@Component
public class Catalogue {

    private final Road road;
    private final WorkingEstate working;
    private final LiveEvents events;
    private volatile Map<String, TitleRecord> titles;

    Catalogue(Road road, WorkingEstate working, LiveEvents events, JdbcClient db) {
        this.road = road;
        this.working = working;
        this.events = events;
        this.titles = new TitleRows(db).read();
    }

    public Collection<TitleRecord> titles() {
        return titles.values();
    }

    /** @throws ApiException when there is no such title */
    public TitleRecord record(String id) {
        TitleRecord record = titles.get(id);
        if (record == null) {
            throw ApiException.notFound("unknown-title", "There is no title " + id
                    + "; pick one from the catalogue.");
        }
        return record;
    }

    /** @throws ApiException when there is no such title */
    public Title title(String id) {
        record(id);
        return Objects.requireNonNull(working.now().title(id));
    }

    /** The variant of a release, or null. */
    public @Nullable VariantRecord variant(String title, Version version, @Nullable String variant) {
        TitleRecord record = titles.get(title);
        for (ReleaseRecord release : record == null ? List.<ReleaseRecord>of() : record.releases()) {
            if (Version.of(release.version()).equals(version)) {
                return release.variants().stream().filter(v -> v.id().equals(variant)).findFirst().orElse(null);
            }
        }
        return null;
    }

    /** Puts a title in, or another in its place. */
    public void put(String who, TitleRecord record) {
        road.take(journey -> {
            TitleRows rows = new TitleRows(journey.db());
            TitleRecord before = titles.get(record.id());
            rows.replace(record, before != null);
            journey.journal(who, before == null ? "title-added" : "title-changed", "title:" + record.id(), null,
                    before, record);
            journey.becomes(journey.estate().withTitle(record.title()));
            remember(journey, record);
            return record;
        });
    }

    private void remember(Journey journey, TitleRecord record) {
        journey.afterwards(() -> {
            Map<String, TitleRecord> next = new LinkedHashMap<>(titles);
            next.put(record.id(), record);
            titles = next;
            events.changed(Topics.ESTATE);
        });
    }

    /** The catalogue's rows. */
    private record TitleRows(JdbcClient db) {

        Map<String, TitleRecord> read() {
            Map<String, List<VariantRecord>> variants = new LinkedHashMap<>();
            db.sql("select * from variants order by title, version, place").query((row, n) -> {
                String sha256 = row.getString("sha256");
                Contents.Content content = sha256 == null ? null
                        : new Contents.Content(sha256, row.getLong("size"), row.getString("file_name"));
                return variants.computeIfAbsent(row.getString("title") + " " + row.getString("version"),
                        k -> new ArrayList<>()).add(new VariantRecord(row.getString("id"), content,
                                row.getString("install_command"), row.getString("remove_command"),
                                row.getInt("limit_seconds")));
            }).list();
            Map<String, List<ReleaseRecord>> releases = new LinkedHashMap<>();
            db.sql("select * from releases").query((row, n) -> releases.computeIfAbsent(row.getString("title"),
                    k -> new ArrayList<>()).add(new ReleaseRecord(row.getString("version"),
                            ReleaseState.valueOf(row.getString("state")), variants.getOrDefault(
                                    row.getString("title") + " " + row.getString("version"), List.of())))).list();
            Map<String, TitleRecord> titles = new LinkedHashMap<>();
            db.sql("select * from titles order by place").query((row, n) -> titles.put(row.getString("id"),
                    new TitleRecord(row.getString("id"), row.getString("name"), row.getString("maker"),
                            row.getString("inventory_name"),
                            releases.getOrDefault(row.getString("id"), List.of())))).list();
            return titles;
        }

        void replace(TitleRecord record, boolean known) {
            if (known) {
                db.sql("delete from variants where title = ?").params(record.id()).update();
                db.sql("delete from releases where title = ?").params(record.id()).update();
                db.sql("update titles set name = ?, maker = ?, inventory_name = ? where id = ?")
                        .params(record.name(), record.maker(), record.inventoryName(), record.id()).update();
            } else {
                db.sql("insert into titles (id, name, maker, inventory_name) values (?, ?, ?, ?)")
                        .params(record.id(), record.name(), record.maker(), record.inventoryName()).update();
            }
            record.releases().forEach(release -> insert(record.id(), release));
        }

        private void insert(String title, ReleaseRecord release) {
            db.sql("insert into releases (title, version, state) values (?, ?, ?)")
                    .params(title, release.version(), release.state().name()).update();
            int place = 0;
            for (VariantRecord variant : release.variants()) {
                Contents.Content content = variant.content();
                db.sql("insert into variants (title, version, place, id, sha256, size, file_name, install_command, "
                        + "remove_command, limit_seconds) values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")
                        .params(title, release.version(), place++, variant.id(),
                                content == null ? null : content.sha256(), content == null ? null : content.size(),
                                content == null ? null : content.fileName(), variant.installCommand(),
                                variant.removeCommand(), variant.limitSeconds())
                        .update();
            }
        }
    }
}
