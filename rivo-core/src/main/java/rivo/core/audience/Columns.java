package rivo.core.audience;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import rivo.core.rule.ValueCondition;

/**
 * What is said at the positions of a list, attribute by attribute: laid out when first asked for, and kept. Depends on
 * nothing else, neither the time nor groups, so that it outlives an estate. Safe for any thread.
 */
abstract class Columns {

    private final Map<String, Postings<String>> columns = new ConcurrentHashMap<>();
    /** The same with the values in the form in which they are compared. */
    private final Map<String, Postings<Optional<Object>>> prepared = new ConcurrentHashMap<>();

    /** The positions that have a value which satisfies the condition: a question of each distinct value. */
    final Positions having(ValueCondition condition, Instant asOf) {
        return prepared(condition).where(value -> value.isPresent() && condition.acceptsPrepared(value.get(), asOf));
    }

    /** The values of an attribute, by its name in lower case. */
    final Postings<String> values(String attribute) {
        return columns.computeIfAbsent(attribute, this::layOut);
    }

    private Postings<Optional<Object>> prepared(ValueCondition condition) {
        return prepared.computeIfAbsent(condition.attribute() + " " + condition.form(), k -> values(condition.attribute())
                .map(value -> Optional.ofNullable(condition.prepare(value))));
    }

    /** Lays out the values of an attribute, by its name in lower case. */
    abstract Postings<String> layOut(String attribute);

    /** Whether anything has been laid out. */
    final boolean areLaidOut() {
        return !columns.isEmpty();
    }
}
