package rivo.core.resolve;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
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

    /** Stands for no release. */
    static final int NO_RELEASE = -1;

    private static final LocalNeed[] NO_NEEDS = {};

    private final List<Title> titles;
    /** By id. */
    private final Map<String, Integer> places = new HashMap<>();
    private final List<Need> deviceNeeds;
    private final boolean[][] conflicts;
    /** Of one title and another, whether some release of the one replaces the other. */
    private final boolean[][] mayReplace;
    /** For each title those that conflict with it, or replace it, or are replaced by it, in some release. */
    private final int[][] neighbours;
    /** For each title the places that it has itself among the neighbours of those. */
    private final int[][] back;
    /** For each title its releases, and the number of the first: each release of each title has one of its own. */
    private final Release[][] releases;
    private final int[] firstNumber;
    /** By the number of a release: which titles it replaces, what it needs, and how many of the versions asked of its title it reaches. */
    private final boolean[][] replaces;
    private final LocalNeed[][] needs;
    private final int[] reached;
    /** For each title the least that one of its releases reaches. */
    private final int[] lowest;
    /** For each title those of which some release needs it. */
    private final List<Set<Integer>> neededBy = new ArrayList<>();
    /** Whether there are any. */
    private final boolean[] needed;
    private final List<Version[]> thresholds;
    private final boolean[] seats;
    private final boolean[] undisputed;
    private final boolean related;
    private final int longestChain;

    /**
     * A need of a release, by its place in this family, or for a device title, by that in {@link #deviceNeeds}.
     *
     * @param title -1 for a device title
     * @param deviceNeed -1 for a title of this family
     * @param reaches what a present version has to reach, counted as {@link #reached} does
     */
    record LocalNeed(Need need, int title, int deviceNeed, int reaches) {
    }

    Family(Estate estate, List<Title> members) {
        this.titles = members.stream().sorted(Comparator.comparing(Title::id, CodePointOrder.INSTANCE)).toList();
        this.thresholds = thresholds(titles);
        this.deviceNeeds = Relations.deviceNeeds(estate, titles);
        this.related = titles.size() > 1 || !deviceNeeds.isEmpty();
        int n = titles.size();
        this.conflicts = new boolean[n][n];
        this.mayReplace = new boolean[n][n];
        this.seats = new boolean[n];
        this.releases = new Release[n][];
        this.firstNumber = new int[n];
        int all = 0;
        for (int i = 0; i < n; i++) {
            places.put(titles.get(i).id(), i);
            seats[i] = titles.get(i).seats() != null;
            releases[i] = titles.get(i).releases().toArray(Release[]::new);
            firstNumber[i] = all;
            all += releases[i].length;
        }
        this.replaces = new boolean[all][];
        this.needs = new LocalNeed[all][];
        this.reached = new int[all];
        List<Set<Integer>> near = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            near.add(new TreeSet<>());
            neededBy.add(new HashSet<>());
        }
        for (int i = 0; i < n; i++) {
            relate(i, titles.get(i), near);
        }
        this.neighbours = near.stream().map(of -> of.stream().mapToInt(j -> j).toArray()).toArray(int[][]::new);
        this.lowest = IntStream.range(0, n).map(i -> numbers(i).map(release -> reached[release]).min().orElse(0)).toArray();
        this.undisputed = findUndisputed();
        this.longestChain = findLongestChain();
        this.needed = new boolean[n];
        this.back = new int[n][];
        for (int i = 0; i < n; i++) {
            int own = i;
            needed[i] = !neededBy.get(i).isEmpty();
            back[i] = Arrays.stream(neighbours[i]).map(j -> Arrays.binarySearch(neighbours[j], own)).toArray();
        }
    }

    private void relate(int i, Title title, List<Set<Integer>> near) {
        for (String other : title.conflictsWith()) {
            int j = places.getOrDefault(other, i);
            conflicts[i][j] = true;
            conflicts[j][i] = true;
            join(i, j, near);
        }
        for (Release release : title.releases()) {
            boolean[] replaced = new boolean[titles.size()];
            release.replaces().forEach(r -> {
                int j = places.getOrDefault(r.title(), i);
                replaced[j] = true;
                mayReplace[i][j] = true;
                join(i, j, near);
            });
            int number = number(i, release);
            replaces[number] = replaced;
            reached[number] = reached(i, release.version());
            release.needs().forEach(need -> {
                if (places.containsKey(need.title())) {
                    neededBy.get(Objects.requireNonNull(places.get(need.title()))).add(i);
                }
            });
            needs[number] = release.needs().stream().map(this::local).toArray(LocalNeed[]::new);
        }
    }

    private boolean[] findUndisputed() {
        boolean[] found = new boolean[titles.size()];
        for (int t = 0; t < found.length; t++) {
            found[t] = neighbours[t].length == 0 && !seats[t] && numbers(t).allMatch(release -> needs[release].length == 0);
        }
        for (LocalNeed[] of : needs) {
            for (LocalNeed need : of) {
                if (need.title() >= 0 && !isMetByEach(need)) {
                    found[need.title()] = false;
                }
            }
        }
        return found;
    }

    private LocalNeed local(Need need) {
        int title = places.getOrDefault(need.title(), -1);
        return new LocalNeed(need, title, deviceNeeds.indexOf(need), title < 0 || need.min() == null ? 0 : reached(title, need.min()));
    }

    private static void join(int one, int other, List<Set<Integer>> near) {
        if (one != other) {
            near.get(one).add(other);
            near.get(other).add(one);
        }
    }

    /** For each title the versions that somebody of the family asks of it at least, ascending. */
    private static List<Version[]> thresholds(List<Title> titles) {
        Map<String, TreeSet<Version>> asked = new HashMap<>();
        for (Title title : titles) {
            for (Release release : title.releases()) {
                for (Need need : release.needs()) {
                    if (need.min() != null) {
                        asked.computeIfAbsent(need.title(), t -> new TreeSet<>()).add(need.min());
                    }
                }
            }
        }
        return titles.stream().map(title -> asked.getOrDefault(title.id(), new TreeSet<>()).toArray(new Version[0])).toList();
    }

    /** In the order of their ids. */
    List<Title> titles() {
        return titles;
    }

    /** The place of a title by its id; below zero for one of another family. */
    int place(String title) {
        return places.getOrDefault(title, -1);
    }

    /** The id of a title by its place; below zero, of the title of one of {@link #deviceNeeds}, counted from -1 down. */
    String id(int who) {
        return who >= 0 ? titles.get(who).id() : deviceNeeds.get(-1 - who).title();
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

    /** Looked for among the few of its title from the last on: the newest are asked for most. */
    private int number(int title, Release release) {
        Release[] of = releases[title];
        int place = of.length - 1;
        while (of[place] != release) {
            place--;
        }
        return firstNumber[title] + place;
    }

    /** Those of the releases of a title. */
    private IntStream numbers(int title) {
        return IntStream.range(firstNumber[title], firstNumber[title] + releases[title].length);
    }

    /** The number of the release of a title; {@link #NO_RELEASE} for none. */
    int number(int title, @Nullable Choice choice) {
        return choice == null ? NO_RELEASE : number(title, choice.release());
    }

    /** Whether the release of this number replaces the title. */
    boolean replaces(int release, int title) {
        return release >= 0 && replaces[release][title];
    }

    /** Whether some release of one replaces the other. */
    boolean mayReplace(int one, int other) {
        return mayReplace[one][other];
    }

    /** Those that may stand against a title. */
    int[] neighbours(int title) {
        return neighbours[title];
    }

    /** The place of a title among the neighbours of its neighbour at this place. */
    int back(int title, int neighbour) {
        return back[title][neighbour];
    }

    /**
     * The places of all that can have to do with a title at a unit, itself among them: what may stand against it, and whatever may come to need it or
     * one of those, by however many steps.
     */
    BitSet concerning(int title) {
        BitSet concerning = new BitSet();
        Deque<Integer> open = new ArrayDeque<>(List.of(title));
        Arrays.stream(neighbours[title]).forEach(open::add);
        while (!open.isEmpty()) {
            int next = open.remove();
            if (!concerning.get(next)) {
                concerning.set(next);
                neededBy.get(next).forEach(open::add);
            }
        }
        return concerning;
    }

    /** The places of all that the turn of a title may decide: itself, and all that some release of it needs, by however many steps. */
    BitSet decidedWith(int title) {
        BitSet decided = new BitSet();
        Deque<Integer> open = new ArrayDeque<>(List.of(title));
        while (!open.isEmpty()) {
            int next = open.remove();
            if (!decided.get(next)) {
                decided.set(next);
                numbers(next).forEach(release -> Arrays.stream(needs[release]).filter(need -> need.title() >= 0)
                        .forEach(need -> open.add(need.title())));
            }
        }
        return decided;
    }

    /** Of the release of this number. */
    LocalNeed[] needs(int release) {
        return release < 0 ? NO_NEEDS : needs[release];
    }

    /** Whether some release of the family needs the title. */
    boolean isNeeded(int title) {
        return needed[title];
    }

    /** How many titles need one another in turn, at the most. */
    int longestChain() {
        return longestChain;
    }

    private int findLongestChain() {
        int[] open = new int[titles.size()];
        neededBy.forEach(needing -> needing.forEach(t -> open[t]++));
        Deque<Integer> ready = new ArrayDeque<>();
        for (int t = 0; t < open.length; t++) {
            if (open[t] == 0) {
                ready.add(t);
            }
        }
        int[] chain = new int[open.length];
        int longest = 0;
        while (!ready.isEmpty()) {
            int needed = ready.remove();
            longest = Math.max(longest, ++chain[needed]);
            for (int t : neededBy.get(needed)) {
                chain[t] = Math.max(chain[t], chain[needed]);
                if (--open[t] == 0) {
                    ready.add(t);
                }
            }
        }
        return longest;
    }

    /** Those of which some release needs the title, in the order of their places. */
    int[] neededBy(int title) {
        return neededBy.get(title).stream().mapToInt(t -> t).sorted().toArray();
    }

    /**
     * Whether it does not depend on other titles whether a need for this one is met: nothing may stand against it, no seats are counted, it needs nothing, and each
     * release of it meets every need.
     */
    boolean isUndisputed(int title) {
        return undisputed[title];
    }

    /** Whether the seats of its licence are counted. */
    boolean hasSeats(int title) {
        return seats[title];
    }

    /** Whether the release of this number meets the need. */
    boolean meets(int release, LocalNeed need) {
        return release >= 0 && (need.need().min() == null || reached[release] >= need.reaches());
    }

    /** Whether every release of the title that is needed meets the need. */
    boolean isMetByEach(LocalNeed need) {
        return need.reaches() <= lowest[need.title()];
    }

    /** How many of the lowest versions that are asked of this title the version reaches: all that needs can tell. */
    int reached(int title, @Nullable Version version) {
        Version[] asked = thresholds.get(title);
        int reached = 0;
        while (version != null && reached < asked.length && version.compareTo(asked[reached]) >= 0) {
            reached++;
        }
        return reached;
    }
}
