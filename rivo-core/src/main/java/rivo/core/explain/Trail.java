package rivo.core.explain;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Reach;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.core.estate.Title;
import rivo.core.resolve.Candidate;
import rivo.core.resolve.Candidates;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;

/**
 * Why a device, or a device that would stand in an OU, receives what it receives of one title: every assignment that
 * speaks for the title, in ladder order, each with what became of it.
 *
 * <p><b>Never disagrees:</b> the decision is the resolver's own for the same place, and the rungs are judged by it.
 *
 * @param decision what comes out; empty when nothing does
 * @param rungs the strongest first; the retired ones last
 * @param sentence the whole in one sentence
 */
public record Trail(Optional<Decision> decision, List<Rung> rungs, String sentence) {

    public Trail {
        rungs = List.copyOf(rungs);
    }

    public static Trail of(Estate estate, Device device, Title title) {
        return at(estate, estate.ous().position(device.ou()), title);
    }

    /** The trail at an OU: what a device that stands in it receives, and why. */
    public static Trail at(Estate estate, int ou, Title title) {
        Optional<Decision> decision = new Resolver(estate).at(title, ou);
        Judge judge = new Judge(estate, ou, decision.orElse(null));
        List<Rung> rungs = new ArrayList<>();
        for (Candidate candidate : everyPair(estate, title)) {
            Verdict verdict = judge.verdict(candidate);
            Ou target = estate.ous().at(candidate.target());
            rungs.add(new Rung(candidate, target, verdict, Sentences.verdict(estate, ou, candidate, verdict)));
        }
        return new Trail(decision, rungs, Sentences.decision(estate, ou, title, decision.orElse(null), rungs));
    }

    private static List<Candidate> everyPair(Estate estate, Title title) {
        List<Candidate> pairs = new ArrayList<>(Candidates.of(estate, title.id()));
        estate.assignments().of(title.id()).stream().filter(a -> !a.isLive())
                .sorted(Comparator.comparingLong(Assignment::seq).reversed())
                .forEach(a -> a.ous().forEach(ou -> pairs.add(Candidates.candidate(estate, a, ou))));
        return pairs;
    }

    /** Judges the pairs at one place, in the light of what the resolver decided there. */
    private static final class Judge {

        private final Estate estate;
        private final Reach reach;
        private final int ou;
        private final @Nullable Decision decision;
        private @Nullable Candidate strongest;

        Judge(Estate estate, int ou, @Nullable Decision decision) {
            this.estate = estate;
            this.reach = Reach.in(estate);
            this.ou = ou;
            this.decision = decision;
        }

        Verdict verdict(Candidate candidate) {
            if (!candidate.assignment().isLive()) {
                return new Verdict.NotLive();
            }
            if (!estate.ous().isAtOrBelow(ou, candidate.target())) {
                return new Verdict.DoesNotReach();
            }
            Ou fence = reach.fenceBetween(candidate.target(), ou, candidate.place().binding());
            if (fence != null) {
                return new Verdict.StoppedByFence(fence);
            }
            return onTheLadder(candidate);
        }

        /** The pairs come strongest first, so the first that holds is in the level group that decides. */
        private Verdict onTheLadder(Candidate candidate) {
            if (strongest == null) {
                strongest = candidate;
            }
            if (decision == null) {
                throw new IllegalStateException("a candidate holds where the resolver found none");
            }
            Assignment winner = decision.winner();
            return candidate.place().firstDifference(strongest.place())
                    .<Verdict>map(step -> new Verdict.Weaker(step, winner))
                    .orElseGet(() -> amongLevelOnes(candidate.assignment(), decision));
        }

        private static Verdict amongLevelOnes(Assignment assignment, Decision decision) {
            if (decision.outcome() == Outcome.CONTESTED) {
                return new Verdict.Disagrees();
            }
            return assignment.equals(decision.winner()) ? new Verdict.Decides()
                    : new Verdict.Agrees(decision.winner());
        }
    }
}
