package rivo.core.audience;

import java.util.function.IntPredicate;
import java.util.function.Predicate;
import java.util.function.Supplier;

/**
 * Columns of an earlier estate that serve a newer one: their answers go along to where everyone is now, and the few that
 * have changed since are asked themselves. When these become many, or nothing has been laid out, columns are made anew.
 * Immutable.
 *
 * @param columns of an earlier estate, or of this one
 * @param since what has become of its positions
 */
record CarriedColumns<C>(C columns, Moves since) {

    /** Asking one device costs about as much as its share of laying out a hundred. */
    private static final int MANY = 64;

    static <C> CarriedColumns<C> of(C columns, int size) {
        return new CarriedColumns<>(columns, Moves.none(size));
    }

    /**
     * These for a newer estate.
     *
     * @param size how many positions that has
     * @param areLaidOut whether it is worth carrying columns along
     * @param anew columns of the newer estate
     */
    CarriedColumns<C> after(Moves moves, int size, Predicate<C> areLaidOut, Supplier<C> anew) {
        if (!areLaidOut.test(columns)) {
            return of(anew.get(), size);
        }
        Moves all = since.then(moves);
        return (long) all.changed().size() * MANY > size ? of(anew.get(), size) : new CarriedColumns<>(columns, all);
    }

    /**
     * What columns answered, for this estate.
     *
     * @param then the answer of the columns
     * @param holds the same question asked of what stands at one position now
     */
    Positions now(Positions then, IntPredicate holds) {
        Positions changed = since.changed();
        Positions moved = since.of(then);
        return changed.isEmpty() ? moved : moved.without(changed).or(changed.filter(holds));
    }
}
