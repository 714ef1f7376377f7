package rivo.devices.protocol;

/**
 * The answer to a report.
 *
 * @param taken false when its number had been taken before; nothing was changed then
 * @param last the number of the last report taken; the next one is higher
 */
public record ReportAnswer(boolean taken, long last) {
}
