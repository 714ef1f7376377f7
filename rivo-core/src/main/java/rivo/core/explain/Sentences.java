package rivo.core.explain;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Title;
import rivo.core.resolve.Candidate;
import rivo.core.resolve.Decision;
import rivo.core.resolve.LadderStep;
import rivo.core.resolve.Outcome;

/** The words of a trail. */
final class Sentences {

    private Sentences() {
    }

    static String verdict(Estate estate, int ou, Candidate candidate, Verdict verdict) {
        return verdict.match(
                decides -> (candidate.place().binding() ? "binding from " : "nearest OU that speaks for this title, ")
                        + levels(estate, ou, candidate.target()),
                disagrees -> "level with an assignment that wants the opposite; left as it is",
                agrees -> "level with the deciding one and of the same mind, but newer",
                weaker -> "weaker: " + weaker(estate, ou, candidate, weaker),
                stopped -> "stopped by the fence at " + stopped.fence().name() + "; it is not binding",
                doesNotReach -> "does not reach here",
                notLive -> "ended");
    }

    private static String weaker(Estate estate, int ou, Candidate candidate, Verdict.Weaker weaker) {
        LadderStep step = weaker.step();
        return switch (step) {
            case BINDING -> "it is not binding, the deciding one is";
            case NEARNESS -> levels(estate, ou, candidate.target())
                    + (candidate.place().binding() ? ", the deciding one binds from farther up"
                            : ", the deciding one is nearer");
            case PRIORITY -> "its priority is " + candidate.place().priority() + ", the deciding one's is "
                    + weaker.than().priority();
        };
    }

    /** How far up the target stands, seen from the place. */
    private static String levels(Estate estate, int ou, int target) {
        int up = estate.ous().depth(ou) - estate.ous().depth(target);
        return switch (up) {
            case 0 -> "right here";
            case 1 -> "1 level up";
            default -> up + " levels up";
        };
    }

    static String decision(Estate estate, int ou, Title title, @Nullable Decision decision, List<Rung> rungs) {
        if (decision == null) {
            return nothing(title, rungs);
        }
        Outcome outcome = decision.outcome();
        return switch (outcome) {
            case REQUIRED -> "Required, because " + because(rungs) + ".";
            case UNINSTALL -> "Removed, because " + because(rungs) + ".";
            case CONTESTED -> "Contested: " + decision.deciding().size()
                    + " level assignments disagree. It is left as it is until somebody decides.";
            case UNFIT -> "Does not fit: no release of " + title.name() + " is offered that fits this device.";
        };
    }

    private static String because(List<Rung> rungs) {
        for (Rung rung : rungs) {
            if (rung.verdict() instanceof Verdict.Decides) {
                String who = rung.candidate().place().binding() ? "a binding assignment at "
                        : "the nearest assignment that reaches here, at ";
                return who + rung.target().name() + ", says so";
            }
        }
        throw new IllegalStateException("a decision without a deciding rung");
    }

    private static String nothing(Title title, List<Rung> rungs) {
        for (Rung rung : rungs) {
            if (rung.verdict() instanceof Verdict.StoppedByFence stopped) {
                Ou fence = stopped.fence();
                String what = rung.candidate().assignment().intent() == Intent.REQUIRED ? "requires" : "removes";
                return "Nothing: " + rung.target().name() + " " + what + " it, but the fence at " + fence.name()
                        + " stops that.";
            }
        }
        return "Nothing: no assignment of " + title.name() + " reaches here.";
    }
}
