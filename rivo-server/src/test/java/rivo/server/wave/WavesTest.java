package rivo.server.wave;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.server.TestClient.Answer;
import rivo.server.TestDevice;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import tools.jackson.databind.JsonNode;

/** Waves from the first device that has it to those that a rule opens and stops, through the API and the device protocol. */
class WavesTest extends ServerTest {

    private static final String SOFTWARE = "\"present\":[{\"title\":\"%s\",\"version\":\"4.2.0\"}]";
    private static final String JOB = "\"progress\":[{\"title\":\"%s\",\"action\":\"install\",\"version\":\"4.2.0\",\"state\":\"%s\",\"step\":1,"
            + "\"steps\":1,\"percent\":100,\"message\":\"exit code 5\",\"at\":\"2026-11-20T08:00:00Z\"}]";


    private static String device(String name) {
        return "device:" + server.device(name);
    }

    /** Publishes an assignment of a title of its own to four devices: the first two of them in the first wave, which is open. */
    private static void publish(String title, Map<String, Object> rollout, boolean second, int revision) {
        Map<String, Object> document = new HashMap<>(Map.of("id", "a-" + title, "subject", "title:" + title, "intent", "required", "follows", "device",
                "include", List.of(device("QB-LAB-001"), device("QB-LAB-002"), device("QB-LAB-003"), device("QB-LAB-004")),
                "binding", true, "waves", List.of(Map.of("to", List.of(device("QB-LAB-001"), device("QB-LAB-002")), "open", true),
                        Map.of("to", List.of(), "open", second))));
        document.put("rollout", rollout);
        Answer kept = server.ask("PUT", "/api/draft/documents/assignment/a-" + title, Map.of("revision", revision, "document", document));
        assertThat(kept.status()).as(kept.body().toString()).isEqualTo(200);
        assertThat(server.publish("waves of " + title).status()).isEqualTo(200);
    }

    private static JsonNode waves(String title) {
        return server.ask("GET", "/api/assignments/a-" + title + "/waves", null).body();
    }

    private static void rulesLook() {
        server.bean(WaveRules.class).look();
    }

    private static List<String> lastChange() {
        return server.bean(JdbcClient.class).sql("select who, reason from changes order by number desc fetch first row only")
                .query((row, n) -> List.of(row.getString("who"), row.getString("reason"))).single();
    }

    private static void report(TestDevice device, int number, String body) {
        Answer answer = device.report("{\"number\":" + number + "," + body + "}");
        assertThat(answer.status()).as(answer.body().toString()).isEqualTo(200);
    }

    @Test
    void theNextOpensByRuleWhenEnoughOfTheLastAreInPlaceAndThatIsOnRecord() {
        TestTitles.add(server, "wavescope", "Wave Scope");
        publish("wavescope", Map.of("opens", Map.of("inPlace", 100, "atLeast", 2)), false, 0);
        assertThat(waves("wavescope").at("/lanes/0/devices").asInt()).isEqualTo(2);
        assertThat(waves("wavescope").at("/lanes/1/devices").asInt()).isEqualTo(2);
        assertThat(waves("wavescope").at("/lanes/1/decided").asInt()).as("its wave is closed").isZero();
        TestDevice first = TestDevice.enrolled(server, "QB-LAB-001");
        report(first, 1, SOFTWARE.formatted("wavescope") + "," + JOB.formatted("wavescope", "done"));
        rulesLook();
        JsonNode one = waves("wavescope");
        assertThat(one.at("/next/kind").asString()).as("one is too few").isEqualTo("waits");
        assertThat(one.at("/lanes/0/inPlace").asInt()).isEqualTo(1);
        assertThat(one.at("/lanes/0/tried").asInt()).isEqualTo(1);
        assertThat(one.at("/lanes/0/calledIn").asInt()).isEqualTo(1);
        TestDevice second = TestDevice.enrolled(server, "QB-LAB-002");
        report(second, 1, SOFTWARE.formatted("wavescope"));
        assertThat(waves("wavescope").at("/lanes/0/tried").asInt()).as("it was there before").isEqualTo(1);
        rulesLook();
        assertThat(lastChange()).containsExactly("rule: waves", "Wave 2 opened: 2 of the 2 of wave 1 that have called in since are in place.");
        JsonNode open = waves("wavescope");
        assertThat(open.at("/next/kind").asString()).isEqualTo("all-open");
        assertThat(open.at("/lanes/1/decided").asInt()).isEqualTo(2);
        assertThat(server.ask("GET", "/api/assignments/a-wavescope", null).body().at("/document/rollout/lastOpened").isMissingNode()).isFalse();
        rulesLook();
        assertThat(server.ask("GET", "/api/assignments/a-wavescope", null).body().path("revision").asInt()).as("once").isEqualTo(2);
    }

    @Test
    void theyStopByRuleWhenTooManyFailAndNothingFurtherOpens() {
        TestTitles.add(server, "failscope", "Fail Scope");
        publish("failscope", Map.of("opens", Map.of("after", "P1D"), "stops", Map.of("failed", 10)), false, 0);
        TestDevice device = TestDevice.enrolled(server, "QB-LAB-003");
        report(device, 1, JOB.formatted("failscope", "failed"));
        rulesLook();
        assertThat(waves("failscope").at("/next/kind").asString()).as("it failed outside the open waves").isNotEqualTo("stopped");
        publish("failscope", Map.of("stops", Map.of("failed", 10)), true, revision("failscope"));
        assertThat(waves("failscope").at("/lanes/1/failed").asInt()).isEqualTo(1);
        rulesLook();
        assertThat(lastChange()).containsExactly("rule: waves", "Waves of title:failscope stopped: 1 of the 1 that tried have failed: more than 10 in 100.");
        assertThat(waves("failscope").at("/next/kind").asString()).isEqualTo("stopped");
    }

    @Test
    void aKitIsInPlaceWhenAllOfItIsAndARemovalWhenItHasGone() {
        TestTitles.add(server, "kitscope", "Kit Scope");
        TestTitles.add(server, "kitview", "Kit View");
        Answer kit = server.ask("PUT", "/api/draft/documents/kit/k-bench", Map.of("revision", 0, "document", Map.of("id", "k-bench", "name", "Bench",
                "description", "", "titles", List.of("kitscope", "kitview"))));
        assertThat(kit.status()).as(kit.body().toString()).isEqualTo(200);
        TestDevice device = TestDevice.enrolled(server, "QB-LAB-005");
        report(device, 1, SOFTWARE.formatted("kitscope"));
        assign("a-kit", "kit:k-bench", "required");
        assertThat(lane("a-kit")).as("of two titles one").isEqualTo("1 decided, 0 in place, 0 failed, 0 tried");
        report(device, 2, "\"present\":[{\"title\":\"kitscope\",\"version\":\"4.2.0\"},{\"title\":\"kitview\",\"version\":\"4.3\"}]");
        assertThat(lane("a-kit")).as("a newer one will do").isEqualTo("1 decided, 1 in place, 0 failed, 0 tried");
        report(device, 3, SOFTWARE.formatted("kitscope") + "," + JOB.formatted("kitview", "failed"));
        assertThat(lane("a-kit")).as("one failed").isEqualTo("1 decided, 0 in place, 1 failed, 1 tried");
        assign("a-kit-off", "title:kitscope", "uninstall");
        assertThat(lane("a-kit-off")).isEqualTo("1 decided, 0 in place, 0 failed, 0 tried");
        report(device, 4, "\"present\":[]");
        assertThat(lane("a-kit-off")).isEqualTo("1 decided, 1 in place, 0 failed, 0 tried");
        assertThat(lane("a-kit")).as("something stronger decides about one of its titles").isEqualTo("1 decided, 0 in place, 1 failed, 1 tried");
    }

    /** To one device, in one wave that is open; each stronger than the one before. */
    private static void assign(String id, String subject, String intent) {
        Answer kept = server.ask("PUT", "/api/draft/documents/assignment/" + id, Map.of("revision", 0, "document", Map.of("id", id, "subject", subject,
                "intent", intent, "follows", "device", "include", List.of(device("QB-LAB-005")), "binding", true, "priority", 500 + id.length(),
                "waves", List.of(Map.of("to", List.of(), "open", true)))));
        assertThat(kept.status()).as(kept.body().toString()).isEqualTo(200);
        assertThat(server.publish("waves of " + subject).status()).isEqualTo(200);
    }

    private static String lane(String assignment) {
        JsonNode lane = server.ask("GET", "/api/assignments/" + assignment + "/waves", null).body().at("/lanes/0");
        return lane.path("decided").asInt() + " decided, " + lane.path("inPlace").asInt() + " in place, " + lane.path("failed").asInt() + " failed, "
                + lane.path("tried").asInt() + " tried";
    }

    private static int revision(String title) {
        return server.ask("GET", "/api/assignments/a-" + title, null).body().path("revision").asInt();
    }

    @Test
    void whatIsStoppedByHandOpensNothingUntilItGoesOn() {
        TestTitles.add(server, "handscope", "Hand Scope");
        publish("handscope", Map.of("stopped", true), false, 0);
        assertThat(server.ask("POST", "/api/draft/wave-openings", Map.of("assignment", "a-handscope")).code()).isEqualTo("stopped");
        publish("handscope", Map.of(), false, 1);
        assertThat(server.ask("POST", "/api/draft/wave-openings", Map.of("assignment", "a-handscope")).status()).isEqualTo(200);
        assertThat(server.publish("go on").status()).isEqualTo(200);
        assertThat(waves("handscope").at("/next/kind").asString()).isEqualTo("all-open");
        assertThat(server.ask("GET", "/api/assignments/moon/waves", null).code()).isEqualTo("unknown-assignment");
    }
}
