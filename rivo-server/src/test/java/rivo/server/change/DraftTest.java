package rivo.server.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.server.TestClient.Answer;
import rivo.server.TestServer;
import rivo.server.Titles;
import tools.jackson.databind.JsonNode;

/** Drafting, rehearsing and publishing, through the API. */
class DraftTest {

    @TempDir
    private static Path data;
    private static TestServer server;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        Titles.add(server);
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    @AfterEach
    void endEverything() {
        server.ask("DELETE", "/api/draft", null);
        for (String ou : new String[] {"Laboratories", "Hartsmere Laboratory", "Microbiology"}) {
            put(ou, "none");
        }
        if (!draft().path("edits").isEmpty()) {
            publish("tidy up");
        }
    }

    private static Answer put(String ou, String intent) {
        return server.ask("PUT", "/api/draft/edits",
                Map.of("subject", "title:siltscope", "ou", server.ou(ou), "intent", intent, "binding", false));
    }

    private static JsonNode draft() {
        return server.ask("GET", "/api/draft", null).body();
    }

    private static Answer publish(String reason) {
        return server.ask("POST", "/api/draft/publication",
                Map.of("reason", reason, "token", draft().at("/rehearsal/token").asString("")));
    }

    private static int installs() {
        return server.ask("GET", "/api/reach/siltscope", null).body().at("/totals/required").asInt();
    }

    @Test
    void anEditIsRehearsedAtOnceAndChangesNothingYet() {
        JsonNode draft = put("Hartsmere Laboratory", "required").body();
        assertThat(draft.at("/rehearsal/devices").asInt()).isEqualTo(60);
        assertThat(draft.at("/rehearsal/gains").asInt()).isEqualTo(8);
        assertThat(draft.at("/rehearsal/loses").asInt()).isZero();
        assertThat(draft.at("/rehearsal/bytes").asInt()).isEqualTo(8 * Titles.INSTALLER.length);
        assertThat(installs()).isZero();
    }

    @Test
    void publishingPutsItInForceWithItsReason() {
        put("Hartsmere Laboratory", "required");
        Answer published = publish("The laboratory moves to Siltscope Lab");
        assertThat(published.status()).isEqualTo(200);
        assertThat(installs()).isEqualTo(8);
        assertThat(draft().path("edits").isEmpty()).isTrue();
        JsonNode rung = server.ask("GET", "/api/reach/siltscope/ous/" + server.ou("Microbiology"), null).body()
                .at("/rungs/0");
        assertThat(rung.path("verdict").asString()).isEqualTo("decides");
        assertThat(rung.path("change").asLong()).isEqualTo(published.body().path("change").asLong());
    }

    @Test
    void anEditTakesThePlaceOfWhatIsAssignedThere() {
        put("Hartsmere Laboratory", "required");
        publish("first");
        JsonNode draft = put("Hartsmere Laboratory", "uninstall").body();
        assertThat(draft.at("/edits/0/was").asString()).isEqualTo("required");
        assertThat(draft.at("/rehearsal/loses").asInt()).isEqualTo(8);
        assertThat(draft.at("/rehearsal/removes").asInt()).isEqualTo(8);
        assertThat(draft.at("/rehearsal/newlyContested").asInt()).isZero();
    }

    @Test
    void anEditThatAsksForWhatIsTheCaseLeavesTheDraft() {
        put("Hartsmere Laboratory", "required");
        publish("first");
        put("Hartsmere Laboratory", "uninstall");
        assertThat(put("Hartsmere Laboratory", "required").body().path("edits").isEmpty()).isTrue();
    }

    @Test
    void anotherEditForTheSameOuTakesThePlaceOfTheFirst() {
        put("Microbiology", "required");
        assertThat(put("Microbiology", "uninstall").body().path("edits").size()).isEqualTo(1);
    }

    @Test
    void anEditCanBeTakenBack() {
        put("Microbiology", "required");
        server.ask("DELETE", "/api/draft/edits?subject=title:siltscope&ou=" + server.ou("Microbiology"), null);
        assertThat(draft().path("edits").isEmpty()).isTrue();
    }

    @Test
    void theDevicesBehindAFigureAreListed() {
        put("Hartsmere Laboratory", "required");
        JsonNode counted = server.ask("GET", "/api/draft/rehearsal/gains?offset=6&limit=5", null).body();
        assertThat(counted.path("total").asInt()).isEqualTo(8);
        assertThat(counted.path("devices").size()).isEqualTo(2);
        assertThat(counted.at("/devices/0/name").asString()).startsWith("QB-LAB-");
        assertThat(server.ask("GET", "/api/draft/rehearsal/moon", null).status()).isEqualTo(422);
    }

    @Test
    void aTitleThatDoesNotExistIsRefused() {
        Answer answer = server.ask("PUT", "/api/draft/edits",
                Map.of("subject", "title:moonware", "ou", server.ou("Laboratories"), "intent", "required", "binding", false));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.code()).isEqualTo("unknown-title");
        assertThat(answer.body().path("detail").asString()).contains("moonware").contains("catalogue");
        assertThat(server.ask("GET", "/api/reach/moonware", null).status()).isEqualTo(404);
    }

    @Test
    void anOuThatDoesNotExistIsRefused() {
        assertThat(server.ask("PUT", "/api/draft/edits",
                Map.of("subject", "title:siltscope", "ou", "moon", "intent", "required", "binding", false)).code())
                .isEqualTo("unknown-ou");
    }

    @Test
    void anIntentThatDoesNotExistIsRefused() {
        assertThat(put("Laboratories", "perhaps").status()).isBetween(400, 422);
    }

    @Test
    void aChangeHasAReason() {
        put("Microbiology", "required");
        Answer answer = publish("  ");
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.code()).isEqualTo("no-reason");
        assertThat(draft().path("edits").size()).isEqualTo(1);
    }

    @Test
    void onlyWhatWasLookedAtIsPublished() {
        put("Microbiology", "required");
        String token = draft().at("/rehearsal/token").asString();
        put("Hartsmere Laboratory", "required");
        Answer answer = server.ask("POST", "/api/draft/publication", Map.of("reason", "as before", "token", token));
        assertThat(answer.status()).isEqualTo(409);
        assertThat(answer.code()).isEqualTo("looks-different");
        assertThat(installs()).isZero();
    }

    @Test
    void anEmptyDraftIsNotPublished() {
        assertThat(publish("nothing at all").code()).isEqualTo("empty-draft");
    }

    @Test
    void theMapShowsTheDraftBesideWhatIs() {
        put("Microbiology", "required");
        JsonNode ous = server.ask("GET", "/api/reach/siltscope", null).body().path("ous");
        for (JsonNode ou : ous) {
            boolean here = ou.path("name").asString().equals("Microbiology");
            assertThat(ou.path("edited").asBoolean()).isEqualTo(here);
            assertThat(ou.at("/here/0/draft").asBoolean(false)).isEqualTo(here);
            assertThat(ou.at("/counts/required").asInt()).isZero();
            if (here) {
                assertThat(ou.at("/after/required").asInt()).isEqualTo(4);
            }
        }
    }

    @Test
    void twoEditsAtTheVerySameTimeAreBothKept() throws Exception {
        server.ask("DELETE", "/api/draft", null);
        List<Answer> answers = server.together(() -> edit("Finance"), () -> edit("Billing"));
        assertThat(answers).extracting(Answer::status).containsOnly(200);
        assertThat(server.ask("GET", "/api/draft", null).body().path("edits")).hasSize(2);
        server.ask("DELETE", "/api/draft", null);
    }

    private static Answer edit(String ou) {
        return server.ask("PUT", "/api/draft/edits", Map.of("subject", "title:siltscope", "ou", server.ou(ou), "intent", "required",
                "binding", false));
    }
}
