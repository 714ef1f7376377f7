package rivo.core.audience;

import java.util.Collection;
import java.util.Objects;
import java.util.function.IntConsumer;
import java.util.function.IntPredicate;
import rivo.core.estate.Scope;

/**
 * A set of units of titles of one scope (section 2): devices, or people on devices. It is no set of devices, and becomes one by
 * {@link Audiences#devicesOf(UnitSet)} only. Of the estate whose audiences were asked for it. Immutable; safe for any thread.
 *
 * @param positions of devices for {@link Scope#DEVICE}; as {@link PersonUnits} lays them out for {@link Scope#USER}
 */
public record UnitSet(Scope scope, Positions positions) {

    public UnitSet {
        Objects.requireNonNull(scope);
        Objects.requireNonNull(positions);
    }

    public static UnitSet none(Scope scope) {
        return new UnitSet(scope, Positions.NONE);
    }

    /** @throws IllegalArgumentException when one of them is of another scope */
    public static UnitSet union(Scope scope, Collection<UnitSet> sets) {
        return new UnitSet(scope, Positions.union(sets.stream().map(set -> set.ofScope(scope)).toList()));
    }

    private Positions ofScope(Scope wanted) {
        if (scope != wanted) {
            throw new IllegalArgumentException("units of scope " + scope + " are no units of scope " + wanted);
        }
        return positions;
    }

    /** How many units there are: a device with two people counts twice for a title per person. */
    public int size() {
        return positions.size();
    }

    public boolean isEmpty() {
        return positions.isEmpty();
    }

    public boolean contains(int unit) {
        return positions.contains(unit);
    }

    /** @throws IllegalArgumentException when the other is of another scope */
    public UnitSet and(UnitSet other) {
        return new UnitSet(scope, positions.and(other.ofScope(scope)));
    }

    /** @throws IllegalArgumentException when the other is of another scope */
    public UnitSet or(UnitSet other) {
        return new UnitSet(scope, positions.or(other.ofScope(scope)));
    }

    /** Those that satisfy the test. Costs a call for each. */
    public UnitSet filter(IntPredicate test) {
        return new UnitSet(scope, positions.filter(test));
    }

    /** Calls with the position of each unit, ascending. */
    public void forEach(IntConsumer consumer) {
        positions.forEach(consumer);
    }
}
