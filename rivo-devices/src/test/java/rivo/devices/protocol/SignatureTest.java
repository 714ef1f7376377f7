package rivo.devices.protocol;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SignatureTest {

    private static final AgreementKey DEVICE = AgreementKey.random();
    private static final AgreementKey SERVER = AgreementKey.random();
    private static final MessageKey KEY = MessageKey.ofServer(SERVER, DEVICE.publicKey());
    private static final KeyId D1 = new KeyId("d1", "0a1b2c3d");
    private static final byte[] BODY = "{\"number\":1}".getBytes(StandardCharsets.UTF_8);
    private static final Instant NOW = Instant.parse("2026-11-23T08:00:00Z");
    private static final String PATH = "/device/v2/reports";

    private final String digest = Signature.digest(BODY);
    private final Signature signature = Signature.sign(KEY, D1, NOW, "POST", PATH, digest);

    @Test
    void whatIsSignedIsRecognised() {
        Signature read = Signature.parse(signature.inputHeader(true), signature.valueHeader(), true).orElseThrow();
        assertThat(read).isEqualTo(signature);
        assertThat(read.isBy(KEY, "POST", PATH, digest)).isTrue();
    }

    /** All visible ASCII characters but those that end the name, or the text that it stands in. */
    @Test
    void aNameHasTheCharactersThatItMayHaveAndNoOthers() {
        for (char c = 0; c < 300; c++) {
            KeyId id = new KeyId("d" + c + "1", "0a1b2c3d");
            Signature by = Signature.sign(KEY, id, NOW, "POST", PATH, digest);
            boolean may = c > ' ' && c < 127 && c != '"' && c != '\\' && c != '@';
            assertThat(Signature.parse(by.inputHeader(true), by.valueHeader(), true)).as("%d", (int) c).isEqualTo(may ? Optional.of(by) : Optional.empty());
        }
    }

    @Test
    void anythingElseIsNot() {
        assertThat(signature.isBy(KEY, "GET", PATH, digest)).isFalse();
        assertThat(signature.isBy(KEY, "POST", PATH + "x", digest)).isFalse();
        assertThat(signature.isBy(KEY, "POST", PATH, Signature.digest(new byte[0]))).isFalse();
        assertThat(signature.isBy(KEY, "POST", PATH, null)).isFalse();
        assertThat(signature.isBy(MessageKey.ofServer(SERVER, SERVER.publicKey()), "POST", PATH, digest)).isFalse();
        assertThat(new Signature(new KeyId("d2", "0a1b2c3d"), NOW, signature.value()).isBy(KEY, "POST", PATH, digest)).isFalse();
        assertThat(new Signature(D1, NOW.plusSeconds(1), signature.value()).isBy(KEY, "POST", PATH, digest))
                .isFalse();
    }

    /** The base by hand, as RFC 9421, section 2.5, puts it together. */
    @Test
    void theSignatureIsThatOfTheStandard() {
        Signature plain = Signature.sign(KEY, D1, Instant.ofEpochSecond(1618884473), "GET", "/device/v2/work", null);
        String parameters = "(\"@method\" \"@path\");created=1618884473;keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\"";
        assertThat(plain.inputHeader(false)).isEqualTo("rivo=" + parameters);
        assertThat(plain.value()).isEqualTo(KEY.sign("\"@method\": GET\n\"@path\": /device/v2/work\n\"@signature-params\": "
                + parameters));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "rivo=()", "rivo=(\"@method\");created=1;keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=x;keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=1;keyid=\"d\"1@0a1b2c3d\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=1;keyid=\"d1@0a1b2c3d\";alg=\"none\"",
        "rivo=(\"@method\" \"@path\");created=1;keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=1;keyid=\"d1\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=;keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=-1;keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=\u0661;keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=1000000000000;keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=1;keyid=\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=1;keyid=\"\";alg=\"hmac-sha256\"",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=1",
        "rivo=(\"@method\" \"@path\" \"content-digest\");created=1;keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\" ",
        "other=(\"@method\" \"@path\" \"content-digest\");created=1;keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\""})
    void onlyTheOneFormIsTaken(String input) {
        assertThat(Signature.parse(input, signature.valueHeader(), true)).isEmpty();
    }

    @Test
    void aKeyIsNamedInPlainCharactersAndByTheTagOfTheServersKey() {
        String tag = "@0a1b2c3d";
        for (String name : List.of("d", "d1", "!~", "0d54c1b0-0000-0000-0000-000000000900", "k".repeat(200))) {
            assertThat(KeyId.parse(name + tag)).as(name).contains(new KeyId(name, "0a1b2c3d"));
            Signature named = Signature.sign(KEY, new KeyId(name, "0a1b2c3d"), NOW, "GET", PATH, null);
            assertThat(Signature.parse(named.inputHeader(false), named.valueHeader(), false)).as(name).contains(named);
        }
        for (String none : List.of("", tag, "k".repeat(201) + tag, "d 1" + tag, "d\"" + tag, "d\\" + tag, "d\u007f" + tag, "d\u00e9" + tag, "d\n" + tag,
                "d@e" + tag, "d", "d@", "d@0a1b2c3", "d@0a1b2c3d4", "d@0A1B2C3D", "d@0a1b2c3g", "d@0a1b2c3/", "d@0a1b2c3:", "d@0a1b2c3`")) {
            assertThat(KeyId.parse(none)).as(none).isEmpty();
            assertThat(Signature.parse("rivo=(\"@method\" \"@path\");created=1;keyid=\"" + none + "\";alg=\"hmac-sha256\"", signature.valueHeader(), false))
                    .as(none).isEmpty();
        }
    }

    @Test
    void theLatestInstantThatIsWrittenIsTaken() {
        Signature late = Signature.sign(KEY, D1, Instant.ofEpochSecond(999_999_999_999L), "GET", PATH, null);
        assertThat(Signature.parse(late.inputHeader(false), late.valueHeader(), false)).contains(late);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "rivo=::", "rivo=:AAAA:", "rivo=:!!!!:"})
    void aValueThatIsNoneIsNotTaken(String value) {
        assertThat(Signature.parse(signature.inputHeader(true), value, true)).isEmpty();
    }

    /** 43 of the characters of base64, one that fills up, and nothing before, between or after. */
    @Test
    void aValueIsOf32BytesInBase64() {
        String value = "AZaz09+/".repeat(5) + "AAA=";
        assertThat(Signature.parse(signature.inputHeader(true), "rivo=:" + value + ":", true).orElseThrow().value()).isEqualTo(value);
        for (char c = 0; c < 300; c++) {
            boolean may = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/".indexOf(c) >= 0;
            for (int at : new int[] {0, 20, 42}) {
                String other = value.substring(0, at) + c + value.substring(at + 1);
                assertThat(Signature.parse(signature.inputHeader(true), "rivo=:" + other + ":", true).isPresent()).as("%d at %d", (int) c, at).isEqualTo(may);
            }
        }
        for (String other : List.of("rivo=:A" + value + ":", "rivo=:" + value.substring(1) + ":", "rivo=:" + value + ":\n", "rivo=:" + value + ";", "rivo=;" + value + ":",
                "rivo=:" + value.replace('=', 'A') + ":", "RIVO=:" + value + ":")) {
            assertThat(Signature.parse(signature.inputHeader(true), other, true)).as(other).isEmpty();
        }
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

    private static final AnswerSignature.Answer ANSWER = new AnswerSignature.Answer(200, "\"e\"", "max-age=900", "sha-256=:x:",
            "requested");
    private final AnswerSignature answered = AnswerSignature.sign(KEY, D1, NOW, ANSWER);

    @Test
    void anAnswerIsRecognisedAndNothingElse() {
        assertThat(AnswerSignature.parse(answered.inputHeader(ANSWER), answered.valueHeader(), ANSWER)).contains(answered);
        assertThat(answered.isBy(KEY, ANSWER)).isTrue();
        assertThat(answered.isBy(MessageKey.ofServer(SERVER, SERVER.publicKey()), ANSWER)).isFalse();
        for (AnswerSignature.Answer other : new AnswerSignature.Answer[] {
            new AnswerSignature.Answer(304, "\"e\"", "max-age=900", "sha-256=:x:", "requested"),
            new AnswerSignature.Answer(200, "\"f\"", "max-age=900", "sha-256=:x:", "requested"),
            new AnswerSignature.Answer(200, "\"e\"", "max-age=901", "sha-256=:x:", "requested"),
            new AnswerSignature.Answer(200, "\"e\"", "max-age=900", "sha-256=:y:", "requested"),
            new AnswerSignature.Answer(200, "\"e\"", "max-age=900", "sha-256=:x:", "another")}) {
            assertThat(answered.isBy(KEY, other)).as(other.toString()).isFalse();
        }
    }

    @Test
    void nothingCanBeLeftOutOfAnAnswer() {
        AnswerSignature.Answer bare = new AnswerSignature.Answer(200, "\"e\"", "max-age=900", null, "requested");
        assertThat(AnswerSignature.parse(answered.inputHeader(ANSWER), answered.valueHeader(), bare)).isEmpty();
        assertThat(answered.inputHeader(ANSWER)).isEqualTo("rivo=(\"@status\" \"etag\" \"cache-control\" \"content-digest\" "
                + "\"signature\";req;key=\"rivo\");created=" + NOW.getEpochSecond() + ";keyid=\"d1@0a1b2c3d\";alg=\"hmac-sha256\"");
    }
}
