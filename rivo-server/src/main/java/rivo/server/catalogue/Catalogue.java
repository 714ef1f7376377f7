package rivo.server.catalogue;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.devices.protocol.Work;
import rivo.server.catalogue.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.TitleRecord.VariantRecord;
import rivo.server.catalogue.TitleRows.Kept;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.WorkingEstate;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** The titles there are. Held in memory, read by any number of threads. */
@Component
public class Catalogue {

    private final ChangeWriter writer;
    private final WorkingEstate working;
    private final LiveEvents events;
    private volatile Map<String, Kept> titles;
    /** Made once for all call-ins until a title changes. */
    private volatile List<Work.Check> checks;
    /** All content that titles name, by its SHA-256; made likewise. */
    private volatile Map<String, Contents.Content> contents;

    Catalogue(ChangeWriter writer, WorkingEstate working, LiveEvents events, JdbcClient db) {
        this.writer = writer;
        this.working = working;
        this.events = events;
        this.titles = new TitleRows(db).read();
        this.checks = checks(titles());
        this.contents = contents(titles());
    }

    /** All content that titles name, each once, by its SHA-256. */
    public Map<String, Contents.Content> contents() {
        return contents;
    }

    private static Map<String, Contents.Content> contents(Collection<TitleRecord> titles) {
        Map<String, Contents.Content> contents = new LinkedHashMap<>();
        titles.stream().flatMap(t -> t.releases().stream()).flatMap(r -> r.variants().stream())
                .flatMap(v -> v.contents().stream()).forEach(c -> contents.putIfAbsent(c.sha256(), c));
        return java.util.Collections.unmodifiableMap(contents);
    }

    public Collection<TitleRecord> titles() {
        return titles.values().stream().map(Kept::record).toList();
    }

    /** @throws ApiException when there is no such title */
    public TitleRecord record(String id) {
        return kept(id).record();
    }

    /** @throws ApiException when there is no such title */
    Kept kept(String id) {
        Kept kept = titles.get(id);
        if (kept == null) {
            throw ApiException.notFound("unknown-title", "There is no title " + id
                    + "; pick one from the catalogue.");
        }
        return kept;
    }

    @Nullable TitleRecord find(String id) {
        Kept kept = titles.get(id);
        return kept == null ? null : kept.record();
    }

    /** @throws ApiException when there is no such title */
    public Title title(String id) {
        record(id);
        return Objects.requireNonNull(working.now().title(id));
    }

    /** The variant of a release, or null. */
    public @Nullable VariantRecord variant(String title, Version version, @Nullable String variant) {
        ReleaseRecord release = release(title, version);
        return release == null ? null : release.variant(variant);
    }

    /** The release of a title, or null. */
    public @Nullable ReleaseRecord release(String title, Version version) {
        TitleRecord record = find(title);
        return record == null ? null : record.releases().stream().filter(r -> Version.of(r.version()).equals(version))
                .findFirst().orElse(null);
    }

    /** How devices see each title: by its releases, the highest first. */
    public List<Work.Check> checks() {
        return checks;
    }

    private static List<Work.Check> checks(Collection<TitleRecord> titles) {
        List<Work.Check> checks = new ArrayList<>();
        for (TitleRecord title : titles) {
            List<Work.Seen> seen = new ArrayList<>();
            title.releases().stream().sorted(Comparator.comparing((ReleaseRecord r) -> Version.of(r.version())).reversed())
                    .forEach(release -> release.variants().stream().map(VariantRecord::presence).filter(Presence::isSeen)
                            .distinct().forEach(presence -> seen.add(presence.seen(release.version()))));
            if (!seen.isEmpty()) {
                checks.add(new Work.Check(title.id(), seen));
            }
        }
        return List.copyOf(checks);
    }

    /** Puts a title in, or another in its place, whatever stands there. */
    public void put(String who, TitleRecord record) {
        put(who, null, record, null);
    }

    /**
     * Puts a title in, or another in its place.
     *
     * @param revision of the title that was edited; 0 for one that is new; null for whatever stands there
     * @return the new revision
     * @throws ApiException when somebody has changed it since
     * @throws rivo.core.estate.RefusedException with everything that is wrong with it
     */
    long put(String who, @Nullable Long revision, TitleRecord record, @Nullable String why) {
        return writer.take(context -> {
            TitleRows rows = new TitleRows(context.db());
            Kept before = titles.get(record.id());
            long there = rows.revision(record.id());
            if (revision != null && revision != there) {
                throw changedSince(record.id(), revision, before);
            }
            Estate next = TitleRecordChecks.check(context.estate(), record);
            Kept after = new Kept(record, there + 1, who, context.now());
            rows.replace(after, there > 0);
            context.journal(who, before == null ? "title-added" : "title-changed", "title:" + record.id(), why,
                    before == null ? null : before.record(), record);
            context.becomes(next);
            remember(context, after);
            return after.revision();
        });
    }

    private static ApiException changedSince(String id, long revision, @Nullable Kept there) {
        if (there != null && revision == 0) {
            return ApiException.conflict("title-exists", "There is a title of this name already, " + there.record().name()
                    + ". Add a release to it, or give yours another name.");
        }
        return there == null
                ? ApiException.conflict("title-gone", "There is no title " + id + " any more. Your version is still here: "
                        + "put it in under another id.")
                : ApiException.conflict("changed-since", there.record().name() + " was changed by " + there.changedBy()
                        + " since you opened it. Nothing of theirs was overwritten, and yours is still here: look at the "
                        + "newest version, then save again.");
    }

    private void remember(ChangeContext context, Kept kept) {
        context.afterwards(() -> {
            Map<String, Kept> next = new LinkedHashMap<>(titles);
            next.put(kept.record().id(), kept);
            titles = next;
            checks = checks(titles());
            contents = contents(titles());
            events.changed(Topics.ESTATE);
        });
    }
}
