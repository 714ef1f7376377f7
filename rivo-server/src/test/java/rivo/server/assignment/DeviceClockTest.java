package rivo.server.assignment;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Device;
import rivo.core.estate.Facts;
import rivo.server.assignment.Delivery.Deadline;

/** A device's own time. */
class DeviceClockTest {

    private static Device in(String zone) {
        return new Device("d1", "QB-LAB-014", null, List.of(), Facts.of(Map.of("x.timezone", zone)), List.of(), List.of());
    }

    private static Instant local(String time, String zone) {
        return Objects.requireNonNull(DeviceClock.deadline(new Deadline(null, time), in(zone)));
    }

    @Test
    void aLocalTimeIsByTheDevicesOwnZone() {
        assertThat(local("2026-12-04T18:00", "Asia/Tokyo")).isEqualTo("2026-12-04T09:00:00Z");
        assertThat(local("2026-12-04T18:00", "Europe/London")).isEqualTo("2026-12-04T18:00:00Z");
        assertThat(DeviceClock.deadline(new Deadline(Instant.EPOCH, null), in("Asia/Tokyo"))).isEqualTo(Instant.EPOCH);
        assertThat(DeviceClock.deadline(null, in("Asia/Tokyo"))).isNull();
    }

    @Test
    void aTimeThatAClockChangeLeavesOutIsTheFirstInstantAfterItAndADoubleOneTheFirstOfTheTwo() {
        assertThat(local("2026-03-29T01:30", "Europe/London")).isEqualTo("2026-03-29T01:00:00Z");
        assertThat(local("2026-10-25T01:30", "Europe/London")).as("still summer time").isEqualTo("2026-10-25T00:30:00Z");
    }

    @Test
    void whatIsNoZoneCountsAsNotReported() {
        assertThat(DeviceClock.zone(in("Moon/Tranquillity"))).isEqualTo(ZoneId.systemDefault());
        assertThat(DeviceClock.zone(new Device("d1", "d1", null, List.of(), Facts.NONE, List.of(), List.of()))).isEqualTo(ZoneId.systemDefault());
    }
}
