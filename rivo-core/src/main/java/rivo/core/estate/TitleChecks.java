package rivo.core.estate;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.BiFunction;

/** Whether titles, their releases and the relations between them make sense (sections 5 and 7). */
final class TitleChecks {

    private final ProblemList problems;
    private final Map<String, Title> byId;
    private final Set<String> ofUnknownScope;
    /** Where each need and replacement stands, by "from to". */
    private final Map<String, Map<String, String>> needPlaces = new LinkedHashMap<>();
    private final Map<String, Map<String, String>> replacePlaces = new LinkedHashMap<>();

    /** @param ofUnknownScope the ids of titles whose scope could not be read */
    TitleChecks(ProblemList problems, Map<String, Title> byId, Set<String> ofUnknownScope) {
        this.problems = problems;
        this.byId = byId;
        this.ofUnknownScope = ofUnknownScope;
    }

    void check(List<Title> titles) {
        for (int i = 0; i < titles.size(); i++) {
            title(titles.get(i), "titles[" + i + "]");
        }
        for (int i = 0; i < titles.size(); i++) {
            needsAgainstRelations(titles.get(i), "titles[" + i + "]");
        }
        cycles(needPlaces, "need", "needs");
        cycles(replacePlaces, "replacement", "replaces");
    }

    private void title(Title title, String at) {
        for (int i = 0; i < title.conflictsWith().size(); i++) {
            String place = at + ".conflictsWith[" + i + "]";
            related(title, title.conflictsWith().get(i), place, "conflicts with", (from, to) -> from == to);
        }
        Map<Version, Integer> versions = new TreeMap<>();
        for (int i = 0; i < title.releases().size(); i++) {
            Release release = title.releases().get(i);
            String place = at + ".releases[" + i + "]";
            if (versions.putIfAbsent(release.version(), i) != null) {
                problems.add("release-twice", place + ".version", "The version " + release.version()
                        + " compares equal to another release's; list it once.");
            }
            release(title, release, place);
        }
    }

    private void release(Title title, Release release, String at) {
        List<String> needs = release.needs().stream().map(Need::title).toList();
        List<String> replaces = release.replaces().stream().map(Replacement::title).toList();
        problems.once(needs, at + ".needs");
        problems.once(replaces, at + ".replaces");
        for (int i = 0; i < needs.size(); i++) {
            String place = at + ".needs[" + i + "]";
            related(title, needs.get(i), place + ".title", "needs", (from, to) -> from == to || from == Scope.USER);
            needPlaces.computeIfAbsent(title.id(), t -> new LinkedHashMap<>()).putIfAbsent(needs.get(i), place);
        }
        for (int i = 0; i < replaces.size(); i++) {
            String place = at + ".replaces[" + i + "]";
            related(title, replaces.get(i), place + ".title", "replaces", (from, to) -> from == to);
            replacePlaces.computeIfAbsent(title.id(), t -> new LinkedHashMap<>()).putIfAbsent(replaces.get(i), place);
        }
        Set<String> variants = new LinkedHashSet<>();
        for (int i = 0; i < release.variants().size(); i++) {
            String id = release.variants().get(i).id();
            problems.id(false, "variant", id, at + ".variants[" + i + "].id");
            if (!variants.add(id)) {
                problems.add("listed-twice", at + ".variants[" + i + "].id", "The variant \"" + id
                        + "\" is listed twice; give one another id.");
            }
        }
    }

    private void related(Title title, String other, String place, String verb, BiFunction<Scope, Scope, Boolean> allowed) {
        problems.known(byId::containsKey, "title", other, place);
        Title to = byId.get(other);
        if (other.equals(title.id())) {
            problems.add("itself", place, "\"" + other + "\" " + verb + " itself; take that out.");
        } else if (to != null && !ofUnknownScope.contains(title.id()) && !ofUnknownScope.contains(other)
                && !allowed.apply(title.scope(), to.scope())) {
            problems.add("wrong-scope", place, "A title of scope " + title.scope().word() + " cannot say that it " + verb
                    + " one of scope " + to.scope().word() + "; take that out.");
        }
    }

    /** A title may not need what it conflicts with, whichever side says so, or what a release of it replaces. */
    private void needsAgainstRelations(Title title, String at) {
        for (int r = 0; r < title.releases().size(); r++) {
            List<Need> needs = title.releases().get(r).needs();
            for (int n = 0; n < needs.size(); n++) {
                String other = needs.get(n).title();
                Title to = byId.get(other);
                boolean conflicts = title.conflictsWith().contains(other)
                        || to != null && to.conflictsWith().contains(title.id());
                boolean replaces = title.releases().stream().anyMatch(release -> release.replaces(other));
                if (!other.equals(title.id()) && (conflicts || replaces)) {
                    problems.add("need-against", at + ".releases[" + r + "].needs[" + n + "].title", "\"" + title.id()
                            + "\" needs \"" + other + "\" and " + (conflicts ? "conflicts with" : "replaces")
                            + " it; take one of the two out.");
                }
            }
        }
    }

    private void cycles(Map<String, Map<String, String>> places, String what, String verb) {
        Map<String, Collection<String>> next = new HashMap<>();
        places.forEach((from, tos) -> next.put(from, tos.keySet()));
        for (List<String> cycle : Cycles.in(places.keySet(), t -> next.getOrDefault(t, List.of()))) {
            List<String> shown = new ArrayList<>(cycle);
            shown.add(cycle.get(0));
            String place = places.getOrDefault(cycle.get(0), Map.of()).getOrDefault(shown.get(1), "titles");
            problems.add(what + "-cycle", place, "\"" + String.join("\" " + verb + " \"", shown)
                    + "\": a circle; take one of these out.");
        }
    }
}
