package rivo.server.membership;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import rivo.server.ServerTest;
import rivo.server.TestClient.Answer;
import tools.jackson.databind.JsonNode;

/** Trying rules out while they are written, and what helps to write them. */
class RulesApiTest extends ServerTest {

    @AfterEach
    void emptyTheDraft() {
        server.ask("DELETE", "/api/draft", null);
    }

    private static JsonNode attempt(String rule, Object... more) {
        Map<String, Object> body = new HashMap<>(Map.of("rule", rule));
        for (int i = 0; i < more.length; i += 2) {
            body.put((String) more[i], more[i + 1]);
        }
        return server.ask("POST", "/api/rules/trial", body).body();
    }

    private static Answer put(String id, String name, String rule, long revision) {
        return server.ask("PUT", "/api/draft/documents/collection/" + id, Map.of("revision", revision, "document",
                Map.of("id", id, "name", name, "rule", rule)));
    }

    private static void publish() {
        assertThat(server.publish("collections").status()).isEqualTo(200);
    }

    /** "all 15 (name 16; none 15 (name 1))": each line with its figure. */
    private static String figures(JsonNode line) {
        String own = (line.path("kind").asString().equals("clause") ? line.path("attribute").asString() : line.path("kind").asString()) + " "
                + line.path("devices").asInt();
        return line.path("parts").isEmpty() ? own : own + line.path("parts").valueStream().map(RulesApiTest::figures)
                .collect(Collectors.joining("; ", " (", ")"));
    }

    private static boolean isAbsent(JsonNode part) {
        return part.isMissingNode() || part.isNull();
    }

    @Test
    void aRuleSaysForHowManyDevicesItHolds() {
        JsonNode tried = attempt("name sw \"QB-LAB\"");
        assertThat(tried.path("devices").asInt()).isEqualTo(16);
        assertThat(tried.path("fleet").asInt()).isEqualTo(60);
        assertThat(isAbsent(tried.path("problem"))).isTrue();
        assertThat(isAbsent(tried.path("saved"))).as("no collection is asked about").isTrue();
        assertThat(attempt("").path("devices").asInt()).as("no rule").isEqualTo(60);
        assertThat(attempt("name sw \"QB-LAB\"", "base", server.ou("Hartsmere Laboratory")).path("fleet").asInt()).isEqualTo(8);
    }

    @Test
    void whatIsWrongWithARuleIsSaidAndWhere() {
        JsonNode tried = attempt("name sw");
        assertThat(isAbsent(tried.path("devices"))).isTrue();
        assertThat(tried.path("problem").asString()).startsWith("Line 1, column ");
        assertThat(tried.path("line").asInt()).isEqualTo(1);
        assertThat(tried.path("column").asInt()).isPositive();
        assertThat(attempt("collection eq \"Moon\"").path("problem").asString()).isEqualTo(
                "There is no collection named \"Moon\"; name one that is declared.");
        assertThat(attempt("ram ge 8").path("problem").asString()).contains("ramGiB");
        assertThat(attempt("arch eq \"x\" or ".repeat(600)).path("problem").asString()).contains("8192");
        assertThat(server.ask("POST", "/api/rules/trial", Map.of()).status()).isEqualTo(422);
    }

    @Test
    void eachClauseSaysWhatIsLeftAfterIt() {
        assertThat(figures(attempt("name sw \"QB-LAB\" and (name ew \"1\" or name ew \"2\" or name sw \"QB-LAB-00\") and not (name eq \"QB-LAB-002\" or name eq \"QB-LAB-003\")")
                .path("outline"))).isEqualTo("all 9 (name 16; any 11 (name 2; name 2; name 7); none 9 (name 1; name 1))");
        assertThat(figures(attempt("name eq \"QB-LAB-002\"").path("outline"))).isEqualTo("name 1");
        assertThat(figures(attempt("name ne \"QB-LAB-002\" and software[name eq \"X\" and version ge \"1\"]").path("outline")))
                .isEqualTo("all 0 (name 59; some 0 (all 0 (name 0; version 0)))");
    }

    @Test
    void aValueThatNoDeviceHasNamesTheNearest() {
        JsonNode clause = attempt("group eq \"lab-analyst\"").path("outline");
        assertThat(clause.path("nearest").asString()).isEqualTo("lab-analysts");
        assertThat(isAbsent(attempt("name eq \"qb-lab-002\"").path("outline").path("nearest"))).as("capitals do not count").isTrue();
        assertThat(isAbsent(attempt("name eq \"\"").path("outline").path("nearest"))).isTrue();
        assertThat(isAbsent(attempt("name sw \"moon\"").path("outline").path("nearest"))).isTrue();
    }

    @Test
    void whatComesInAndGoesOutIsComparedWithWhatIsPublished() {
        assertThat(put("benches", "Benches", "name sw \"QB-LAB-00\"", 0).status()).isEqualTo(200);
        publish();
        JsonNode same = attempt("name sw \"QB-LAB-00\"", "collection", "benches");
        assertThat(List.of(same.path("saved").asInt(), same.path("comingIn").asInt(), same.path("goingOut").asInt())).containsExactly(9, 0, 0);
        JsonNode other = attempt("name sw \"QB-LAB-01\"", "collection", "benches", "include", List.of(server.device("QB-NET-001"), "moon"), "exclude",
                List.of(server.device("QB-LAB-010")));
        assertThat(other.path("devices").asInt()).isEqualTo(7);
        assertThat(List.of(other.path("comingIn").asInt(), other.path("goingOut").asInt())).containsExactly(7, 9);
        assertThat(other.path("comesIn").valueStream().map(one -> one.path("name").asString())).contains("QB-NET-001").doesNotContain("QB-LAB-010");
        assertThat(other.path("spread").valueStream().mapToInt(one -> one.path("devices").asInt()).sum()).isEqualTo(7);
        JsonNode fresh = attempt("", "collection", "a new one");
        assertThat(List.of(fresh.path("devices").asInt(), fresh.path("saved").asInt())).containsExactly(0, 0);
        server.ask("DELETE", "/api/draft/documents/collection/benches?revision=1", null);
        publish();
    }

    @Test
    void aCircleIsNamedWhereItIsTyped() {
        put("one", "One", "name pr", 0);
        put("two", "Two", "collection eq \"One\"", 0);
        put("three", "Three", "collection eq \"two\"", 0);
        assertThat(attempt("collection eq \"Three\"", "collection", "one").path("problem").asString())
                .isEqualTo("A circle: \"Three\" asks about this collection itself, by way of \"Two\"; delete that clause.");
        assertThat(attempt("collection eq \"Two\"", "collection", "one").path("problem").asString())
                .isEqualTo("A circle: \"Two\" asks about this collection itself; delete that clause.");
        assertThat(attempt("collection eq \"One\"", "collection", "one").path("problem").asString())
                .isEqualTo("A circle: the rule asks about its own collection, \"One\"; delete that clause.");
        assertThat(isAbsent(attempt("collection eq \"Three\"", "collection", "four").path("problem"))).isTrue();
        assertThat(put("one", "One", "collection eq \"Three\"", 0).status()).isEqualTo(422);
    }

    private static List<String> values(String query) {
        return server.ask("GET", "/api/rules/values?" + query, null).body().valueStream()
                .map(one -> one.path("label").asString() + " " + one.path("devices").asInt()).toList();
    }

    @Test
    void valuesAreThoseOfTheFleetWithTheirCounts() {
        assertThat(values("attribute=group&q=loan")).hasSize(2).allMatch(one -> one.matches("(loan-pool|reception-loans) [1-9][0-9]*"));
        assertThat(values("attribute=ou&q=hartsmere")).startsWith("Hartsmere Laboratory 8");
        assertThat(values("attribute=name&q=QB-LAB-002")).containsExactly("QB-LAB-002 1");
        assertThat(values("attribute=people.department&q=lab").get(0)).startsWith("Laboratories ");
        assertThat(values("attribute=name")).as("the first of them").hasSize(12);
        assertThat(values("attribute=x.moon")).isEmpty();
        assertThat(values("attribute=software.name")).isEmpty();
        assertThat(values("attribute=moon.name&q=%22%5C")).isEmpty();
    }

    @Test
    void everyAttributeIsKnownWithItsType() {
        JsonNode attributes = server.ask("GET", "/api/rules/attributes", null).body();
        assertThat(attributes.valueStream().map(one -> one.path("name").asString() + " " + one.path("type").asString()))
                .contains("arch text", "ramGiB number", "ou dn", "software.version version", "lastSeen instant", "collection collection");
    }
}
