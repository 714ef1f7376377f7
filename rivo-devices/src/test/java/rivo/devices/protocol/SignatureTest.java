package rivo.devices.protocol;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SignatureTest {

    private static final byte[] KEY = "0123456789abcdef0123456789abcdef".getBytes(StandardCharsets.UTF_8);
    private static final byte[] BODY = "{\"number\":1}".getBytes(StandardCharsets.UTF_8);
    private static final Instant NOW = Instant.parse("2026-11-23T08:00:00Z");
    private static final String PATH = "/device/v1/devices/d1/reports";

    private final String digest = Signature.digest(BODY);
    private final Signature signature = Signature.sign(KEY, "d1", NOW, "POST", PATH, digest);

    @Test
    void whatIsSignedIsRecognised() {
        Signature read = Signature.parse(signature.inputHeader(true), signature.valueHeader(), true).orElseThrow();
        assertThat(read).isEqualTo(signature);
        assertThat(read.isBy(KEY, "POST", PATH, digest)).isTrue();
    }

    @Test
    void anythingElseIsNot() {
        assertThat(signature.isBy(KEY, "GET", PATH, digest)).isFalse();
        assertThat(signature.isBy(KEY, "POST", PATH + "x", digest)).isFalse();
        assertThat(signature.isBy(KEY, "POST", PATH, Signature.digest(new byte[0]))).isFalse();
        assertThat(signature.isBy(KEY, "POST", PATH, null)).isFalse();
        assertThat(signature.isBy(new byte[32], "POST", PATH, digest)).isFalse();
        assertThat(new Signature("d2", NOW, signature.value()).isBy(KEY, "POST", PATH, digest)).isFalse();
        assertThat(new Signature("d1", NOW.plusSeconds(1), signature.value()).isBy(KEY, "POST", PATH, digest))
                .isFalse();
    }

    /** The base by hand, as RFC 9421, section 2.5, puts it together; the value from openssl's HMAC of it. */
    @Test
    void theSignatureIsThatOfTheStandard() {
        Signature plain = Signature.sign(KEY, "d1", Instant.ofEpochSecond(1618884473), "GET",
                "/device/v1/devices/d1/work", null);
        assertThat(plain.inputHeader(false)).isEqualTo(
                "rivo=(\"@method\" \"@path\");created=1618884473;keyid=\"d1\";alg=\"hmac-sha256\"");
        assertThat(plain.value()).isEqualTo("loOs2+RTzZtCT06e64NG6yPc+WFB/hLqusdnFgrKmFk=");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "rivo=()", "rivo=(\"@method\");created=1;keyid=\"d1\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=x;keyid=\"d1\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=1;keyid=\"d\"1\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=1;keyid=\"d1\";alg=\"none\"",
        "rivo=(\"@method\" \"@path\");created=1;keyid=\"d1\";alg=\"hmac-sha256\""})
    void onlyTheOneFormIsTaken(String input) {
        assertThat(Signature.parse(input, signature.valueHeader(), true)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "rivo=::", "rivo=:AAAA:", "rivo=:!!!!:"})
    void aValueThatIsNoneIsNotTaken(String value) {
        assertThat(Signature.parse(signature.inputHeader(true), value, true)).isEmpty();
    }

    @Test
    void missingHeadersAreNoSignature() {
        assertThat(Signature.parse(null, null, false)).isEmpty();
    }

    @Test
    void theDigestIsThatOfTheStandard() {
        // RFC 9530, appendix B.1
        assertThat(Signature.digest("{\"hello\": \"world\"}\n".getBytes(StandardCharsets.UTF_8)))
                .isEqualTo("sha-256=:RK/0qy18MlBSVnWgjwz6lZEWjP/lF5HF9bvEF8FabDg=:");
    }
}
