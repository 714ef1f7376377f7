package rivo.server.estate;

import java.time.Instant;
import java.time.YearMonth;
import java.time.ZoneOffset;
import org.jspecify.annotations.Nullable;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.JacksonModule;
import tools.jackson.databind.deser.std.StdDeserializer;
import tools.jackson.databind.ext.javatime.deser.InstantDeserializer;
import tools.jackson.databind.module.SimpleModule;

/**
 * Reads instants as nearly all are written, {@code 2026-11-23T08:00:00.123Z} (RFC 3339, section 5.6, in UTC), character by character: the
 * general way takes as long as all the rest of a report. Every other text is read the general way, and refused where that refuses it.
 */
final class InstantReader extends StdDeserializer<Instant> {

    private static final int SECONDS_END = 19;
    private static final int MOST_DIGITS = 9;

    /** Has all JSON that comes by HTTP read so. */
    @Configuration
    static class ForAll {

        @Bean
        JacksonModule instants() {
            return module();
        }
    }

    private InstantReader() {
        super(Instant.class);
    }

    static JacksonModule module() {
        return new SimpleModule("instants").addDeserializer(Instant.class, new InstantReader());
    }

    @Override
    public Instant deserialize(JsonParser parser, DeserializationContext context) {
        Instant usual = parser.hasToken(JsonToken.VALUE_STRING) ? usual(parser.getString()) : null;
        return usual != null ? usual : InstantDeserializer.INSTANT.deserialize(parser, context);
    }

    /** The instant; null where the text is not of the usual form, or there is no such day or time. */
    static @Nullable Instant usual(String text) {
        int end = text.length() - 1;
        if (end < SECONDS_END || text.charAt(end) != 'Z' || text.charAt(4) != '-' || text.charAt(7) != '-' || text.charAt(10) != 'T'
                || text.charAt(13) != ':' || text.charAt(16) != ':') {
            return null;
        }
        int year = number(text, 0, 4);
        int month = number(text, 5, 7);
        int day = number(text, 8, 10);
        int hour = number(text, 11, 13);
        int minute = number(text, 14, 16);
        int second = number(text, 17, SECONDS_END);
        int nanos = nanos(text, end);
        if (year < 0 || month < 1 || month > 12 || hour < 0 || hour > 23 || minute < 0 || minute > 59 || second < 0 || second > 59
                || nanos < 0) {
            return null;
        }
        YearMonth of = YearMonth.of(year, month);
        return of.isValidDay(day) ? of.atDay(day).atTime(hour, minute, second, nanos).toInstant(ZoneOffset.UTC) : null;
    }

    /** -1 where there is anything but digits. */
    private static int number(String text, int from, int to) {
        int number = 0;
        for (int i = from; i < to; i++) {
            int digit = text.charAt(i) - '0';
            if (digit < 0 || digit > 9) {
                return -1;
            }
            number = number * 10 + digit;
        }
        return number;
    }

    /** -1 where there is no fraction of one to nine digits where one begins. */
    private static int nanos(String text, int end) {
        int digits = end - SECONDS_END - 1;
        if (end == SECONDS_END) {
            return 0;
        }
        if (text.charAt(SECONDS_END) != '.' || digits < 1 || digits > MOST_DIGITS) {
            return -1;
        }
        int nanos = number(text, SECONDS_END + 1, end);
        for (int i = digits; i < MOST_DIGITS && nanos > 0; i++) {
            nanos *= 10;
        }
        return nanos;
    }
}
