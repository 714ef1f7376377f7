package rivo.core.explain;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.PairNumbers;
import rivo.core.audience.TargetRow;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.CodePointOrder;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Intent;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.resolve.Choice;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Rank;
import rivo.core.resolve.RankedPair;
import rivo.core.resolve.Reason;
import rivo.core.resolve.Resolver;

/**
 * Makes the trails of one estate (section 10 of the resolution rules). Safe for any thread; keeps, for each title
 * that was asked about, the rungs as they are where nothing reaches.
 *
 * <p><b>How.</b> A trail lists every pair, but only those whose target may hold the device, which its row of targets
 * tells, have to be looked at: all others rest as they are kept.
 */
public final class Trails {

    private final Resolver resolver;
    private final Map<String, Resting> resting = new ConcurrentHashMap<>();

    private Trails(Resolver resolver) {
        this.resolver = resolver;
    }

    public static Trails of(Resolver resolver) {
        return new Trails(resolver);
    }

    /** A title's pairs in ladder order, the rungs of all of them where they do not reach, and those without a say. */
    private record Resting(List<RankedPair> ladder, PairNumbers numbers, List<Rung> rungs) {
    }

    /** A pair that may hold, with what became of it before the ladder. */
    private record Judged(int at, RankedPair ranked, Standpoint.Standing standing) {

        boolean isCandidate() {
            return standing.verdict() == null;
        }

        boolean isLater() {
            return standing.verdict() instanceof Verdict.Later;
        }

        Assignment assignment() {
            return ranked.assignment();
        }
    }

    /** The trail of one unit of the title. Costs a resolution of the title's family there, and a probe for each pair. */
    public Trail of(Title title, int unit) {
        return of(title, unit, resolver.at(title, unit));
    }

    /** The same where the resolver's decision is known already. */
    public Trail of(Title title, int unit, @Nullable Decision decision) {
        return of(title, unit, decision, resolver.row(resolver.audiences().devicePosition(unit, title.scope())));
    }

    /** The trails of all titles at all units of one device. Costs a resolution of it, and a look at each pair. */
    public List<Trail> all(Device device) {
        int position = resolver.estate().devices().position(device.id());
        TargetRow row = resolver.row(position);
        Map<String, Map<String, Decision>> decisions = new HashMap<>();
        resolver.device(device).forEach(o -> decisions.computeIfAbsent(o.title().id(), t -> new HashMap<>(2))
                .put(o.user(), o.decision()));
        List<Trail> trails = new ArrayList<>();
        Audiences audiences = resolver.audiences();
        for (Title title : resolver.estate().titles()) {
            Map<String, Decision> here = decisions.getOrDefault(title.id(), Map.of());
            boolean own = title.scope() == Scope.DEVICE;
            int from = own ? position : audiences.units().from(position);
            int to = own ? position + 1 : audiences.units().to(position);
            for (int unit = from; unit < to; unit++) {
                trails.add(of(title, unit, here.get(audiences.user(unit, title.scope())), row));
            }
        }
        return trails;
    }

    private Trail of(Title title, int unit, @Nullable Decision decision, TargetRow row) {
        Audiences audiences = resolver.audiences();
        Resting rest = resting(title);
        Standpoint standpoint = new UnitStandpoint(audiences, unit);
        List<Judged> judged = new ArrayList<>();
        int size = rest.ladder().size();
        for (int at = rest.numbers().next(row, 0); at < size; at = rest.numbers().next(row, at + 1)) {
            judged.add(new Judged(at, rest.ladder().get(at), standpoint.of(rest.ladder().get(at))));
        }
        int ou = resolver.estate().ous().position(audiences.device(unit, title.scope()).ou());
        return new Trail(this, title, unit, ou, decision, rungs(rest, judged, decision));
    }

    /** The trail at the OU of this position: what a device that stands in it, and of which nothing else is known, gets. */
    public Trail at(int ou, Title title) {
        Resting rest = resting(title);
        Standpoint standpoint = new OuStandpoint(resolver.estate(), ou);
        List<Judged> judged = new ArrayList<>();
        for (int at = 0; at < rest.ladder().size(); at++) {
            judged.add(new Judged(at, rest.ladder().get(at), standpoint.of(rest.ladder().get(at))));
        }
        Decision decision = bare(title, judged);
        return new Trail(this, title, -1, ou, decision, rungs(rest, judged, decision));
    }

    Resolver resolver() {
        return resolver;
    }

    private Resting resting(Title title) {
        Resting known = resting.get(title.id());
        if (known == null) {
            List<RankedPair> ladder = resolver.ladder(title);
            List<Rung> rungs = new ArrayList<>();
            ladder.forEach(c -> rungs.add(new Rung(c.assignment(), c.pair().target(), c.rank(),
                    withoutReach(c), "", List.of())));
            rungs.addAll(notLive(resolver.estate(), title));
            known = new Resting(ladder, PairNumbers.of(ladder.stream().map(RankedPair::pair).toList()),
                    List.copyOf(rungs));
            resting.put(title.id(), known);
        }
        return known;
    }

    private Verdict withoutReach(RankedPair ranked) {
        GoneReference gone = gone(resolver.estate(), ranked.assignment(), ranked.pair().target());
        return gone == null ? new Verdict.DoesNotReach() : new Verdict.Rests(gone);
    }

    /** What lets the assignment rest with this target; null when it does not. */
    static @Nullable GoneReference gone(Estate estate, Assignment assignment, Target target) {
        GoneReference gone = estate.gone().get(target);
        return gone != null || assignment.base() == null ? gone : estate.gone().get(Target.ou(assignment.base()));
    }

    /** The strongest group of candidates, or without any the strongest of the later ones; empty when there is nobody. */
    private static List<Judged> strongest(List<Judged> judged) {
        Judged first = null;
        for (Judged one : judged) {
            if (one.isCandidate() && (first == null || !first.isCandidate()) || one.isLater() && first == null) {
                first = one;
            }
        }
        List<Judged> group = new ArrayList<>(1);
        for (Judged one : first == null ? List.<Judged>of() : judged) {
            boolean sameKind = one.isCandidate() == Objects.requireNonNull(first).isCandidate()
                    && (one.isCandidate() || one.isLater());
            if (sameKind && one.ranked().rank().equals(first.ranked().rank())) {
                group.add(one);
            }
        }
        return group;
    }

    /** What the pairs come to at an OU, where relations, seats and fits cannot be known. */
    private static @Nullable Decision bare(Title title, List<Judged> judged) {
        List<Judged> group = strongest(judged);
        if (group.isEmpty()) {
            return null;
        }
        List<Assignment> all = group.stream().map(Judged::assignment).distinct().toList();
        if (!group.get(0).isCandidate()) {
            return new Decision(Outcome.LATER, null, null, List.of(oldest(all)), null);
        }
        List<Assignment> installing = all.stream().filter(a -> a.intent().installs()).toList();
        if (installing.isEmpty()) {
            return new Decision(Outcome.UNINSTALL, Reason.ASSIGNED, null, List.of(oldest(all)), null);
        }
        if (installing.size() < all.size()) {
            return new Decision(Outcome.CONTESTED, null, null,
                    all.stream().sorted(Comparator.comparing(Assignment::id, CodePointOrder.INSTANCE)).toList(), null);
        }
        Intent intent = installing.stream().map(Assignment::intent).min(Comparator.naturalOrder()).orElseThrow();
        Assignment winner = oldest(installing.stream().filter(a -> a.intent() == intent).toList());
        Outcome outcome = intent == Intent.REQUIRED ? Outcome.REQUIRED : Outcome.AVAILABLE;
        Choice choice = choice(title, winner);
        if (choice != null) {
            return new Decision(outcome, Reason.ASSIGNED, choice, List.of(winner), null);
        }
        boolean isThere = winner.pin() == null
                || title.releases().stream().anyMatch(r -> r.isOffered() && r.version().equals(winner.pin()));
        return isThere ? new Decision(Outcome.UNFIT, null, null, List.of(winner), null)
                : new Decision(Outcome.BLOCKED, Reason.NO_RELEASE, null, List.of(winner), null);
    }

    private static Assignment oldest(List<Assignment> assignments) {
        return assignments.stream().min(Comparator.comparingLong(Assignment::seq)).orElseThrow();
    }

    private static @Nullable Choice choice(Title title, Assignment winner) {
        for (Release release : title.newestFirst()) {
            boolean wanted = winner.pin() == null || winner.pin().equals(release.version());
            if (release.isOffered() && wanted && !release.variants().isEmpty()) {
                Variant first = release.variants().get(0);
                return new Choice(release, first);
            }
        }
        return null;
    }

    private static List<Rung> rungs(Resting rest, List<Judged> judged, @Nullable Decision decision) {
        if (judged.isEmpty()) {
            return rest.rungs();
        }
        List<Judged> group = strongest(judged);
        List<Assignment> deciding = group.isEmpty() || decision == null ? List.of() : decision.deciding();
        Rung[] rungs = rest.rungs().toArray(new Rung[0]);
        for (Judged one : judged) {
            Verdict verdict = verdict(one, group, deciding);
            if (!(verdict instanceof Verdict.DoesNotReach)) {
                rungs[one.at()] = new Rung(one.assignment(), one.ranked().pair().target(), one.ranked().rank(),
                        verdict, one.standing().person(), one.standing().chain());
            }
        }
        return Arrays.asList(rungs);
    }

    private static Verdict verdict(Judged one, List<Judged> group, List<Assignment> deciding) {
        Verdict before = one.standing().verdict();
        if (before instanceof Verdict.Later later) {
            return group.contains(one) && deciding.contains(one.assignment())
                    ? new Verdict.Later(later.wave(), later.of(), true) : later;
        }
        if (before != null) {
            return before;
        }
        Assignment winner = deciding.isEmpty() ? group.get(0).assignment() : deciding.get(0);
        var step = one.ranked().rank().firstDifference(group.get(0).ranked().rank());
        if (step.isPresent()) {
            return new Verdict.Weaker(step.get(), winner);
        }
        if (deciding.size() > 1) {
            return new Verdict.Disagrees();
        }
        return one.assignment().equals(winner) ? new Verdict.Decides() : new Verdict.Agrees(winner);
    }

    /** The assignments without a say, the newest first. */
    private static List<Rung> notLive(Estate estate, Title title) {
        List<Rung> rungs = new ArrayList<>();
        List<Assignment> oldestFirst = estate.assignments().of(title.id());
        for (int i = oldestFirst.size() - 1; i >= 0; i--) {
            Assignment assignment = oldestFirst.get(i);
            if (assignment.isLive(estate.asOf())) {
                continue;
            }
            for (Target target : assignment.include()) {
                rungs.add(new Rung(assignment, target, Rank.of(estate.ous(), assignment, target),
                        new Verdict.NotLive(why(assignment)), "", List.of()));
            }
        }
        return rungs;
    }

    private static Verdict.NotLive.Why why(Assignment assignment) {
        AssignmentState state = assignment.state();
        return switch (state) {
            case ACTIVE -> Verdict.NotLive.Why.NOT_STARTED;
            case PAUSED -> Verdict.NotLive.Why.PAUSED;
            case RETIRED -> Verdict.NotLive.Why.RETIRED;
        };
    }
}
