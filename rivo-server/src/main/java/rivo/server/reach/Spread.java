package rivo.server.reach;

import java.util.ArrayList;
import java.util.List;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Estate;
import rivo.core.estate.OuTree;

/** In which OUs some devices are. Pure functions. */
public final class Spread {

    /** So many of them in one OU and below. */
    public record SpreadPart(String ou, String name, int devices) {
    }

    private Spread() {
    }

    /** By the OUs directly below the root, and the root itself for what stands in none of them; the largest part first. */
    public static List<SpreadPart> of(Estate estate, DeviceSet devices) {
        OuTree tree = estate.ous();
        List<SpreadPart> parts = new ArrayList<>();
        int rest = devices.size();
        for (int ou : MapPart.below(tree, 0)) {
            int from = estate.devices().from(ou);
            int to = estate.devices().to(ou);
            int here = devices.countIn(from, to);
            rest -= here;
            if (here > 0) {
                parts.add(new SpreadPart(tree.at(ou).id(), tree.at(ou).name(), here));
            }
        }
        if (rest > 0) {
            parts.add(new SpreadPart(tree.root().id(), tree.root().name(), rest));
        }
        return parts.stream().sorted((a, b) -> b.devices() - a.devices()).toList();
    }
}
