package rivo.core.explain;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Ou;
import rivo.core.estate.OuTree;
import rivo.core.estate.Target;
import rivo.core.estate.Wave;
import rivo.core.resolve.RankedPair;

/**
 * Looks from an OU: for a device that would stand in it, of which nothing else is known. Groups, collections and people
 * do not hold it, no rule is satisfied by it, and of waves with a share it is in the last.
 */
final class OuStandpoint implements Standpoint {

    private final Estate estate;
    private final OuTree ous;
    private final int ou;

    OuStandpoint(Estate estate, int ou) {
        this.estate = estate;
        this.ous = estate.ous();
        this.ou = ou;
    }

    @Override
    public Standing of(RankedPair ranked) {
        return new Standing(verdict(ranked.assignment(), ranked.pair().target()), "", List.of());
    }

    private @Nullable Verdict verdict(Assignment assignment, Target target) {
        GoneReference gone = Trails.gone(estate, assignment, target);
        if (gone != null) {
            return new Verdict.Rests(gone);
        }
        if (assignment.follows() == Follows.USER || !holds(target)) {
            return new Verdict.DoesNotReach();
        }
        int base = ous.position(assignment.base());
        if (!ous.isAtOrBelow(ou, base)) {
            return new Verdict.OutsideBase(ous.at(base));
        }
        if (assignment.within() != null) {
            return new Verdict.NarrowedOut(assignment.within(), List.of());
        }
        for (Target excluded : assignment.exclude()) {
            if (holds(excluded)) {
                return new Verdict.Excluded(excluded, List.of());
            }
        }
        Ou fence = assignment.binding() ? null : fence(assignment, target);
        return fence == null ? wave(assignment) : new Verdict.StoppedByFence(fence);
    }

    private boolean holds(Target target) {
        return target.kind() == Target.Kind.ALL_DEVICES || target.kind() == Target.Kind.OU && ous.find(target.id()) != null
                && ous.isAtOrBelow(ou, ous.position(target.id()));
    }

    private @Nullable Ou fence(Assignment assignment, Target target) {
        for (int fence : ous.fenced()) {
            boolean inside = isIn(assignment.base(), fence) || target.kind() == Target.Kind.OU && isIn(target.id(), fence)
                    || target.kind() == Target.Kind.COLLECTION && isIn(base(target), fence);
            if (ous.isAtOrBelow(ou, fence) && !inside) {
                return ous.at(fence);
            }
        }
        return null;
    }

    private @Nullable String base(Target target) {
        DeviceCollection collection = estate.collections().get(target.id());
        return collection == null ? null : collection.base();
    }

    private boolean isIn(@Nullable String id, int fence) {
        return id != null && ous.find(id) != null && ous.isAtOrBelow(ous.position(id), fence);
    }

    private @Nullable Verdict wave(Assignment assignment) {
        List<Wave> waves = assignment.waves();
        for (int i = 0; i < waves.size(); i++) {
            boolean last = i == waves.size() - 1;
            if (last || waves.get(i).to().stream().anyMatch(this::holds)) {
                return waves.get(i).open() ? null : new Verdict.Later(i + 1, waves.size(), false);
            }
        }
        return null;
    }
}
