package rivo.server.catalogue;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Device;
import rivo.core.estate.Version;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.server.catalogue.Readiness.Look;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.catalogue.title.KeptTitle;
import rivo.server.catalogue.title.StepsOnDevice;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

/** What the pages of the catalogue show, from records and from the estate. Pure reading. */
@Component
public class TitlePages {

    /**
     * A title in the list.
     *
     * @param newest the version that is offered; null when none is
     * @param devices on how many it is
     * @param needs how many looks at its leading release want somebody
     */
    record TitleLine(String id, String name, String maker, String category, String description, String icon, @Nullable String newest,
            int releases, @Schema(allowableValues = {"device", "user"}) String scope, int devices, int needs) {
    }

    /** @param devices on how many this version is, or, of a title for each person, in how many profiles; null version: unknown */
    record OnDevices(@Nullable String version, int devices) {
    }

    record Fit(String variant, @Nullable String rule, int devices) {
    }

    /**
     * @param without on how many devices no variant fits
     * @param unreported how many of these have not told anything of themselves yet
     */
    record ReleaseStanding(String version, List<Fit> fits, int without, int unreported, List<Look> looks) {
    }

    /** @param why what each variant asks for, and what the device has */
    record Misfit(String device, String name, String why) {
    }

    /** @param devices a part of them */
    record Misfits(int total, List<Misfit> devices) {
    }

    /** @param kind needs, replaces, conflicts, needed-by or replaced-by; detail such as a lowest version */
    record Relation(String kind, String title, String name, String detail) {
    }

    /**
     * A title's page.
     *
     * @param assigned for how many devices it is required, or, of a title for each person, for how many people on devices; seats count these
     * @param kits those that hold it
     */
    record TitlePage(TitleRecord record, long revision, @Nullable String changedBy, @Nullable Instant changedAt,
            int devices, List<OnDevices> present, int assigned, List<ReleaseStanding> releases, List<Relation> relations,
            List<KitDocument> kits) {
    }

    private final CurrentSnapshot current;
    private final Readiness readiness;

    TitlePages(CurrentSnapshot current, Readiness readiness) {
        this.current = current;
        this.readiness = readiness;
    }

    List<TitleLine> list() {
        Snapshot now = current.now();
        Resolver resolver = now.resolver();
        int all = resolver.estate().devices().size();
        return now.get(Titles.PART).all().stream().map(title -> {
            ReleaseRecord leading = title.leading();
            var newest = title.title().newest();
            int needs = leading == null ? 1 : (int) view(now, title, leading, all, false).looks().stream()
                    .filter(look -> !look.well()).count();
            return new TitleLine(title.id(), title.name(), title.maker(), title.about().category(),
                    title.about().description(), title.about().icon(), newest == null ? null : newest.version().toString(),
                    title.releases().size(), title.scope(), resolver.versionsPresent(title.id()).values().stream().mapToInt(n -> n).sum(), needs);
        }).toList();
    }

    /** What was looked at of the release that devices would take; none without one. */
    public List<Look> looks(Snapshot now, TitleRecord title) {
        ReleaseRecord leading = title.leading();
        return leading == null ? List.of() : view(now, title, leading, now.estate().devices().size(), false).looks();
    }

    TitlePage page(String id) {
        Snapshot now = current.now();
        KeptTitle kept = now.get(Titles.PART).kept(id);
        Resolver resolver = now.resolver();
        TitleRecord title = kept.record();
        int all = resolver.estate().devices().size();
        List<ReleaseStanding> releases = title.releases().stream()
                .sorted(Comparator.comparing((ReleaseRecord r) -> Version.of(r.version())).reversed())
                .map(release -> view(now, title, release, all, true)).toList();
        return new TitlePage(title, kept.revision(), kept.changedBy(), kept.changedAt(), all, versions(resolver, id),
                required(now, id), releases, relations(now.get(Titles.PART), title), now.get(KitDocument.KIND).stream()
                        .filter(kit -> kit.titles().contains(id)).toList());
    }

    /** @param why whether it is counted who has not reported, which costs a look at each device that nothing fits */
    private ReleaseStanding view(Snapshot now, TitleRecord title, ReleaseRecord release, int all, boolean why) {
        Resolver resolver = now.resolver();
        List<Fit> fits = new ArrayList<>();
        DeviceSet rest = resolver.audiences().everyDevice();
        for (VariantRecord variant : release.variants()) {
            DeviceSet fitting = rest.and(resolver.audiences().devicesWhere(variant.fits()));
            fits.add(new Fit(variant.id(), variant.fits(), fitting.size()));
            rest = rest.without(fitting);
        }
        int unreported = !why ? 0 : rest.filter(p -> resolver.estate().devices().at(p).facts().isEmpty()).size();
        return new ReleaseStanding(release.version(), fits, rest.size(), unreported, readiness.looks(now, title, release, rest));
    }

    /** @throws ApiException when there is no such release */
    Misfits misfits(TitleRecord title, String version, int limit) {
        Resolver resolver = current.now().resolver();
        ReleaseRecord release = title.releases().stream().filter(r -> r.version().equals(version)).findFirst()
                .orElseThrow(() -> ApiException.notFound("unknown-release", title.name() + " has no release " + version + "."));
        DeviceSet rest = resolver.audiences().everyDevice();
        for (VariantRecord variant : release.variants()) {
            rest = rest.without(resolver.audiences().devicesWhere(variant.fits()));
        }
        return new Misfits(rest.size(), rest.stream().limit(limit).mapToObj(p -> {
            Device device = resolver.estate().devices().at(p);
            return new Misfit(device.id(), device.name(), device.facts().isEmpty() ? "has not reported anything yet"
                    : release.variants().stream().map(v -> v.id() + " " + StepsOnDevice.why(resolver,
                            String.valueOf(v.fits()), p)).collect(Collectors.joining(" · ")));
        }).toList());
    }

    private static List<OnDevices> versions(Resolver resolver, String title) {
        return resolver.versionsPresent(title).entrySet().stream().sorted(Map.Entry.<String, Integer>comparingByValue().reversed())
                .map(e -> new OnDevices(e.getKey().isEmpty() ? null : e.getKey(), e.getValue())).toList();
    }

    private static int required(Snapshot now, String id) {
        Resolver resolver = now.resolver();
        return resolver.title(Titles.title(now, id)).with(Outcome.REQUIRED).size();
    }

    /** As the leading release says, and as the leading releases of others say of it. */
    private static List<Relation> relations(Titles titles, TitleRecord title) {
        List<Relation> relations = new ArrayList<>();
        ReleaseRecord leading = title.leading();
        if (leading != null) {
            leading.needs().forEach(n -> relations.add(relation(titles, "needs", n.title(), n.min() == null || n.min().isBlank() ? ""
                    : n.min() + " or later")));
            leading.replaces().forEach(r -> relations.add(relation(titles, "replaces", r.title(),
                    r.removeFirst() ? "removed first" : "in place")));
        }
        title.conflictsWith().forEach(other -> relations.add(relation(titles, "conflicts", other, "")));
        for (TitleRecord other : titles.all()) {
            ReleaseRecord theirs = other.leading();
            if (theirs != null && !other.id().equals(title.id())) {
                theirs.needs().stream().filter(n -> n.title().equals(title.id()))
                        .forEach(n -> relations.add(relation(titles, "needed-by", other.id(), "")));
                theirs.replaces().stream().filter(r -> r.title().equals(title.id()))
                        .forEach(r -> relations.add(relation(titles, "replaced-by", other.id(), "")));
            }
            if (other.conflictsWith().contains(title.id()) && !title.conflictsWith().contains(other.id())) {
                relations.add(relation(titles, "conflicts", other.id(), ""));
            }
        }
        return relations;
    }

    private static Relation relation(Titles titles, String kind, String title, String detail) {
        TitleRecord other = titles.find(title);
        return new Relation(kind, title, other == null ? title : other.name(), detail);
    }
}
