package rivo.server.catalogue.title;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.core.estate.Version;
import rivo.server.HandClock;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.content.Contents;
import rivo.server.change.Drafts;
import rivo.server.change.OuAssignment;
import rivo.server.change.Publishing;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

class CatalogueTest {

    @TempDir
    private static Path data;
    private static TestServer server;
    private static Catalogue catalogue;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        TestTitles.add(server);
        catalogue = server.bean(Catalogue.class);
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    @Test
    void theTitlesAreListedWithTheirNewestRelease() {
        assertThat(server.ask("GET", "/api/titles", null).body().at("/0/newest").asString()).isEqualTo("4.2.0");
    }

    @Test
    void aTitleThatIsPutAgainTakesThePlaceOfTheFirst() {
        TestTitles.add(server, "graphkit", "Graphkit");
        TitleRecord before = catalogue.now().record("graphkit");
        catalogue.put("test", TitleRecord.of("graphkit", "Graphkit runtime", before.maker(),
                List.of(new TitleRecord.ReleaseRecord("4.2.0", false, "crashed", List.of(), List.of(), List.of(),
                        before.releases().get(1).variants()))));
        assertThat(server.bean(CurrentSnapshot.class).now().estate().title("graphkit").name()).isEqualTo("Graphkit runtime");
        assertThat(server.bean(CurrentSnapshot.class).now().estate().title("graphkit").newest()).as("it is withdrawn").isNull();
    }

    @Test
    void aVariantIsFoundByAVersionThatComparesEqual() {
        assertThat(catalogue.now().release("siltscope", Version.of("4.2")).variant("all")).isNotNull();
        assertThat(catalogue.now().release("siltscope", Version.of("4.3"))).isNull();
        assertThat(catalogue.now().release("moonware", Version.of("1"))).isNull();
    }

    @Test
    void aVariantOfTheFirstSchemaKeepsItsCommandsAndItsName() {
        TestTitles.add(server, "mudview", "Mudview");
        var db = server.bean(org.springframework.jdbc.core.simple.JdbcClient.class);
        db.sql("update titles set inventory_name = 'Mudview 3', about = null where id = 'mudview'").update();
        db.sql("update variants set program = null, install_command = 'on', remove_command = 'off', sha256 = ?, size = 5, "
                + "file_name = 'm.bin' where title = 'mudview'").params("ab".repeat(32)).update();
        TitleRecord read = new TitleRows(db).read().get("mudview").record();
        TitleRecord.VariantRecord variant = read.releases().get(0).variants().get(0);
        assertThat(variant.install().get(0).command()).isEqualTo("on");
        assertThat(variant.remove().get(0).command()).isEqualTo("off");
        assertThat(variant.presence()).isEqualTo(Presence.inventory("Mudview 3"));
        assertThat(variant.contents()).containsExactly(new Contents.Content("ab".repeat(32), 5, "m.bin"));
    }

    @Test
    void contentIsKeptOnceByItsHash() throws IOException {
        Contents contents = server.bean(Contents.class);
        Contents.Content one = contents.keep(new ByteArrayInputStream(TestTitles.INSTALLER), "a.bin");
        Contents.Content two = contents.keep(new ByteArrayInputStream(TestTitles.INSTALLER), "b.bin");
        assertThat(one.sha256()).isEqualTo(two.sha256());
        assertThat(Files.readAllBytes(contents.file(one.sha256()))).isEqualTo(TestTitles.INSTALLER);
    }

    @Test
    void aStreamThatBreaksOffLeavesNothingBehind() throws IOException {
        InputStream broken = new InputStream() {
            private int left = 100;

            @Override
            public int read() throws IOException {
                if (left == 0) {
                    throw new IOException("broke off");
                }
                left--;
                return 'x';
            }
        };
        assertThatThrownBy(() -> server.bean(Contents.class).keep(broken, "c.bin")).isInstanceOf(IOException.class);
        try (Stream<Path> files = Files.list(data.resolve("content"))) {
            assertThat(files).noneMatch(f -> f.toString().endsWith(".part"));
        }
    }

    @Test
    void aPathIsNoHash() {
        assertThatThrownBy(() -> server.bean(Contents.class).file("../rivo.mv.db")).isInstanceOf(ApiException.class);
    }

    @Test
    void contentThatNoTitleNamesIsDeletedOnceItHasBeenUnusedForMoreThanAWeek() throws IOException {
        Contents contents = server.bean(Contents.class);
        HandClock clock = new HandClock(Instant.parse("2026-11-23T08:00:00Z"));
        UnusedContent unused = new UnusedContent(contents, catalogue, clock);
        Contents.Content named = contents.keep(new ByteArrayInputStream(TestTitles.INSTALLER), "a.bin");
        Contents.Content lost = contents.keep(new ByteArrayInputStream("nobody's".getBytes(StandardCharsets.UTF_8)), "b.bin");
        unused.cleanUp();
        clock.passes(Duration.ofDays(7));
        unused.cleanUp();
        assertThat(contents.has(lost)).as("a week is not more than a week").isTrue();
        clock.passes(Duration.ofSeconds(1));
        unused.cleanUp();
        assertThat(contents.has(lost)).isFalse();
        assertThat(contents.has(named)).isTrue();
    }

    @Test
    void whatAnEditOfATitleDoesIsCountedByEffectAndRelease() {
        TestTitles.add(server, "tarnlog", "Tarnlog Viewer");
        server.bean(Drafts.class).put("test", OuAssignment.title("tarnlog", server.ou("Laboratories"), "required", false));
        Publishing publishing = server.bean(Publishing.class);
        publishing.publish("test", "for the tests", publishing.token("test"));
        CurrentSnapshot current = server.bean(CurrentSnapshot.class);
        Snapshot before = current.now();
        TitleRecord record = catalogue.now().record("tarnlog");
        List<TitleRecord.ReleaseRecord> more = new ArrayList<>(record.releases());
        more.add(TitleRecord.ReleaseRecord.of("4.3.0", record.releases().get(0).variants()));
        catalogue.put("test", record.withReleases(more));
        Effects effects = Effects.of(before, current.now());
        assertThat(effects.devices()).isEqualTo(60);
        assertThat(effects.effects()).containsExactly(new Effects.Effect("tarnlog", "Tarnlog Viewer", "other-release", "4.3.0", 16));
        before = current.now();
        catalogue.put("test", record.withReleases(List.of()));
        assertThat(Effects.of(before, current.now()).effects()).singleElement().satisfies(effect -> {
            assertThat(effect.version()).as("nothing of it is left").isNull();
            assertThat(effect.devices()).isEqualTo(16);
        });
        assertThat(Effects.of(current.now(), current.now()).effects()).isEmpty();
    }

    @Test
    void aVariantIsFoundByItsIdAlone() {
        TitleRecord.ReleaseRecord release = catalogue.now().record("siltscope").releases().get(0);
        assertThat(release.variant("all")).isEqualTo(release.variants().get(0));
        assertThat(release.variant("other")).isNull();
        assertThat(release.variant(null)).isNull();
    }
}
