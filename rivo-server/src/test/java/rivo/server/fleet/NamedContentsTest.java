package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.Work;

class NamedContentsTest {

    private static final String ONE = "1".repeat(64);
    private static final String TWO = "2".repeat(64);

    private final NamedContents named = new NamedContents();
    private int computed;
    private Work now = work();

    private static Work work(String... hashes) {
        return new Work(List.of(new Job("siltscope", "Siltscope Lab", JobAction.INSTALL, "1.0",
                Arrays.stream(hashes).map(hash -> new Job.Content(hash, 10, "a.bin")).toList(), List.of())), List.of(), List.of(), List.of());
    }

    private boolean has(String device, String hash) {
        return named.has(device, hash, () -> {
            computed++;
            return now;
        });
    }

    @Test
    void theWorkOfADeviceThatHasCalledInIsNotComputedForEachPart() {
        named.told("a", work(ONE, TWO));
        for (int part = 0; part < 1000; part++) {
            assertThat(has("a", part % 2 == 0 ? ONE : TWO)).isTrue();
        }
        assertThat(computed).isZero();
    }

    @Test
    void whatIsNotRememberedIsComputedOnce() {
        now = work(ONE);
        assertThat(has("a", ONE)).isTrue();
        assertThat(has("a", ONE)).isTrue();
        assertThat(computed).isEqualTo(1);
        assertThat(has("b", ONE)).as("each device has its own").isTrue();
        assertThat(computed).isEqualTo(2);
    }

    @Test
    void whatCameSinceTheLastCallInIsGivenAndWhatIsNobodysIsNot() {
        named.told("a", work(ONE));
        now = work(TWO);
        assertThat(has("a", TWO)).isTrue();
        assertThat(has("a", ONE)).as("what the work names no longer").isFalse();
    }

    @Test
    void aCallInReplacesWhatWasNamedBefore() {
        named.told("a", work(ONE));
        named.told("a", work());
        assertThat(has("a", ONE)).isFalse();
    }
}
