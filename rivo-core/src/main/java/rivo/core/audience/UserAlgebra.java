package rivo.core.audience;

import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Facts;
import rivo.core.estate.User;
import rivo.core.rule.ValueCondition;

/** Rules over all people at once: what stands in the brackets of {@code people[…]}. */
final class UserAlgebra extends SetAlgebra {

    UserAlgebra(Estate estate, Groups groups) {
        super(estate, groups, estate.users().size());
    }

    @Override
    @Nullable String value(int position, String attribute) {
        User user = estate.users().at(position);
        if (attribute.equals("name")) {
            return user.name().isEmpty() ? null : user.name();
        }
        return user.facts().get(attribute);
    }

    @Override
    Facts factsAt(int position) {
        return estate.users().at(position).facts();
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
