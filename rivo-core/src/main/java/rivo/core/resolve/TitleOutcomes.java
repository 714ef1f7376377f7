package rivo.core.resolve;

import java.util.List;
import java.util.Optional;
import rivo.core.audience.DeviceSet;

/**
 * What every device receives of one title, kept as the set of devices for each decision. The sets are disjoint; a
 * device in none of them has no outcome.
 */
public record TitleOutcomes(List<Share> shares) {

    /** One decision and the devices it stands for. */
    public record Share(Decision decision, DeviceSet devices) {
    }

    public TitleOutcomes {
        shares = List.copyOf(shares);
    }

    /** The decision at one device. */
    public Optional<Decision> at(int position) {
        return shares.stream().filter(s -> s.devices().contains(position)).map(Share::decision).findFirst();
    }

    /** All devices with this outcome. */
    public DeviceSet with(Outcome outcome) {
        DeviceSet all = DeviceSet.NONE;
        for (Share share : shares) {
            if (share.decision().outcome() == outcome) {
                all = all.or(share.devices());
            }
        }
        return all;
    }
}
