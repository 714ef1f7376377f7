package rivo.core.explain;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.Gate;
import rivo.core.audience.Pair;
import rivo.core.audience.Positions;
import rivo.core.estate.Device;
import rivo.core.estate.Follows;
import rivo.core.estate.Group;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.core.resolve.RankedPair;

/**
 * Looks from one unit of a title, by asking the very gates that decided.
 *
 * <p>Following the user onto a device, a pair may stand for several people: then the one for whom it got farthest is
 * shown.
 */
final class UnitStandpoint implements Standpoint {

    private static final Standing NO_REACH = new Standing(new Verdict.DoesNotReach(), "", List.of());
    private static final int CANDIDATE = Integer.MAX_VALUE;
    private static final int LATER = CANDIDATE - 1;

    private final Audiences audiences;
    private final int unit;

    UnitStandpoint(Audiences audiences, int unit) {
        this.audiences = audiences;
        this.unit = unit;
    }

    @Override
    public Standing of(RankedPair ranked) {
        Pair pair = ranked.pair();
        Positions reached = pair.reaches(pair.ownUnits(unit));
        if (reached.isEmpty()) {
            return NO_REACH;
        }
        int best = reached.first();
        int got = -1;
        for (int at : reached.toArray()) {
            int far = howFar(pair, at);
            if (far > got) {
                got = far;
                best = at;
            }
        }
        String person = person(pair, best);
        return new Standing(verdict(pair, best, got), person, chain(pair.target(), best, pair.ownScope(), person));
    }

    private static int howFar(Pair pair, int at) {
        for (int g = 0; g < pair.gates().size(); g++) {
            if (!pair.gates().get(g).passes(at)) {
                return g;
            }
        }
        return pair.waves() == null || pair.waves().isOpen(at) ? CANDIDATE : LATER;
    }

    private @Nullable Verdict verdict(Pair pair, int at, int got) {
        if (got == CANDIDATE) {
            return null;
        }
        if (got == LATER) {
            return new Verdict.Later(Objects.requireNonNull(pair.waves()).waveOf(at), pair.assignment().waves().size(),
                    false);
        }
        Gate gate = pair.gates().get(got);
        int device = audiences.devicePosition(at, pair.ownScope());
        return gate.match(resting -> new Verdict.Rests(Objects.requireNonNull(audiences.estate().gone().get(resting.gone()))),
                base -> new Verdict.OutsideBase(base.base()),
                within -> new Verdict.NarrowedOut(within.rule(), audiences.clauses(within.rule(), device)),
                exclusion -> new Verdict.Excluded(exclusion.target(),
                        chain(exclusion.target(), at, pair.ownScope(), person(pair, at))),
                fence -> new Verdict.StoppedByFence(Objects.requireNonNull(fence.stopping(at))));
    }

    /** The person through whom a pair that follows the user is looked at. */
    private String person(Pair pair, int at) {
        if (pair.assignment().follows() == Follows.DEVICE) {
            return "";
        }
        if (pair.ownScope() == Scope.USER) {
            return audiences.user(at, Scope.USER);
        }
        // Nothing but the target was asked, so anyone of the device's people whom it holds will do.
        Positions people = Positions.range(audiences.units().from(at), audiences.units().to(at))
                .and(audiences.reach(pair.target(), Follows.USER, Scope.USER));
        return audiences.user(people.first(), Scope.USER);
    }

    private List<Group> chain(Target target, int at, Scope scope, String person) {
        if (target.kind() != Target.Kind.GROUP || audiences.rests(target)) {
            return List.of();
        }
        Device device = audiences.device(at, scope);
        List<Group> chain = person.isEmpty() ? audiences.chain(target.id(), Target.device(device.id()))
                : audiences.chain(target.id(), Target.user(person));
        if (!chain.isEmpty()) {
            return chain;
        }
        chain = audiences.chain(target.id(), Target.device(device.id()));
        for (String id : device.people()) {
            User user = audiences.estate().users().find(id);
            if (chain.isEmpty() && user != null) {
                chain = audiences.chain(target.id(), Target.user(id));
            }
        }
        return chain;
    }
}
