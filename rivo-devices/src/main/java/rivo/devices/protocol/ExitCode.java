package rivo.devices.protocol;

/**
 * What a command means by ending with this code.
 *
 * @param againMinutes for {@link ExitMeaning#AGAIN}: after how many minutes; 0 for the others
 */
public record ExitCode(int code, ExitMeaning meaning, int againMinutes) {
}
