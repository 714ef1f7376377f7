package rivo.server.shelf;

import static org.assertj.core.api.Assertions.assertThat;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import rivo.core.estate.Device;
import rivo.core.estate.Scope;
import rivo.core.estate.User;
import rivo.server.ServerTest;
import rivo.server.TestClient;
import rivo.server.TestClient.Answer;
import rivo.server.TestDevice;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.estate.CurrentSnapshot;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.MissingNode;

/** Somebody at their shelf, on a computer of theirs that speaks for itself, and a title of its own for each test. */
public abstract class ShelfWalk extends ServerTest {

    protected static final String PERSON = "mirko.colddale";
    protected static TestDevice device;
    protected static String person;
    private static long number;
    private static int next;

    protected TestClient own;
    protected String title;

    @BeforeAll
    static void prepare() {
        server.signIn();
        Device one = server.bean(CurrentSnapshot.class).now().estate().devices().all().stream().filter(d -> d.people().contains(user(PERSON).id()))
                .findFirst().orElseThrow();
        device = TestDevice.enrolled(server, one.name());
        person = user(PERSON).id();
        report("\"signedIn\":[\"" + PERSON + "\"]");
    }

    protected static User user(String account) {
        return server.bean(CurrentSnapshot.class).now().estate().users().all().stream().filter(u -> u.name().equals(account)).findFirst().orElseThrow();
    }

    @BeforeEach
    void signIn() {
        own = new TestClient(server.url());
        assertThat(enter(own, PERSON, TestServer.PASSWORD).status()).isEqualTo(200);
        title = "offered-" + ++next;
    }

    protected static Answer enter(TestClient client, String account, String password) {
        return client.ask("POST", "/api/shelf/session", Map.of("account", account, "password", password));
    }

    protected static void report(String rest) {
        assertThat(device.report("{\"number\":" + ++number + "," + rest + "}").status()).isEqualTo(200);
    }

    protected void offer(Scope scope) {
        TestTitles.add(server, title, "Offered " + title, scope);
        assign("available", Map.of());
    }

    protected void assign(String intent, Map<String, Object> more) {
        Map<String, Object> document = new HashMap<>(Map.of("id", title, "seq", 0, "subject", "title:" + title, "intent", intent, "follows", "device", "include",
                List.of("device:" + device.id)));
        document.putAll(more);
        assertThat(server.ask("PUT", "/api/draft/documents/assignment/" + title, Map.of("revision", 0, "document", document)).status()).isEqualTo(200);
        assertThat(server.publish("a test").status()).isEqualTo(200);
    }

    protected JsonNode offered() {
        return own.ask("GET", "/api/shelf").body().path("offers").valueStream().filter(one -> one.path("title").asString().equals(title)).findFirst()
                .orElse(MissingNode.getInstance());
    }

    protected String lineOnDevice() {
        return server.ask("GET", "/api/devices/" + device.id, null).body().path("lines").valueStream()
                .filter(one -> one.path("title").asString().equals(title)).findFirst().orElseThrow().path("line").asString();
    }

    protected static String nameOfDevice() {
        return server.bean(CurrentSnapshot.class).now().estate().devices().find(device.id).name();
    }

    protected Answer take(Map<String, Object> saying) {
        return own.ask("PUT", "/api/shelf/on/" + device.id + "/" + title, saying);
    }

    protected void asks(boolean approval, String licence) {
        Catalogue catalogue = server.bean(Catalogue.class);
        TitleRecord now = catalogue.now().record(title);
        TitleRecord.About about = new TitleRecord.About("", "", "", "", "", "", "", "", licence);
        catalogue.put("test", new TitleRecord(now.id(), now.name(), now.maker(), about, now.scope(), null, new TitleRecord.Asks(approval, !licence.isEmpty()),
                List.of(), List.of(), now.releases()));
    }

    protected JsonNode request() {
        return server.ask("GET", "/api/requests?title=" + title, null).body().path("rows").path(0);
    }

    protected Answer answer(Map<String, Object> said) {
        Map<String, Object> body = new HashMap<>(said);
        body.put("id", request().path("id").asString("none"));
        return server.ask("POST", "/api/requests/answer", body);
    }

    protected Answer take() {
        return own.ask("PUT", "/api/shelf/on/" + device.id + "/" + title);
    }

    protected Answer giveBack() {
        return own.ask("DELETE", "/api/shelf/on/" + device.id + "/" + title);
    }

    protected List<String> jobs() {
        return device.work().body().path("jobs").valueStream().filter(job -> job.path("title").asString().equals(title))
                .map(job -> job.path("action").asString() + " " + job.path("person").asString("-")).toList();
    }

    protected String done(String action) {
        return "\"progress\":[{\"title\":\"" + title + "\",\"action\":\"" + action + "\"," + ("install".equals(action) ? "\"version\":\"4.2.0\"," : "")
                + "\"state\":\"done\",\"step\":4,\"steps\":4,\"percent\":100,\"message\":\"done\",\"at\":\"2026-11-27T08:00:00Z\"}]";
    }

    protected void require(Map<String, Object> more) {
        TestTitles.add(server, title, "Required " + title, Scope.DEVICE);
        assign("required", more);
    }

    protected JsonNode coming() {
        return own.ask("GET", "/api/shelf").body().path("coming").valueStream().filter(one -> one.path("title").asString().equals(title)).findFirst()
                .orElse(MissingNode.getInstance());
    }

    protected String anyTimeFrom() {
        return device.work().body().path("jobs").valueStream().filter(job -> job.path("title").asString().equals(title)).findFirst().orElseThrow()
                .path("anyTimeFrom").asString("-");
    }
}
