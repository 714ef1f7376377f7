package rivo.devices.protocol;

import java.util.Optional;

/**
 * What an administrator gives to a device so that it may enrol, once: a private key of its own, and the server's public key.
 * Because it carries the server's key, a device that has it can enrol over any way without trusting it. The server keeps the
 * token's public key alone.
 */
public record EnrolmentToken(AgreementKey key, String serverPublicKey) {

    private static final String SEPARATOR = ".";

    public static EnrolmentToken random(String serverPublicKey) {
        return new EnrolmentToken(AgreementKey.random(), serverPublicKey);
    }

    /** As it is given to a device: 87 characters. */
    public String text() {
        return key.secretText() + SEPARATOR + serverPublicKey;
    }

    /** Reads what was given; empty when it is not a token. */
    public static Optional<EnrolmentToken> parse(String text) {
        int at = text.indexOf(SEPARATOR);
        if (at < 0 || !AgreementKey.isKey(text.substring(0, at)) || !AgreementKey.isKey(text.substring(at + 1))) {
            return Optional.empty();
        }
        return Optional.of(new EnrolmentToken(AgreementKey.of(text.substring(0, at)), text.substring(at + 1)));
    }

    /** Never shows the private key. */
    @Override
    public String toString() {
        return "a token for the server key " + serverPublicKey;
    }
}
