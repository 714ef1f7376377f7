package rivo.server.audience;

import java.util.Collection;
import org.springframework.stereotype.Component;
import rivo.core.estate.Ou;
import rivo.core.estate.RefusedException;
import rivo.server.estate.ChangeWriter;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;

/** Puts fences around OUs: from outside, only binding assignments cross them. */
@Component
public class Fences {

    private final ChangeWriter writer;
    private final LiveEvents events;

    Fences(ChangeWriter writer, LiveEvents events) {
        this.writer = writer;
        this.events = events;
    }

    /**
     * @param ous the ids of OUs, none of them the root
     * @throws RefusedException when an OU does not exist, or is the root
     */
    public void raise(String who, Collection<String> ous) {
        writer.take(context -> {
            for (String ou : ous) {
                if (context.estate().ous().find(ou) == null || context.estate().ous().root().id().equals(ou)) {
                    throw new RefusedException("bad-fence", "ou:" + ou,
                            "A fence stands around an OU of the directory that is not its root; choose one.");
                }
                context.db().sql("merge into fences (ou) values (?)").params(ou).update();
                context.journal(who, "fence-raised", "ou:" + ou, null, null, ou);
            }
            context.becomes(context.estate().withOus(context.estate().ous().all().stream().map(ou -> ous.contains(ou.id())
                    ? new Ou(ou.id(), ou.name(), ou.dn(), ou.parent(), true) : ou).toList()));
            context.afterwards(() -> events.changed(Topics.ESTATE));
            return ous.size();
        });
    }
}
