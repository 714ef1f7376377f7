package rivo.core.audience;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import rivo.core.estate.Assignment;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Wave;

/** Which of the units that an assignment reaches are served already (section 3, rule 5). Immutable. */
public final class Waves {

    /** So few are looked at by themselves; for more the answer is kept. */
    private static final int FEW = 64;
    private static final BigDecimal PARTS_OF_PERCENT = BigDecimal.valueOf(100);

    private final Audiences audiences;
    private final Assignment assignment;
    private final Target target;
    private final Scope scope;

    /**
     * @param target of the pair whose units are asked about
     * @param scope of those units
     */
    Waves(Audiences audiences, Assignment assignment, Target target, Scope scope) {
        this.audiences = audiences;
        this.assignment = assignment;
        this.target = target;
        this.scope = scope;
    }

    /** Those of the units that each wave takes, in the order of the waves; what none takes is in the last. */
    public List<Positions> taken(Positions units) {
        List<Positions> taken = new ArrayList<>();
        Positions rest = units;
        BigDecimal shares = BigDecimal.ZERO;
        for (Wave wave : assignment.waves()) {
            BigDecimal share = wave.share();
            shares = share == null ? shares : shares.add(share);
            Positions own = rest.isEmpty() ? rest : share == null ? held(rest, wave.to()) : share(rest, below(shares));
            taken.add(own);
            rest = rest.without(own);
        }
        int last = taken.size() - 1;
        taken.set(last, taken.get(last).or(rest));
        return taken;
    }

    /** Those of the units whose wave is open. */
    Positions open(Positions units) {
        List<Positions> taken = taken(units);
        return Positions.union(IntStream.range(0, taken.size()).filter(i -> assignment.waves().get(i).open()).mapToObj(taken::get).toList());
    }

    /** Whether the wave that takes this unit is open. */
    public boolean isOpen(int unit) {
        return !open(Positions.range(unit, unit + 1)).isEmpty();
    }

    /** The number, from 1 on, of the wave that takes this unit. */
    public int waveOf(int unit) {
        List<Positions> taken = taken(Positions.range(unit, unit + 1));
        return 1 + IntStream.range(0, taken.size()).filter(i -> !taken.get(i).isEmpty()).findFirst().orElseThrow();
    }

    private Positions held(Positions units, List<Target> targets) {
        List<Positions> sets = new ArrayList<>();
        targets.forEach(target -> sets.add(units.and(audiences.holds(target, assignment.follows(), scope))));
        return Positions.union(sets);
    }

    /** A whole number is below 100 × the shares exactly when it is below this. */
    private static int below(BigDecimal shares) {
        return shares.multiply(PARTS_OF_PERCENT).setScale(0, RoundingMode.CEILING).intValueExact();
    }

    Assignment assignment() {
        return assignment;
    }

    /** Of all shares of the assignment, as {@link WaveShares} counts. */
    List<Integer> limits() {
        List<Integer> limits = new ArrayList<>();
        BigDecimal shares = BigDecimal.ZERO;
        for (Wave wave : assignment.waves()) {
            BigDecimal share = wave.share();
            if (share != null) {
                shares = shares.add(share);
                limits.add(below(shares));
            }
        }
        return limits;
    }

    private Positions share(Positions units, int limit) {
        if (limit <= 0 || limit >= WaveShares.PARTS) {
            return limit <= 0 ? Positions.NONE : units;
        }
        if (units.size() < FEW) {
            Predicate<String> takes = WaveShares.taking(assignment.id(), limit);
            return units.filter(unit -> takes.test(audiences.device(unit, scope).id()));
        }
        return units.and(audiences.share(this, target, assignment.follows(), scope, limit));
    }
}
