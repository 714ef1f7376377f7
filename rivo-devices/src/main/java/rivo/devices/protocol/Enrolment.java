package rivo.devices.protocol;

/**
 * A device asks for a key of its own.
 *
 * @param token the one-time token it was given
 * @param nonce at least 16 characters that the device chose at random and kept before asking; with the same token and
 *     nonce the same key is given again, so that an answer lost on the way does not lock the device out
 */
public record Enrolment(String token, String nonce) {
}
