package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.SearchScope;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.devices.protocol.ExitCode;
import rivo.devices.protocol.ExitMeaning;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.TestClient.Answer;
import rivo.server.TestDevice;
import rivo.server.TestServer;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.change.Drafts;
import rivo.server.change.OuAssignment;
import rivo.server.change.Publishing;
import rivo.server.directory.DirectoryFollower;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import tools.jackson.databind.JsonNode;

/** What is remembered of call-ins, and what a device is told to take off. */
class CallInsTest {

    private static final List<ExitCode> CODES = List.of(new ExitCode(0, ExitMeaning.DONE, 0));

    @TempDir
    private static Path data;
    private static TestServer server;
    private static TestDevice device;

    @BeforeAll
    static void start() throws IOException {
        server = TestServer.start(data).signIn();
        Contents.Content content = server.bean(Contents.class).keep(new ByteArrayInputStream(new byte[] {1}), "setup.bin");
        server.bean(Catalogue.class).put("test", TitleRecord.of("ladder", "Fish Ladder", "Fenwick Instruments", List.of(
                TitleRecord.ReleaseRecord.of("1.0", List.of(keeps(content), variant(content, "take-off-1"))),
                TitleRecord.ReleaseRecord.of("2.0", List.of(variant(content, "take-off-2"))),
                TitleRecord.ReleaseRecord.of("3.0", List.of(variant(content, "take-off-3"))))));
        device = TestDevice.enrolled(server, "QB-LAB-001");
    }

    private static TitleRecord.VariantRecord variant(Contents.Content content, String remove) {
        return new TitleRecord.VariantRecord("all", null, false, List.of(content), List.of(Step.run("Put it on", "setup", CODES)),
                List.of(Step.run("Take it off", remove, CODES)), List.of(), Presence.inventory("Fish Ladder"));
    }

    /** One that says nothing of how it is taken off. */
    private static TitleRecord.VariantRecord keeps(Contents.Content content) {
        return new TitleRecord.VariantRecord("stays", "arch eq \"none\"", false, List.of(content), List.of(Step.run("Put it on", "setup", CODES)),
                List.of(), List.of(), Presence.inventory("Fish Ladder"));
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static void publish(String intent) {
        server.bean(Drafts.class).put("test", OuAssignment.title("ladder", server.ou("Laboratories"), intent, false));
        Publishing publishing = server.bean(Publishing.class);
        publishing.publish("test", "for the tests", publishing.token("test"));
    }

    private static String removal(int number, String present) {
        assertThat(device.report("{\"number\":" + number + ",\"present\":[" + present + "]}").status()).isEqualTo(200);
        JsonNode job = device.work().body().path("jobs").path(0);
        assertThat(job.path("action").asString()).isEqualTo("remove");
        return job.path("steps").path(0).path("command").asString();
    }

    @Test
    void whatIsTakenOffGoesAsTheVersionThatIsThereSays() {
        publish("uninstall");
        assertThat(removal(1, "{\"title\":\"ladder\",\"version\":\"2.0.0\"}")).isEqualTo("take-off-2");
        assertThat(removal(2, "{\"title\":\"ladder\",\"version\":\"1.0\"}")).as("the first of its variants that says how").isEqualTo("take-off-1");
        assertThat(removal(3, "{\"title\":\"ladder\"}")).as("of unknown version: the first that can").isEqualTo("take-off-1");
        assertThat(removal(4, "{\"title\":\"ladder\",\"version\":\"9.9\"}")).as("of a version that is not kept").isEqualTo("take-off-1");
        publish("none");
    }

    @Test
    void theReleasesOfATitleAreSaidWithWhatBecameOfThem() {
        assertThat(releases()).as("nobody assigned it").containsExactly("3.0 false offered", "2.0 false offered", "1.0 false offered");
        publish("required");
        assertThat(releases()).containsExactly("3.0 true the newest that is offered, variant all", "2.0 false older", "1.0 false older");
        publish("none");
    }

    private static List<String> releases() {
        return server.ask("GET", "/api/devices/" + device.id + "/titles/ladder", null).body().path("releases").valueStream()
                .map(r -> r.path("version").asString() + " " + r.path("chosen").asBoolean() + " " + r.path("note").asString()).toList();
    }

    @Test
    void whenDevicesCalledInIsKeptOverARestartAndWrittenOnce() {
        Fleet fleet = server.bean(Fleet.class);
        device.work();
        Instant seen = fleet.of(now(), device.id).lastSeen();
        assertThat(row()).as("not with each call-in").isNotEqualTo(seen);
        fleet.writeCallIns();
        assertThat(row()).isCloseTo(seen, within(1, ChronoUnit.MILLIS));
        Fleet restarted = new Fleet(server.bean(ChangeWriter.class), server.bean(JdbcClient.class), Clock.systemUTC(), JobDurations.UNKNOWN);
        assertThat(restarted.of(now(), device.id).lastSeen()).isEqualTo(row());
        server.bean(JdbcClient.class).sql("update call_ins set at = ?").params(Rows.at(Instant.EPOCH)).update();
        fleet.writeCallIns();
        assertThat(row()).as("nobody called in since").isEqualTo(Instant.EPOCH);
    }

    private static Snapshot now() {
        return server.bean(CurrentSnapshot.class).now();
    }

    private static Instant row() {
        return server.bean(JdbcClient.class).sql("select at from call_ins where device = ?").params(device.id)
                .query((row, n) -> Rows.instant(row, "at")).optional().orElse(null);
    }

    @Test
    void aDeviceThatHasLeftTheDirectoryIsToldSoUntilItIsBack() throws LDAPException {
        String dn = server.directory().search(DemoOrganisation.BASE_DN, SearchScope.SUB, "(cn=QB-LAB-001)").getSearchEntries().get(0).getDN();
        Entry entry = server.directory().getEntry(dn, "*", "+").duplicate();
        server.directory().delete(dn);
        server.bean(DirectoryFollower.class).scanNow(true);
        Answer gone = device.work();
        assertThat(gone.status()).isEqualTo(410);
        assertThat(gone.code()).isEqualTo("device-gone");
        server.directory().add(entry);
        server.bean(DirectoryFollower.class).scanNow(true);
        assertThat(device.work().status()).isEqualTo(200);
    }
}
