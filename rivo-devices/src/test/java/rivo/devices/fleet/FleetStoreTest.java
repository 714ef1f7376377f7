package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;

class FleetStoreTest {

    @TempDir
    private Path folder;

    private static DeviceState state(long reports) {
        return new DeviceState("QB-LAB-014", "private", "d14", "server", reports, Map.of("Graphkit runtime", "2.4.1"),
                Map.of("rowena.elmby", Map.of("Brookmap Studio", "3.0")), Set.of("otterlink"), Map.of("INSTALL x", 2), NoticeBook.EMPTY,
                new Unheard(List.of(new Progress("otterlink", null, JobAction.INSTALL, "3.1", JobState.DONE, 4, 4, 100, "done", 0, Instant.EPOCH)),
                        List.of(new Report.Fetched("8f21", null, 9))));
    }

    @Test
    void theLastStateCounts() throws IOException {
        try (FleetStore store = new FleetStore(folder)) {
            store.keep(state(1));
            store.keep(state(2));
        }
        try (FleetStore store = new FleetStore(folder)) {
            assertThat(store.states()).containsExactly(Map.entry("QB-LAB-014", state(2)));
        }
    }

    @Test
    void aLineCutOffByAKillIsPassedOver() throws IOException {
        try (FleetStore store = new FleetStore(folder)) {
            store.keep(state(1));
        }
        Files.writeString(folder.resolve("devices.jsonl"), "{\"name\":\"QB-LAB-0", StandardOpenOption.APPEND);
        try (FleetStore store = new FleetStore(folder)) {
            assertThat(store.states()).containsExactly(Map.entry("QB-LAB-014", state(1)));
        }
    }

    @Test
    void aStateOfTheFirstProtocolHasToEnrolAnew() throws IOException {
        Files.writeString(Files.createDirectories(folder).resolve("devices.jsonl"), "{\"name\":\"QB-LAB-014\",\"nonce\":\"n\","
                + "\"id\":\"d14\",\"key\":\"k\",\"reports\":3,\"software\":{\"Mudview\":\"2\"},\"attempts\":{}}\n");
        try (FleetStore store = new FleetStore(folder)) {
            DeviceState old = store.states().get("QB-LAB-014");
            assertThat(old.isEnrolled()).isFalse();
            assertThat(old.privateKey()).hasSize(43);
            assertThat(old.software()).containsEntry("Mudview", "2");
        }
    }

    @Test
    void anEmptyFolderHasNoDevices() throws IOException {
        assertThat(SimulatedFleet.enrolledIn(folder.resolve("new"))).isEmpty();
    }
}
