package rivo.server.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.TestClient.Answer;
import rivo.server.window.WindowDocument;
import tools.jackson.databind.JsonNode;

/** Rehearsing an assignment while it is written. */
class AssignmentTrialApiTest extends ServerTest {

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
    }

    @AfterEach
    void emptyTheDraft() {
        server.ask("DELETE", "/api/draft", null);
    }

    private static String group(String name) {
        return "group:" + server.group(name);
    }

    private static String ou(String name) {
        return "ou:" + server.ou(name);
    }

    private static Map<String, Object> document(String id, Object... parts) {
        Map<String, Object> document = new HashMap<>(Map.of("id", id, "subject", "title:siltscope", "intent", "required", "follows", "device"));
        for (int i = 0; i < parts.length; i += 2) {
            document.put((String) parts[i], parts[i + 1]);
        }
        return document;
    }

    private static Map<String, Object> written(Map<String, Object> document) {
        return Map.of("id", Objects.requireNonNull(document.get("id")), "revision", 0, "document", document);
    }

    private static Answer attempt(Map<String, Object> document) {
        return server.ask("POST", "/api/assignments/trial", written(document));
    }

    private static JsonNode tried(Object... parts) {
        Answer answer = attempt(document("a-tried", parts));
        assertThat(answer.status()).as(answer.body().toString()).isEqualTo(200);
        return answer.body();
    }

    private static @Nullable Integer figure(JsonNode tried, String part) {
        return tried.path("figures").valueStream().filter(one -> one.path("part").asString().equals(part)).map(one -> one.path("n").asInt()).findFirst()
                .orElse(null);
    }

    private static void put(Map<String, Object> document) {
        Answer answer = server.ask("PUT", "/api/draft/documents/assignment/" + document.get("id"), Map.of("revision", 0, "document", document));
        assertThat(answer.status()).as(answer.body().toString()).isEqualTo(200);
    }

    @Test
    void itSaysWhomItMeansAndWhatTheyGain() {
        JsonNode tried = tried("include", List.of(ou("Hartsmere Laboratory")));
        assertThat(tried.path("devices").asInt()).isEqualTo(8);
        assertThat(tried.path("people").asInt()).isPositive();
        assertThat(figure(tried, "gains")).isEqualTo(8);
        assertThat(figure(tried, "already")).isNull();
        assertThat(tried.path("bytes").asLong()).isEqualTo(8L * TestTitles.INSTALLER.length);
        assertThat(tried.at("/releases/0/version").asString()).isEqualTo("4.2.0");
        assertThat(tried.at("/include/0/name").asString()).isEqualTo("Hartsmere Laboratory");
        assertThat(server.ask("GET", "/api/draft", null).body().path("edits").size()).as("nothing is kept").isZero();
    }

    @Test
    void theRestOfTheDraftCountsAsItIs() {
        put(document("a-there", "include", List.of(ou("Microbiology"))));
        JsonNode tried = tried("include", List.of(ou("Hartsmere Laboratory")));
        assertThat(figure(tried, "gains")).as("all but those of Microbiology").isEqualTo(4);
        assertThat(figure(tried, "stronger")).isEqualTo(4);
        JsonNode again = attempt(document("a-there", "include", List.of(ou("Microbiology")), "intent", "available")).body();
        assertThat(figure(again, "offered")).as("an edit of what the draft has is tried in its place").isEqualTo(4);
        JsonNode level = tried("include", List.of(ou("Microbiology")), "intent", "uninstall");
        assertThat(figure(level, "contested")).isEqualTo(4);
    }

    @Test
    void whatIsLeftOutIsCountedByWhatLeavesItOut() {
        JsonNode tried = tried("include", List.of(ou("Laboratories")), "exclude", List.of(ou("Microbiology"), ou("Finance")), "within",
                "name ne \"QB-LAB-016\"");
        assertThat(tried.at("/exclude/0/takes").asInt()).isEqualTo(4);
        assertThat(tried.at("/exclude/1/takes").asInt()).as("nobody of Finance is in the laboratories").isZero();
        assertThat(tried.path("leftOut").valueStream().map(one -> one.path("by").asString() + " " + one.path("n").asInt()))
                .containsExactlyInAnyOrder("narrowed 1", "excluded 4");
        JsonNode narrowed = tried("include", List.of(ou("Laboratories")), "base", server.ou("Finance"));
        assertThat(narrowed.path("devices").asInt()).as("a base outside the audience").isZero();
        assertThat(narrowed.at("/leftOut/0/by").asString()).isEqualTo("base");
        assertThat(narrowed.at("/leftOut/0/name").asString()).isEqualTo("Finance");
    }

    @Test
    void fencesAreNamedAndBindingCrossesThem() {
        server.ask("PUT", "/api/draft/documents/fence/" + server.ou("Microbiology"), Map.of("revision", 0, "document", Map.of("id", server.ou("Microbiology"))));
        JsonNode tried = tried("include", List.of(ou("Hartsmere Laboratory")));
        assertThat(tried.at("/leftOut/0/by").asString()).isEqualTo("fence");
        assertThat(tried.at("/leftOut/0/name").asString()).isEqualTo("Microbiology");
        assertThat(figure(tried, "gains")).isEqualTo(4);
        assertThat(figure(tried("include", List.of(ou("Hartsmere Laboratory")), "binding", true), "gains")).isEqualTo(8);
        Answer listed = server.ask("POST", "/api/assignments/trial/" + tried.at("/leftOut/0/part").asString(),
                written(document("a-tried", "include", List.of(ou("Hartsmere Laboratory")))));
        assertThat(listed.body().path("total").asInt()).isEqualTo(4);
        assertThat(listed.body().path("devices").valueStream().map(one -> one.path("ou").asString()).distinct()).containsExactly("Microbiology");
    }

    @Test
    void whatIsPausedOrBeginsLaterDecidesNothingYet() {
        JsonNode paused = tried("include", List.of(ou("Microbiology")), "state", "paused");
        assertThat(paused.path("devices").asInt()).as("whom it means is told all the same").isEqualTo(4);
        assertThat(figure(paused, "gains")).isNull();
        assertThat(figure(paused, "stronger")).isNull();
        JsonNode later = tried("include", List.of(ou("Microbiology")), "from", Instant.now().plus(1, ChronoUnit.DAYS).truncatedTo(ChronoUnit.SECONDS).toString());
        assertThat(figure(later, "gains")).isNull();
        assertThat(figure(later, "stronger")).isNull();
    }

    @Test
    void wavesAreCountedAndNamed() {
        JsonNode tried = tried("include", List.of(ou("Laboratories")), "waves", List.of(Map.of("to", List.of(ou("Microbiology")), "open", true),
                Map.of("share", 50, "open", false), Map.of("to", List.of(), "open", false)));
        assertThat(tried.path("waves").size()).isEqualTo(3);
        assertThat(tried.at("/waves/0/n").asInt()).isEqualTo(4);
        assertThat(tried.at("/waves/0/to/0/name").asString()).isEqualTo("Microbiology");
        assertThat(tried.path("waves").valueStream().mapToInt(one -> one.path("n").asInt()).sum()).isEqualTo(tried.path("devices").asInt());
        assertThat(figure(tried, "gains")).isEqualTo(4);
        assertThat(figure(tried, "later")).isEqualTo(tried.path("devices").asInt() - 4);
    }

    @Test
    void whoHasNoWindowBeforeTheDeadlineIsCounted() {
        server.ask("PUT", "/api/windows/never-soon", new WindowDocument("never-soon", "Never soon", "name sw \"QB-LAB\"",
                List.of(Instant.now().atZone(ZoneId.systemDefault()).getDayOfWeek().minus(2)), "03:00", 60));
        try {
            String soon = Instant.now().plus(1, ChronoUnit.DAYS).truncatedTo(ChronoUnit.SECONDS).toString();
            JsonNode tried = tried("include", List.of(ou("Hartsmere Laboratory"), ou("Finance")), "deadline", Map.of("at", soon));
            assertThat(figure(tried, "late")).as("those of Finance have no windows").isEqualTo(8);
            assertThat(tried.at("/late/0").asString()).isEqualTo("Never soon");
            String afterAWeek = Instant.now().plus(8, ChronoUnit.DAYS).truncatedTo(ChronoUnit.SECONDS).toString();
            assertThat(figure(tried("include", List.of(ou("Hartsmere Laboratory")), "deadline", Map.of("at", afterAWeek)), "late")).isNull();
            assertThat(figure(tried("include", List.of(ou("Hartsmere Laboratory")), "deadline", Map.of("at", soon), "windows", "ignore"), "late")).isNull();
            assertThat(figure(tried("include", List.of(ou("Hartsmere Laboratory")), "deadline", Map.of("local", "2020-01-01T00:00")), "late"))
                    .as("long past").isEqualTo(8);
        } finally {
            server.ask("DELETE", "/api/windows/never-soon", null);
        }
    }

    @Test
    void whatFollowsPeopleReachesTheirDevices() {
        JsonNode tried = tried("include", List.of(group("lab-analysts")), "follows", "user");
        assertThat(tried.at("/include/0/devices").asInt()).isZero();
        assertThat(tried.at("/include/0/people").asInt()).isPositive();
        assertThat(tried.path("devices").asInt()).isPositive();
        JsonNode nobody = tried("include", List.of(group("lab-analysts")));
        assertThat(nobody.path("devices").asInt()).as("it holds people only").isZero();
    }

    @Test
    void aKitIsTriedWithAllItsTitles() {
        TestTitles.add(server, "graphkit", "Graphkit runtime");
        server.ask("PUT", "/api/kits/bench", Map.of("revision", 0, "kit", Map.of("id", "bench", "name", "Bench", "description", "", "titles",
                List.of("graphkit", "siltscope"))));
        Map<String, Object> document = document("a-kit", "include", List.of(ou("Hartsmere Laboratory")));
        document.put("subject", "kit:bench");
        JsonNode tried = attempt(document).body();
        assertThat(figure(tried, "gains")).isEqualTo(16);
        assertThat(figure(tried, "served")).as("the audience is the same for each").isEqualTo(8);
        assertThat(server.ask("POST", "/api/assignments/trial/served", written(document)).body().path("total").asInt()).isEqualTo(8);
        assertThat(tried.path("releases").size()).as("of several titles none is told").isZero();
    }

    @Test
    void severalTitlesAreAssignedAlikeInOneStep() {
        TestTitles.add(server, "graphkit", "Graphkit runtime");
        Map<String, Object> body = Map.of("id", "a-several", "revision", 0, "document", document("a-several", "include", List.of(ou("Microbiology")),
                "release", "=4.1.0", "priority", 700), "also", List.of("title:graphkit"));
        JsonNode tried = server.ask("POST", "/api/assignments/trial", body).body();
        assertThat(figure(tried, "gains")).isEqualTo(8);
        assertThat(server.ask("POST", "/api/assignments/trial/gains", body).body().path("total").asInt()).isEqualTo(8);
        Answer draft = server.ask("PUT", "/api/draft/assignments", body);
        assertThat(draft.body().path("edits").valueStream().map(edit -> edit.path("name").asString())).containsExactly("Siltscope Lab", "Graphkit runtime");
        JsonNode other = server.ask("GET", "/api/draft/documents/assignment/a-several-2", null).body().path("document");
        assertThat(other.path("priority").asInt()).isEqualTo(700);
        assertThat(other.path("release").isMissingNode()).as("it is held to a release of the first only").isTrue();
        assertThat(server.ask("POST", "/api/draft/undo", null).body().path("edits").size()).as("one step").isZero();
        assertThat(server.ask("PUT", "/api/draft/assignments", Map.of("id", "a-several", "revision", 0, "document", document("a-several", "include",
                List.of(ou("Microbiology"))), "also", List.of("title:moon"))).status()).isEqualTo(422);
        assertThat(server.ask("GET", "/api/draft", null).body().path("edits").size()).as("none of them then").isZero();
    }

    @Test
    void whatMakesNoSenseIsRefusedWithItsPlace() {
        assertThat(attempt(document("a-tried", "include", List.of("group:moon"))).status()).isEqualTo(422);
        Answer kind = attempt(document("a-tried", "include", List.of("user:x"), "follows", "device"));
        assertThat(kind.status()).isEqualTo(422);
        assertThat(kind.body().at("/problems/0/place").asString()).contains("include");
        Answer share = attempt(document("a-tried", "include", List.of(ou("Finance")), "waves", List.of(Map.of("share", 101, "open", true))));
        assertThat(share.body().at("/problems/0/place").asString()).contains("waves[0].share");
        Answer deadline = attempt(document("a-tried", "include", List.of(ou("Finance")), "from", "2026-12-05T00:00:00Z", "deadline",
                Map.of("at", "2026-12-04T00:00:00Z")));
        assertThat(deadline.code()).isEqualTo("bad-deadline");
        assertThat(attempt(document("a-tried", "include", List.of(ou("Finance")), "within", "arch eq")).body().at("/problems/0/place").asString())
                .contains("within");
        assertThat(attempt(document("a-tried", "include", List.of(ou("Finance")), "moon", 1)).body().path("detail").asString())
                .contains("moon is not known").doesNotContain("rivo.server");
        assertThat(attempt(document("a-tried", "include", List.of(ou("Finance")), "from", "2026-12-05T00:00:00Z", "deadline",
                Map.of("at", "2026-12-04T00:00:00Z"), "state", "retired")).status()).as("what says so already can be ended").isEqualTo(200);
        Answer part = server.ask("POST", "/api/assignments/trial/moon", written(document("a-tried", "include", List.of(ou("Finance")))));
        assertThat(part.code()).isEqualTo("bad-part");
        Answer all = attempt(document("a-tried", "include", List.of(ou("Finance")), "exclude", List.of("all-devices")));
        assertThat(all.body().path("devices").asInt()).as("excluding everybody").isZero();
    }

    @Test
    void aDocumentIsEditedAsTheDraftHasIt() {
        assertThat(server.ask("GET", "/api/draft/documents/assignment/a-there", null).code()).isEqualTo("unknown-assignment");
        put(document("a-there", "include", List.of(ou("Microbiology")), "note", "mine"));
        JsonNode edited = server.ask("GET", "/api/draft/documents/assignment/a-there", null).body();
        assertThat(edited.path("revision").asInt()).isZero();
        assertThat(edited.at("/document/note").asString()).isEqualTo("mine");
        server.publish("there");
        assertThat(server.ask("GET", "/api/draft/documents/assignment/a-there", null).body().path("revision").asInt()).isEqualTo(1);
        server.ask("DELETE", "/api/draft/documents/assignment/a-there?revision=1", null);
        server.publish("gone");
    }
}
