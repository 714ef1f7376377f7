package rivo.core.rule;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Cycles;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Problem;
import rivo.core.estate.ProblemList;
import rivo.core.estate.Release;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;

/**
 * Whether the rules in the parts of an estate hold water: each parses, names collections that exist, and no collection
 * asks about itself by way of others. Collections go by their names, without regard to case, each once.
 */
public final class EstateRules {

    private final ProblemList problems = new ProblemList();
    /** By folded name: the collection's place in the list. */
    private final Map<String, Integer> names = new HashMap<>();
    private final Map<String, Problem> broken = new HashMap<>();
    private final Map<String, Set<String>> asked = new HashMap<>();

    private EstateRules() {
    }

    /** Everything that is wrong with the rules, with its place, such as {@code collections[3].rule}. */
    public static List<Problem> problems(EstateParts parts) {
        EstateRules checks = new EstateRules();
        checks.names(parts.collections());
        checks.collections(parts.collections());
        for (int i = 0; i < parts.titles().size(); i++) {
            checks.title(parts.titles().get(i), "titles[" + i + "]");
        }
        List<Assignment> assignments = parts.assignments();
        for (int i = 0; i < assignments.size(); i++) {
            checks.rule(assignments.get(i).within(), "assignments[" + i + "].within");
        }
        return checks.problems.all();
    }

    private void names(List<DeviceCollection> collections) {
        for (int i = 0; i < collections.size(); i++) {
            String name = collections.get(i).name();
            if (!name.isEmpty() && names.putIfAbsent(Folding.fold(name), i) != null) {
                problems.add("collection-name-twice", "collections[" + i + "].name", "The name \"" + name
                        + "\" is another collection's, capitals aside; choose another.");
            }
        }
    }

    private void collections(List<DeviceCollection> collections) {
        List<Integer> all = new ArrayList<>();
        Map<Integer, Collection<Integer>> next = new HashMap<>();
        for (int i = 0; i < collections.size(); i++) {
            String place = "collections[" + i + "].rule";
            List<Integer> to = new ArrayList<>();
            for (String name : rule(collections.get(i).rule(), place)) {
                Integer found = names.get(Folding.fold(name));
                if (found != null) {
                    to.add(found);
                }
            }
            if (to.contains(i)) {
                problems.add("collection-cycle", place, "\"" + collections.get(i).name()
                        + "\" asks about itself; take that out.");
            }
            all.add(i);
            next.put(i, to);
        }
        for (List<Integer> cycle : Cycles.in(all, i -> Objects.requireNonNull(next.get(i)))) {
            problems.add("collection-cycle", "collections[" + cycle.get(0) + "].rule", "\""
                    + collections.get(cycle.get(0)).name() + "\" asks about itself by way of \""
                    + collections.get(cycle.get(1)).name() + "\"; take one of the two out.");
        }
    }

    private void title(Title title, String at) {
        for (int r = 0; r < title.releases().size(); r++) {
            Release release = title.releases().get(r);
            for (int v = 0; v < release.variants().size(); v++) {
                Variant variant = release.variants().get(v);
                rule(variant.fits(), at + ".releases[" + r + "].variants[" + v + "].fits");
            }
        }
    }

    /** The collections that it names; none when there is no rule or it does not parse, which is noted. */
    private Set<String> rule(@Nullable String text, String place) {
        if (text == null) {
            return Set.of();
        }
        if (!asked.containsKey(text) && !broken.containsKey(text)) {
            parse(text);
        }
        Problem known = broken.get(text);
        if (known != null) {
            problems.add(known.code(), place, known.sentence());
            return Set.of();
        }
        return Objects.requireNonNull(asked.get(text));
    }

    private void parse(String text) {
        try {
            Set<String> collections = Rule.parse(text).collections();
            Set<String> unknown = new HashSet<>(collections);
            unknown.removeIf(name -> names.containsKey(Folding.fold(name)));
            if (unknown.isEmpty()) {
                asked.put(text, collections);
            } else {
                broken.put(text, new Problem("unknown-collection", "", "There is no collection named \""
                        + unknown.iterator().next() + "\"; name one that is declared."));
            }
        } catch (RuleException e) {
            broken.put(text, new Problem("bad-rule", "", String.valueOf(e.getMessage())));
        }
    }
}
