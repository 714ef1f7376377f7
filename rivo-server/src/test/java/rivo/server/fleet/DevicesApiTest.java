package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import rivo.server.TestDevice;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.change.Drafts;
import rivo.server.change.OuAssignment;
import rivo.server.change.Publishing;
import tools.jackson.databind.JsonNode;

/** The lists and searches. */
class DevicesApiTest extends ServerTest {

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
        server.bean(Drafts.class).put("test", OuAssignment.title("siltscope", server.ou("Coldwell Laboratory"), "required",
                false));
        Publishing publishing = server.bean(Publishing.class);
        publishing.publish("test", "for the tests", publishing.token("test"));
    }

    private static JsonNode get(String path) {
        return server.ask("GET", path, null).body();
    }

    private static List<String> names(JsonNode rows) {
        List<String> names = new ArrayList<>();
        rows.forEach(row -> names.add(row.path("name").asString()));
        return names;
    }

    @Test
    void theListGivesThePartThatIsAskedFor() {
        JsonNode page = get("/api/devices?offset=58&limit=10");
        assertThat(page.path("total").asInt()).isEqualTo(60);
        assertThat(page.path("rows").size()).isEqualTo(2);
        assertThat(get("/api/devices?limit=100000").path("rows").size()).isEqualTo(60);
        assertThat(get("/api/devices?offset=-5&limit=-1").path("rows").size()).isZero();
    }

    @Test
    void wordsNarrowByNameOuAndPerson() {
        assertThat(names(get("/api/devices?q=lab-001").path("rows"))).containsExactly("QB-LAB-001");
        assertThat(get("/api/devices?q=hartsmere%20chemistry").path("total").asInt()).isEqualTo(2);
        assertThat(get("/api/devices?q=imara").path("total").asInt()).isPositive();
        assertThat(get("/api/devices?q=nothing%20like%20it").path("total").asInt()).isZero();
    }

    @Test
    void aFigureOpensIntoTheDevicesItCounts() {
        JsonNode reach = get("/api/reach/siltscope");
        int required = reach.at("/totals/required").asInt();
        assertThat(get("/api/devices?title=siltscope&outcome=required").path("total").asInt()).isEqualTo(required)
                .isEqualTo(4);
        assertThat(get("/api/devices?title=siltscope&outcome=none").path("total").asInt()).isEqualTo(60 - required);
        assertThat(get("/api/devices?title=siltscope&outcome=required&ou=" + server.ou("Finance")).path("total")
                .asInt()).isZero();
    }

    @Test
    void devicesOfAnOuStandByName() {
        assertThat(names(get("/api/devices?ou=" + server.ou("Leakage crews")).path("rows"))).isSorted().hasSize(5);
    }

    @Test
    void aFilterThatNamesNothingIsRefused() {
        assertThat(server.ask("GET", "/api/devices?ou=moon", null).code()).isEqualTo("unknown-ou");
        assertThat(server.ask("GET", "/api/devices?title=moon&outcome=none", null).code()).isEqualTo("unknown-title");
        assertThat(server.ask("GET", "/api/devices?title=siltscope&outcome=odd", null).code())
                .isEqualTo("bad-outcome");
        assertThat(server.ask("GET", "/api/devices?offset=x", null).status()).isEqualTo(400);
    }

    @Test
    void theUnitsOfATitleAreEachInOneStateAndOpenIntoTheirDevices() {
        JsonNode counts = get("/api/titles/siltscope/states");
        assertThat(counts.path("units").asInt()).isEqualTo(60);
        int sum = 0;
        for (JsonNode one : counts.path("states")) {
            sum += one.path("count").asInt();
            assertThat(get("/api/devices?title=siltscope&stands=" + one.path("state").asString()).path("total").asInt())
                    .as(one.path("words").asString()).isEqualTo(one.path("count").asInt());
        }
        assertThat(sum).isEqualTo(60);
        JsonNode last = counts.path("states").get(counts.path("states").size() - 1);
        assertThat(last.path("state").asString()).as("what nobody decided of comes last").isEqualTo("nothing");
        JsonNode there = get("/api/titles/siltscope/states?ou=" + server.ou("Coldwell Laboratory"));
        assertThat(there.path("units").asInt()).isEqualTo(4);
        assertThat(there.path("states").valueStream().map(one -> one.path("state").asString())).doesNotContain("nothing");
    }

    @Test
    void whatADeviceSaysOfItsJobMovesItFromOneStateToAnother() {
        String name = get("/api/devices?ou=" + server.ou("Coldwell Laboratory")).path("rows").get(0).path("name").asString();
        TestDevice device = TestDevice.enrolled(server, name);
        String job = "\"title\":\"siltscope\",\"action\":\"install\",\"version\":\"4.2.0\",\"step\":1,\"steps\":4,\"percent\":0,\"message\":\"m\","
                + "\"at\":\"2026-11-23T08:00:00Z\"";
        device.report("{\"number\":1,\"progress\":[{" + job + ",\"state\":\"waiting\",\"waits\":{\"reason\":\"window\",\"until\":\"2026-11-24T22:00:00Z\"}}]}");
        assertThat(names(get("/api/devices?title=siltscope&stands=waits-window").path("rows"))).containsExactly(name);
        device.report("{\"number\":2,\"progress\":[{" + job + ",\"state\":\"running\",\"fetching\":{\"bytes\":1,\"all\":4}}]}");
        assertThat(names(get("/api/devices?title=siltscope&stands=fetching").path("rows"))).containsExactly(name);
        assertThat(get("/api/devices?title=siltscope&stands=waits-window").path("total").asInt()).isZero();
        assertThat(device.report("{\"number\":3,\"progress\":[{" + job + ",\"state\":\"waiting\",\"waits\":{}}]}").status()).isEqualTo(422);
        assertThat(device.report("{\"number\":3,\"progress\":[{" + job + ",\"state\":\"running\",\"fetching\":{\"bytes\":5,\"all\":4}}]}").status())
                .isEqualTo(422);
        assertThat(server.ask("GET", "/api/devices?title=siltscope&stands=odd", null).code()).isEqualTo("bad-state");
        assertThat(server.ask("GET", "/api/devices?stands=failed", null).code()).isEqualTo("missing");
        assertThat(server.ask("GET", "/api/titles/moon/states", null).status()).isEqualTo(404);
        assertThat(server.ask("GET", "/api/titles/siltscope/states?ou=moon", null).code()).isEqualTo("unknown-ou");
    }

    @Test
    void theStatesAddUpToTheFleet() {
        JsonNode counts = get("/api/fleet");
        int sum = 0;
        for (String state : List.of("underWay", "failed", "waiting", "idle", "notSeenLately", "never")) {
            sum += counts.path(state).asInt();
        }
        assertThat(sum).isEqualTo(counts.path("devices").asInt()).isEqualTo(60);
    }

    @Test
    void theListBeginsWithWhatFailedAndEndsWithWhoNeverCalled() {
        TestDevice failed = TestDevice.enrolled(server, "QB-LAB-003");
        TestDevice seen = TestDevice.enrolled(server, "QB-LAB-002");
        failed.report("{\"number\":1,\"progress\":[{\"title\":\"siltscope\",\"action\":\"install\",\"version\":\"4.2.0\",\"state\":\"failed\","
                + "\"step\":1,\"steps\":4,\"percent\":0,\"message\":\"no\",\"at\":\"2026-11-23T08:00:00Z\"}]}");
        seen.report("{\"number\":1}");
        JsonNode rows = get("/api/devices").path("rows");
        List<String> states = rows.valueStream().map(row -> row.path("state").asString()).toList();
        assertThat(rows.get(0).path("name").asString()).isEqualTo("QB-LAB-003");
        assertThat(states.get(0)).isEqualTo("failed");
        assertThat(states.lastIndexOf("failed")).isLessThan(states.indexOf("idle"));
        assertThat(states.lastIndexOf("idle")).isLessThan(states.indexOf("never"));
    }

    @Test
    void theListStandsInTheOrderThatIsAskedFor() {
        assertThat(names(get("/api/devices?order=name&limit=60").path("rows"))).isSorted();
        assertThat(names(get("/api/devices?order=-name&limit=60").path("rows"))).isSortedAccordingTo(Comparator.reverseOrder());
        List<String> people = get("/api/devices?order=person&limit=60").path("rows").valueStream()
                .map(row -> row.path("people").path(0).asString("")).toList();
        assertThat(people).isSorted();
        assertThat(people.get(0)).as("what has nobody comes first").isEmpty();
        TestDevice.enrolled(server, "QB-LAB-009").report("{\"number\":1}");
        assertThat(names(get("/api/devices?order=-last-seen&limit=1").path("rows"))).containsExactly("QB-LAB-009");
        assertThat(server.ask("GET", "/api/devices?order=odd", null).code()).isEqualTo("bad-order");
    }

    @Test
    void rowsAreGivenForThoseThatAreNamed() {
        JsonNode rows = get("/api/devices/rows?id=" + server.device("QB-LAB-002") + "&id=moon&id=" + server.device("QB-COR-001"));
        assertThat(names(rows)).containsExactly("QB-LAB-002", "QB-COR-001");
        String many = IntStream.range(0, 501).mapToObj(i -> "id=" + i).collect(Collectors.joining("&"));
        assertThat(server.ask("GET", "/api/devices/rows?" + many, null).code()).isEqualTo("too-many");
    }

    @Test
    void theWholeListIsThereForASpreadsheet() throws Exception {
        HttpResponse<String> answer = HttpClient.newHttpClient().send(HttpRequest.newBuilder(server.url()
                .resolve("/api/devices/csv?order=name&q=lab")).header("Cookie", server.cookieHeaders().split("\r\n")[0]
                        .substring("Cookie: ".length())).build(), HttpResponse.BodyHandlers.ofString());
        assertThat(answer.headers().firstValue("Content-Type").orElseThrow()).isEqualTo("text/csv;charset=UTF-8");
        assertThat(answer.headers().firstValue("Content-Disposition").orElseThrow()).contains("devices.csv");
        List<String> lines = answer.body().lines().toList();
        assertThat(lines.get(0)).isEqualTo("device,ou,people,state,doing,last seen");
        assertThat(lines).hasSize(1 + get("/api/devices?q=lab").path("total").asInt());
        assertThat(lines.get(1)).startsWith("QB-LAB-001,Laboratories › ");
    }

    @Test
    void aDeviceThatNeverCalledSaysSo() {
        JsonNode device = get("/api/devices/" + server.device("QB-LAB-012"));
        assertThat(device.path("enrolled").asBoolean()).isFalse();
        assertThat(device.at("/lines/0/line").asString()).isEqualTo("the device has never called in");
        JsonNode why = get("/api/devices/" + server.device("QB-LAB-012") + "/titles/siltscope");
        assertThat(why.path("sentence").asString()).contains("Coldwell Laboratory");
        assertThat(why.at("/rungs/0/verdict").asString()).isEqualTo("decides");
        assertThat(why.at("/releases/0/chosen").asBoolean()).isTrue();
        assertThat(why.at("/steps/0/state").asString()).isEqualTo("ahead");
    }

    @Test
    void aTokenIsMadeForADevice() {
        JsonNode token = server.ask("POST", "/api/devices/" + server.device("QB-COR-001") + "/token", Map.of()).body();
        assertThat(token.path("token").asString()).hasSizeGreaterThan(30);
    }

    @Test
    void theSearchFindsEveryKind() {
        JsonNode found = get("/api/search?q=lab");
        assertThat(found.path("titles").asInt()).isEqualTo(1);
        assertThat(found.path("ous").asInt()).isEqualTo(4);
        assertThat(found.path("devices").asInt()).isEqualTo(16);
        assertThat(found.path("hits").size()).isEqualTo(1 + 4 + 1 + 8);
        assertThat(found.path("groups").asInt()).isEqualTo(1);
        JsonNode imara = get("/api/search?q=imara");
        assertThat(imara.path("people").asInt()).isEqualTo(1);
        assertThat(imara.at("/hits/0/kind").asString()).isEqualTo("person");
        assertThat(imara.at("/hits/0/second").asString()).isEqualTo("imara.voss");
        assertThat(get("/api/search?q=zzz").path("hits").size()).isZero();
    }
}
