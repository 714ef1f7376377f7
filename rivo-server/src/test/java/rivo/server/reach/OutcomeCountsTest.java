package rivo.server.reach;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.lang.reflect.RecordComponent;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Title;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.formats.estate.EstateReader;
import tools.jackson.databind.json.JsonMapper;

/** The figures of a part of the fleet: every outcome has its own, under its word, and they add up to all of it. */
class OutcomeCountsTest {

    private static final Path CASES = Path.of("..", "rivo-formats", "src", "test", "resources", "cases");

    @Test
    void thereIsOneForEachOutcome() {
        assertThat(Arrays.stream(OutcomeCounts.class.getRecordComponents()).map(RecordComponent::getName)).containsExactlyInAnyOrderElementsOf(
                Stream.concat(Arrays.stream(Outcome.values()).map(Outcome::word), Stream.of("none")).toList());
    }

    /** Held against counting one unit after the other, on every case. */
    @Test
    void eachIsHowManyUnitsHaveItOneByOne() throws IOException {
        Set<Outcome> met = EnumSet.noneOf(Outcome.class);
        List<Path> cases;
        try (Stream<Path> files = Files.list(CASES)) {
            cases = files.filter(file -> file.toString().endsWith(".json")).sorted().toList();
        }
        for (Path file : cases) {
            Estate estate;
            try (InputStream in = Files.newInputStream(file)) {
                estate = EstateReader.read(in);
            }
            Resolver resolver = Resolver.of(estate);
            for (Title title : estate.titles()) {
                Map<String, Integer> expected = new HashMap<>();
                for (Device device : estate.devices().all()) {
                    resolver.device(device).stream().filter(one -> one.title() == title).forEach(one -> {
                        expected.merge(one.decision().outcome().word(), 1, Integer::sum);
                        met.add(one.decision().outcome());
                    });
                }
                int all = resolver.audiences().size(title.scope());
                expected.put("none", all - expected.values().stream().mapToInt(n -> n).sum());
                OutcomeCounts counts = OutcomeCounts.in(resolver.audiences(), resolver.title(title), 0, estate.devices().size());
                Map<?, ?> found = new JsonMapper().convertValue(counts, Map.class);
                found.values().removeIf(n -> n.equals(0));
                expected.values().removeIf(n -> n == 0);
                assertThat(found).as(file.getFileName() + " " + title.id()).isEqualTo(expected);
            }
        }
        assertThat(met).as("or less is tested than this says").containsExactlyInAnyOrder(Outcome.values());
    }
}
