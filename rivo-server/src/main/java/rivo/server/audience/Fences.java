package rivo.server.audience;

import java.util.Collection;
import org.springframework.stereotype.Component;
import rivo.core.estate.RefusedException;
import rivo.server.estate.EstateRecords;
import rivo.server.estate.Road;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;

/** Puts fences around OUs: from outside, only binding assignments cross them. */
@Component
public class Fences {

    private final Road road;
    private final LiveEvents events;

    Fences(Road road, LiveEvents events) {
        this.road = road;
        this.events = events;
    }

    /**
     * @param ous the ids of OUs, none of them the root
     * @throws RefusedException when an OU does not exist, or is the root
     */
    public void raise(String who, Collection<String> ous) {
        road.take(journey -> {
            for (String ou : ous) {
                if (journey.estate().ous().find(ou) == null || journey.estate().ous().root().id().equals(ou)) {
                    throw new RefusedException("bad-fence", "ou:" + ou,
                            "A fence stands around an OU of the directory that is not its root; choose one.");
                }
                journey.db().sql("merge into fences (ou) values (?)").params(ou).update();
                journey.journal(who, "fence-raised", "ou:" + ou, null, null, ou);
            }
            journey.becomes(new EstateRecords(journey.db()).read(journey.now()));
            journey.afterwards(() -> events.changed(Topics.ESTATE));
            return ous.size();
        });
    }
}
