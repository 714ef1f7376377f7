package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.Present;
import rivo.core.estate.Version;

/** Devices d0, d1 and so on in one OU, each with a memory of 4, 8 or 16 GiB and some of the titles t0, t1 and so on present in one of three versions. */
final class RandomDevices {

    static final String OU = "o0";

    private RandomDevices() {
    }

    /** @param rare one in so many titles is present */
    static List<Device> of(int devices, int titles, int rare, Random random) {
        List<Device> all = new ArrayList<>();
        for (int d = 0; d < devices; d++) {
            List<Present> present = new ArrayList<>();
            for (int t = 0; t < titles; t++) {
                if (random.nextInt(rare) == 0) {
                    present.add(Present.of("t" + t, Version.of(1 + random.nextInt(3) + ".0")));
                }
            }
            all.add(new Device("d" + d, "QB-" + d, OU, List.of(), Estates.facts("ramGiB", String.valueOf(4 << random.nextInt(3))), List.of(), present));
        }
        return all;
    }
}
