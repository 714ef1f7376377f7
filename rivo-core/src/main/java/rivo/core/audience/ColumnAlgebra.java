package rivo.core.audience;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import rivo.core.rule.Algebra;
import rivo.core.rule.Condition;
import rivo.core.rule.ValueCondition;

/** Answers conditions from columns of values: each distinct condition once, and of each distinct value of its attribute. */
abstract class ColumnAlgebra implements Algebra<Positions> {

    private final int size;
    private final Instant asOf;
    private final Map<ValueCondition, Positions> answers = new ConcurrentHashMap<>();
    private final Map<String, Postings<String>> columns = new ConcurrentHashMap<>();
    /** The same with the values in the form in which they are compared. */
    private final Map<String, Postings<Optional<Object>>> prepared = new ConcurrentHashMap<>();

    ColumnAlgebra(int size, Instant asOf) {
        this.size = size;
        this.asOf = asOf;
    }

    final int size() {
        return size;
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

    Positions answer(ValueCondition condition) {
        return prepared(condition).where(value -> value.isPresent() && condition.acceptsPrepared(value.get(), asOf));
    }

    @Override
    public Positions havingElement(String attribute, Condition within) {
        throw new IllegalStateException("nothing here has elements");
    }

    @Override
    public Positions havingAnyElement(String attribute) {
        throw new IllegalStateException("nothing here has elements");
    }

    private Postings<Optional<Object>> prepared(ValueCondition condition) {
        return prepared.computeIfAbsent(condition.attribute() + " " + condition.form(), k -> columns
                .computeIfAbsent(condition.attribute(), this::column)
                .map(value -> Optional.ofNullable(condition.prepare(value))));
    }

    /** The values of an attribute, by its name in lower case. */
    abstract Postings<String> column(String attribute);
}
