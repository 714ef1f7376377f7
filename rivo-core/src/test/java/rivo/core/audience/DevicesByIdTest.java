package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Devices;

class DevicesByIdTest {

    /** Letters on either side of every bound of the order: Latin ones, others, and those that take two chars. */
    private static final List<String> LETTERS = List.of("0", "a", "b", "\u00fe", "\u00ff", "\u0100", "\u0101", "\ud7ff", "\ue000", "\uffee", "\ud83d\ude00",
            "\ud83d\ude01");

    @Test
    void idsStandInTheOrderOfTheirCodePoints() {
        Random random = new Random(7);
        for (int round = 0; round < 20; round++) {
            Set<String> ids = new LinkedHashSet<>();
            while (ids.size() < 500) {
                String begin = random.nextBoolean() ? "" : "device-0".substring(0, random.nextInt(9));
                ids.add(begin + IntStream.range(0, 1 + random.nextInt(4)).mapToObj(i -> LETTERS.get(random.nextInt(LETTERS.size()))).collect(Collectors.joining()));
            }
            Estates estates = Estates.usual();
            ids.forEach(id -> estates.device(id, random.nextBoolean() ? "labs" : "works"));
            Devices devices = estates.estate().devices();
            List<String> sorted = devices.all().stream().map(device -> device.id())
                    .sorted((one, other) -> Arrays.compare(one.codePoints().toArray(), other.codePoints().toArray())).toList();
            assertThat(Arrays.stream(DevicesById.of(devices).positions()).mapToObj(p -> devices.at(p).id()).toList()).isEqualTo(sorted);
        }
    }
}
