package rivo.core.explain;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.TargetRow;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.CodePointOrder;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.resolve.Choice;
import rivo.core.resolve.Contender;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Place;
import rivo.core.resolve.Reason;
import rivo.core.resolve.Resolver;
import rivo.core.rule.Clause;

/**
 * Why a unit, or a device that would stand in an OU, receives what it receives of one title, or receives nothing: every
 * assignment that speaks for the title, in ladder order, each with what became of it (section 10 of the resolution
 * rules). Immutable; safe for any thread.
 *
 * <p><b>Never disagrees:</b> the decision is the resolver's own for the same unit, and the rungs are judged by the very
 * pairs and gates with which it was made.
 */
public final class Trail {

    private final Resolver resolver;
    private final Title title;
    private final int unit;
    private final int ou;
    private final @Nullable Decision decision;
    private final List<Rung> rungs;

    private Trail(Resolver resolver, Title title, int unit, int ou, @Nullable Decision decision, List<Rung> rungs) {
        this.resolver = resolver;
        this.title = title;
        this.unit = unit;
        this.ou = ou;
        this.decision = decision;
        this.rungs = List.copyOf(rungs);
    }

    /** The trail of one unit of the title. Costs a resolution of the title's family there, and a probe for each pair. */
    public static Trail of(Resolver resolver, Title title, int unit) {
        return of(resolver, title, unit, resolver.at(title, unit));
    }

    /** The same where the resolver's decision is known already. */
    public static Trail of(Resolver resolver, Title title, int unit, @Nullable Decision decision) {
        return of(resolver, title, unit, decision,
                resolver.row(resolver.audiences().devicePosition(unit, title.scope())));
    }

    /** The trails of all titles at all units of one device. Costs a resolution of it, and a look at each pair. */
    public static List<Trail> all(Resolver resolver, Device device) {
        int position = resolver.estate().devices().position(device.id());
        TargetRow row = resolver.row(position);
        Map<String, Decision> decisions = new HashMap<>();
        resolver.device(device).forEach(o -> decisions.put(o.title().id() + "\n" + o.user(), o.decision()));
        List<Trail> trails = new ArrayList<>();
        Audiences audiences = resolver.audiences();
        for (Title title : resolver.estate().titles()) {
            boolean own = title.scope() == Scope.DEVICE;
            int from = own ? position : audiences.units().from(position);
            int to = own ? position + 1 : audiences.units().to(position);
            for (int unit = from; unit < to; unit++) {
                trails.add(of(resolver, title, unit, decisions.get(title.id() + "\n" + audiences.user(unit, title.scope())),
                        row));
            }
        }
        return trails;
    }

    private static Trail of(Resolver resolver, Title title, int unit, @Nullable Decision decision, TargetRow row) {
        Audiences audiences = resolver.audiences();
        List<Judged> judged = judge(resolver, title, new UnitStandpoint(audiences, unit, row));
        List<Rung> rungs = rungs(judged, decision);
        rungs.addAll(notLive(resolver.estate(), title));
        int ou = resolver.estate().ous().position(audiences.device(unit, title.scope()).ou());
        return new Trail(resolver, title, unit, ou, decision, rungs);
    }

    /** The trail at the OU of this position: what a device that stands in it, and of which nothing else is known, gets. */
    public static Trail at(Resolver resolver, int ou, Title title) {
        List<Judged> judged = judge(resolver, title, new OuStandpoint(resolver.estate(), ou));
        Decision decision = bare(title, judged);
        List<Rung> rungs = rungs(judged, decision);
        rungs.addAll(notLive(resolver.estate(), title));
        return new Trail(resolver, title, -1, ou, decision, rungs);
    }

    private record Judged(Contender contender, Standpoint.Standing standing) {

        boolean isCandidate() {
            return standing.verdict() == null;
        }

        Assignment assignment() {
            return contender.assignment();
        }
    }

    private static List<Judged> judge(Resolver resolver, Title title, Standpoint standpoint) {
        List<Judged> judged = new ArrayList<>();
        for (Contender contender : resolver.ladder(title)) {
            judged.add(new Judged(contender, standpoint.of(contender)));
        }
        return judged;
    }

    /** The strongest group of candidates, or without any the strongest of the later ones; empty when there is nobody. */
    private static List<Judged> strongest(List<Judged> judged) {
        Judged first = null;
        for (Judged one : judged) {
            boolean later = one.standing().verdict() instanceof Verdict.Later;
            if (one.isCandidate() && (first == null || !first.isCandidate()) || later && first == null) {
                first = one;
            }
        }
        List<Judged> group = new ArrayList<>(1);
        for (Judged one : first == null ? List.<Judged>of() : judged) {
            boolean sameKind = one.isCandidate() == Objects.requireNonNull(first).isCandidate()
                    && (one.isCandidate() || one.standing().verdict() instanceof Verdict.Later);
            if (sameKind && one.contender().place().equals(first.contender().place())) {
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
        var intent = installing.stream().map(Assignment::intent).min(Comparator.naturalOrder()).orElseThrow();
        Assignment winner = oldest(installing.stream().filter(a -> a.intent() == intent).toList());
        Outcome outcome = intent == rivo.core.estate.Intent.REQUIRED ? Outcome.REQUIRED : Outcome.AVAILABLE;
        Choice choice = choice(title, winner);
        return choice == null ? new Decision(Outcome.UNFIT, null, null, List.of(winner), null)
                : new Decision(outcome, Reason.ASSIGNED, choice, List.of(winner), null);
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

    private static List<Rung> rungs(List<Judged> judged, @Nullable Decision decision) {
        List<Judged> group = strongest(judged);
        List<Assignment> deciding = group.isEmpty() || decision == null ? List.of() : decision.deciding();
        List<Rung> rungs = new ArrayList<>(judged.size());
        for (Judged one : judged) {
            rungs.add(new Rung(one.assignment(), one.contender().pair().target(), one.contender().place(),
                    verdict(one, group, deciding), one.standing().person(), one.standing().chain()));
        }
        return rungs;
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
        var step = one.contender().place().firstDifference(group.get(0).contender().place());
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
                rungs.add(new Rung(assignment, target, Place.of(estate.ous(), assignment, target),
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

    public Title title() {
        return title;
    }

    /** What comes out; empty when nothing does. */
    public Optional<Decision> decision() {
        return Optional.ofNullable(decision);
    }

    /** The strongest first; those without a say last. */
    public List<Rung> rungs() {
        return rungs;
    }

    /** The rung that decided; null when nobody's assignment did. */
    public @Nullable Rung deciding() {
        return rungs.stream().filter(r -> r.verdict().kind() == Verdict.Kind.DECIDES
                || r.verdict() instanceof Verdict.Later later && later.decides()).findFirst().orElse(null);
    }

    /** The title's releases from the highest down, each with what became of it; only for a unit, not for an OU. */
    public List<ReleaseLook> releases() {
        if (unit < 0) {
            return List.of();
        }
        Rung rung = deciding();
        Version pin = rung == null ? null : rung.assignment().pin();
        List<ReleaseLook> looks = new ArrayList<>();
        boolean found = false;
        for (Release release : title.newestFirst()) {
            List<ReleaseLook.VariantLook> variants = release.variants().stream().map(this::look).toList();
            ReleaseLook.Kind kind = !release.isOffered() ? ReleaseLook.Kind.WITHDRAWN
                    : pin != null && release.version().compareTo(pin) != 0 ? ReleaseLook.Kind.NOT_PINNED
                            : found ? ReleaseLook.Kind.OLDER
                                    : variants.stream().anyMatch(ReleaseLook.VariantLook::fits) ? ReleaseLook.Kind.CHOSEN
                                            : ReleaseLook.Kind.DOES_NOT_FIT;
            found |= kind == ReleaseLook.Kind.CHOSEN;
            looks.add(new ReleaseLook(release, kind, variants));
        }
        return looks;
    }

    private ReleaseLook.VariantLook look(Variant variant) {
        if (variant.fits() == null) {
            return new ReleaseLook.VariantLook(variant, true, List.of());
        }
        int device = resolver.audiences().devicePosition(unit, title.scope());
        return new ReleaseLook.VariantLook(variant,
                resolver.audiences().satisfying(variant.fits(), Scope.DEVICE).contains(device),
                resolver.audiences().clauses(variant.fits(), device));
    }

    /** The clauses of the assignment's {@code within}, each with the fact it saw; none without a rule or a unit. */
    public List<Clause> clauses(Rung rung) {
        String rule = rung.assignment().within();
        return rule == null || unit < 0 || rung.verdict().kind() == Verdict.Kind.NOT_LIVE ? List.of()
                : resolver.audiences().clauses(rule, resolver.audiences().devicePosition(unit, title.scope()));
    }

    /** The trail of the title that implies, replaces, displaces or blocks this one; null when none does. */
    public @Nullable Trail other() {
        String by = decision == null ? null : decision.by();
        Title other = by == null ? null : resolver.estate().title(by);
        if (other == null) {
            return null;
        }
        int at = other.scope() == title.scope() ? unit : resolver.audiences().devicePosition(unit, title.scope());
        return Trail.of(resolver, other, at);
    }

    /** The whole in one sentence. */
    public String sentence() {
        return new Sentences(resolver.estate(), ou).whole(this);
    }

    /** What became of one rung, in words. */
    public String sentence(Rung rung) {
        return new Sentences(resolver.estate(), ou).rung(rung, Objects.requireNonNullElse(deciding(), rung));
    }
}
