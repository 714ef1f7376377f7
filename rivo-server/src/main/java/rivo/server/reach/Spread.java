package rivo.server.reach;

import java.util.ArrayList;
import java.util.List;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.OuTree;
import rivo.core.estate.Target;
import rivo.server.audience.Names;

/** The devices of an audience, and in which OUs devices are. Pure functions. */
public final class Spread {

    /** So many of them in one OU and below. */
    public record SpreadPart(String ou, String name, int devices) {
    }

    private Spread() {
    }

    /** The devices of an audience, or those of its people where it holds none; none of one that there is not. */
    public static DeviceSet devicesOf(Audiences audiences, Target target) {
        boolean known = Names.isThere(audiences.estate(), target);
        boolean byPeople = !target.kind().serves(Follows.DEVICE) || known && audiences.devicesIn(target).isEmpty() && target.kind().serves(Follows.USER);
        return known ? audiences.devicesReached(target, byPeople ? Follows.USER : Follows.DEVICE) : DeviceSet.NONE;
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
