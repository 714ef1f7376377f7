package rivo.core.audience;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import rivo.core.estate.Facts;

/**
 * Lays facts out by their names, folded. Devices tell mostly the same names, so those that do, one after the other, are
 * gathered and laid out column by column. Of one thread.
 */
final class FactColumns {

    private static final int GATHERED = 256;

    private final int from;
    private final int to;
    private final Map<String, CodedRun<String>> byFolded = new HashMap<>();
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
        Map<String, List<CodedRun<String>>> runs = new HashMap<>();
        Blocks.inParts(size, (from, to) -> {
            FactColumns columns = new FactColumns(from, to);
            Blocks.forEach(from, to, facts, Facts::isEmpty, columns::add);
            return columns.runs();
        }).forEach(part -> part.forEach((name, run) -> runs.computeIfAbsent(name, k -> new ArrayList<>()).add(run)));
        return Blocks.sideBySide(size, runs.entrySet())
                .collect(Collectors.toMap(Map.Entry::getKey, column -> Postings.of(size, column.getValue())));
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
            CodedRun<String> column = byFolded.computeIfAbsent(gathered[0].name(place).toLowerCase(Locale.ROOT),
                    name -> new CodedRun<>(from, to));
            for (int i = 0; i < n; i++) {
                column.add(positions[i], gathered[i].value(place));
            }
        }
        n = 0;
    }

    private Map<String, CodedRun<String>> runs() {
        layOut();
        byFolded.values().forEach(CodedRun::done);
        return byFolded;
    }
}
