package rivo.server.catalogue;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Version;
import rivo.core.explain.Trail;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.Job;
import rivo.server.catalogue.TitlePages.Misfits;
import rivo.server.catalogue.TitlePages.TitleLine;
import rivo.server.catalogue.TitlePages.TitlePage;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.proposal.TitleFiles;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.Chosen;
import rivo.server.catalogue.title.Effects;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.StepsOnDevice;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.TitleRecordChecks;
import rivo.server.catalogue.title.Titles;
import rivo.server.document.Saved;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

/** The catalogue: its list, a title's page, changing one, and trying its steps on a device. */
@RestController
@RequestMapping("/api/titles")
class TitlesApi {

    /** @param revision of the title that was edited, 0 for a new one; why, for the journal */
    record Change(TitleRecord record, long revision, @Nullable String why) {
    }

    /** @param state run, skipped or stops; why for the last two */
    record TriedStep(String text, @Nullable String command, String state, @Nullable String why) {
    }

    record Tried(String device, String name, boolean fits, List<TriedStep> steps) {
    }

    private final Catalogue catalogue;
    private final TitlePages pages;
    private final TitleFiles titleFiles;
    private final CurrentSnapshot current;

    TitlesApi(Catalogue catalogue, TitlePages pages, TitleFiles titleFiles, CurrentSnapshot current) {
        this.catalogue = catalogue;
        this.pages = pages;
        this.titleFiles = titleFiles;
        this.current = current;
    }

    @GetMapping
    List<TitleLine> titles() {
        return pages.list();
    }

    @GetMapping("/{id}")
    TitlePage title(@PathVariable String id) {
        return pages.page(id);
    }

    /** Refused when somebody has changed the title since, or with everything that is wrong with it. */
    @PutMapping("/{id}")
    Saved put(@PathVariable String id, @RequestBody Change change, Principal who) {
        sameId(id, change.record());
        return new Saved(catalogue.put(who.getName(), change.revision(), change.record(), change.why()));
    }

    /** The whole title as one file, which another catalogue takes. */
    @GetMapping("/{id}/export")
    void export(@PathVariable String id, HttpServletResponse response) throws IOException {
        titleFiles.files(catalogue.now().record(id));
        response.setContentType("application/zip");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename(id + ".zip").build()
                .toString());
        titleFiles.write(id, response.getOutputStream());
    }

    /** What a changed title would change for whom. Nothing is kept. */
    @PostMapping("/{id}/rehearsal")
    Effects rehearse(@PathVariable String id, @RequestBody Change change) {
        sameId(id, change.record());
        Snapshot before = current.now();
        return Effects.of(before, before.with(TitleRecordChecks.check(before.estate(), change.record())));
    }

    /** The devices that no variant of the release fits. @param limit at most 1,000 */
    @GetMapping("/{id}/misfits")
    Misfits misfits(@PathVariable String id, @RequestParam String version, @RequestParam(defaultValue = "200") int limit) {
        return pages.misfits(catalogue.now().record(id), version, Math.max(0, Math.min(limit, 1000)));
    }

    private static void sameId(String id, @Nullable TitleRecord record) {
        if (record == null || !id.equals(record.id())) {
            throw ApiException.conflict("other-id", "The title in the body is not the one in the address.");
        }
    }

    /**
     * What the steps would do on a device; they run nowhere.
     *
     * @param program install, remove or repair
     */
    @GetMapping("/{id}/trial")
    Tried tried(@PathVariable String id, @RequestParam String version, @RequestParam String variant,
            @RequestParam String program, @RequestParam String device) {
        Snapshot now = current.now();
        Resolver resolver = now.resolver();
        Device on = resolver.estate().devices().all().stream()
                .filter(d -> d.id().equals(device) || d.name().equalsIgnoreCase(device)).findFirst()
                .orElseThrow(() -> ApiException.notFound("unknown-device", "There is no device " + device
                        + "; type the name of one."));
        VariantRecord found = variant(now.get(Titles.PART).record(id), version, variant);
        List<Step> steps = switch (program) {
            case "install" -> found.install();
            case "remove" -> found.remove();
            case "repair" -> found.repair();
            default -> throw ApiException.notFound("unknown-program", "A variant has the programs install, remove and repair.");
        };
        List<TriedStep> tried = new ArrayList<>();
        boolean stopped = false;
        for (Job.Step step : new StepsOnDevice(resolver, on, chosen(now, on, id, version)).of(steps, found.asPerson())) {
            String state = stopped ? "not-reached" : step.skipped() != null ? "skipped" : step.stops() != null ? "stops" : "runs";
            tried.add(new TriedStep(step.text(), step.command(), state, step.skipped() != null ? step.skipped() : step.stops()));
            stopped |= "stops".equals(state) && !step.goesOn();
        }
        boolean fits = resolver.audiences().devicesWhere(found.fits())
                .contains(resolver.estate().devices().position(on.id()));
        return new Tried(on.id(), on.name(), fits, tried);
    }

    /** As it would be there: by the assignment that decides now, if one does. */
    private static Chosen chosen(Snapshot now, Device on, String title, String version) {
        ReleaseRecord release = now.get(Titles.PART).release(title, Version.of(version));
        Assignment decides = Trail.of(now.resolver(), Titles.title(now, title), now.estate().devices().position(on.id()))
                .decision().map(Decision::winner).orElse(null);
        return release == null ? Chosen.NOTHING : FixedChoices.on(now, on, "", title, release, decides);
    }

    private static VariantRecord variant(TitleRecord title, String version, String variant) {
        return title.releases().stream().filter(r -> r.version().equals(version)).map(ReleaseRecord::variants)
                .flatMap(List::stream).filter(v -> v.id().equals(variant)).findFirst()
                .orElseThrow(() -> ApiException.notFound("unknown-variant", "There is no variant " + variant + " of "
                        + title.name() + " " + version + "; save the title first."));
    }
}
