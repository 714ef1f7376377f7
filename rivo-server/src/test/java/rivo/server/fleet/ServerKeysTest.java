package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.MessageKey;
import rivo.server.ServerSettings;
import rivo.server.TestDevice;
import rivo.server.TestClient.Answer;
import rivo.server.TestServer;
import rivo.server.estate.ChangeWriter;

/** The server's own key: where it lies, and how another takes its place. */
class ServerKeysTest {

    @TempDir
    private Path data;

    private static ServerSettings with(Path data, String key) {
        ServerSettings plain = ServerSettings.at(data);
        return new ServerSettings(data, plain.callInEvery(), key, false, false, plain.clientPatience(), plain.reports(), null, null, null);
    }

    @Test
    void theFirstStartMakesOneAndTheNextFindsIt() throws IOException {
        String first = new ServerKeys(ServerSettings.at(data)).current().publicKey();
        assertThat(new ServerKeys(ServerSettings.at(data)).current().publicKey()).isEqualTo(first);
        assertThat(data.resolve("keys/server-1.key")).isRegularFile();
    }

    @Test
    void theEnvironmentsKeyIsTheCurrentOne() throws IOException {
        AgreementKey own = AgreementKey.random();
        assertThat(new ServerKeys(with(data, own.secretText())).current().publicKey()).isEqualTo(own.publicKey());
        assertThat(data.resolve("keys")).as("then none lies there").isEmptyDirectory();
        assertThatThrownBy(() -> new ServerKeys(with(data, "short"))).hasMessageContaining("RIVO_SERVER_KEY");
    }

    @Test
    void aDamagedKeyStopsTheStartRatherThanBeingReplaced() throws IOException {
        new ServerKeys(ServerSettings.at(data));
        Files.writeString(data.resolve("keys/server-1.key"), "AAAA");
        assertThatThrownBy(() -> new ServerKeys(ServerSettings.at(data))).hasMessageContaining("Put it back from a copy");
    }

    /** Rolled over: a device is told by the key it knows, follows, and goes on when the earlier key has been deleted. */
    @Test
    void devicesFollowToANewKeyAndTheEarlierOneCanGo() throws IOException {
        TestDevice device;
        TestDevice late;
        try (TestServer server = TestServer.start(data)) {
            device = TestDevice.enrolled(server, "QB-LAB-001");
            late = TestDevice.enrolled(server, "QB-LAB-002");
        }
        ServerKeys.makeNext(data);
        String earlier = device.serverKey;
        try (TestServer server = TestServer.start(data)) {
            device = device.at(server.url());
            Answer told = device.work();
            assertThat(told.status()).as("the earlier key still counts").isEqualTo(200);
            device.serverKey = told.body().path("serverKey").asString();
            assertThat(device.serverKey).isNotEqualTo(earlier).hasSize(AgreementKey.TEXT_LENGTH);
            assertThat(server.bean(Enrolments.class).withEarlierKey()).isEqualTo(2);
            Answer followed = device.work();
            assertThat(followed.status()).isEqualTo(200);
            assertThat(followed.body().has("serverKey")).as("nothing more to tell").isFalse();
            assertThat(server.bean(Enrolments.class).withEarlierKey()).isEqualTo(1);
            assertThat(TestDevice.withToken(server, "QB-LAB-003").serverKey).as("tokens carry the current one").isEqualTo(device.serverKey);
        }
        Files.delete(data.resolve("keys/server-1.key"));
        try (TestServer server = TestServer.start(data)) {
            assertThat(device.at(server.url()).work().status()).isEqualTo(200);
            assertThat(late.at(server.url()).work().code()).as("it has not followed in time").isEqualTo("bad-signature");
        }
    }

    @Test
    void whoFollowsWhileNoChangeIsTakenIsToldToComeAgain() throws IOException {
        TestDevice device;
        try (TestServer server = TestServer.start(data)) {
            device = TestDevice.enrolled(server, "QB-LAB-001");
        }
        ServerKeys.makeNext(data);
        try (TestServer server = TestServer.start(data)) {
            device = device.at(server.url());
            device.serverKey = device.work().body().path("serverKey").asString();
            server.bean(ChangeWriter.class).memoryRanOut();
            Answer answer = device.ask("GET", "/device/v2/work", null, Map.of("If-None-Match", "\"told before\""));
            assertThat(answer.status()).isEqualTo(503);
            assertThat(answer.code()).isNotEmpty();
        }
    }

    /** Whoever has the whole database, and nothing else, speaks for nobody. */
    @Test
    void aCopyOfTheDatabaseSpeaksForNobody() throws IOException {
        TestDevice device;
        try (TestServer server = TestServer.start(data)) {
            device = TestDevice.enrolled(server, "QB-LAB-001");
            AgreementKey stranger = AgreementKey.random();
            TestDevice forged = device.withKey(stranger);
            assertThat(forged.work().code()).isEqualTo("bad-signature");
            MessageKey guessed = MessageKey.ofServer(stranger, device.key.publicKey());
            assertThat(device.send(device.signed("/device/v2/work", "GET", "/device/v2/work", null, guessed, device.keyId()).build()).code())
                    .isEqualTo("bad-signature");
        }
        byte[] database = Files.readAllBytes(data.resolve("rivo.mv.db"));
        String text = new String(database, java.nio.charset.StandardCharsets.ISO_8859_1);
        String server = Files.readString(data.resolve("keys/server-1.key")).strip();
        assertThat(List.of(device.key.secretText(), server)).noneMatch(text::contains);
        assertThat(text).as("what it does hold").contains(device.key.publicKey());
    }
}
