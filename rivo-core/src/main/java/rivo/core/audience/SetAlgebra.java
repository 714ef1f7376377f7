package rivo.core.audience;

import java.util.ArrayList;
import java.util.List;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.rule.ValueCondition;

/** What the algebras of devices and of people share: OUs and groups. */
abstract class SetAlgebra extends PositionAlgebra {

    final Estate estate;
    final Groups groups;

    SetAlgebra(Estate estate, Groups groups, int size) {
        super(size);
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
            default -> told(condition);
        };
    }

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

    /** A condition on what devices or people say of themselves. */
    abstract Positions told(ValueCondition condition);

    abstract Positions below(int ou);

    abstract boolean hasOu(int position);

    abstract Positions held(Groups.Members members);

    /** A condition on an attribute that only one of the two has. */
    abstract Positions other(ValueCondition condition);
}
