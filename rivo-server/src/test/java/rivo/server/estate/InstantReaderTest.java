package rivo.server.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.Random;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

class InstantReaderTest {

    private static final JsonMapper GENERAL = new JsonMapper();
    private static final JsonMapper OURS = JsonMapper.builder().addModule(new InstantReader.ForAll().instants()).build();

    /** What a text comes to; null where it is refused. */
    private static @Nullable Instant read(JsonMapper mapper, String text) {
        try {
            return mapper.readValue(mapper.writeValueAsString(text), Instant.class);
        } catch (JacksonException e) {
            return null;
        }
    }

    @Test
    void whatIsUsualIsReadByItself() {
        assertThat(InstantReader.usual("2026-11-23T08:00:00.123Z")).isEqualTo(Instant.parse("2026-11-23T08:00:00.123Z"));
        assertThat(InstantReader.usual("2024-02-29T23:59:59Z")).isEqualTo(Instant.parse("2024-02-29T23:59:59Z"));
        assertThat(InstantReader.usual("2026-11-23T09:00:00+01:00")).as("left to the general way").isNull();
    }

    @ParameterizedTest
    @ValueSource(strings = {"2023-02-29T00:00:00Z", "2026-13-01T00:00:00Z", "2026-00-01T00:00:00Z", "2026-04-31T00:00:00Z", "2026-04-00T00:00:00Z",
        "2026-11-23T24:00:00Z", "2026-11-23T24:00:01Z", "2026-11-23T08:60:00Z", "2026-11-23T08:00:60Z", "2026-11-23T08:00:00.Z", "2026-11-23T08:00:00.1234567890Z",
        "2026-11-23T08:00:00.000000001Z", "2026-11-23T08:00:00,5Z", "2026-11-23t08:00:00z", "2026-11-23T08:00Z", "2026-11-23T08:00:00", "0000-01-01T00:00:00Z",
        "9999-12-31T23:59:59.999999999Z", "+10000-01-01T00:00:00Z", "2026-11-23T08:00:0٣Z", "", "Z", "1700000000", "2026-11-23T08:00:00.12 Z", "2026-11-23T-1:00:00Z"})
    void whateverIsWrittenIsTakenAsTheGeneralWayTakesIt(String text) {
        assertThat(read(OURS, text)).isEqualTo(read(GENERAL, text));
    }

    /** Right ones, and right ones with a character that is another or missing. */
    @Test
    void randomTextsAreTakenAsTheGeneralWayTakesThem() {
        long seed = System.nanoTime();
        Random random = new Random(seed);
        for (int n = 0; n < 20_000; n++) {
            String text = Instant.ofEpochSecond(random.nextLong(-70_000_000_000L, 260_000_000_000L), random.nextInt(3) == 0 ? 0 : random.nextInt(1_000_000_000)).toString();
            if (random.nextInt(3) == 0) {
                int at = random.nextInt(text.length());
                text = text.substring(0, at) + (random.nextBoolean() ? "" : "0123456789-:.TZ +x".charAt(random.nextInt(18))) + text.substring(at + 1);
            }
            assertThat(read(OURS, text)).as("seed " + seed + ", " + text).isEqualTo(read(GENERAL, text));
        }
    }
}
