package rivo.core.audience;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import rivo.core.rule.Algebra;
import rivo.core.rule.Condition;
import rivo.core.rule.ValueCondition;

/** Sets of the positions of a list; each distinct condition is asked once. */
abstract class PositionAlgebra implements Algebra<Positions> {

    private final int size;
    private final Map<ValueCondition, Positions> answers = new ConcurrentHashMap<>();

    PositionAlgebra(int size) {
        this.size = size;
    }

    @Override
    public final Positions and(Positions one, Positions other) {
        return one.and(other);
    }

    @Override
    public final Positions or(Positions one, Positions other) {
        return one.or(other);
    }

    @Override
    public final Positions not(Positions set) {
        return Positions.range(0, size).without(set);
    }

    @Override
    public Positions having(ValueCondition condition) {
        Positions known = answers.get(condition);
        if (known == null) {
            known = answer(condition);
            answers.put(condition, known);
        }
        return known;
    }

    abstract Positions answer(ValueCondition condition);

    @Override
    public Positions havingElement(String attribute, Condition within) {
        throw new IllegalStateException("nothing here has elements");
    }

    @Override
    public Positions havingAnyElement(String attribute) {
        throw new IllegalStateException("nothing here has elements");
    }
}
