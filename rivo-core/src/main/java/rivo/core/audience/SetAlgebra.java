package rivo.core.audience;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Facts;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.rule.Algebra;
import rivo.core.rule.Condition;
import rivo.core.rule.ValueCondition;

/** What the algebras of devices and of people share: each distinct condition is answered once and kept. */
abstract class SetAlgebra implements Algebra<Positions> {

    final Estate estate;
    final Groups groups;
    private final int size;
    private @Nullable Map<String, Postings<String>> facts;
    private final Map<Condition, Positions> answers = new ConcurrentHashMap<>();
    private final Map<String, Postings<String>> columns = new ConcurrentHashMap<>();
    /** The same with the values in the form in which they are compared. */
    private final Map<String, Postings<Optional<Object>>> prepared = new ConcurrentHashMap<>();

    SetAlgebra(Estate estate, Groups groups, int size) {
        this.estate = estate;
        this.groups = groups;
        this.size = size;
    }

    @Override
    public Positions and(Positions one, Positions other) {
        return one.and(other);
    }

    @Override
    public Positions or(Positions one, Positions other) {
        return one.or(other);
    }

    @Override
    public Positions not(Positions set) {
        return Positions.range(0, size).without(set);
    }

    @Override
    public Positions having(ValueCondition condition) {
        if (condition.attribute().equals("collection")) {
            return other(condition);
        }
        Positions known = answers.get(condition);
        if (known == null) {
            known = answer(condition);
            answers.put(condition, known);
        }
        return known;
    }

    private Positions answer(ValueCondition condition) {
        return switch (condition.attribute()) {
            case "ou" -> ofOus(condition);
            case "group" -> ofGroups(condition);
            default -> prepared(condition).where(value -> value.isPresent()
                    && condition.acceptsPrepared(value.get(), estate.asOf()));
        };
    }

    private Postings<Optional<Object>> prepared(ValueCondition condition) {
        return prepared.computeIfAbsent(condition.attribute() + " " + condition.form(), k -> columns
                .computeIfAbsent(condition.attribute(), this::column)
                .map(value -> Optional.ofNullable(condition.prepare(value))));
    }

    private Postings<String> column(String attribute) {
        Postings<String> known = attribute.equals("name") ? null : facts().get(attribute);
        return known != null ? known : Postings.of(attribute.equals("name") ? size : 0, p -> Elements.some(value(p, "name")));
    }

    /** The columns of all facts, laid out in one pass: going to each device once is what costs. */
    private synchronized Map<String, Postings<String>> facts() {
        if (facts == null) {
            FactColumns columns = new FactColumns(size);
            for (int p = 0; p < size; p++) {
                columns.add(p, factsAt(p));
            }
            facts = columns.build();
        }
        return facts;
    }

    abstract Facts factsAt(int position);

    /** The OUs whose DN satisfies, each with all below it; what has no OU has no DN either. */
    private Positions ofOus(ValueCondition condition) {
        List<Positions> sets = new ArrayList<>();
        for (int p = 0; p < estate.ous().size(); p++) {
            Ou ou = estate.ous().at(p);
            if (condition.accepts(ou.dn(), estate.asOf())) {
                sets.add(p == 0 ? below(0).filter(this::hasOu) : below(p));
            }
        }
        return Positions.union(sets);
    }

    private Positions ofGroups(ValueCondition condition) {
        List<Positions> sets = new ArrayList<>();
        for (Group group : estate.groups().values()) {
            if (!group.name().isEmpty() && condition.accepts(group.name(), estate.asOf())) {
                sets.add(held(groups.of(group.id())));
            }
        }
        return Positions.union(sets);
    }

    abstract @Nullable String value(int position, String attribute);

    abstract Positions below(int ou);

    abstract boolean hasOu(int position);

    abstract Positions held(Groups.Members members);

    /** A condition on an attribute that only one of the two has. */
    abstract Positions other(ValueCondition condition);
}
