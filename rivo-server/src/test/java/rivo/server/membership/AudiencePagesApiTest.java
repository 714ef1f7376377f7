package rivo.server.membership;

import static org.assertj.core.api.Assertions.assertThat;

import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.Modification;
import com.unboundid.ldap.sdk.ModificationType;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Estate;
import rivo.core.estate.Target;
import rivo.server.TestDevice;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.TestClient.Answer;
import rivo.server.directory.DirectoryFollower;
import rivo.server.estate.CurrentSnapshot;
import tools.jackson.databind.JsonNode;

/** The audiences as a place, through the API. */
class AudiencePagesApiTest extends ServerTest {

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
    }

    @AfterEach
    void emptyTheDraft() {
        server.ask("DELETE", "/api/draft", null);
    }

    private static Estate estate() {
        return server.bean(CurrentSnapshot.class).now().estate();
    }

    private static String group(String name) {
        return "group:" + server.group(name);
    }

    private static String query(String path, String... parameters) {
        StringBuilder address = new StringBuilder("/api/audience" + path);
        for (int i = 0; i < parameters.length; i += 2) {
            address.append(i == 0 ? "?" : "&").append(parameters[i]).append('=').append(URLEncoder.encode(parameters[i + 1], StandardCharsets.UTF_8));
        }
        return address.toString();
    }

    private static JsonNode ask(String path, String... parameters) {
        Answer answer = server.ask("GET", query(path, parameters), null);
        assertThat(answer.status()).as(answer.body().toString()).isEqualTo(200);
        return answer.body();
    }

    private static JsonNode kind(JsonNode list, String kind) {
        return list.path("kinds").valueStream().filter(one -> one.path("kind").asString().equals(kind)).findFirst().orElseThrow();
    }

    private static JsonNode named(JsonNode list, String name) {
        return list.valueStream().filter(one -> one.path("name").asString().equals(name)).findFirst().orElseThrow();
    }

    private static List<String> strings(JsonNode list) {
        return list.valueStream().map(JsonNode::asString).toList();
    }

    @Test
    void everyAudienceIsListedByKindWithWhatIsOddAboutIt() {
        JsonNode list = ask("-list");
        assertThat(kind(list, "ou").path("total").asInt()).isEqualTo(estate().ous().size());
        assertThat(kind(list, "group").path("total").asInt()).isEqualTo(estate().groups().size());
        JsonNode groups = kind(list, "group").path("audiences");
        assertThat(strings(named(groups, "duty-engineers").path("oddities"))).containsExactly("only people");
        assertThat(strings(named(groups, "loan-pool").path("oddities"))).contains("only devices", "through reception-loans");
        assertThat(strings(named(groups, "bench-spares").path("oddities"))).contains("a circle: it and workshop-spares hold each other");
        assertThat(strings(named(kind(list, "ou").path("audiences"), "Archive").path("oddities"))).containsExactly("empty");
        assertThat(named(kind(list, "ou").path("audiences"), "Microbiology").path("where").asString()).isEqualTo("Laboratories › Hartsmere Laboratory");
        JsonNode narrowed = ask("-list", "q", "loan");
        assertThat(kind(narrowed, "group").path("audiences").valueStream().map(one -> one.path("name").asString())).containsExactly("loan-pool",
                "reception-loans");
        assertThat(kind(narrowed, "ou").path("total").asInt()).isZero();
    }

    @Test
    void aGroupSaysWhatItIsMadeOf() {
        JsonNode pool = ask("", "target", group("loan-pool"));
        JsonNode makeup = pool.path("makeup");
        assertThat(makeup.path("parts").valueStream().map(part -> part.path("name").asString())).containsExactly("reception-loans");
        int through = makeup.path("parts").get(0).path("devices").asInt();
        assertThat(pool.path("devices").asInt()).isEqualTo(through + makeup.path("listedDevices").asInt() - makeup.path("parts").get(0).path("alsoListed").asInt());
        assertThat(pool.path("spread").valueStream().mapToInt(part -> part.path("devices").asInt()).sum()).isEqualTo(pool.path("devices").asInt());
        JsonNode spares = ask("", "target", group("bench-spares")).path("makeup");
        assertThat(spares.path("circle").get(0).path("name").asString()).isEqualTo("workshop-spares");
        assertThat(spares.path("holders").get(0).path("name").asString()).isEqualTo("workshop-spares");
        assertThat(ask("", "target", group("contractors-pumping")).path("makeup").path("holders").get(0).path("name").asString())
                .isEqualTo("contractors-networks");
    }

    @Test
    void itsMembersSayHowTheyCameIn() {
        JsonNode devices = ask("/devices", "target", group("loan-pool"), "limit", "500");
        assertThat(devices.path("total").asInt()).isEqualTo(devices.path("members").size()).isPositive();
        assertThat(devices.path("members").valueStream().flatMap(one -> strings(one.path("ways")).stream()).distinct())
                .containsExactlyInAnyOrder("reception-loans", "listed here");
        assertThat(ask("/devices", "target", group("loan-pool"), "limit", "1").path("members").size()).isEqualTo(1);
        JsonNode people = ask("/people", "target", group("contractors-all"));
        assertThat(strings(people.path("members").get(0).path("ways"))).containsExactly("contractors-field › contractors-networks › contractors-pumping");
        Answer csv = server.ask("GET", query("/csv", "target", group("loan-pool")), null);
        assertThat(new String(csv.bytes(), StandardCharsets.UTF_8).lines().count()).isEqualTo(1 + devices.path("total").asInt());
        assertThat(new String(csv.bytes(), StandardCharsets.UTF_8)).startsWith("kind,name,ou,through").contains("reception-loans");
    }

    @Test
    void whoIsInAndHowIsAnsweredInASentenceAlsoWhenNot() {
        JsonNode member = ask("/devices", "target", group("reception-loans")).path("members").get(0);
        String device = "device:" + member.path("id").asString();
        String name = member.path("name").asString();
        JsonNode yes = ask("/membership", "target", group("loan-pool"), "of", device);
        assertThat(yes.path("in").asBoolean()).isTrue();
        assertThat(yes.path("sentence").asString()).isEqualTo("Yes. " + name + " is listed in reception-loans, which is in loan-pool.");
        JsonNode no = ask("/membership", "target", group("duty-engineers"), "of", device);
        assertThat(no.path("in").asBoolean()).isFalse();
        assertThat(no.path("sentence").asString()).startsWith("No: neither duty-engineers nor a group in it lists " + name + ". It is in ").contains("loan-pool");
        String labs = "ou:" + server.ou("Laboratories");
        String bench = "device:" + ask("/devices", "target", labs).path("members").get(0).path("id").asString();
        assertThat(ask("/membership", "target", labs, "of", bench).path("sentence").asString()).contains(" is in Laboratories › ");
        assertThat(ask("/membership", "target", "ou:" + server.ou("Customer"), "of", bench).path("sentence").asString())
                .startsWith("No: ").endsWith("which is not Customer or below it.");
        assertThat(ask("/membership", "target", "all-devices", "of", bench).path("in").asBoolean()).isTrue();
        assertThat(ask("/membership", "target", "all-users", "of", bench).path("in").asBoolean()).isFalse();
    }

    private static Answer putCollection(String id, String name, String rule) {
        return server.ask("PUT", "/api/draft/documents/collection/" + id, Map.of("revision", 0, "document", Map.of("id", id, "name", name, "rule", rule)));
    }

    @Test
    void aCollectionOfTheDraftIsLookedAtLikeAnyOther() {
        assertThat(putCollection("benches", "Benches", "name sw \"QB-LAB\" and not (name eq \"QB-LAB-002\")").status()).isEqualTo(200);
        assertThat(putCollection("both", "Both", "collection eq \"Benches\"").status()).isEqualTo(200);
        JsonNode listed = named(kind(ask("-list"), "collection").path("audiences"), "Benches");
        assertThat(listed.path("draft").asBoolean()).isTrue();
        JsonNode benches = ask("", "target", "collection:benches");
        assertThat(benches.path("devices").asInt()).isEqualTo(15);
        assertThat(benches.path("namedBy").get(0).path("name").asString()).isEqualTo("Both");
        assertThat(benches.path("waves")).isEmpty();
        server.ask("PUT", "/api/draft/documents/assignment/a-waved", Map.of("revision", 0, "document", Map.of("id", "a-waved", "subject", "title:siltscope",
                "intent", "required", "follows", "device", "include", List.of("all-devices"), "waves", List.of(Map.of("to", List.of("collection:benches"),
                        "open", true), Map.of("to", List.of(), "open", false)))));
        assertThat(ask("", "target", "collection:benches").path("waves").get(0).path("assignment").asString()).as("deleting it would change who is served")
                .isEqualTo("a-waved");
        assertThat(benches.path("collection").path("revision").asInt()).isZero();
        JsonNode no = ask("/membership", "target", "collection:benches", "of", "device:" + server.device("QB-LAB-002"));
        assertThat(no.path("sentence").asString()).startsWith("No: QB-LAB-002 does not satisfy the rule");
        assertThat(no.path("clauses").valueStream().map(one -> one.path("words").asString() + " " + one.path("good").asBoolean()))
                .containsExactly("name sw \"QB-LAB\" true", "name ne \"QB-LAB-002\" false");
        JsonNode yes = ask("/membership", "target", "collection:benches", "of", "device:" + server.device("QB-LAB-001"));
        assertThat(yes.path("sentence").asString()).isEqualTo("Yes: QB-LAB-001 satisfies the rule.");
        assertThat(yes.path("clauses").valueStream().allMatch(one -> one.path("good").asBoolean())).isTrue();
    }

    @Test
    void whatAnAudienceReceivesIsToldWithWhatDecides() {
        server.ask("PUT", "/api/draft/documents/assignment/a-loans", Map.of("revision", 0, "document", Map.of("id", "a-loans", "subject",
                "title:siltscope", "intent", "required", "follows", "device", "include", List.of(group("loan-pool")))));
        JsonNode titles = ask("/titles", "target", group("loan-pool"));
        assertThat(titles.size()).isEqualTo(1);
        assertThat(titles.get(0).path("titleName").asString()).isEqualTo("Siltscope Lab");
        assertThat(titles.get(0).path("outcomes").get(0).path("outcome").asString()).isEqualTo("required");
        assertThat(titles.get(0).path("rungs").get(0).path("targets").asString()).isEqualTo("loan-pool");
        assertThat(ask("", "target", group("loan-pool")).path("assigned").get(0).path("draft").asBoolean()).isTrue();
        assertThat(ask("/titles", "target", group("duty-engineers")).size()).isZero();
    }

    @Test
    void whoComesAndGoesIsTold() throws LDAPException {
        String device = server.device("QB-NET-001");
        String dn = server.directory().getEntry("cn=QB-NET-001,ou=Trunk mains,ou=Networks,dc=quillbrook,dc=example").getDN();
        String pool = "cn=reception-loans,ou=Groups,dc=quillbrook,dc=example";
        server.directory().modify(pool, new Modification(ModificationType.ADD, "member", dn));
        server.bean(DirectoryFollower.class).scanNow(false);
        JsonNode came = ask("/changes", "target", group("loan-pool")).path("changes").get(0);
        assertThat(came.path("member").asString()).isEqualTo(Target.device(device).toString());
        assertThat(came.path("came").asBoolean()).isTrue();
        assertThat(came.path("through").asString()).as("in a group that it holds").isEqualTo("reception-loans");
        server.directory().modify(pool, new Modification(ModificationType.DELETE, "member", dn));
        server.bean(DirectoryFollower.class).scanNow(false);
        assertThat(ask("/changes", "target", group("reception-loans")).path("changes").valueStream().map(one -> one.path("came").asBoolean()))
                .containsExactly(false, true);
    }

    private static List<String> changes(String target) {
        return ask("/changes", "target", target).path("changes").valueStream().map(one -> (one.path("came").asBoolean() ? "+ " : "- ")
                + one.path("name").asString() + " " + one.path("through").asString() + ": " + one.path("why").asString("")).toList();
    }

    @Test
    void whoMovesFromOneOuToAnotherIsToldWhereItMatters() throws LDAPException {
        String networks = "ou:" + server.ou("Networks");
        server.directory().modifyDN("cn=QB-NET-002,ou=Trunk mains,ou=Networks,dc=quillbrook,dc=example", "cn=QB-NET-002", true,
                "ou=Pumping,ou=Networks,dc=quillbrook,dc=example");
        server.bean(DirectoryFollower.class).scanNow(false);
        assertThat(changes("ou:" + server.ou("Pumping"))).first().isEqualTo("+ QB-NET-002 Pumping: moved from Trunk mains");
        assertThat(changes("ou:" + server.ou("Trunk mains"))).first().isEqualTo("- QB-NET-002 Trunk mains: moved to Pumping");
        assertThat(changes(networks)).as("it stays below it").noneMatch(one -> one.contains("QB-NET-002"));
        server.directory().modify("cn=QB-NET-002,ou=Pumping,ou=Networks,dc=quillbrook,dc=example",
                new Modification(ModificationType.REPLACE, "userAccountControl", "4098"));
        server.bean(DirectoryFollower.class).scanNow(false);
        assertThat(changes(networks)).first().isEqualTo("- QB-NET-002 Pumping: its account was disabled");
        assertThat(strings(ask("", "target", "ou:" + server.ou("Pumping")).path("oddities"))).contains("one computer's account is disabled");
    }

    @Test
    void accountsThatAreDisabledAndDevicesThatNeverCalledInAreSaid() throws LDAPException {
        JsonNode member = ask("/people", "target", group("duty-engineers")).path("members").get(0);
        assertThat(strings(member.path("unused"))).isEmpty();
        String dn = server.bean(JdbcClient.class).sql("select dn from users where id = ?").params(member.path("id").asString()).query(String.class).single();
        server.directory().modify(dn, new Modification(ModificationType.REPLACE, "userAccountControl", "514"));
        server.bean(DirectoryFollower.class).scanNow(false);
        JsonNode now = ask("/people", "target", group("duty-engineers")).path("members").valueStream()
                .filter(one -> one.path("id").equals(member.path("id"))).findFirst().orElseThrow();
        assertThat(strings(now.path("unused"))).containsExactly("account disabled");
        assertThat(strings(ask("", "target", group("duty-engineers")).path("oddities"))).contains("one person's account is disabled");
        assertThat(strings(ask("", "target", "ou:" + server.ou("Quillbrook Water")).path("oddities"))).as("somebody's was before").contains("2 people's accounts are disabled");
        server.directory().modify(dn, new Modification(ModificationType.REPLACE, "userAccountControl", "512"));
        server.bean(DirectoryFollower.class).scanNow(false);
        assertThat(strings(ask("", "target", group("duty-engineers")).path("oddities"))).doesNotContain("one person's account is disabled");

        String pool = group("loan-pool");
        assertThat(strings(ask("", "target", pool).path("oddities"))).contains("none of its devices has ever called in");
        JsonNode devices = ask("/devices", "target", pool).path("members");
        assertThat(strings(devices.get(0).path("unused"))).containsExactly("never called in");
        TestDevice.enrolled(server, devices.get(0).path("name").asString()).work();
        assertThat(strings(ask("/devices", "target", pool).path("members").get(0).path("unused"))).isEmpty();
        int rest = devices.size() - 1;
        assertThat(strings(ask("", "target", pool).path("oddities"))).contains(rest == 1 ? "one has never called in" : rest + " have never called in");
    }

    @Test
    void aCollectionTellsHowItDrainsAndWhy() {
        CollectionHistory history = server.bean(CollectionHistory.class);
        TestDevice device = TestDevice.enrolled(server, "QB-LAB-004");
        publish(Map.of("id", "c-small", "name", "Small", "rule", "ramGiB lt 8 and name sw \"QB-LAB\""), 0);
        history.look();
        assertThat(device.report("{\"number\":1,\"facts\":{\"ramGiB\":\"4\"}}").status()).isEqualTo(200);
        assertThat(ask("", "target", "collection:c-small").path("devices").asInt()).isEqualTo(1);
        history.look();
        device.report("{\"number\":2,\"facts\":{\"ramGiB\":\"16\"}}");
        history.look();
        history.look();
        assertThat(changes("collection:c-small")).containsExactly("- QB-LAB-004 Small: it asks for ramGiB lt 8, and it has 16",
                "+ QB-LAB-004 Small: until then it asks for ramGiB lt 8, and nothing is reported of that");
        assertThat(ask("/changes", "target", "collection:c-small").path("sizes").valueStream().map(one -> one.path("devices").asInt()))
                .containsExactly(0, 1, 0);
        publish(Map.of("id", "c-small", "name", "Small", "rule", "ramGiB gt 8 and name sw \"QB-LAB\""), 1);
        history.look();
        assertThat(changes("collection:c-small")).first().isEqualTo("+ QB-LAB-004 Small: the collection was edited");
    }

    private static void publish(Map<String, Object> collection, int revision) {
        Answer kept = server.ask("PUT", "/api/draft/documents/collection/" + collection.get("id"), Map.of("revision", revision, "document", collection));
        assertThat(kept.status()).as(kept.body().toString()).isEqualTo(200);
        assertThat(server.publish("collections").status()).isEqualTo(200);
    }

    @Test
    void whatThereIsNotIsSaidSo() {
        for (String target : List.of("group:moon", "ou:moon", "moon", "", "device:", "user:nobody")) {
            assertThat(server.ask("GET", query("", "target", target), null).code()).as(target).isEqualTo("unknown-audience");
        }
        assertThat(server.ask("GET", query("/membership", "target", group("loan-pool"), "of", group("loan-pool")), null).code()).isEqualTo("unknown-member");
        assertThat(server.ask("POST", "/api/audience/hosts", Map.of("text", "QB-LAB-001\nmoon")).body().path("matched").size()).isEqualTo(1);
    }

    @Test
    void aDeviceAndAPersonSayWhatTheyBelongTo() {
        JsonNode member = ask("/devices", "target", group("reception-loans")).path("members").get(0);
        JsonNode device = server.ask("GET", "/api/devices/" + member.path("id").asString() + "/belonging", null).body();
        assertThat(named(device.path("groups"), "loan-pool").path("ways").get(0).valueStream().map(JsonNode::asString)).containsExactly("loan-pool",
                "reception-loans");
        String person = estate().users().all().stream().filter(user -> user.name().equals("imara.voss")).findFirst().orElseThrow().id();
        server.ask("PUT", "/api/draft/documents/assignment/a-imara", Map.of("revision", 0, "document", Map.of("id", "a-imara", "subject",
                "title:siltscope", "intent", "required", "follows", "user", "include", List.of("user:" + person))));
        server.publish("for Imara");
        JsonNode imara = server.ask("GET", "/api/people/" + person, null).body();
        assertThat(imara.path("name").asString()).isEqualTo("Imara Voss");
        assertThat(imara.path("follows").get(0).path("through").asString()).isEqualTo("Imara Voss");
        assertThat(imara.path("devices").size()).isPositive();
        assertThat(imara.path("devices").get(0).path("titles").get(0).path("outcome").asString()).isEqualTo("required");
        assertThat(server.ask("GET", "/api/people/moon", null).code()).isEqualTo("unknown-person");
        assertThat(server.ask("GET", "/api/devices/moon/belonging", null).code()).isEqualTo("unknown-device");
    }
}
