package rivo.server.reach;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.Kit;
import rivo.core.explain.Rung;
import rivo.core.explain.Trail;
import rivo.core.explain.Verdict;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.audience.Names;
import rivo.server.document.Kept;
import rivo.server.estate.Snapshot;

/** Puts trails into the words of the API. Pure functions. */
public final class Rungs {

    private Rungs() {
    }

    /** The rungs of a device's trail; the ended ones are left out, they are the business of the history. */
    public static List<RungView> of(Snapshot snapshot, Trail trail) {
        return trail.rungs().stream().filter(rung -> rung.verdict().kind() != Verdict.Kind.NOT_LIVE)
                .map(rung -> view(snapshot, rung, code(rung.verdict()), trail.sentence(rung), null, null)).toList();
    }

    static RungView view(Snapshot snapshot, Rung rung, String verdict, String sentence, @Nullable Integer devices,
            @Nullable String draft) {
        Estate estate = snapshot.estate();
        Assignment assignment = rung.assignment();
        Kept<AssignmentDocument> kept = snapshot.get(AssignmentDocument.KIND).kept(assignment.id());
        Long change = kept == null ? null : kept.change();
        return new RungView(assignment.id(), assignment.intent().word(), rung.target().toString(),
                Names.of(estate, rung.target()), kit(estate, assignment),
                assignment.binding(), verdict, sentence, devices, change, change == null ? null : kept.changedAt(), draft);
    }

    /** The name of the kit by which it is assigned; null where the title itself is. */
    static @Nullable String kit(Estate estate, Assignment assignment) {
        Kit kit = assignment.subject().kit() ? estate.kits().get(assignment.subject().id()) : null;
        return kit == null ? null : kit.name();
    }

    static String code(Verdict verdict) {
        return switch (verdict.kind()) {
            case DECIDES -> "decides";
            case DISAGREES -> "disagrees";
            case AGREES -> "agrees";
            case WEAKER -> "weaker";
            case LATER -> "later";
            case STOPPED -> "stopped";
            case EXCLUDED -> "excluded";
            case NARROWED_OUT -> "narrowed-out";
            case OUTSIDE_BASE -> "outside-base";
            case RESTS -> "rests";
            case NO_REACH -> "no-reach";
            case NOT_LIVE -> "ended";
        };
    }

    /** What the draft does to an assignment: {@code added}, {@code ended}, or null. */
    static @Nullable String draft(Estate now, Assignment after) {
        Assignment before = now.assignments().find(after.id());
        if (before == null) {
            return "added";
        }
        return before.state() == AssignmentState.ACTIVE && after.state() != AssignmentState.ACTIVE ? "ended" : null;
    }
}
