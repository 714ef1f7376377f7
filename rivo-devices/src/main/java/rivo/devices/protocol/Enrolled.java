package rivo.devices.protocol;

/**
 * The answer to an enrolment.
 *
 * @param device the id under which the device signs
 * @param name its name in the directory
 */
public record Enrolled(String device, String name) {
}
