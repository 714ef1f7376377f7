package rivo.core.rule;

import java.util.List;

/** {@code or}: some part holds. */
record AnyOf(List<Condition> parts) implements Condition {

    AnyOf {
        parts = List.copyOf(parts);
    }

    @Override
    public boolean holds(Subject subject) {
        for (Condition part : parts) {
            if (part.holds(subject)) {
                return true;
            }
        }
        return false;
    }
}
