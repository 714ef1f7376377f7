package rivo.devices.protocol;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The answer to a report.
 *
 * @param taken false when its number had been taken before; nothing was changed then
 * @param last the number of the last report taken; the next one is higher
 * @param refused what people have said to notices and does not count; null for nothing
 */
public record ReportAnswer(boolean taken, long last, @Nullable List<RefusedAnswer> refused) {

    /** One of which everything counts. */
    public ReportAnswer(boolean taken, long last) {
        this(taken, last, null);
    }

    /**
     * @param notice that was answered
     * @param code such as {@code put-off-too-often}, {@code put-off-too-long}, {@code counts-down} or {@code withdrawn}
     * @param detail why, in words
     */
    public record RefusedAnswer(String notice, String code, String detail) {
    }
}
