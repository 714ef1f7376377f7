package rivo.core.rule;

import java.util.List;

/** {@code and}: every part holds. */
record AllOf(List<Condition> parts) implements Condition {

    AllOf {
        parts = List.copyOf(parts);
    }

    @Override
    public boolean holds(Subject subject) {
        for (Condition part : parts) {
            if (!part.holds(subject)) {
                return false;
            }
        }
        return true;
    }
}
