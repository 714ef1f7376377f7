package rivo.core.audience;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;
import rivo.core.rule.Condition;
import rivo.core.rule.ValueCondition;

/**
 * What stands in {@code software} or {@code present} at the positions of a list: each distinct entry is asked once for
 * what stands in brackets. Safe for any thread.
 */
final class Entries<T> {

    private final Postings<T> postings;
    private final Columns columns;

    /** @param value what an entry says of an attribute, by its name in lower case */
    Entries(int size, IntFunction<List<T>> entries, BiFunction<T, String, @Nullable String> value) {
        this.postings = Postings.of(size, entries);
        List<T> distinct = postings.distinct();
        this.columns = new Columns() {
            @Override
            Postings<String> layOut(String attribute) {
                return Postings.of(distinct.size(), e -> Elements.some(value.apply(distinct.get(e), attribute)));
            }
        };
    }

    /** How many entries say each value of an attribute, by its name in lower case. */
    Map<String, Integer> counts(String attribute) {
        Map<String, Integer> counts = new HashMap<>();
        Postings<String> values = columns.values(attribute);
        for (int v = 0; v < values.distinct().size(); v++) {
            int[] n = {0};
            values.of(Positions.range(v, v + 1)).forEach(entry -> n[0] += postings.count(entry));
            counts.put(values.distinct().get(v), n[0]);
        }
        return counts;
    }

    /** The positions that have an entry which satisfies the condition. */
    Positions having(Condition within, Instant asOf) {
        return postings.of(within.over(new PositionAlgebra(postings.distinct().size()) {
            @Override
            Positions answer(ValueCondition condition) {
                return columns.having(condition, asOf);
            }
        }));
    }
}
