package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.CodePointOrder;
import rivo.core.estate.Estate;
import rivo.core.estate.Need;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.Version;

/**
 * Titles of one scope that are settled together, and their relations, by the titles' places in this family: in the order
 * of their ids. Immutable.
 */
final class Family {

    private final List<Title> titles;
    private final List<Need> deviceNeeds;
    private final boolean[][] conflicts;
    private final Map<Release, boolean[]> replaces = new IdentityHashMap<>();
    private final Map<Release, List<LocalNeed>> needs = new IdentityHashMap<>();
    private final List<Version[]> thresholds = new ArrayList<>();
    private final boolean related;

    /**
     * A need of a release, by its place in this family, or for a device title, by that in {@link #deviceNeeds}.
     *
     * @param title -1 for a device title
     * @param deviceNeed -1 for a title of this family
     */
    record LocalNeed(Need need, int title, int deviceNeed) {
    }

    Family(Estate estate, List<Title> members) {
        this.titles = members.stream().sorted(Comparator.comparing(Title::id, CodePointOrder.INSTANCE)).toList();
        this.deviceNeeds = Relations.deviceNeeds(estate, titles);
        this.related = titles.size() > 1 || !deviceNeeds.isEmpty();
        int n = titles.size();
        this.conflicts = new boolean[n][n];
        Map<String, Integer> local = new HashMap<>();
        for (int i = 0; i < n; i++) {
            local.put(titles.get(i).id(), i);
        }
        for (int i = 0; i < n; i++) {
            relate(i, titles.get(i), local);
        }
        titles.forEach(title -> thresholds.add(thresholds(title.id())));
    }

    private void relate(int i, Title title, Map<String, Integer> local) {
        for (String other : title.conflictsWith()) {
            int j = local.getOrDefault(other, i);
            conflicts[i][j] = true;
            conflicts[j][i] = true;
        }
        for (Release release : title.releases()) {
            boolean[] replaced = new boolean[titles.size()];
            release.replaces().forEach(r -> replaced[local.getOrDefault(r.title(), i)] = true);
            replaces.put(release, replaced);
            needs.put(release, release.needs().stream().map(need -> new LocalNeed(need,
                    local.getOrDefault(need.title(), -1), deviceNeeds.indexOf(need))).toList());
        }
    }

    /** The versions that somebody of the family asks of a title at least, ascending. */
    private Version[] thresholds(String id) {
        TreeSet<Version> versions = new TreeSet<>();
        for (Title title : titles) {
            for (Release release : title.releases()) {
                for (Need need : release.needs()) {
                    if (need.title().equals(id) && need.min() != null) {
                        versions.add(need.min());
                    }
                }
            }
        }
        return versions.toArray(new Version[0]);
    }

    /** In the order of their ids. */
    List<Title> titles() {
        return titles;
    }

    Scope scope() {
        return titles.get(0).scope();
    }

    /** Whether there is anything to settle between titles. */
    boolean isRelated() {
        return related;
    }

    /** The needs of its user titles for device titles. */
    List<Need> deviceNeeds() {
        return deviceNeeds;
    }

    boolean conflict(int one, int other) {
        return conflicts[one][other];
    }

    boolean replaces(Release release, int title) {
        boolean[] replaced = replaces.get(release);
        return replaced != null && replaced[title];
    }

    List<LocalNeed> needs(Release release) {
        return needs.getOrDefault(release, List.of());
    }

    /** How many of the lowest versions that are asked of this title the version reaches: all that needs can tell. */
    int reached(int title, @Nullable Version version) {
        return version == null ? 0
                : (int) Arrays.stream(thresholds.get(title)).filter(t -> version.compareTo(t) >= 0).count();
    }

    /** What a version has to reach, counted as {@link #reached} does, to meet a need. */
    int toReach(int title, Need need) {
        return need.min() == null ? 0 : reached(title, need.min());
    }
}
