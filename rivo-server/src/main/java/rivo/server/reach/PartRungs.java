package rivo.server.reach;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.OuTree;
import rivo.core.estate.Target;
import rivo.core.explain.AssignmentReach;
import rivo.core.explain.Rung;
import rivo.core.explain.Trail;
import rivo.core.explain.Verdict;
import rivo.core.resolve.DecidedUnits;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.TitleOutcomes;
import rivo.server.audience.Names;
import rivo.server.estate.Snapshot;

/**
 * The trail of a part of the map: of each assignment what becomes of it for the devices in the part. Where it holds for the OU itself, the
 * OU's own trail says it; where it holds for some of the devices only, it is counted. Used once, by one thread.
 */
final class PartRungs {

    private final Snapshot snapshot;
    private final Estate estate;
    private final Audiences audiences;
    private final TitleOutcomes outcomes;
    private final Trail trail;
    private final int position;
    private final int from;
    private final int to;
    private final Map<String, AssignmentReach> reaches = new HashMap<>();

    /** @param position of the OU with whose devices, and those below, the part is */
    PartRungs(Snapshot snapshot, TitleOutcomes outcomes, Trail trail, int position) {
        this.snapshot = snapshot;
        this.estate = snapshot.estate();
        this.audiences = snapshot.resolver().audiences();
        this.outcomes = outcomes;
        this.trail = trail;
        this.position = position;
        this.from = estate.devices().from(position);
        this.to = estate.devices().to(position);
    }

    /** Null where the rung has nothing to do with the part. @param draft what the draft does to the assignment */
    @Nullable RungView view(Rung rung, @Nullable String draft) {
        Assignment assignment = rung.assignment();
        if (!assignment.isLive(estate.asOf())) {
            return "ended".equals(draft) && touches(rung.target(), assignment.follows())
                    ? Rungs.view(snapshot, rung, "ended", "ended by the draft", 0, draft) : null;
        }
        if (estate.gone().containsKey(rung.target())) {
            return position == 0 ? own(rung, draft) : null;
        }
        return holdsForAll(rung.target(), assignment) ? own(rung, draft) : some(rung, draft);
    }

    /** Whether it holds for every device of the part alike, as far as its own words go. */
    private boolean holdsForAll(Target target, Assignment assignment) {
        boolean everyone = target.kind() == Target.Kind.ALL_DEVICES || target.kind() == Target.Kind.OU && assignment.follows() == Follows.DEVICE
                && isAbove(target);
        return everyone && assignment.within() == null && !aPartOnly(assignment.base());
    }

    /** Whether an OU is that of the part or one above it. */
    private boolean isAbove(Target ou) {
        return estate.ous().isAtOrBelow(position, estate.ous().position(ou.id()));
    }

    /** Whether the base of an assignment lies within the part: the OU's own trail would say that it has no effect here. */
    private boolean aPartOnly(@Nullable String base) {
        int at = base == null || estate.ous().find(base) == null ? position : estate.ous().position(base);
        return at != position && estate.ous().isAtOrBelow(at, position);
    }

    private RungView own(Rung rung, @Nullable String draft) {
        return Rungs.view(snapshot, rung, Rungs.code(rung.verdict()), trail.sentence(rung), decides(rung), draft);
    }

    private boolean touches(Target target, Follows follows) {
        OuTree tree = estate.ous();
        if (target.kind() == Target.Kind.OU && follows == Follows.DEVICE) {
            int ou = tree.find(target.id()) == null ? -1 : tree.position(target.id());
            return ou >= 0 && (tree.isAtOrBelow(ou, position) || tree.isAtOrBelow(position, ou));
        }
        return audiences.devicesReached(target, follows).countIn(from, to) > 0;
    }

    /** One that holds for some devices of the part. */
    private @Nullable RungView some(Rung rung, @Nullable String draft) {
        Assignment assignment = rung.assignment();
        UnitSet reached = reached(rung);
        int here = audiences.countOn(reached, from, to);
        if (here == 0) {
            return null;
        }
        int decides = decides(rung);
        List<String> words = new ArrayList<>();
        boolean nearer = rung.target().kind() == Target.Kind.OU && assignment.follows() == Follows.DEVICE && !isAbove(rung.target());
        if (!nearer) {
            words.add("reaches " + here + " here" + (assignment.follows() == Follows.USER ? ", following their people" : ""));
        } else if (decides > 0) {
            words.add("nearer, for a part");
        }
        String stopped = null;
        int left = here - decides;
        Map<String, Integer> fences = new LinkedHashMap<>();
        for (AssignmentReach.LeftOut out : reach(assignment).leftOut()) {
            int n = on(out.units(), reached);
            if (n > 0) {
                stopped = Rungs.code(out.by());
                left -= n;
                if (out.by() instanceof Verdict.StoppedByFence fence) {
                    fences.merge(fence.fence().name(), n, Integer::sum);
                } else {
                    words.add(n + " " + words(out.by()));
                }
            }
        }
        if (!fences.isEmpty()) {
            words.add(fences.values().stream().mapToInt(n -> n).sum() + " stopped by the fence" + (fences.size() > 1 ? "s" : "") + " at "
                    + String.join(", ", fences.keySet()) + ", since it is not binding");
        }
        int contested = contested(assignment, reached);
        if (contested > 0) {
            words.add("level for " + contested + " with an assignment that wants the opposite");
        }
        if (left > 0) {
            words.add(decides == 0 && stopped == null ? "weaker: something stronger decides for all of them"
                    : "something stronger decides for " + left);
        }
        String verdict = contested > 0 && contested == decides ? "disagrees" : decides > 0 ? "inside" : stopped != null ? stopped : "weaker";
        return Rungs.view(snapshot, rung, verdict, String.join("; ", words), decides, draft);
    }

    private AssignmentReach reach(Assignment assignment) {
        return reaches.computeIfAbsent(assignment.id(), id -> AssignmentReach.of(snapshot.resolver(), assignment, outcomes.title().scope()));
    }

    private UnitSet reached(Rung rung) {
        return audiences.unitsReached(rung.target(), rung.assignment().follows(), outcomes.title().scope());
    }

    /** How many of these units are among those that are reached, in the part. */
    private int on(UnitSet units, UnitSet reached) {
        return audiences.countOn(units.and(reached), from, to);
    }

    private int contested(Assignment assignment, UnitSet devices) {
        return outcomes.parts().stream().filter(part -> part.decision().outcome() == Outcome.CONTESTED && part.decision().deciding().contains(assignment))
                .mapToInt(part -> on(part.units(), devices)).sum();
    }

    /** For how many units in the part its assignment decides, or is one of those that disagree. */
    private int decides(Rung rung) {
        int n = 0;
        for (DecidedUnits part : outcomes.parts()) {
            if (part.decision().deciding().contains(rung.assignment())) {
                n += rung.assignment().include().size() == 1 ? audiences.countOn(part.units(), from, to)
                        : on(part.units(), reached(rung));
            }
        }
        return n;
    }

    private String words(Verdict by) {
        return by instanceof Verdict.Excluded excluded ? "excluded by " + Names.of(estate, excluded.by())
                : by instanceof Verdict.OutsideBase outside ? "not below " + outside.base().name()
                        : by instanceof Verdict.NarrowedOut narrowed ? "narrowed out: " + narrowed.rule() : "left out, since something has gone";
    }
}
