package rivo.core.rule;

import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * An instant of a rule: a fixed one (RFC 3339), or a period before {@code asOf} (ISO 8601, weeks to seconds). One of the
 * two is null.
 */
record Moment(@Nullable Instant fixed, @Nullable Duration before) {

    private static final Pattern PERIOD = Pattern.compile("-P(?=[0-9T])(?:([0-9]{1,6})W)?(?:([0-9]{1,6})D)?"
            + "(?:T(?=[0-9])(?:([0-9]{1,9})H)?(?:([0-9]{1,9})M)?(?:([0-9]{1,9})S)?)?");
    private static final int DAYS_OF_WEEK = 7;

    /** Null when the text is neither. */
    static @Nullable Moment of(String text) {
        Matcher period = PERIOD.matcher(text);
        if (period.matches()) {
            return new Moment(null, Duration.ofDays(number(period, 1) * DAYS_OF_WEEK + number(period, 2))
                    .plusHours(number(period, 3)).plusMinutes(number(period, 4)).plusSeconds(number(period, 5)));
        }
        try {
            return new Moment(OffsetDateTime.parse(text).toInstant(), null);
        } catch (DateTimeParseException e) {
            return null;
        }
    }

    private static long number(Matcher period, int group) {
        String digits = period.group(group);
        return digits == null ? 0 : Long.parseLong(digits);
    }

    Instant at(Instant asOf) {
        if (fixed != null) {
            return fixed;
        }
        return asOf.minus(java.util.Objects.requireNonNull(before));
    }
}
