package rivo.server.reach;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.explain.Rung;
import rivo.core.explain.Trail;
import rivo.core.explain.Verdict;
import rivo.server.change.Origins;

/** Puts trails into the words of the API. */
@Component
public class Rungs {

    private final Origins origins;

    Rungs(Origins origins) {
        this.origins = origins;
    }

    /** The rungs of a device's trail; the ended ones are left out, they are the business of the history. */
    public List<RungView> of(Trail trail) {
        return trail.rungs().stream().filter(rung -> rung.candidate().assignment().isLive())
                .map(rung -> view(rung, code(rung.verdict()), rung.sentence(), null, null)).toList();
    }

    RungView view(Rung rung, String verdict, String sentence, @Nullable Integer devices, @Nullable String draft) {
        Assignment assignment = rung.candidate().assignment();
        Origins.Origin origin = origins.of(assignment.id()).orElse(null);
        return new RungView(assignment.id(), assignment.intent().word(), rung.target().id(), rung.target().name(),
                assignment.binding(), verdict, sentence, devices, origin == null ? null : origin.change(),
                origin == null ? null : origin.at(), draft);
    }

    static String code(Verdict verdict) {
        return verdict.match(d -> "decides", d -> "disagrees", a -> "agrees", w -> "weaker", s -> "stopped",
                n -> "no-reach", n -> "ended");
    }

    /** What the draft does to an assignment: {@code added}, {@code ended}, or null. */
    static @Nullable String draft(Estate now, Assignment after) {
        Assignment before = now.assignments().find(after.id());
        if (before == null) {
            return "added";
        }
        return before.isLive() && !after.isLive() ? "ended" : null;
    }
}
