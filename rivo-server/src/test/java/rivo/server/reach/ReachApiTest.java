package rivo.server.reach;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import tools.jackson.databind.JsonNode;

/** The map, part by part. */
class ReachApiTest extends ServerTest {

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
        server.ask("PUT", "/api/draft/edits", Map.of("subject", "title:siltscope", "ou", server.ou("Laboratories"), "intent",
                "required", "binding", false));
    }

    private static JsonNode get(String path) {
        return server.ask("GET", "/api/reach/siltscope" + path, null).body();
    }

    private static List<String> names(JsonNode list) {
        return list.valueStream().map(one -> one.path("name").asString()).toList();
    }

    private static JsonNode ou(JsonNode list, String name) {
        return list.valueStream().filter(one -> one.path("name").asString().equals(name)).findFirst().orElseThrow();
    }

    @Test
    void aMapBeginsWithTheRootUnlessAnOuIsNamed() {
        JsonNode whole = get("");
        assertThat(names(whole.path("path"))).containsExactly("Quillbrook Water");
        assertThat(names(whole.path("ous"))).startsWith("Quillbrook Water").contains("Laboratories", "Chemistry");
        JsonNode part = get("?in=" + server.ou("Laboratories"));
        assertThat(names(part.path("path"))).containsExactly("Quillbrook Water", "Laboratories");
        assertThat(names(part.path("ous"))).startsWith("Laboratories").doesNotContain("Quillbrook Water", "Finance");
        assertThat(part.path("totals")).as("the figures at the head are those of the fleet").isEqualTo(whole.path("totals"));
        assertThat(names(get("?in=moon").path("path"))).as("one that has gone").containsExactly("Quillbrook Water");
    }

    @Test
    void ousWithoutDevicesAreLeftOutUntilTheirOuIsOpened() {
        JsonNode root = ou(get("").path("ous"), "Quillbrook Water");
        assertThat(root.path("more").asInt()).isPositive();
        assertThat(root.path("moreDevices").asInt()).isZero();
        JsonNode opened = get("?open=" + server.ou("Quillbrook Water") + "&open=moon");
        assertThat(ou(opened.path("ous"), "Quillbrook Water").path("more").asInt()).isZero();
        assertThat(names(opened.path("ous"))).contains("Groups");
    }

    @Test
    void whatStandsInAnOuIsGivenWhole() {
        JsonNode below = get("/ous/" + server.ou("Quillbrook Water") + "/below");
        assertThat(below.size()).isEqualTo(ou(get("").path("ous"), "Quillbrook Water").path("below").asInt());
        assertThat(names(below)).contains("Groups", "Laboratories").doesNotContain("Quillbrook Water", "Chemistry");
        assertThat(server.ask("GET", "/api/reach/siltscope/ous/moon/below", null).code()).isEqualTo("unknown-ou");
    }

    @Test
    void aChosenPartSaysWhereItIsAndWhatIsAssignedToIt() {
        JsonNode labs = get("/ous/" + server.ou("Laboratories"));
        assertThat(names(labs.path("path"))).containsExactly("Quillbrook Water", "Laboratories");
        assertThat(labs.at("/path/1/id").asString()).isEqualTo(server.ou("Laboratories"));
        assertThat(labs.at("/here/0/intent").asString()).isEqualTo("required");
        assertThat(labs.at("/here/0/draft").asBoolean()).isTrue();
        assertThat(labs.at("/after/required").asInt()).isEqualTo(labs.path("devices").asInt());
    }

    @Test
    void anAssignmentWithABaseInsideThePartIsCountedThere() {
        server.ask("PUT", "/api/draft/documents/assignment/a-based", Map.of("revision", 0, "document", Map.of("id", "a-based", "subject", "title:siltscope",
                "intent", "required", "follows", "device", "include", List.of("all-devices"), "base", server.ou("Microbiology"),
                "priority", 900)));
        JsonNode around = rung("Laboratories");
        assertThat(around.path("verdict").asString()).isEqualTo("inside");
        assertThat(around.path("devices").asInt()).isEqualTo(4);
        assertThat(around.path("sentence").asString()).startsWith("reaches ").endsWith("not below Microbiology");
        assertThat(rung("Microbiology").path("verdict").asString()).isEqualTo("decides");
        assertThat(rung("Finance").path("sentence").asString()).isEqualTo("has effect only below Microbiology");
        server.ask("DELETE", "/api/draft/documents/assignment/a-based?revision=0", null);
    }

    @Test
    void theMapShowsWhatIsOnlyBeingWritten() {
        Map<String, Object> document = Map.of("id", "a-written", "subject", "title:siltscope", "intent", "uninstall", "follows", "device",
                "include", List.of("group:" + server.group("loan-pool")), "binding", true, "priority", 1000);
        Map<String, Object> written = Map.of("id", "a-written", "revision", 0, "document", document);
        JsonNode before = get("");
        JsonNode shown = server.ask("POST", "/api/reach/siltscope/written?lit=group:" + server.group("loan-pool"), written).body();
        assertThat(shown.at("/totalsAfter/uninstall").asInt()).isPositive();
        assertThat(shown.path("totals")).isEqualTo(before.path("totals"));
        assertThat(shown.path("across").findValuesAsString("assignment")).contains("a-written");
        assertThat(ou(shown.path("ous"), "Quillbrook Water").path("lit").asInt()).isPositive();
        assertThat(get("").path("across").findValuesAsString("assignment")).as("nothing is kept").doesNotContain("a-written");
        assertThat(server.ask("POST", "/api/reach/siltscope/written", Map.of("id", "a-written", "revision", 0, "document",
                Map.of("id", "a-written", "subject", "title:moon", "intent", "required", "follows", "device", "include", List.of("all-devices"))))
                .status()).isEqualTo(422);
    }

    private static JsonNode rung(String ou) {
        return get("/ous/" + server.ou(ou)).path("rungs").valueStream().filter(one -> one.path("assignment").asString().equals("a-based")).findFirst().orElseThrow();
    }
}
