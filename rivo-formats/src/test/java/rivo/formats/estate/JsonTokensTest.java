package rivo.formats.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/** Whatever is parsed ahead is read as if it were parsed just then. */
@Timeout(60)
class JsonTokensTest {

    private static <T> T reading(InputStream in, Function<JsonTokens, T> reader) {
        try (JsonParser json = new JsonFactory().createParser(ObjectReadContext.empty(), in);
                JsonTokens tokens = new JsonTokens(json)) {
            return reader.apply(tokens);
        }
    }

    private static <T> T reading(String json, Function<JsonTokens, T> reader) {
        return reading(new ByteArrayInputStream(json.getBytes(StandardCharsets.UTF_8)), reader);
    }

    /** Every token, with the text of those that have one. */
    private static List<String> all(JsonTokens tokens) {
        List<String> all = new ArrayList<>();
        for (JsonToken token = tokens.next(); token != null; token = tokens.next()) {
            boolean text = token == JsonToken.PROPERTY_NAME || token == JsonToken.VALUE_STRING || token.isNumeric();
            all.add(text ? token + " " + tokens.text() : token.toString());
        }
        return all;
    }

    private static String numbers(int n) {
        StringBuilder json = new StringBuilder("[");
        for (int i = 0; i < n; i++) {
            json.append(i == 0 ? "" : ",").append("{\"n\": ").append(i).append(", \"t\": \"text ").append(i % 7).append("\"}");
        }
        return json.append("]").toString();
    }

    @Test
    void tokensComeWithTheirTexts() {
        assertThat(reading("{\"a\": [1, 2.50, \"x\\u00e9\", null, true, false], \"b\": {}}", JsonTokensTest::all))
                .containsExactly("START_OBJECT", "PROPERTY_NAME a", "START_ARRAY", "VALUE_NUMBER_INT 1",
                        "VALUE_NUMBER_FLOAT 2.50", "VALUE_STRING xé", "VALUE_NULL", "VALUE_TRUE", "VALUE_FALSE",
                        "END_ARRAY", "PROPERTY_NAME b", "START_OBJECT", "END_OBJECT", "END_OBJECT");
    }

    @Test
    void manyBatchesComeInOrder() {
        int n = 50_000;
        List<String> all = reading(numbers(n), JsonTokensTest::all);
        assertThat(all).hasSize(n * 6 + 2);
        for (int i = 0; i < n; i++) {
            assertThat(all.get(i * 6 + 3)).isEqualTo("VALUE_NUMBER_INT " + i);
            assertThat(all.get(i * 6 + 5)).isEqualTo("VALUE_STRING text " + i % 7);
        }
    }

    @Test
    void equalTextsAreOneObjectAcrossBatches() {
        reading(numbers(20_000), tokens -> {
            String first = null;
            for (JsonToken token = tokens.next(); token != null; token = tokens.next()) {
                if (token == JsonToken.VALUE_STRING && tokens.text().equals("text 3")) {
                    first = first == null ? tokens.text() : first;
                    assertThat(tokens.text()).isSameAs(first);
                }
            }
            return Objects.requireNonNull(first);
        });
    }

    @Test
    void thereIsNothingBeforeTheFirstAndAfterTheLast() {
        boolean empty = reading(" ", tokens -> tokens.next() == null && tokens.next() == null);
        assertThat(empty).isTrue();
        boolean ended = reading("7", tokens -> {
            assertThat(tokens.current()).isNull();
            assertThat(tokens.next()).isEqualTo(JsonToken.VALUE_NUMBER_INT);
            assertThat(tokens.current()).isEqualTo(JsonToken.VALUE_NUMBER_INT);
            assertThat(tokens.next()).isNull();
            return tokens.current() == null && tokens.next() == null;
        });
        assertThat(ended).isTrue();
    }

    @Test
    void whatIsSkippedIsSkippedWhole() {
        String json = "{\"skip\": " + numbers(5_000) + ", \"scalar\": 1, \"stay\": 2}";
        List<String> rest = reading(json, tokens -> {
            tokens.next();
            tokens.next();
            tokens.next();
            tokens.skipChildren();
            assertThat(tokens.current()).isEqualTo(JsonToken.END_ARRAY);
            tokens.next();
            tokens.next();
            tokens.skipChildren();
            assertThat(tokens.current()).isEqualTo(JsonToken.VALUE_NUMBER_INT);
            return all(tokens);
        });
        assertThat(rest).containsExactly("PROPERTY_NAME stay", "VALUE_NUMBER_INT 2", "END_OBJECT");
    }

    @Test
    void whatIsBrokenBreaksInItsPlaceAndSaysWhere() {
        String json = numbers(3_000).replace("{\"n\": 2500,", "\n {\"n\": nonsense,");
        reading(json, tokens -> {
            int[] read = {0};
            assertThatThrownBy(() -> {
                while (tokens.next() != null) {
                    read[0]++;
                }
            }).isInstanceOf(JacksonException.class).hasMessageContaining("nonsense");
            assertThat(read[0]).as("all before it came").isEqualTo(1 + 2500 * 6 + 1);
            assertThat(Objects.requireNonNull(tokens.failedAt()).getLineNr()).isEqualTo(2);
            assertThatThrownBy(tokens::next).as("and it stays broken").isInstanceOf(JacksonException.class);
            return read;
        });
    }

    @Test
    void aFileThatCannotBeReadSaysSo() {
        InputStream failing = new InputStream() {
            private int left = 100_000;

            @Override
            public int read() throws IOException {
                if (--left < 0) {
                    throw new IOException("the disk is gone");
                }
                return left == 99_999 ? '[' : ' ';
            }
        };
        assertThatThrownBy(() -> reading(failing, JsonTokensTest::all)).isInstanceOf(JacksonException.class)
                .hasMessageContaining("the disk is gone").hasCauseInstanceOf(IOException.class);
    }

    private static long threads() {
        return Thread.getAllStackTraces().keySet().stream().filter(t -> t.getName().equals("estate-file")).count();
    }

    @Test
    void whoeverStopsEarlyLeavesNoThreadBehind() {
        String json = numbers(200_000);
        for (int i = 0; i < 20; i++) {
            assertThat(reading(json, JsonTokens::next)).isEqualTo(JsonToken.START_ARRAY);
        }
        assertThat(threads()).isZero();
    }

    @Test
    void aReaderThatIsInterruptedEndsAndStaysInterrupted() throws InterruptedException {
        InputStream endless = new InputStream() {
            @Override
            public int read() {
                return ' ';
            }

            @Override
            public int read(byte[] bytes, int offset, int length) throws IOException {
                try {
                    Thread.sleep(Duration.ofMillis(20).toMillis());
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                    throw new IOException("stopped", e);
                }
                java.util.Arrays.fill(bytes, offset, offset + length, (byte) ' ');
                return length;
            }
        };
        List<Boolean> interrupted = new ArrayList<>();
        Thread reader = new Thread(() -> {
            try {
                reading(endless, JsonTokens::next);
            } catch (RuntimeException e) {
                interrupted.add(Thread.currentThread().isInterrupted());
            }
        });
        reader.start();
        Thread.sleep(100);
        reader.interrupt();
        reader.join(30_000);
        assertThat(interrupted).containsExactly(true);
        assertThat(threads()).isZero();
    }
}
