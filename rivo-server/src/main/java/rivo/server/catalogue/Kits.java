package rivo.server.catalogue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Subject;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Rows;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** The kits there are. Held in memory, read by any number of threads. */
@Component
public class Kits {

    private static final Pattern ID = Pattern.compile("[a-z0-9][a-z0-9.-]{0,99}");
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_DESCRIPTION = 2000;
    private static final int MOST_TITLES = 100;

    /** A kit as it stands, with who changed it last. */
    public record Kept(KitRecord record, long revision, String changedBy, Instant changedAt) {
    }

    private final ChangeWriter writer;
    private final LiveEvents events;
    private final Catalogue catalogue;
    private final Licences licences;
    private volatile Map<String, Kept> kits;

    Kits(ChangeWriter writer, LiveEvents events, Catalogue catalogue, Licences licences, JdbcClient db) {
        this.catalogue = catalogue;
        this.licences = licences;
        this.writer = writer;
        this.events = events;
        Map<String, List<String>> titles = new LinkedHashMap<>();
        db.sql("select kit, title from kit_titles order by kit, place").query((row, n) -> titles.computeIfAbsent(
                row.getString("kit"), k -> new ArrayList<>()).add(row.getString("title"))).list();
        Map<String, Kept> read = new LinkedHashMap<>();
        db.sql("select * from kits order by place").query((row, n) -> read.put(row.getString("id"), new Kept(new KitRecord(
                row.getString("id"), row.getString("name"), row.getString("description"),
                titles.getOrDefault(row.getString("id"), List.of())), row.getLong("revision"), row.getString("changed_by"),
                Rows.instant(row, "changed_at"))) == null).list();
        this.kits = read;
    }

    public Collection<Kept> all() {
        return kits.values();
    }

    /** @throws ApiException when there is no such kit */
    Kept kept(String id) {
        Kept kept = kits.get(id);
        if (kept == null) {
            throw ApiException.notFound("unknown-kit", "There is no kit " + id + "; pick one from the catalogue.");
        }
        return kept;
    }

    public @Nullable KitRecord find(String id) {
        Kept kept = kits.get(id);
        return kept == null ? null : kept.record();
    }

    /** The estate with the kit in it. @throws RefusedException with what is wrong with it */
    static Estate check(Estate estate, KitRecord kit) {
        if (!ID.matcher(kit.id()).matches()) {
            throw new RefusedException("bad-id", "id", "An id has 1 to 100 small letters, digits, dots and hyphens, such as "
                    + "lab-bench.");
        }
        if (kit.name().isEmpty() || kit.name().length() > LONGEST_NAME || kit.description().length() > LONGEST_DESCRIPTION) {
            throw new RefusedException("bad-text", "name", "A kit has a name of 1 to " + LONGEST_NAME
                    + " characters and a description of at most " + LONGEST_DESCRIPTION + ".");
        }
        if (kit.titles().size() > MOST_TITLES) {
            throw new RefusedException("too-many", "titles", "A kit holds at most " + MOST_TITLES + " titles.");
        }
        return estate.withKit(kit.kit());
    }

    /**
     * Puts a kit in, or another in its place.
     *
     * @param revision of the kit that was edited; 0 for a new one
     * @param why for the journal; null where nothing changes for any device
     * @return the new revision
     * @throws ApiException when somebody has changed it since
     * @throws RefusedException with what is wrong with it
     */
    public long put(String who, long revision, KitRecord kit, @Nullable String why) {
        return writer.take(context -> {
            Kept before = kits.get(kit.id());
            long there = context.db().sql("select revision from kits where id = ?").params(kit.id()).query(Long.class).optional()
                    .orElse(0L);
            if (revision != there) {
                throw changedSince(revision, kit.name(), before);
            }
            Estate next = check(context.estate(), kit);
            accepted(context.estate(), kit, before);
            Kept after = new Kept(kit, revision + 1, who, context.now());
            write(context, after, there > 0);
            context.journal(who, before == null ? "kit-added" : "kit-changed", "kit:" + kit.id(), why,
                    before == null ? null : before.record(), kit);
            context.becomes(next);
            remember(context, kit.id(), after);
            return after.revision();
        });
    }

    /** @throws RefusedException when a title would come to the devices of the kit whose licence text nobody has accepted */
    private void accepted(Estate estate, KitRecord kit, @Nullable Kept before) {
        Subject subject = Subject.kit(kit.id());
        boolean live = estate.assignments().all().stream().anyMatch(a -> a.subject().equals(subject) && a.isLive(estate.asOf()));
        for (String title : live ? kit.titles() : List.<String>of()) {
            TitleRecord record = catalogue.find(title);
            boolean comes = before == null || !before.record().titles().contains(title);
            if (comes && record != null && licences.isMissing(record)) {
                throw new RefusedException("licence-not-accepted", "titles", "The kit is assigned, and the licence text of "
                        + record.name() + " has not been accepted; read and accept it on its page first.");
            }
        }
    }

    private static ApiException changedSince(long revision, String name, @Nullable Kept there) {
        return ApiException.conflict("changed-since", revision == 0 ? "There is a kit of this name already; give yours another."
                : there == null ? "There is no kit " + name + " any more. What you wrote is still here: make a new kit of it."
                        : name + " was changed by " + there.changedBy() + " since you opened it. Nothing of theirs was "
                                + "overwritten, and yours is still here: look at the newest version, then save again.");
    }

    private static void write(ChangeContext context, Kept kept, boolean known) {
        KitRecord kit = kept.record();
        if (known) {
            context.db().sql("delete from kit_titles where kit = ?").params(kit.id()).update();
            context.db().sql("update kits set name = ?, description = ?, revision = ?, changed_by = ?, changed_at = ? "
                    + "where id = ?").params(kit.name(), kit.description(), kept.revision(), kept.changedBy(),
                            Rows.at(kept.changedAt()), kit.id()).update();
        } else {
            context.db().sql("insert into kits (id, name, description, revision, changed_by, changed_at) "
                    + "values (?, ?, ?, ?, ?, ?)").params(kit.id(), kit.name(), kit.description(), kept.revision(),
                            kept.changedBy(), Rows.at(kept.changedAt())).update();
        }
        List<Object[]> rows = new ArrayList<>();
        for (String title : kit.titles()) {
            rows.add(new Object[] {kit.id(), rows.size(), title});
        }
        context.batch("insert into kit_titles (kit, place, title) values (?, ?, ?)", rows);
    }

    /** @throws RefusedException when something was ever assigned by it: the history speaks of it */
    void delete(String who, String id) {
        writer.take(context -> {
            KitRecord kit = kept(id).record();
            Estate next = context.estate().withoutKit(id);
            context.db().sql("delete from kit_titles where kit = ?").params(id).update();
            context.db().sql("delete from kits where id = ?").params(id).update();
            context.journal(who, "kit-deleted", "kit:" + id, null, kit, null);
            context.becomes(next);
            remember(context, id, null);
            return id;
        });
    }

    private void remember(ChangeContext context, String id, @Nullable Kept kept) {
        context.afterwards(() -> {
            Map<String, Kept> next = new LinkedHashMap<>(kits);
            if (kept == null) {
                next.remove(id);
            } else {
                next.put(id, kept);
            }
            kits = next;
            events.changed(Topics.ESTATE);
        });
    }
}
