package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Device;
import rivo.core.estate.Scope;
import rivo.core.estate.User;
import rivo.server.ServerTest;
import rivo.server.TestClient.Answer;
import rivo.server.TestDevice;
import rivo.server.TestTitles;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.SignIns;
import tools.jackson.databind.JsonNode;

/** Titles that each person has for themselves, from the assignment to what is reported, on devices that several people use. */
class TitlesForPeopleTest extends ServerTest {

    private static int next = 1;

    private TestDevice device;
    private long number;

    @BeforeAll
    static void titles() {
        server.signIn();
        TestTitles.add(server, "maps", "Maps", Scope.USER);
        TestTitles.add(server);
    }

    @BeforeEach
    void enrol() {
        device = TestDevice.enrolled(server, String.format("QB-NET-%03d", next++));
        number = 0;
    }

    private static Device known(TestDevice device) {
        return server.bean(CurrentSnapshot.class).now().estate().devices().find(device.id);
    }

    private static User somebodyElse(int place) {
        List<User> all = server.bean(CurrentSnapshot.class).now().estate().users().all();
        return all.get(all.size() - 1 - place);
    }

    private Answer report(String rest) {
        return device.report("{\"number\":" + ++number + "," + rest + "}");
    }

    private static String done(String title, String person, String action) {
        return "\"progress\":[{\"title\":\"" + title + "\"" + (person == null ? "" : ",\"person\":\"" + person + "\"") + ",\"action\":\"" + action + "\","
                + ("install".equals(action) ? "\"version\":\"4.2.0\"," : "") + "\"state\":\"done\",\"step\":4,\"steps\":4,\"percent\":100,\"message\":\"done\",\"at\":"
                + "\"2026-11-27T08:00:00Z\"}]";
    }

    private static String present(String title, String person) {
        return "\"present\":[{\"title\":\"" + title + "\",\"version\":\"4.2.0\"" + (person == null ? "" : ",\"person\":\"" + person + "\"") + "}]";
    }

    private static void assign(String id, String title, String follows, String target, String leaving) {
        edit("PUT", id, Map.of("revision", 0, "document", Map.of("id", id, "seq", 0, "subject", "title:" + title, "intent", "required", "follows",
                follows, "include", List.of(target), "leaving", leaving)));
    }

    private static void end(String id) {
        edit("DELETE", id + "?revision=1", null);
    }

    private static void edit(String method, String path, Object body) {
        assertThat(server.ask(method, "/api/draft/documents/assignment/" + path, body).status()).isLessThan(300);
        String token = server.ask("GET", "/api/draft", null).body().at("/rehearsal/token").asString();
        assertThat(server.ask("POST", "/api/draft/publication", Map.of("reason", "for the test", "token", token)).status()).isLessThan(300);
    }

    private List<String> jobs() {
        List<String> jobs = new ArrayList<>();
        for (JsonNode job : device.work().body().path("jobs")) {
            jobs.add(job.path("action").asString() + " " + job.path("title").asString() + " " + job.path("person").asString("-")
                    + (job.path("rest").asBoolean() ? " rest" : ""));
        }
        return jobs;
    }

    private JsonNode line(String title, String person) {
        for (JsonNode line : server.ask("GET", "/api/devices/" + device.id, null).body().path("lines")) {
            if (line.path("title").asString().equals(title) && line.path("person").asString("-").equals(person == null ? "-" : person)) {
                return line;
            }
        }
        return tools.jackson.databind.node.MissingNode.getInstance();
    }

    @Test
    void aDeviceThatDoesNotTellWhoSignsInIsToldNothingForPeople() {
        String owner = known(device).people().get(0);
        assign("old", "maps", "device", "device:" + device.id, "keep");
        assertThat(jobs()).isEmpty();
        assertThat(device.work().body().has("people")).isFalse();
        assertThat(device.work().body().path("checks").findValuesAsString("title")).contains("siltscope").doesNotContain("maps");
        assertThat(line("maps", owner).path("line").asString()).isEqualTo("the device does not tell who signs in; its agent is too old to serve people");
        report("\"signedIn\":[]");
        assertThat(jobs()).containsExactly("install maps " + owner);
        assertThat(device.work().body().path("personChecks").findValuesAsString("title")).containsExactly("maps");
        assertThat(device.work().body().path("people").get(0).path("id").asString()).isEqualTo(owner);
        assertThat(line("maps", owner).path("line").asString()).startsWith("waits for the next sign-in of ");
    }

    @Test
    void whoeverSignsInIsOneOfTheDevicesPeopleAndGetsTheirs() {
        User visitor = somebodyElse(1);
        String owner = known(device).people().get(0);
        assign("theirs", "maps", "user", "user:" + visitor.id(), "keep");
        report("\"signedIn\":[]");
        assertThat(jobs()).isEmpty();
        report("\"signedIn\":[\"" + visitor.name().toUpperCase(java.util.Locale.ROOT) + "\"]");
        assertThat(known(device).people()).containsExactly(owner, visitor.id());
        assertThat(jobs()).containsExactly("install maps " + visitor.id());
        assertThat(line("maps", visitor.id()).path("line").asString()).isEqualTo("at its next call-in");
        assertThat(server.ask("GET", "/api/devices/" + device.id, null).body().path("people").findValuesAsString("signedIn")).containsExactly("false", "true");

        JsonNode list = server.ask("GET", "/api/devices?title=maps&outcome=required&q=" + known(device).name(), null).body();
        assertThat(list.path("total").asInt() + " " + list.path("people").asInt()).as("of the two who use it one has it").isEqualTo("1 1");
        assertThat(server.ask("GET", "/api/devices?title=siltscope&outcome=required", null).body().has("people")).isFalse();

        report(present("maps", visitor.id()) + "," + done("maps", visitor.id(), "install"));
        assertThat(line("maps", visitor.id()).path("group").asString()).isEqualTo("in-place");
        JsonNode why = server.ask("GET", "/api/devices/" + device.id + "/titles/maps?person=" + visitor.id(), null).body();
        assertThat(why.path("log").get(0).path("message").asString()).isEqualTo("done");
        assertThat(server.ask("GET", "/api/devices/" + device.id + "/titles/maps", null).body().path("person").asString()).as("the first").isEqualTo(owner);
        assertThat(server.ask("GET", "/api/devices/" + device.id + "/titles/maps?person=" + somebodyElse(2).id(), null).status()).isEqualTo(404);
        assertThat(server.ask("GET", "/api/devices/" + device.id + "/titles/siltscope?person=" + owner, null).status()).isEqualTo(404);

        report("\"signedIn\":[]");
        server.bean(ForgottenSignIns.class).forget(Duration.ofDays(1));
        assertThat(known(device).people()).hasSize(2);
        server.bean(ForgottenSignIns.class).forget(Duration.ofHours(-1));
        assertThat(known(device).people()).as("a month later").containsExactly(owner);
        assertThat(jobs()).isEmpty();
    }

    @Test
    void whatIsInstalledUnderAnAssignmentGoesWithItWhereThatIsSaid() {
        String owner = known(device).people().get(0);
        report("\"signedIn\":[]");
        assign("leaving", "maps", "device", "device:" + device.id, "remove");
        assign("device-leaving", "siltscope", "device", "device:" + device.id, "remove");
        report("\"present\":[{\"title\":\"maps\",\"version\":\"4.2.0\",\"person\":\"" + owner + "\"},{\"title\":\"siltscope\",\"version\":\"4.2.0\"}],"
                + done("maps", owner, "install"));
        assertThat(known(device).present("maps", owner).by()).isEqualTo("leaving");
        assertThat(known(device).present("siltscope").by()).as("found, not installed by Rivo").isNull();
        report("\"present\":[{\"title\":\"maps\",\"version\":\"4.2.0\",\"person\":\"" + owner + "\"},{\"title\":\"siltscope\",\"version\":\"4.2.0\"}]");
        assertThat(known(device).present("maps", owner).by()).as("for as long as it is there").isEqualTo("leaving");
        end("leaving");
        end("device-leaving");
        assertThat(jobs()).containsExactly("remove maps " + owner);
        report("\"present\":[]," + done("maps", owner, "remove"));
        assertThat(jobs()).isEmpty();
    }

    @Test
    void theRestOfADevicesTitleIsAJobForEachPerson() {
        TitleRecord siltscope = server.bean(Catalogue.class).now().record("siltscope");
        TitleRecord.ReleaseRecord release = siltscope.releases().get(1);
        TitleRecord.VariantRecord all = release.variants().get(0);
        List<Step> install = List.of(all.install().get(0), Step.run("Put the profile in place", "setup --person", List.of()).atEachSignIn());
        server.bean(Catalogue.class).put("test", new TitleRecord("suite", "Suite", "", null, "device", null, null, null, List.of(release.withVariants(List.of(
                new TitleRecord.VariantRecord("all", null, false, all.contents(), install, all.remove(), List.of(), all.presence()))))));
        String owner = known(device).people().get(0);
        assign("suite", "suite", "device", "device:" + device.id, "keep");
        assertThat(jobs()).as("it does not tell who signs in").containsExactly("install suite -");
        report("\"signedIn\":[]");
        assertThat(jobs()).containsExactly("install suite -", "install suite " + owner + " rest");
        JsonNode jobs = device.work().body().path("jobs");
        assertThat(jobs.get(0).path("steps").findValuesAsString("text")).containsExactly("fetching siltscope-setup.bin", "checking its SHA-256",
                "Run the installer silently", "checking that it is installed");
        assertThat(jobs.get(1).path("steps").findValuesAsString("text")).containsExactly("fetching siltscope-setup.bin", "checking its SHA-256",
                "Put the profile in place");
        report(present("suite", null) + ",\"progress\":[" + waiting("suite", owner) + "]");
        assertThat(line("suite", null).path("state").asString()).isEqualTo("after-sign-in");
        assertThat(line("suite", null).path("line").asString()).startsWith("in place for the device; for ").endsWith(": waits for the next sign-in");
        report(done("suite", owner, "install"));
        assertThat(line("suite", null).path("state").asString()).isEqualTo("in-place");
        assertThat(line("suite", null).path("line").asString()).startsWith("required, ");
    }

    private static String waiting(String title, String person) {
        return "{\"title\":\"" + title + "\",\"person\":\"" + person + "\",\"action\":\"install\",\"version\":\"4.2.0\",\"state\":\"waiting\",\"step\":1,\"steps\":3,"
                + "\"percent\":0,\"message\":\"waits for the next sign-in\",\"at\":\"2026-11-27T08:00:00Z\"}";
    }

    @Test
    void whatCannotBeIsRefusedAndNothingOfItIsKept() {
        String owner = known(device).people().get(0);
        report("\"signedIn\":[]");
        Map<String, String> wrong = Map.of("\"signedIn\":[\"nobody.here\"]", "unknown-person", present("maps", null), "wrong-scope",
                present("siltscope", owner), "wrong-scope", present("maps", "nobody"), "unknown-person", done("maps", "nobody", "install"), "unknown-person", done("maps", null, "install"), "wrong-scope",
                "\"signedIn\":[null]", "null");
        wrong.forEach((report, code) -> {
            Answer answer = report(report);
            number--;
            assertThat(answer.status()).as(report).isBetween(400, 422);
            assertThat(answer.body().toString()).as(report).contains(code.equals("null") ? "signedIn" : code);
        });
        assertThat(known(device).present()).isEmpty();
        String stranger = somebodyElse(3).id();
        assertThat(report(present("maps", stranger) + "," + done("maps", stranger, "install")).status()).as("somebody who does not use it is passed over")
                .isEqualTo(200);
        assertThat(known(device).present()).isEmpty();
        assertThat(server.bean(CurrentSnapshot.class).now().get(DeviceParts.JOBS).get(device.id)).isNull();
        assertThat(server.bean(CurrentSnapshot.class).now().get(SignIns.PART).get(device.id).people()).isEmpty();
    }

    @Test
    void whatIsAssignedOrInstalledStaysForWhomItIs() {
        TestTitles.add(server, "fixed", "Fixed");
        TitleRecord fixed = server.bean(Catalogue.class).now().record("fixed");
        Map<String, Object> change = Map.of("revision", 2, "record", fixed.installedFor(Scope.USER));
        assertThat(server.ask("PUT", "/api/titles/fixed", Map.of("revision", 1, "record", fixed.installedFor(Scope.USER))).status()).as("nobody has it").isEqualTo(200);
        assertThat(server.ask("PUT", "/api/titles/fixed", Map.of("revision", 2, "record", fixed)).status()).isEqualTo(200);
        report("\"signedIn\":[]," + present("fixed", null));
        Answer answer = server.ask("PUT", "/api/titles/fixed", Map.of("revision", 3, "record", change.get("record")));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.body().toString()).contains("Fixed is installed on 1 device, so it stays installed for the device");
        assertThat(server.ask("PUT", "/api/titles/fixed", Map.of("revision", 3, "record", new TitleRecord("fixed", "Fixed", "", null, "robot", null, null, null,
                null))).body().toString()).contains("bad-scope");
    }
}
