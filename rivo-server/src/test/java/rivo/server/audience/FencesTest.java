package rivo.server.audience;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.core.estate.Ou;
import rivo.core.estate.RefusedException;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.change.Drafts;
import rivo.server.change.OuAssignment;
import rivo.server.change.Publishing;
import rivo.server.estate.CurrentSnapshot;

class FencesTest {

    @TempDir
    private Path data;
    private TestServer server;

    @BeforeEach
    void start() {
        server = TestServer.start(data).signIn();
        TestTitles.add(server);
    }

    @AfterEach
    void stop() {
        server.close();
    }

    private int required() {
        return server.ask("GET", "/api/reach/siltscope", null).body().at("/totals/required").asInt();
    }

    private void requireEverywhere(boolean binding) {
        server.bean(Drafts.class).put("test", OuAssignment.title("siltscope", server.ou("Quillbrook Water"), "required",
                binding));
        Publishing publishing = server.bean(Publishing.class);
        publishing.publish("test", "for the tests", publishing.token("test"));
    }

    @Test
    void aFenceKeepsOutWhatIsNotBinding() {
        requireEverywhere(false);
        assertThat(required()).isEqualTo(60);
        server.bean(Fences.class).raise("test", List.of(server.ou("Laboratories")));
        assertThat(required()).isEqualTo(44);
        requireEverywhere(true);
        assertThat(required()).isEqualTo(60);
    }

    @Test
    void theTrailNamesTheFence() {
        requireEverywhere(false);
        server.bean(Fences.class).raise("test", List.of(server.ou("Laboratories")));
        String sentence = server.ask("GET", "/api/devices/" + server.device("QB-LAB-001") + "/titles/siltscope", null)
                .body().path("sentence").asString();
        assertThat(sentence).isEqualTo(
                "Nothing: Quillbrook Water requires it, but the fence at Laboratories stops that.");
    }

    @Test
    void theRootIsNeverFenced() {
        assertThatThrownBy(() -> server.bean(Fences.class).raise("test",
                List.of(server.ou("Finance"), server.ou("Quillbrook Water")))).isInstanceOf(RefusedException.class);
        assertThat(server.bean(CurrentSnapshot.class).now().estate().ous().all()).as("nothing of it was kept")
                .noneMatch(Ou::fenced);
    }
}
