package rivo.core.resolve;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import rivo.core.estate.Estate;
import rivo.core.estate.Need;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;

/**
 * Which titles have to be looked at together (section 7): those of one scope that need, replace or conflict with each
 * other, by however many steps, form one family. A title without relations is a family of its own. Immutable.
 */
final class Relations {

    private final Map<String, Family> byTitle = new HashMap<>();
    private final List<Family> inOrder;
    private final Map<String, Integer> places = new HashMap<>();
    /** The places of the families of device titles that user titles need. */
    private final BitSet asked = new BitSet();

    /** Costs one pass over the titles. */
    Relations(Estate estate) {
        Map<String, Set<String>> next = new LinkedHashMap<>();
        estate.titles().forEach(title -> next.put(title.id(), new LinkedHashSet<>()));
        for (Title title : estate.titles()) {
            for (String other : related(title)) {
                if (Objects.requireNonNull(estate.title(other)).scope() == title.scope()) {
                    Objects.requireNonNull(next.get(title.id())).add(other);
                    Objects.requireNonNull(next.get(other)).add(title.id());
                }
            }
        }
        List<Family> families = new ArrayList<>();
        next.keySet().forEach(id -> {
            if (!byTitle.containsKey(id)) {
                families.add(add(estate, next, id));
            }
        });
        families.sort(java.util.Comparator.comparing(Family::scope));
        this.inOrder = List.copyOf(families);
        for (int f = 0; f < inOrder.size(); f++) {
            for (Title title : inOrder.get(f).titles()) {
                places.put(title.id(), f);
            }
        }
        inOrder.forEach(family -> family.deviceNeeds().forEach(need -> asked.set(place(need.title()))));
    }

    private static Set<String> related(Title title) {
        Set<String> related = new LinkedHashSet<>(title.conflictsWith());
        for (Release release : title.releases()) {
            release.needs().forEach(need -> related.add(need.title()));
            release.replaces().forEach(replacement -> related.add(replacement.title()));
        }
        return related;
    }

    private Family add(Estate estate, Map<String, Set<String>> next, String start) {
        Set<String> ids = new LinkedHashSet<>(Set.of(start));
        List<String> open = new ArrayList<>(ids);
        for (int i = 0; i < open.size(); i++) {
            for (String other : Objects.requireNonNull(next.get(open.get(i)))) {
                if (ids.add(other)) {
                    open.add(other);
                }
            }
        }
        Family family = new Family(estate, open.stream().map(id -> Objects.requireNonNull(estate.title(id))).toList());
        ids.forEach(id -> byTitle.put(id, family));
        return family;
    }

    /** Those of device titles first, since user titles look at them. */
    List<Family> inOrder() {
        return inOrder;
    }

    /** The place of a title's family in {@link #inOrder}. */
    int place(String title) {
        return Objects.requireNonNull(places.get(title));
    }

    /** Whether a user title needs one of the device titles of the family at this place. */
    boolean isAsked(int family) {
        return asked.get(family);
    }

    Family of(String title) {
        return Objects.requireNonNull(byTitle.get(title));
    }

    /** The needs of user titles for device titles, each once. */
    static List<Need> deviceNeeds(Estate estate, List<Title> titles) {
        Set<Need> needs = new LinkedHashSet<>();
        for (Title title : titles) {
            for (Release release : title.releases()) {
                for (Need need : release.needs()) {
                    Title other = Objects.requireNonNull(estate.title(need.title()));
                    if (title.scope() == Scope.USER && other.scope() == Scope.DEVICE) {
                        needs.add(need);
                    }
                }
            }
        }
        return List.copyOf(needs);
    }
}
