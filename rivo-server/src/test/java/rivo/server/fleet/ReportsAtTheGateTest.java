package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.KeyId;
import rivo.server.ServerTest;
import rivo.server.TestClient.Answer;
import rivo.server.TestDevice;
import rivo.server.TestTitles;

/** A report is answered the same by the gate, and by the handler that is asked for whatever says which form of answer it wants. */
class ReportsAtTheGateTest extends ServerTest {

    private static final String PATH = "/device/v2/reports";
    /** Each of the two reports the same of itself. */
    private static TestDevice atTheGate;
    private static TestDevice byTheHandler;

    @BeforeAll
    static void enrol() {
        TestTitles.add(server);
        atTheGate = TestDevice.enrolled(server, "QB-LAB-001");
        byTheHandler = TestDevice.enrolled(server, "QB-LAB-002");
    }

    private static HttpRequest.Builder report(TestDevice device, byte[] body, KeyId as) {
        return device.signed(PATH, "POST", PATH, body, device.messageKey(), as);
    }

    private static void bothSayTheSame(byte[] body, UnaryOperator<HttpRequest.Builder> more) {
        HttpRequest gate = more.apply(report(atTheGate, body, atTheGate.keyId())).build();
        HttpRequest handler = more.apply(report(byTheHandler, body, byTheHandler.keyId())).header("Accept", "application/json, application/problem+json").build();
        Answer one = atTheGate.send(gate);
        Answer other = byTheHandler.send(handler);
        assertThat(one.status()).isEqualTo(other.status());
        assertThat(one.bytes()).asString().isEqualTo(new String(other.bytes(), StandardCharsets.UTF_8));
        assertThat(one.header("Content-Type")).isEqualTo(other.header("Content-Type"));
        assertThat(one.header("Retry-After")).isEqualTo(other.header("Retry-After"));
        assertThat(atTheGate.isSigned(one, gate.headers().firstValue("Signature").orElseThrow()))
                .isEqualTo(byTheHandler.isSigned(other, handler.headers().firstValue("Signature").orElseThrow()));
    }

    @ParameterizedTest
    @ValueSource(strings = {"{\"number\":1}", "{\"number\":1}", "{\"number\":0}", "{\"number\":5,\"facts\":{\"x.a\":\"1\"}}", "{\"number\":2000000}", "{\"number\":6,\"facts\":{\"no such\":\"1\"}}",
        "{\"number\":7,\"present\":[{\"title\":\"nothing\"}]}", "{\"number\":8,\"progress\":[null]}", "{\"number\":9,\"facts\":{\"x.a\":null}}", "{\"number\":10,\"facts\":{\"x.a\":\"\\u0000\"}}",
        "{\"number\":11,\"progress\":[{\"title\":\"siltscope\",\"action\":\"install\",\"state\":\"running\",\"step\":1,\"steps\":2,\"percent\":3,\"message\":\"at work\",\"at\":\"2026-11-23T08:00:00Z\"}]}",
        "{\"number\":12,\"progress\":[{\"title\":\"siltscope\",\"action\":\"install\",\"state\":\"running\",\"step\":1,\"steps\":2,\"percent\":3,\"message\":\"at work\",\"at\":\"yesterday\"}]}",
        "{\"number\":13,\"signedIn\":[\"nobody.here\"]}", "{\"number\":14", "{\"number\":15} x", "[]", "null", "7", "{\"number\":\"many\"}", "{\"number\":16,\"unknown\":1}", "{}"})
    void whateverIsReported(String body) {
        bothSayTheSame(body.getBytes(StandardCharsets.UTF_8), request -> request);
    }

    @Test
    void bytesThatAreNoText() {
        bothSayTheSame(new byte[] {'{', '"', (byte) 0xff, '"', ':', '1', '}'}, request -> request);
        bothSayTheSame("{\"number\":1}".getBytes(StandardCharsets.UTF_16BE), request -> request);
    }

    @ParameterizedTest
    @ValueSource(strings = {"text/plain", "application/json;charset=utf-8", "application/json;charset=utf-16", "application/xml", "json"})
    void howeverTheBodyIsCalled(String type) {
        bothSayTheSame("{\"number\":3}".getBytes(StandardCharsets.UTF_8), request -> request.setHeader("Content-Type", type));
    }

    @Test
    void aSignatureThatIsNotTheDevicesOwnOrOfAnotherBodyIsRefusedByBoth() {
        bothSayTheSame("{\"number\":1}".getBytes(StandardCharsets.UTF_8), request -> request.setHeader("Content-Digest", "sha-256=:AAAA:"));
        bothSayTheSame("{\"number\":1}".getBytes(StandardCharsets.UTF_8), request -> request.setHeader("Signature", "rivo=:AAAA:"));
        HttpRequest stranger = atTheGate.signed(PATH, "POST", PATH, "{\"number\":100}".getBytes(StandardCharsets.UTF_8),
                atTheGate.withKey(AgreementKey.random()).messageKey(), byTheHandler.keyId()).build();
        assertThat(atTheGate.send(stranger).code()).isEqualTo("bad-signature");
    }

    @Test
    void whoReportsTooMuchIsRefusedByBoth() {
        Answer gate = untilTooMany(TestDevice.enrolled(server, "QB-LAB-003"), request -> request);
        Answer handler = untilTooMany(TestDevice.enrolled(server, "QB-LAB-004"), request -> request.header("Accept", "*/*"));
        assertThat(gate.status()).isEqualTo(handler.status()).isEqualTo(429);
        assertThat(gate.header("Retry-After")).isEqualTo(handler.header("Retry-After")).isEqualTo("1");
    }

    /** At most so many more than it may in a minute, since some of them are given back meanwhile. */
    private static Answer untilTooMany(TestDevice device, UnaryOperator<HttpRequest.Builder> more) {
        byte[] body = "{\"number\":0}".getBytes(StandardCharsets.UTF_8);
        Answer answer = device.send(more.apply(report(device, body, device.keyId())).build());
        for (int n = 1; n < 120 && !"too-many-reports".equals(answer.code()); n++) {
            answer = device.send(more.apply(report(device, body, device.keyId())).build());
        }
        return answer;
    }
}
