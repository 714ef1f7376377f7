package rivo.server.catalogue.kit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.plan.Action;
import rivo.core.plan.Plan;
import rivo.core.resolve.Resolver;
import rivo.server.TestClient.Answer;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.live.Told;
import tools.jackson.databind.JsonNode;

/** Kits: made, put in order, assigned as one, and what stands in the way. */
class KitsTest extends ServerTest {

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
        TestTitles.add(server, "graphkit", "Graphkit runtime");
        TestTitles.add(server, "mudview", "Mudview");
    }

    private static Answer put(String id, long revision, String... titles) {
        return server.ask("PUT", "/api/kits/" + id, change(id, revision, titles));
    }

    private static Map<String, Object> change(String id, long revision, String... titles) {
        return Map.of("kit", new KitDocument(id, "Kit " + id, "", List.of(titles)), "revision", revision);
    }

    private static void draft(String subject, String ou, String intent) {
        assertThat(server.ask("PUT", "/api/draft/edits", Map.of("subject", subject, "ou", server.ou(ou), "intent", intent,
                "binding", false)).status()).isEqualTo(200);
    }

    private static void publish() {
        JsonNode draft = server.ask("GET", "/api/draft", null).body();
        assertThat(server.ask("POST", "/api/draft/publication", Map.of("reason", "a test", "token",
                draft.at("/rehearsal/token").asString())).status()).isEqualTo(200);
    }

    private static List<String> installsOn(String device) {
        Resolver resolver = server.bean(CurrentSnapshot.class).now().resolver();
        List<String> titles = new ArrayList<>();
        for (Action action : Plan.of(resolver, resolver.estate().devices().find(server.device(device))).actions()) {
            titles.add(action.title() + " " + (action.assignment() == null ? "" : action.assignment().subject()));
        }
        return titles;
    }

    @Test
    void aKitIsAssignedAsOneInItsOrder() {
        assertThat(put("bench", 0, "siltscope", "graphkit").status()).isEqualTo(200);
        draft("kit:bench", "Hartsmere Laboratory", "required");
        JsonNode edit = server.ask("GET", "/api/draft", null).body().at("/edits/0");
        assertThat(edit.path("name").asString()).isEqualTo("Kit bench");
        publish();
        assertThat(installsOn("QB-LAB-003")).containsSubsequence("siltscope kit:bench", "graphkit kit:bench");
        assertThat(server.ask("GET", "/api/kits/bench", null).body().at("/assigned/0/targetName").asString())
                .isEqualTo("Hartsmere Laboratory");

        JsonNode effects = server.ask("POST", "/api/kits/bench/rehearsal", change("bench", 1, "graphkit", "siltscope",
                "mudview")).body();
        assertThat(effects.path("effects").valueStream().map(e -> e.path("title").asString() + " " + e.path("effect").asString()))
                .as("a title that is put into an assigned kit reaches its devices").contains("mudview gains");
        assertThat(put("bench", 1, "graphkit", "siltscope").status()).isEqualTo(200);
        assertThat(installsOn("QB-LAB-003")).containsSubsequence("graphkit kit:bench", "siltscope kit:bench");

        assertThat(server.ask("DELETE", "/api/kits/bench", null).code()).isEqualTo("kit-assigned");
        draft("kit:bench", "Hartsmere Laboratory", "none");
        publish();
        assertThat(installsOn("QB-LAB-003")).noneMatch(t -> t.contains("kit:bench"));
    }

    @Test
    void aKitIsFoundByALetterOrTwoAndNamedInTheTrail() {
        assertThat(put("field", 0, "mudview").status()).isEqualTo(200);
        JsonNode hits = server.ask("GET", "/api/search?q=kit%20fie", null).body();
        assertThat(hits.path("kits").asInt()).isEqualTo(1);
        assertThat(hits.at("/hits/0/kind").asString()).isEqualTo("kit");
        assertThat(hits.at("/hits/0/id").asString()).isEqualTo("field");
        draft("kit:field", "Trunk mains", "required");
        JsonNode rung = server.ask("GET", "/api/reach/mudview/ous/" + server.ou("Trunk mains"), null).body().at("/rungs/0");
        assertThat(rung.path("kit").asString()).isEqualTo("Kit field");
        JsonNode here = server.ask("GET", "/api/reach/mudview", null).body().path("ous").valueStream()
                .filter(ou -> ou.path("name").asString().equals("Trunk mains")).findFirst().orElseThrow().at("/here/0");
        assertThat(here.path("kit").asString()).isEqualTo("Kit field");
        assertThat(here.path("draft").asBoolean()).isTrue();
        server.ask("DELETE", "/api/draft", null);
    }

    @Test
    void aTitleWhoseLicenceNobodyAcceptedDoesNotComeIntoAnAssignedKit() {
        assertThat(put("licensed", 0, "mudview").status()).isEqualTo(200);
        TestTitles.add(server, "cad", "CAD");
        Catalogue catalogue = server.bean(Catalogue.class);
        TitleRecord cad = catalogue.now().record("cad");
        catalogue.put("test", new TitleRecord("cad", "CAD", cad.maker(), new TitleRecord.About("", "", "", "", "", "", "", "",
                "For drawing only."), "device", null, List.of(), List.of(), cad.releases()));
        draft("title:siltscope", "Pumping", "required");
        publish();
        assertThat(put("licensed", 1, "mudview", "cad").status()).as("nobody has it yet, whatever else is assigned").isEqualTo(200);
        assertThat(put("licensed", 2, "mudview").status()).isEqualTo(200);
        draft("kit:licensed", "Pumping", "required");
        publish();
        assertThat(put("licensed", 3, "mudview", "cad").code()).isEqualTo("licence-not-accepted");
        server.bean(Licences.class).accept("test", "cad", "For drawing only.");
        assertThat(put("licensed", 3, "mudview", "cad").status()).isEqualTo(200);
    }

    @Test
    void theSecondWhoSavesIsToldAndOverwritesNothing() {
        assertThat(put("twice", 0, "siltscope").status()).isEqualTo(200);
        assertThat(put("twice", 1, "graphkit").status()).isEqualTo(200);
        Answer second = put("twice", 1, "mudview");
        assertThat(second.code()).isEqualTo("changed-since");
        assertThat(second.body().path("detail").asString()).contains("was changed by imara.voss");
        assertThat(server.ask("GET", "/api/kits/twice", null).body().at("/kit/titles/0").asString()).isEqualTo("graphkit");
        assertThat(put("twice", 0, "mudview").body().path("detail").asString()).contains("give yours another");
    }

    @Test
    void ofTwoWhoSaveAtTheVerySameTimeOneIsTold() throws Exception {
        assertThat(put("race", 0, "siltscope").status()).isEqualTo(200);
        assertThat(server.together(() -> put("race", 1, "graphkit"), () -> put("race", 1, "mudview"))).extracting(Answer::status)
                .containsExactlyInAnyOrder(200, 409);
        assertThat(server.together(() -> put("new-race", 0, "graphkit"), () -> put("new-race", 0, "mudview")))
                .extracting(Answer::status).containsExactlyInAnyOrder(200, 409);
    }

    @Test
    void aKitThatNobodyAssignedGoesAgain() {
        assertThat(put("gone", 0, "siltscope").status()).isEqualTo(200);
        assertThat(server.ask("DELETE", "/api/kits/gone", null).status()).isEqualTo(204);
        assertThat(server.ask("GET", "/api/kits/gone", null).code()).isEqualTo("unknown-kit");
        assertThat(put("gone", 1, "siltscope").body().path("detail").asString()).contains("make a new kit of it");
    }

    @Test
    void whatMakesNoSenseIsRefused() {
        assertThat(put("double", 0, "siltscope", "siltscope").body().path("detail").asString()).contains("listed twice");
        assertThat(put("unknown", 0, "moonware").status()).isEqualTo(422);
        assertThat(put("Bad_Id", 0, "siltscope").status()).isEqualTo(422);
        Map<String, Object> nameless = new HashMap<>(change("nameless", 0, "siltscope"));
        nameless.put("kit", new KitDocument("nameless", " ", "", List.of()));
        assertThat(server.ask("PUT", "/api/kits/nameless", nameless).body().path("detail").asString()).contains("1 to 200");
        assertThat(server.ask("PUT", "/api/kits/other", change("nameless", 0, "siltscope")).code()).isEqualTo("other-id");
    }

    private static Answer put(KitDocument kit) {
        return server.ask("PUT", "/api/kits/" + kit.id(), Map.of("kit", kit, "revision", 0));
    }

    @Test
    void textsAndListsMayBeAsLongAsIsSaidAndNoLonger() {
        assertThat(put(new KitDocument("long-1", "n".repeat(200), "d".repeat(2000), List.of())).status()).isEqualTo(200);
        assertThat(put(new KitDocument("long-2", "n".repeat(201), "", List.of())).code()).isEqualTo("bad-text");
        assertThat(put(new KitDocument("long-3", "Long", "d".repeat(2001), List.of())).code()).isEqualTo("bad-text");
        List<String> most = new ArrayList<>();
        for (int i = 0; i < 100; i++) {
            most.add("filling-" + i);
        }
        most.forEach(id -> TestTitles.add(server, id, id));
        assertThat(put(new KitDocument("long-4", "Long", "", most)).status()).isEqualTo(200);
        most.add("siltscope");
        assertThat(put(new KitDocument("long-5", "Long", "", most)).code()).isEqualTo("too-many");
    }

    @Test
    void whatWasDoneToItIsOnRecordAndToldToThoseWhoLook() {
        Told.by(server, () -> put("recorded", 0, "siltscope"), "kits", "titles", "title:siltscope");
        Told.by(server, () -> put("recorded", 1, "graphkit"), "kits", "title:siltscope", "title:graphkit");
        Told.by(server, () -> server.ask("DELETE", "/api/kits/recorded", null), "kits");
        assertThat(server.bean(JdbcClient.class).sql("select kind from journal where subject = 'kit:recorded' order by number").query(String.class).list())
                .containsExactly("kit-added", "kit-changed", "kit-deleted");
    }

    @Test
    void ofATitleThatOffersNothingNoReleaseIsNamed() {
        TestTitles.add(server, "withdrawn", "Withdrawn");
        Catalogue catalogue = server.bean(Catalogue.class);
        TitleRecord record = catalogue.now().record("withdrawn");
        assertThat(put("offers", 0, "withdrawn").status()).isEqualTo(200);
        assertThat(server.ask("GET", "/api/kits/offers", null).body().at("/titles/0/newest").asString()).isEqualTo("4.2.0");
        catalogue.put("test", record.withReleases(List.of()));
        assertThat(server.ask("GET", "/api/kits/offers", null).body().at("/titles/0").has("newest")).isFalse();
    }
}
