package rivo.server.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.server.TestClient.Answer;
import rivo.server.TestDevice;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.catalogue.TitlePages;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.catalogue.kit.Kits;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.document.Documents;
import rivo.server.document.Kept;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Drafting, rehearsing and publishing, through the API. */
class DraftTest extends ServerTest {

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
    }

    @AfterEach
    void endEverything() {
        server.ask("DELETE", "/api/draft", null);
        for (String ou : new String[] {"Laboratories", "Hartsmere Laboratory", "Coldwell Laboratory", "Microbiology"}) {
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
        assertThat(draft.at("/rehearsal/bytes").asInt()).isEqualTo(8 * TestTitles.INSTALLER.length);
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
    void byWhichChangeAnAssignmentCameIsTheSameAfterARestart() {
        put("Hartsmere Laboratory", "required");
        publish("first");
        put("Microbiology", "uninstall");
        publish("second");
        Documents<AssignmentDocument> anew = AssignmentDocument.KIND.read(server.bean(JdbcClient.class));
        assertThat(anew).isEqualTo(now().get(AssignmentDocument.KIND));
        List<Long> changes = anew.kept().stream().filter(kept -> kept.document().state() == null).map(Kept::change).toList();
        assertThat(changes).hasSize(2).doesNotHaveDuplicates().doesNotContainNull();
    }

    private static Snapshot now() {
        return server.bean(CurrentSnapshot.class).now();
    }

    @Test
    void whatIsNotWellWithATitleIsSaidWhenItIsToGoOnAndNotWhenItIsToComeOff() {
        server.bean(Catalogue.class).put("test", TitleRecord.of("bare", "Bare", "Fenwick Instruments", List.of(TitleRecord.ReleaseRecord.of("1.0",
                List.of(new TitleRecord.VariantRecord("all", null, false, List.of(), List.of(), List.of(), List.of(), Presence.inventory("Bare")))))));
        List<String> notWell = server.bean(TitlePages.class).looks(now(), server.bean(Catalogue.class).now().record("bare")).stream()
                .filter(look -> !look.well()).map(look -> look.code()).toList();
        assertThat(notWell).isNotEmpty();
        assertThat(cautions("title:bare", "required")).isEqualTo(notWell);
        assertThat(cautions("title:bare", "uninstall")).isEmpty();
        server.bean(Kits.class).put("test", 0, new KitDocument("bench", "Bench kit", "", List.of("siltscope", "bare")), null);
        assertThat(cautions("kit:bench", "required")).as("by way of a kit").isEqualTo(notWell);
    }

    /** In the archive nobody stands, so that no device gains anything by it. */
    private static List<String> cautions(String subject, String intent) {
        JsonNode draft = server.ask("PUT", "/api/draft/edits",
                Map.of("subject", subject, "ou", server.ou("Archive"), "intent", intent, "binding", false)).body();
        server.ask("DELETE", "/api/draft", null);
        return draft.path("cautions").valueStream().map(c -> c.path("code").asString()).toList();
    }

    @Test
    void anEditTakesThePlaceOfWhatIsAssignedThere() {
        put("Hartsmere Laboratory", "required");
        publish("first");
        JsonNode draft = put("Hartsmere Laboratory", "uninstall").body();
        assertThat(draft.at("/edits/0/places/0/was").asString()).isEqualTo("required");
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
    void anEditIsDroppedUndoneAndDoneAgain() {
        String edit = put("Microbiology", "required").body().at("/edits/0/id").asString();
        assertThat(server.ask("DELETE", "/api/draft/edits/" + edit, null).body().path("edits").isEmpty()).isTrue();
        JsonNode undone = server.ask("POST", "/api/draft/undo", null).body();
        assertThat(undone.at("/edits/0/id").asString()).isEqualTo(edit);
        assertThat(undone.path("mayRedo").asBoolean()).isTrue();
        assertThat(server.ask("POST", "/api/draft/redo", null).body().path("edits").isEmpty()).isTrue();
        assertThat(server.ask("DELETE", "/api/draft/edits/" + edit, null).status()).isEqualTo(404);
    }

    @Test
    void anEditOfWhatSomebodyElseHasChangedShowsBothAndOverwritesNothing() {
        put("Hartsmere Laboratory", "required");
        publish("first");
        put("Hartsmere Laboratory", "uninstall");
        Drafts drafts = server.bean(Drafts.class);
        Publishing publishing = server.bean(Publishing.class);
        drafts.put("odile.brandt", OuAssignment.title("siltscope", server.ou("Hartsmere Laboratory"), "required", true));
        publishing.publish("odile.brandt", "for good", publishing.token("odile.brandt"));
        JsonNode mine = draft().at("/edits/0");
        assertThat(mine.at("/changedSince/by").asString()).isEqualTo("odile.brandt");
        assertThat(mine.at("/changedSince/now").asString()).isEqualTo("required on Hartsmere Laboratory");
        assertThat(mine.at("/places/0/intent").asString()).isEqualTo("uninstall");
        assertThat(draft().path("trouble").asString()).contains("odile.brandt").contains("Nothing was overwritten");
        assertThat(publish("mine all the same").status()).isEqualTo(422);
        assertThat(installs()).isEqualTo(8);
        JsonNode kept = server.ask("POST", "/api/draft/edits/" + mine.path("id").asString() + "/keeping", null).body();
        assertThat(kept.path("trouble").isMissingNode()).isTrue();
        assertThat(kept.at("/edits/0/changedSince").isMissingNode()).isTrue();
        assertThat(publish("mine all the same").status()).isEqualTo(200);
        assertThat(installs()).isZero();
    }

    @Test
    void aDocumentIsDraftedWholeAndRefusedWithEverythingThatIsWrongWithIt() {
        String body = "{\"revision\":0,\"document\":{\"id\":\"wave-1\",\"seq\":0,\"subject\":\"title:siltscope\",\"intent\":\"required\","
                + "\"follows\":\"device\",\"include\":[\"ou:%s\"],\"within\":\"%s\",\"windows\":\"%s\",\"note\":\"CHG-2041\","
                + "\"waves\":[{\"share\":50,\"open\":false}]%s}}";
        String labs = server.ou("Hartsmere Laboratory");
        JsonNode refused = raw("PUT", "/api/draft/documents/assignment/wave-1", body.formatted(labs, "name zz 1", "sometimes", "")).body();
        assertThat(refused.path("problems").findValuesAsString("code")).contains("unknown-word");
        assertThat(raw("PUT", "/api/draft/documents/assignment/wave-1", body.formatted(labs, "name zz 1", "ignore", "")).body()
                .path("problems").findValuesAsString("code")).contains("bad-rule");
        assertThat(raw("PUT", "/api/draft/documents/assignment/wave-1", body.formatted(labs, "name pr", "ignore", ",\"wavez\":[]")).code())
                .isEqualTo("bad-document");
        assertThat(raw("PUT", "/api/draft/documents/assignment/other", body.formatted(labs, "name pr", "ignore", "")).code())
                .isEqualTo("bad-document");
        assertThat(raw("PUT", "/api/draft/documents/moon/wave-1", body.formatted(labs, "name pr", "ignore", "")).code())
                .isEqualTo("unknown-kind");
        Answer taken = raw("PUT", "/api/draft/documents/assignment/wave-1", body.formatted(labs, "name pr", "ignore", ""));
        assertThat(taken.status()).isEqualTo(200);
        assertThat(publish("with a closed wave").status()).isEqualTo(200);
        assertThat(installs()).isZero();
        assertThat(now().get(AssignmentDocument.KIND).find("wave-1").delivery().note()).isEqualTo("CHG-2041");
        server.ask("POST", "/api/draft/wave-openings", Map.of("assignment", "wave-1"));
        assertThat(draft().at("/rehearsal/gains").asInt()).isPositive();
        assertThat(publish("open it").status()).isEqualTo(200);
        assertThat(installs()).isPositive();
        assertThat(server.ask("POST", "/api/draft/wave-openings", Map.of("assignment", "wave-1")).code()).isEqualTo("no-wave");
        assertThat(server.ask("DELETE", "/api/draft/documents/assignment/wave-1?revision=2", null).status()).isEqualTo(200);
        assertThat(publish("and end it").status()).isEqualTo(200);
        assertThat(now().get(AssignmentDocument.KIND).find("wave-1").state()).isEqualTo("retired");
    }

    private static Answer raw(String method, String path, String json) {
        return server.ask(method, path, new JsonMapper().readTree(json));
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

    /** Some of each: what is required is taken off at one place and required anew at others. */
    @Test
    void everyFigureOpensIntoAsManyDevices() {
        TestDevice device = TestDevice.enrolled(server, "QB-LAB-001");
        device.report("{\"number\":1,\"present\":[{\"title\":\"siltscope\",\"version\":\"4.2.0\"}]}");
        put("Laboratories", "required");
        publish("first");
        put("Laboratories", "none");
        put("Hartsmere Laboratory", "uninstall");
        put("Coldwell Laboratory", "required");
        JsonNode rehearsal = draft().path("rehearsal");
        Map<String, String> figures = Map.of("gains", "gains", "loses", "loses", "removes", "removes", "contested", "newlyContested",
                "settled", "settled");
        figures.forEach((part, figure) -> {
            JsonNode all = server.ask("GET", "/api/draft/rehearsal/" + part, null).body();
            assertThat(all.path("total").asInt()).as(part).isEqualTo(rehearsal.path(figure).asInt()).isEqualTo(all.path("devices").size());
            assertThat(all.path("devices").valueStream().map(d -> d.path("id").asString()).distinct()).as(part).hasSize(all.path("total").asInt());
            List<JsonNode> paged = new ArrayList<>();
            for (int offset = 0; offset < all.path("total").asInt(); offset += 3) {
                server.ask("GET", "/api/draft/rehearsal/" + part + "?limit=3&offset=" + offset, null).body().path("devices").forEach(paged::add);
            }
            assertThat(paged).as(part).containsExactlyElementsOf(all.path("devices"));
        });
        assertThat(rehearsal.path("removes").asInt()).isEqualTo(8);
        assertThat(rehearsal.path("removesPresent").asInt()).as("the one that has it").isEqualTo(1);
        assertThat(rehearsal.path("loses").asInt()).isEqualTo(12);
        JsonNode removed = server.ask("GET", "/api/draft/rehearsal/removes", null).body().at("/devices/0");
        assertThat(removed.path("title").asString() + " " + removed.path("titleName").asString()).isEqualTo("siltscope Siltscope Lab");
        assertThat(removed.path("ou").asString()).isNotEmpty();
        assertThat(draft().at("/rehearsal/titles/0/removes").asInt()).isEqualTo(8);
        device.report("{\"number\":2,\"present\":[]}");
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

    /** As many devices gain as before, but something else. */
    @Test
    void anotherReleaseThanTheOneThatWasLookedAtIsNotPublished() {
        TestTitles.add(server, "gauge", "Gauge");
        Catalogue catalogue = server.bean(Catalogue.class);
        TitleRecord title = catalogue.now().record("gauge");
        JsonNode looked = server.ask("PUT", "/api/draft/edits", Map.of("subject", "title:gauge", "ou", server.ou("Microbiology"), "intent",
                "required", "binding", false)).body();
        String token = looked.at("/rehearsal/token").asString();
        assertThat(token).matches("[0-9a-f]{64}");
        assertThat(draft().at("/rehearsal/token").asString()).as("looked at again").isEqualTo(token);
        List<TitleRecord.ReleaseRecord> releases = new ArrayList<>(title.releases());
        releases.add(TitleRecord.ReleaseRecord.of("5.0", title.releases().get(0).variants()));
        catalogue.put("test", title.withReleases(releases));
        assertThat(draft().at("/rehearsal/gains").asInt()).isEqualTo(looked.at("/rehearsal/gains").asInt());
        Answer refused = server.ask("POST", "/api/draft/publication", Map.of("reason", "as looked at", "token", token));
        assertThat(refused.code()).isEqualTo("looks-different");
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
