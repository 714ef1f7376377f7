package rivo.server.catalogue.title;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleException;
import rivo.devices.protocol.Work;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.web.ApiException;

/** All titles, in the order in which they were put in, with what call-ins ask of them, made once. Immutable. */
public final class Titles {

    /** Where a snapshot holds them. */
    public static final SnapshotPart<Titles> PART = new SnapshotPart<>() {
        @Override
        public Titles read(JdbcClient db) {
            return new Titles(new TitleRows(db).read());
        }
    };

    private final Map<String, KeptTitle> byId;
    private final List<Work.Check> checks;
    private final List<Work.Check> personChecks;
    private final Set<String> seen;
    private final Map<String, Contents.Content> contents;
    private final Map<String, Map<Version, ReleaseRecord>> releases = new HashMap<>();
    private final boolean timedSteps;

    private Titles(Map<String, KeptTitle> byId) {
        this.byId = byId;
        this.checks = checks(all(), Scope.DEVICE);
        this.personChecks = checks(all(), Scope.USER);
        this.seen = Stream.concat(checks.stream(), personChecks.stream()).map(Work.Check::title).collect(Collectors.toUnmodifiableSet());
        this.contents = contents(all());
        for (TitleRecord title : all()) {
            Map<Version, ReleaseRecord> ofTitle = releases.computeIfAbsent(title.id(), id -> new HashMap<>());
            title.releases().forEach(release -> ofTitle.putIfAbsent(Version.of(release.version()), release));
        }
        this.timedSteps = all().stream().flatMap(t -> t.releases().stream()).flatMap(r -> r.variants().stream())
                .flatMap(v -> Stream.of(v.install(), v.remove())).flatMap(List::stream).map(Step::onlyWhere)
                .anyMatch(rule -> rule != null && looksAtTime(rule));
    }

    /** These, each as it was first put in. */
    public static Titles of(List<TitleRecord> records) {
        Map<String, KeptTitle> byId = new LinkedHashMap<>();
        records.forEach(record -> byId.put(record.id(), new KeptTitle(record, 1, null, null)));
        return new Titles(byId);
    }

    private static boolean looksAtTime(String rule) {
        try {
            return Rule.parse(rule).looksAtTime();
        } catch (RuleException e) {
            // It holds nowhere, at any time.
            return false;
        }
    }

    /** Whether a step is taken at one instant and skipped at another, on a device that is the same. */
    public boolean haveTimedSteps() {
        return timedSteps;
    }

    /** These with one put in or replaced; costs a pass over all. */
    Titles with(KeptTitle kept) {
        Map<String, KeptTitle> next = new LinkedHashMap<>(byId);
        next.put(kept.record().id(), kept);
        return new Titles(next);
    }

    public Collection<TitleRecord> all() {
        return byId.values().stream().map(KeptTitle::record).toList();
    }

    /** @throws ApiException when there is no such title */
    public TitleRecord record(String id) {
        return kept(id).record();
    }

    /** @throws ApiException when there is no such title */
    public KeptTitle kept(String id) {
        KeptTitle kept = byId.get(id);
        if (kept == null) {
            throw ApiException.notFound("unknown-title", "There is no title " + id
                    + "; pick one from the catalogue.");
        }
        return kept;
    }

    public @Nullable TitleRecord find(String id) {
        KeptTitle kept = byId.get(id);
        return kept == null ? null : kept.record();
    }

    /** What has been kept of a title; null where there is none of this id. */
    @Nullable KeptTitle findKept(String id) {
        return byId.get(id);
    }

    /** A title as the core knows it. @throws ApiException when there is no such title */
    public static Title title(Snapshot snapshot, String id) {
        snapshot.get(PART).kept(id);
        return Objects.requireNonNull(snapshot.estate().title(id));
    }

    /** The release of a title, or null. */
    public @Nullable ReleaseRecord release(String title, Version version) {
        Map<Version, ReleaseRecord> ofTitle = releases.get(title);
        return ofTitle == null ? null : ofTitle.get(version);
    }

    /** How devices see each title that is installed for them: by its releases, the highest first. */
    public List<Work.Check> checks() {
        return checks;
    }

    /** The same of those that are installed for each person. */
    public List<Work.Check> personChecks() {
        return personChecks;
    }

    /** Whether a title is a web page, which nothing is installed for. */
    public boolean isWebPage(String title) {
        KeptTitle kept = byId.get(title);
        return kept != null && kept.record().isWebPage();
    }

    /** Whether devices can see that a title is installed, of whatever release. */
    public boolean canBeSeen(String title) {
        return seen.contains(title);
    }

    /** All content that titles name, each once, by its SHA-256. */
    public Map<String, Contents.Content> contents() {
        return contents;
    }

    private static List<Work.Check> checks(Collection<TitleRecord> titles, Scope scope) {
        List<Work.Check> checks = new ArrayList<>();
        for (TitleRecord title : titles.stream().filter(t -> t.installedFor() == scope).toList()) {
            List<Work.Seen> seen = new ArrayList<>();
            title.releases().stream().sorted(Comparator.comparing((ReleaseRecord r) -> Version.of(r.version())).reversed())
                    .forEach(release -> release.variants().stream().map(VariantRecord::presence).filter(Presence::hasChecks)
                            .distinct().forEach(presence -> seen.add(presence.seen(release.version()))));
            if (!seen.isEmpty()) {
                checks.add(new Work.Check(title.id(), seen));
            }
        }
        return List.copyOf(checks);
    }

    private static Map<String, Contents.Content> contents(Collection<TitleRecord> titles) {
        Map<String, Contents.Content> contents = new LinkedHashMap<>();
        titles.stream().flatMap(t -> t.releases().stream()).flatMap(r -> r.variants().stream())
                .flatMap(v -> v.contents().stream()).forEach(c -> contents.putIfAbsent(c.sha256(), c));
        return Collections.unmodifiableMap(contents);
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Titles titles && titles.byId.equals(byId);
    }

    @Override
    public int hashCode() {
        return byId.hashCode();
    }
}
