package rivo.core.audience;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Facts;

/**
 * Lays facts out by their names, folded. Devices tell mostly the same facts in the same order, so the column of a name is
 * first looked for where the device before had it. Of one thread.
 */
final class FactColumns {

    private final int size;
    private final Map<String, Postings.Builder<String>> byFolded = new HashMap<>();
    private @Nullable String[] names = new String[16];
    private Postings.Builder<?>[] columns = new Postings.Builder<?>[16];
    private int slot;

    FactColumns(int size) {
        this.size = size;
    }

    /** @param position ascending from one call to the next */
    void add(int position, Facts facts) {
        slot = 0;
        facts.forEach((name, value) -> column(name).add(position, value));
    }

    @SuppressWarnings({"unchecked", "StringEquality"})
    private Postings.Builder<String> column(String name) {
        int at = slot++;
        if (at == names.length) {
            names = Arrays.copyOf(names, at * 2);
            columns = Arrays.copyOf(columns, at * 2);
        }
        if (names[at] != name) {
            names[at] = name;
            columns[at] = byFolded.computeIfAbsent(name.toLowerCase(Locale.ROOT), n -> new Postings.Builder<>(size));
        }
        return (Postings.Builder<String>) Objects.requireNonNull(columns[at]);
    }

    /** The columns by folded name. */
    Map<String, Postings<String>> build() {
        Map<String, Postings<String>> built = new HashMap<>();
        byFolded.forEach((name, builder) -> built.put(name, builder.build()));
        return built;
    }
}
