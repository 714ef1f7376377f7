package rivo.core.audience;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.IntFunction;
import rivo.core.estate.Facts;

/**
 * Lays facts out by their names, folded. Devices tell mostly the same names, so those that do, one after the other, are
 * gathered and laid out column by column. Of one thread.
 */
final class FactColumns {

    private static final int GATHERED = 256;

    private final int from;
    private final int to;
    private final Map<String, Postings.Builder<String>> byFolded = new HashMap<>();
    /** Facts of the same names, with their positions. */
    private final Facts[] gathered = new Facts[GATHERED];
    private final int[] positions = new int[GATHERED];
    private int n;

    private FactColumns(int from, int to) {
        this.from = from;
        this.to = to;
    }

    /**
     * The columns by folded name.
     *
     * @param facts what is told at each position
     */
    static Map<String, Postings<String>> of(int size, IntFunction<Facts> facts) {
        Map<String, List<Postings<String>>> parts = new HashMap<>();
        Blocks.inParts(size, (from, to) -> {
            FactColumns columns = new FactColumns(from, to);
            Blocks.forEach(from, to, facts, Facts::isEmpty, columns::add);
            return columns.build();
        }).forEach(part -> part.forEach((name, column) -> parts.computeIfAbsent(name, k -> new ArrayList<>()).add(column)));
        Map<String, Postings<String>> columns = new HashMap<>();
        parts.forEach((name, of) -> columns.put(name, Postings.joined(size, of)));
        return columns;
    }

    /** @param position ascending from one call to the next */
    private void add(int position, Facts facts) {
        if (n == GATHERED || n > 0 && !facts.sharesNamesWith(gathered[0])) {
            layOut();
        }
        positions[n] = position;
        gathered[n++] = facts;
    }

    private void layOut() {
        for (int place = 0; n > 0 && place < gathered[0].size(); place++) {
            Postings.Builder<String> column = byFolded.computeIfAbsent(gathered[0].name(place).toLowerCase(Locale.ROOT),
                    name -> new Postings.Builder<>(from, to));
            for (int i = 0; i < n; i++) {
                column.add(positions[i], gathered[i].value(place));
            }
        }
        n = 0;
    }

    private Map<String, Postings<String>> build() {
        layOut();
        Map<String, Postings<String>> built = new HashMap<>();
        byFolded.forEach((name, builder) -> built.put(name, builder.build()));
        return built;
    }
}
