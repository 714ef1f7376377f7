package rivo.core.audience;

import java.time.Instant;
import java.util.List;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import rivo.core.rule.Condition;

/**
 * What stands in the brackets of {@code software[…]} or {@code present[…]}, over all distinct entries at once; and from
 * them the positions that have one which satisfies it.
 */
final class EntryAlgebra<T> extends ColumnAlgebra {

    private final Postings<T> postings;
    private final BiFunction<T, String, @Nullable String> value;

    /** @param value what an entry says of an attribute, by its name in lower case */
    EntryAlgebra(Postings<T> postings, Instant asOf, BiFunction<T, String, @Nullable String> value) {
        super(postings.distinct().size(), asOf);
        this.postings = postings;
        this.value = value;
    }

    /** The positions that have an entry which satisfies the condition. */
    Positions having(Condition within) {
        return postings.of(within.over(this));
    }

    @Override
    Postings<String> column(String attribute) {
        List<T> entries = postings.distinct();
        return Postings.of(entries.size(), e -> Elements.some(value.apply(entries.get(e), attribute)));
    }
}
