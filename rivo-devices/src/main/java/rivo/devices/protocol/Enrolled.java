package rivo.devices.protocol;

/**
 * The answer to an enrolment.
 *
 * @param device the id under which the device calls in
 * @param name its name in the directory
 * @param key 32 bytes, in base64 (RFC 4648, section 4), with which it signs
 */
public record Enrolled(String device, String name, String key) {
}
