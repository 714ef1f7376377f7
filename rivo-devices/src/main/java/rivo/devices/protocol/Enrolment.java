package rivo.devices.protocol;

/**
 * A device asks to be known. The request is signed by {@link MessageKey#ofEnrolment}, which proves that the device has both
 * the token and the private key that belongs to this public key.
 *
 * @param publicKey the device's public key, chosen and kept before asking; the same token with the same key gets the same
 *     answer again, so that an answer lost on the way does not lock the device out
 */
public record Enrolment(String publicKey) {
}
