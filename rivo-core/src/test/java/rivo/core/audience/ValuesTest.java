package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.Follows;
import rivo.core.estate.Installed;
import rivo.core.estate.Target;

/** The values that the fleet has, against counting them one by one. */
class ValuesTest {

    @Test
    void factsAndSoftwareAreCounted() {
        RandomRules rules = new RandomRules(7);
        Estates estates = Estates.usual().user("imara", "works");
        List<Device> devices = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            devices.add(rules.device(i));
            estates.device(devices.get(i));
        }
        Audiences audiences = Audiences.of(estates.estate());
        assertThat(audiences.trying().values("arch")).isEqualTo(counted(devices, "arch")).isNotEmpty();
        assertThat(audiences.trying().values("ramgib")).isEqualTo(counted(devices, "ramGiB"));
        assertThat(audiences.trying().values("x.no-such")).isEmpty();
        Map<String, Integer> software = new HashMap<>();
        devices.forEach(device -> device.software().stream().distinct().map(Installed::name).filter(Objects::nonNull).forEach(name -> software.merge(name, 1, Integer::sum)));
        assertThat(audiences.trying().values("software.name").keySet()).isEqualTo(software.keySet()).isNotEmpty();
        assertThat(audiences.trying().reportedFacts()).contains("arch", "ramgib");
    }

    private static Map<String, Integer> counted(List<Device> devices, String fact) {
        Map<String, Integer> counts = new HashMap<>();
        devices.forEach(device -> {
            String value = device.facts().get(fact);
            if (value != null) {
                counts.merge(value, 1, Integer::sum);
            }
        });
        return counts;
    }

    @Test
    void ousGroupsAndCollectionsAreValuesToo() {
        Audiences audiences = Audiences.of(Estates.usual().group("crew", Target.device("d-bench")).collection("tablets", "arch pr").estate());
        assertThat(audiences.trying().values("group")).containsEntry("crew", 1);
        assertThat(audiences.trying().values("collection").keySet()).containsExactly("tablets");
        assertThat(audiences.trying().values("ou")).hasSize(audiences.estate().ous().size());
        assertThat(audiences.trying().values("ou").get(audiences.estate().ous().root().dn())).isEqualTo(audiences.estate().devices().size());
    }

    @Test
    void whatIsTriedIsAskedOfPartsToo() {
        Audiences audiences = Audiences.of(Estates.usual().estate());
        DeviceSet both = audiences.devicesOf(List.of("d-bench", "d-labs", "moon"));
        assertThat(both.size()).isEqualTo(2);
        assertThat(both.countIn(0, audiences.estate().devices().size())).isEqualTo(2);
        assertThat(audiences.devicesReached(Target.ou("labs"), Follows.DEVICE).and(both).size()).isEqualTo(2);
    }
}
