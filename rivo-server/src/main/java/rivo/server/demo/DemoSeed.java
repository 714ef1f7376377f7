package rivo.server.demo;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.DayOfWeek;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.springframework.context.annotation.Profile;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.core.estate.ReleaseState;
import rivo.devices.protocol.Existing;
import rivo.devices.protocol.ExitCode;
import rivo.devices.protocol.ExitMeaning;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.audience.Fences;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.catalogue.kit.Kits;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.StepKind;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.About;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.change.Drafts;
import rivo.server.change.OuAssignment;
import rivo.server.change.Publishing;
import rivo.server.demo.DemoTitles.DemoRelease;
import rivo.server.demo.DemoTitles.DemoTitle;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.EstateRecords.NeedRecord;
import rivo.server.estate.EstateRecords.ReplacementRecord;
import rivo.server.window.MaintenanceWindows;
import rivo.server.window.WindowDocument;

/** Fills a new demo with titles, fences and published changes, by the use cases that administrators use. */
@Component
@Profile("demo")
class DemoSeed {

    private static final String WHO = DemoOrganisation.ADMINISTRATOR;
    private static final List<ExitCode> CODES = List.of(new ExitCode(0, ExitMeaning.DONE, 0),
            new ExitCode(3010, ExitMeaning.RESTART, 0), new ExitCode(1618, ExitMeaning.AGAIN, 5));

    private final Catalogue catalogue;
    private final Contents contents;
    private final Kits kits;
    private final Licences licences;
    private final MaintenanceWindows windows;
    private final Fences fences;
    private final Drafts drafts;
    private final Publishing publishing;
    private final DemoRequests requests;
    private final CurrentSnapshot current;

    private final DemoTrust trust;

    DemoSeed(Catalogue catalogue, Contents contents, Kits kits, Licences licences, MaintenanceWindows windows, Fences fences, Drafts drafts, Publishing publishing,
            DemoRequests requests, CurrentSnapshot current, DemoTrust trust) {
        this.trust = trust;
        this.requests = requests;
        this.catalogue = catalogue;
        this.contents = contents;
        this.kits = kits;
        this.licences = licences;
        this.windows = windows;
        this.fences = fences;
        this.drafts = drafts;
        this.publishing = publishing;
        this.current = current;
    }

    /** Does what an earlier start has not done yet. */
    void fill() {
        for (DemoTitle title : DemoTitles.ALL) {
            if (catalogue.now().all().stream().noneMatch(t -> t.id().equals(title.id()))) {
                catalogue.put(WHO, record(title));
            }
        }
        trust.fill(WHO);
        for (TitleRecord title : catalogue.now().all()) {
            TitleRecord related = related(title);
            if (!related.equals(title)) {
                catalogue.put(WHO, related);
            }
        }
        if (current.now().estate().ous().all().stream().noneMatch(Ou::fenced)) {
            fences.raise(WHO, List.of(ou("Laboratories"), ou("Coldwell Laboratory", "Radiology"),
                    ou("Ashby Head works", "Control room"), ou("Fenny Lock works", "Control room"),
                    ou("Upper Sedge works", "Control room"), ou("Outreach kiosks")));
        }
        if (MaintenanceWindows.all(current.now()).isEmpty()) {
            windows.put(WHO, new WindowDocument("control-rooms", "Control rooms", "ou co \"ou=Control room\"",
                    List.of(DayOfWeek.TUESDAY, DayOfWeek.THURSDAY), "02:00", 45));
        }
        if (current.now().get(KitDocument.KIND).size() == 0) {
            DemoChoices.KITS.forEach(kit -> kits.put(WHO, 0, kit, null));
        }
        for (TitleRecord title : catalogue.now().all()) {
            if (Licences.isMissing(current.now(), title)) {
                licences.accept(WHO, title.id(), title.about().licence());
            }
        }
        if (current.now().estate().assignments().all().isEmpty()) {
            publishAll();
        }
    }

    private TitleRecord record(DemoTitle title) {
        About about = new About(title.owner(), title.category(), title.description(), "", "", "", "", "",
                DemoChoices.licence(title.id()));
        List<ReleaseRecord> releases = title.releases().stream().map(release -> new ReleaseRecord(release.version(),
                release.state() == ReleaseState.OFFERED, release.state() == ReleaseState.OFFERED ? ""
                        : "withdrawn 19 Nov, crashed on intake PCs",
                List.of(), List.of(), DemoChoices.of(title.id(), release.version()), List.of(variant(title, release))))
                .toList();
        boolean drawing = "valvewright".equals(title.id());
        return new TitleRecord(title.id(), title.name(), title.maker(), about, title.scope().word(), drawing ? 120 : null,
                new TitleRecord.Asks(drawing, drawing), List.of(), List.of(), releases);
    }

    /** Relations come once all titles are there. */
    private static TitleRecord related(TitleRecord title) {
        return new TitleRecord(title.id(), title.name(), title.maker(), title.about(), title.scope(), title.seats(), title.asks(),
                title.trustedSigners(), "siltscope".equals(title.id()) ? List.of("mudview") : title.conflictsWith(),
                title.releases().stream().map(r -> new ReleaseRecord(r.version(), r.offered(), r.note(),
                        r.needs().isEmpty() ? needs(title.id()) : r.needs(),
                        r.replaces().isEmpty() ? replaces(title.id()) : r.replaces(), r.choices(), r.variants())).toList());
    }

    private static List<NeedRecord> needs(String title) {
        return switch (title) {
            case "siltscope" -> List.of(new NeedRecord("graphkit", "2.0"));
            case "brookmap" -> List.of(new NeedRecord("graphkit", "2.3"));
            default -> List.of();
        };
    }

    private static List<ReplacementRecord> replaces(String title) {
        return "siltscope".equals(title) ? List.of(new ReplacementRecord("siltscope-classic", true)) : List.of();
    }

    private VariantRecord variant(DemoTitle title, DemoRelease release) {
        String file = title.id() + "-" + release.version() + "-setup.bin";
        byte[] bytes = new byte[title.kilobytes() * 1024];
        new Random(file.hashCode()).nextBytes(bytes);
        byte[] mark = ("Made-up installer of " + title.name() + " " + release.version() + "\n")
                .getBytes(StandardCharsets.UTF_8);
        System.arraycopy(mark, 0, bytes, 0, mark.length);
        try {
            List<Contents.Content> files = new ArrayList<>(List.of(contents.keep(new ByteArrayInputStream(bytes), file)));
            for (String language : "brookmap".equals(title.id()) ? DemoChoices.LANGUAGES : List.<String>of()) {
                byte[] pack = new byte[38 * 1024];
                new Random((file + language).hashCode()).nextBytes(pack);
                files.add(contents.keep(new ByteArrayInputStream(pack), DemoChoices.pack(language, release.version())));
            }
            return new VariantRecord("all", "dosecalc".equals(title.id()) ? "os.version ge \"10.0.22000\"" : null, false, files, install(title, file),
                    List.of(Step.run("Remove it silently", title.id() + " --remove --quiet", CODES)), List.of(),
                    Presence.inventory(title.name()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static List<Step> install(DemoTitle title, String file) {
        Step run = Step.run("Run the installer silently", "\"{content}/" + file + "\" --quiet" + ("brookmap".equals(title.id())
                ? " --languages \"{choice:languages}\" --parts \"{choice:parts}\" --channel {choice:channel}" : ""), CODES);
        if ("ledgerfen".equals(title.id())) {
            return List.of(run, Step.run("Connect the person's books", "ledgerfen --connect --quiet", CODES).atEachSignIn());
        }
        if ("probewire".equals(title.id())) {
            // A driver: it always needs a restart.
            return List.of(Step.run("Run the driver set-up silently", run.command(), List.of(new ExitCode(0, ExitMeaning.RESTART, 0))));
        }
        if ("dosecalc".equals(title.id())) {
            return List.of(new Step(StepKind.CLOSE, "Close Dosecalc", "dosecalc.exe", "", null, null, "", 60, false, "", Map.of(), List.of(), false, null, null, false, ""),
                    run);
        }
        if (!"siltscope".equals(title.id())) {
            return List.of(run);
        }
        return List.of(new Step(StepKind.CHECK, "Check there is room", "diskFreeGiB ge 3", "", null, null, "", 60, false, "",
                Map.of(), List.of(), false, null, null, false, "needs 3 GiB free"), run,
                new Step(StepKind.COPY, "Copy instrument profiles", "{content}/profiles", "{programs}/Siltscope/profiles",
                        Existing.KEEP_NEWER, null, "", 120, false, "", Map.of(), List.of(), true, null, null, false, ""),
                new Step(StepKind.RUN, "Run the driver set-up", "\"{programs}/Siltscope/drivers\" --quiet", "", null,
                        "model co \"Intake\"", "", 300, false, "", Map.of(), CODES, false, null, null, false, ""));
    }

    private void publishAll() {
        String root = current.now().estate().ous().root().id();
        publish("Every device has the guard, and only the one", binding("pikeguard", "required", root),
                binding("reedwall", "uninstall", root));
        publish("Fluxplayer has reached its end", edit("fluxplayer", "uninstall", root));
        publish("A reader for everyone", edit("fernote", "required", root));
        publish("The laboratories move to Siltscope Lab", edit("siltscope", "required", ou("Hartsmere Laboratory")),
                edit("siltscope", "required", ou("Mobile laboratory vans")),
                edit("siltscope", "required", ou("Dosing")), edit("siltscope", "required", ou("Technology")),
                edit("siltscope", "uninstall", ou("Customer")),
                edit("siltscope-classic", "uninstall", ou("Laboratories")),
                edit("graphkit", "required", ou("Laboratories")), edit("mudview", "uninstall", ou("Laboratories")));
        publish("Maps for the networks, and the runtime that draws them", edit("brookmap", "required", ou("Networks")),
                edit("brookmap", "required", ou("Planning")), edit("brookmap", "uninstall", ou("Pumping")),
                edit("graphkit", "required", ou("Networks")), edit("graphkit", "required", ou("Planning")));
        publish("Tools of the works", edit("dosecalc", "required", ou("Dosing")),
                edit("dosecalc", "required", ou("Ashby Head works", "Filter hall")),
                edit("valvewright", "required", ou("Planning")), edit("kingfisher", "required", ou("Leakage crews")));
        publish("Tools of the offices", edit("ledgerfen", "required", ou("Finance")),
                edit("ledgerfen", "required", ou("Billing")), edit("otterlink", "required", ou("Corporate")),
                edit("otterlink", "required", ou("Trunk mains")), edit("tarnlog", "required", ou("Contact centre")));
        publish("Maps in Welsh for the crews of the west", new OuAssignment("title:brookmap", ou("Leakage crews"), "required",
                false, Map.of("languages", "en,cy", "parts", "viewer")));
        publish("One kit for every bench at Coldwell", new OuAssignment("kit:lab-bench", ou("Coldwell Laboratory"), "required",
                false, null));
        new DemoAudiences(current, drafts, publishing).publish();
        requests.ask();
    }

    private static OuAssignment edit(String title, String intent, String ou) {
        return OuAssignment.title(title, ou, intent, false);
    }

    private static OuAssignment binding(String title, String intent, String ou) {
        return OuAssignment.title(title, ou, intent, true);
    }

    private void publish(String reason, OuAssignment... edits) {
        Arrays.stream(edits).forEach(edit -> drafts.put(WHO, edit));
        publishing.publish(WHO, reason, publishing.token(WHO));
    }

    /** The OU whose path ends with these names. */
    private String ou(String... names) {
        Estate estate = current.now().estate();
        List<String> wanted = List.of(names);
        for (Ou ou : estate.ous().all()) {
            List<String> path = estate.ous().path(estate.ous().position(ou.id())).stream().map(Ou::name).toList();
            if (path.size() >= wanted.size()
                    && path.subList(path.size() - wanted.size(), path.size()).equals(wanted)) {
                return ou.id();
            }
        }
        throw new IllegalStateException("the demo directory lacks " + wanted);
    }
}
