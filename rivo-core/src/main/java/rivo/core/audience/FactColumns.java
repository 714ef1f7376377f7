package rivo.core.audience;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Facts;

/**
 * The facts of devices or people as columns, by their names, folded, and their own names as one called {@code name}. All
 * facts are laid out in one pass: going to each device once is what costs.
 */
final class FactColumns extends Columns {

    private final int size;
    private final IntFunction<Facts> facts;
    private final IntFunction<String> names;
    private @Nullable Map<String, Postings<String>> byFolded;

    /**
     * @param facts what is told at each position
     * @param names what stands there is called; empty when it has no name
     */
    FactColumns(int size, IntFunction<Facts> facts, IntFunction<String> names) {
        this.size = size;
        this.facts = facts;
        this.names = names;
    }

    @Override
    Postings<String> layOut(String attribute) {
        if (!attribute.equals("name")) {
            Postings<String> told = byFolded().get(attribute);
            return told == null ? Postings.of(0, p -> List.of()) : told;
        }
        return Postings.of(size, p -> names.apply(p).isEmpty() ? List.of() : List.of(names.apply(p)));
    }

    /** The names of all facts, folded. */
    Set<String> told() {
        return byFolded().keySet();
    }

    /** How many say each value of an attribute, by its name in lower case. */
    Map<String, Integer> counts(String attribute) {
        Postings<String> values = values(attribute);
        Map<String, Integer> counts = new HashMap<>();
        for (int v = 0; v < values.distinct().size(); v++) {
            counts.put(values.distinct().get(v), values.count(v));
        }
        return counts;
    }

    private synchronized Map<String, Postings<String>> byFolded() {
        if (byFolded == null) {
            byFolded = of(size, facts);
        }
        return byFolded;
    }

    /** All columns by folded name. */
    static Map<String, Postings<String>> of(int size, IntFunction<Facts> facts) {
        Map<String, List<CodedRun<String>>> runs = new HashMap<>();
        Blocks.inParts(size, (from, to) -> {
            Part part = new Part(from, to);
            Blocks.forEach(from, to, facts, Facts::isEmpty, part::add);
            return part.runs();
        }).forEach(part -> part.forEach((name, run) -> runs.computeIfAbsent(name, k -> new ArrayList<>()).add(run)));
        return Blocks.sideBySide(size, runs.entrySet())
                .collect(Collectors.toMap(Map.Entry::getKey, column -> Postings.of(size, column.getValue())));
    }

    /**
     * The columns of a run of positions. Devices tell mostly the same names, so those that do, one after the other, are
     * gathered and laid out column by column. Of one thread.
     */
    private static final class Part {

        private static final int GATHERED = 256;

        private final int from;
        private final int to;
        private final Map<String, CodedRun<String>> byFolded = new HashMap<>();
        /** Facts of the same names, with their positions. */
        private final Facts[] gathered = new Facts[GATHERED];
        private final int[] positions = new int[GATHERED];
        private int n;

        Part(int from, int to) {
            this.from = from;
            this.to = to;
        }

        /** @param position ascending from one call to the next */
        void add(int position, Facts facts) {
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

        Map<String, CodedRun<String>> runs() {
            layOut();
            byFolded.values().forEach(CodedRun::done);
            return byFolded;
        }
    }
}
