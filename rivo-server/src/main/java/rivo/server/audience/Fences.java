package rivo.server.audience;

import java.util.Collection;
import java.util.List;
import org.springframework.stereotype.Component;
import rivo.core.estate.RefusedException;
import rivo.server.document.Documents;
import rivo.server.document.Kept;
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
            Documents<FenceDocument> known = context.get(FenceDocument.KIND);
            List<Kept<FenceDocument>> raised = ous.stream().distinct().filter(ou -> known.find(ou) == null)
                    .map(ou -> new Kept<>(new FenceDocument(ou), 1, who, context.now(), null)).toList();
            FenceDocument.KIND.put(context, raised);
            raised.forEach(fence -> context.journal(who, "fence-raised", "ou:" + fence.document().id(), null, null, fence.document()));
            context.afterwards(() -> events.changed(Topics.ESTATE));
            return ous.size();
        });
    }
}
