package rivo.devices.protocol;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Keys against the test vectors of the standards, and what two sides derive against each other. */
class KeysTest {

    private static String key(String hex) {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(HexFormat.of().parseHex(hex));
    }

    /** RFC 7748, section 6.1. */
    @Test
    void bothSidesAgreeOnWhatTheStandardSays() {
        AgreementKey alice = AgreementKey.of(key("77076d0a7318a57d3c16c17251b26645df4c2f87ebc0992ab177fba51db92c2a"));
        AgreementKey bob = AgreementKey.of(key("5dab087e624a8a4b79e17f8b83800ee66f3bb1292618b6fd1c2f8b27ff88e0eb"));
        assertThat(alice.publicKey()).isEqualTo(key("8520f0098930a754748b7ddcb43ef75a0dbf3a0d26381af4eba4a98eaa9b4e6a"));
        assertThat(bob.publicKey()).isEqualTo(key("de9edb7d7b7dc1b4d35b61c2ece435373f8343c85b78674dadfc7e146f882b4f"));
        String agreed = "4a5d9d5ba4ce2de1728e3bf480350f25e07e21c947d19e3376f09b3c1e161742";
        assertThat(HexFormat.of().formatHex(alice.agree(bob.publicKey()))).isEqualTo(agreed);
        assertThat(HexFormat.of().formatHex(bob.agree(alice.publicKey()))).isEqualTo(agreed);
    }

    /** RFC 5869, appendix A.1; its first 32 bytes. */
    @Test
    void keysAreDerivedAsTheStandardSays() {
        byte[] material = new byte[22];
        Arrays.fill(material, (byte) 0x0b);
        assertThat(HexFormat.of().formatHex(MessageKey.hkdf(HexFormat.of().parseHex("000102030405060708090a0b0c"), material,
                HexFormat.of().parseHex("f0f1f2f3f4f5f6f7f8f9")))).isEqualTo("3cb25f25faacd57a90434f64d0362f2a2d2d0a90cf1a5a4c5db02d56ecc4c5bf");
    }

    @Test
    void deviceAndServerDeriveTheSameAndOthersDoNot() {
        AgreementKey device = AgreementKey.random();
        AgreementKey server = AgreementKey.random();
        MessageKey key = MessageKey.ofDevice(device, server.publicKey());
        String signed = key.sign("text");
        assertThat(MessageKey.ofServer(server, device.publicKey()).hasSigned("text", signed)).isTrue();
        assertThat(MessageKey.ofServer(server, device.publicKey()).hasSigned("texts", signed)).isFalse();
        assertThat(MessageKey.ofServer(AgreementKey.random(), device.publicKey()).hasSigned("text", signed)).isFalse();
        assertThat(MessageKey.ofServer(server, AgreementKey.random().publicKey()).hasSigned("text", signed)).isFalse();
    }

    @Test
    void anEnrolmentTakesBothTheTokenAndTheDevicesKey() {
        AgreementKey server = AgreementKey.random();
        AgreementKey device = AgreementKey.random();
        EnrolmentToken token = EnrolmentToken.random(server.publicKey());
        String signed = MessageKey.ofEnrolment(device, token).sign("text");
        String tokenKey = token.key().publicKey();
        assertThat(MessageKey.ofEnrolment(server, device.publicKey(), tokenKey).hasSigned("text", signed)).isTrue();
        assertThat(MessageKey.ofEnrolment(server, AgreementKey.random().publicKey(), tokenKey).hasSigned("text", signed)).isFalse();
        assertThat(MessageKey.ofEnrolment(server, device.publicKey(), AgreementKey.random().publicKey()).hasSigned("text", signed))
                .isFalse();
        assertThat(MessageKey.ofDevice(device, server.publicKey()).hasSigned("text", signed)).as("keys of two uses differ").isFalse();
    }

    @Test
    void aTokenIsReadAsItWasWritten() {
        EnrolmentToken token = EnrolmentToken.random(AgreementKey.random().publicKey());
        EnrolmentToken read = EnrolmentToken.parse(token.text()).orElseThrow();
        assertThat(read.text()).isEqualTo(token.text()).hasSize(87);
        assertThat(read.key().publicKey()).isEqualTo(token.key().publicKey());
        assertThat(token.toString() + token.key()).doesNotContain(token.key().secretText());
    }

    @ParameterizedTest
    @ValueSource(strings = {"", ".", "kT0x", "AAAA.BBBB", "AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA",
        "AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA.AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA!!",
        "AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA.AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA",
        "AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA.", ".AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA"})
    void whatIsNoTokenIsNone(String text) {
        assertThat(EnrolmentToken.parse(text)).isEmpty();
    }

    @Test
    void aKeyIsFortyThreeCharacters() {
        String key = AgreementKey.random().publicKey();
        assertThat(AgreementKey.isKey(key)).isTrue();
        for (String none : List.of("", key + "A", key.substring(1), key.substring(1) + "!", key.substring(1) + "+")) {
            assertThat(AgreementKey.isKey(none)).as(none).isFalse();
            assertThatThrownBy(() -> AgreementKey.of(none)).isInstanceOf(IllegalArgumentException.class);
        }
    }

    @Test
    void nothingThatIsSecretIsShown() {
        AgreementKey key = AgreementKey.random();
        assertThat(key.toString()).isEqualTo("the private key of " + key.publicKey());
        assertThat(MessageKey.ofServer(key, AgreementKey.random().publicKey()).toString()).isEqualTo("a key");
        EnrolmentToken token = EnrolmentToken.random(key.publicKey());
        assertThat(token.toString()).isEqualTo("a token for the server key " + key.publicKey());
    }

    /** With these every secret would be the same, whoever's it is (RFC 7748, section 6.1). */
    @ParameterizedTest
    @ValueSource(strings = {"0000000000000000000000000000000000000000000000000000000000000000",
        "0100000000000000000000000000000000000000000000000000000000000000",
        "ecffffffffffffffffffffffffffffffffffffffffffffffffffffffffffff7f"})
    void aPublicKeyOfSmallOrderIsRefused(String hex) {
        AgreementKey server = AgreementKey.random();
        assertThatThrownBy(() -> MessageKey.ofServer(server, key(hex))).isInstanceOf(IllegalArgumentException.class);
    }
}
