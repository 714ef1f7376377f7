package rivo.server.demo;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.springframework.context.annotation.Profile;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.audience.Fences;
import rivo.server.catalogue.Catalogue;
import rivo.server.catalogue.Contents;
import rivo.server.catalogue.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.TitleRecord.VariantRecord;
import rivo.server.catalogue.TitleRecord;
import rivo.server.change.DraftEdit;
import rivo.server.change.Drafts;
import rivo.server.change.Publishing;
import rivo.server.demo.DemoTitles.DemoRelease;
import rivo.server.demo.DemoTitles.DemoTitle;
import rivo.server.estate.WorkingEstate;

/** Fills a new demo with titles, fences and published changes, by the use cases that administrators use. */
@Component
@Profile("demo")
class DemoSeed {

    private static final String WHO = DemoOrganisation.ADMINISTRATOR;
    private static final int LIMIT_SECONDS = 1200;

    private final Catalogue catalogue;
    private final Contents contents;
    private final Fences fences;
    private final Drafts drafts;
    private final Publishing publishing;
    private final WorkingEstate working;

    DemoSeed(Catalogue catalogue, Contents contents, Fences fences, Drafts drafts, Publishing publishing,
            WorkingEstate working) {
        this.catalogue = catalogue;
        this.contents = contents;
        this.fences = fences;
        this.drafts = drafts;
        this.publishing = publishing;
        this.working = working;
    }

    /** Does what an earlier start has not done yet. */
    void fill() {
        for (DemoTitle title : DemoTitles.ALL) {
            if (catalogue.titles().stream().noneMatch(t -> t.id().equals(title.id()))) {
                catalogue.put(WHO, record(title));
            }
        }
        if (working.now().ous().all().stream().noneMatch(Ou::fenced)) {
            fences.raise(WHO, List.of(ou("Laboratories"), ou("Coldwell Laboratory", "Radiology"),
                    ou("Ashby Head works", "Control room"), ou("Fenny Lock works", "Control room"),
                    ou("Upper Sedge works", "Control room"), ou("Outreach kiosks")));
        }
        if (working.now().assignments().all().isEmpty()) {
            publishAll();
        }
    }

    private TitleRecord record(DemoTitle title) {
        return new TitleRecord(title.id(), title.name(), title.maker(), title.name(),
                title.releases().stream().map(release -> new ReleaseRecord(release.version(), release.state(),
                        List.of(variant(title, release)))).toList());
    }

    private VariantRecord variant(DemoTitle title, DemoRelease release) {
        String file = title.id() + "-" + release.version() + "-setup.bin";
        byte[] bytes = new byte[title.kilobytes() * 1024];
        new Random(file.hashCode()).nextBytes(bytes);
        byte[] mark = ("Made-up installer of " + title.name() + " " + release.version() + "\n")
                .getBytes(StandardCharsets.UTF_8);
        System.arraycopy(mark, 0, bytes, 0, mark.length);
        try {
            Contents.Content content = contents.keep(new ByteArrayInputStream(bytes), file);
            return new VariantRecord("all", content, file + " --quiet", title.id() + " --remove --quiet",
                    LIMIT_SECONDS);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void publishAll() {
        String root = working.now().ous().root().id();
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
        publish("Maps for the networks", edit("brookmap", "required", ou("Networks")),
                edit("brookmap", "required", ou("Planning")), edit("brookmap", "uninstall", ou("Pumping")));
        publish("Tools of the works", edit("dosecalc", "required", ou("Dosing")),
                edit("dosecalc", "required", ou("Ashby Head works", "Filter hall")),
                edit("valvewright", "required", ou("Planning")), edit("kingfisher", "required", ou("Leakage crews")));
        publish("Tools of the offices", edit("ledgerfen", "required", ou("Finance")),
                edit("ledgerfen", "required", ou("Billing")), edit("otterlink", "required", ou("Corporate")),
                edit("otterlink", "required", ou("Trunk mains")), edit("tarnlog", "required", ou("Contact centre")));
    }

    private static DraftEdit edit(String title, String intent, String ou) {
        return new DraftEdit(title, ou, intent, false);
    }

    private static DraftEdit binding(String title, String intent, String ou) {
        return new DraftEdit(title, ou, intent, true);
    }

    private void publish(String reason, DraftEdit... edits) {
        Arrays.stream(edits).forEach(edit -> drafts.put(WHO, edit));
        publishing.publish(WHO, reason, publishing.token(WHO));
    }

    /** The OU whose path ends with these names. */
    private String ou(String... names) {
        Estate estate = working.now();
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
