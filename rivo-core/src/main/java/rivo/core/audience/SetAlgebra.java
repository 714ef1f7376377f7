package rivo.core.audience;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Facts;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.rule.ValueCondition;

/** What the algebras of devices and of people share: facts, OUs and groups. */
abstract class SetAlgebra extends ColumnAlgebra {

    final Estate estate;
    final Groups groups;
    private @Nullable Map<String, Postings<String>> facts;

    SetAlgebra(Estate estate, Groups groups, int size) {
        super(size, estate.asOf());
        this.estate = estate;
        this.groups = groups;
    }

    @Override
    public Positions having(ValueCondition condition) {
        return condition.attribute().equals("collection") ? other(condition) : super.having(condition);
    }

    @Override
    Positions answer(ValueCondition condition) {
        return switch (condition.attribute()) {
            case "ou" -> ofOus(condition);
            case "group" -> ofGroups(condition);
            default -> super.answer(condition);
        };
    }

    @Override
    Postings<String> column(String attribute) {
        Postings<String> known = attribute.equals("name") ? null : facts().get(attribute);
        return known != null ? known : Postings.of(attribute.equals("name") ? size() : 0, p -> Elements.some(value(p, "name")));
    }

    /** The columns of all facts, laid out in one pass: going to each device once is what costs. */
    private synchronized Map<String, Postings<String>> facts() {
        if (facts == null) {
            facts = FactColumns.of(size(), this::factsAt);
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
