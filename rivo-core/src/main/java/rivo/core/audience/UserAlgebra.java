package rivo.core.audience;

import java.util.Map;
import rivo.core.estate.Estate;
import rivo.core.estate.Users;
import rivo.core.rule.ValueCondition;

/** Rules over all people at once: what stands in the brackets of {@code people[…]}. */
final class UserAlgebra extends SetAlgebra {

    private final CarriedColumns<FactColumns> columns;

    UserAlgebra(Estate estate, Groups groups, CarriedColumns<FactColumns> columns) {
        super(estate, groups, estate.users().size());
        this.columns = columns;
    }

    static FactColumns columns(Users users) {
        return new FactColumns(users.size(), p -> users.at(p).facts(), p -> users.at(p).name());
    }

    /** How many people say each value of an attribute, about. */
    Map<String, Integer> counts(String attribute) {
        return columns.columns().counts(attribute);
    }

    @Override
    Positions told(ValueCondition condition) {
        return columns.now(columns.columns().having(condition, estate.asOf()),
                p -> condition.holds(new Elements.OfPeople(estate.users().at(p), estate, groups)));
    }

    @Override
    Positions below(int ou) {
        return Positions.range(estate.users().from(ou), estate.users().to(ou));
    }

    @Override
    boolean hasOu(int position) {
        return estate.users().at(position).ou() != null;
    }

    @Override
    Positions held(Groups.Members members) {
        return members.users();
    }

    @Override
    Positions other(ValueCondition condition) {
        return Positions.NONE;
    }
}
