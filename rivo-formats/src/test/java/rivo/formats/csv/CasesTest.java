package rivo.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import rivo.core.estate.Estate;
import rivo.core.resolve.Resolver;
import rivo.formats.estate.EstateReader;
import rivo.formats.estate.EstateWriter;

/** Estates worked out by hand from the resolution rules, one rule or subtlety each. */
class CasesTest {

    private static final Path CASES = Path.of("src/test/resources/cases");

    @TestFactory
    Stream<DynamicTest> everyCaseComesOutByteForByte() throws IOException {
        return cases().map(json -> DynamicTest.dynamicTest(json.getFileName().toString(),
                () -> assertThat(effective(EstateReader.read(json))).isEqualTo(expected(json))));
    }

    @TestFactory
    Stream<DynamicTest> everyCaseComesOutTheSameAfterItWasWrittenAndReadAgain() throws IOException {
        return cases().map(json -> DynamicTest.dynamicTest(json.getFileName().toString(), () -> {
            ByteArrayOutputStream written = new ByteArrayOutputStream();
            EstateWriter.write(EstateReader.read(json), written, true);
            Estate again = EstateReader.read(new java.io.ByteArrayInputStream(written.toByteArray()));
            assertThat(effective(again)).isEqualTo(expected(json));
        }));
    }

    private static Stream<Path> cases() throws IOException {
        try (Stream<Path> files = Files.list(CASES)) {
            return files.filter(f -> f.toString().endsWith(".json")).sorted().toList().stream();
        }
    }

    private static String expected(Path json) throws IOException {
        return Files.readString(Path.of(json.toString().replace(".json", ".csv")));
    }

    private static String effective(Estate estate) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            Resolver resolver = Resolver.of(estate);
            EffectiveCsv.write(resolver.audiences(), resolver.all().values(), out);
            return out.toString(StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
