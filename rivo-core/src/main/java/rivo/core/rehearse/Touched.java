package rivo.core.rehearse;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Title;
import rivo.core.resolve.RankedPair;
import rivo.core.resolve.Resolver;

/**
 * Which titles a change can touch, each with the reason. What is the same object on both sides, or an equal set, cannot
 * make a difference; related titles are touched together.
 */
final class Touched {

    private static final String MOVED = "devices or people came, went or moved";
    private static final String RELATED = "it is related to ";

    private final Resolver before;
    private final Resolver after;
    private final boolean sameUnits;
    /** Whether the same assignments, on any title, take off what they leave. */
    private final boolean sameLeaving;
    private final Map<String, String> reasons = new LinkedHashMap<>();
    /** Titles whose own entry, assignments or requests are edited, and those related to them. */
    private final Set<String> edited = new HashSet<>();

    Touched(Resolver before, Resolver after, boolean sameUnits) {
        this.before = before;
        this.after = after;
        this.sameUnits = sameUnits;
        this.sameLeaving = removing(before.estate()).equals(removing(after.estate()));
    }

    /** By title id, in the order of the catalogue. */
    Map<String, String> titles() {
        Set<String> all = new LinkedHashSet<>();
        after.estate().titles().forEach(t -> all.add(t.id()));
        before.estate().titles().forEach(t -> all.add(t.id()));
        for (String id : all) {
            String why = why(before.estate().title(id), after.estate().title(id));
            if (why != null) {
                reasons.put(id, why);
            }
        }
        for (String id : List.copyOf(reasons.keySet())) {
            Set<String> related = new LinkedHashSet<>(related(before, id));
            related.addAll(related(after, id));
            related.forEach(other -> reasons.putIfAbsent(other, RELATED + name(id)));
            if (edited.contains(id)) {
                edited.addAll(related);
                // An edit says more than that something, somewhere, has moved.
                related.forEach(other -> reasons.replace(other, MOVED, RELATED + name(id)));
            }
        }
        Map<String, String> ordered = new LinkedHashMap<>();
        all.stream().filter(reasons::containsKey).forEach(id -> ordered.put(id, Objects.requireNonNull(reasons.get(id))));
        return ordered;
    }

    /** Whether a title may come to something else anywhere, and not just where devices or audiences differ. */
    boolean isEdited(String title) {
        return edited.contains(title);
    }

    private static Set<String> related(Resolver resolver, String id) {
        return resolver.estate().title(id) == null ? Set.of() : resolver.settledWith(id);
    }

    private String name(String id) {
        Title title = after.estate().title(id);
        return title == null || title.name().isEmpty() ? id : title.name();
    }

    /** Why this title has to be looked at by itself; null when nothing about it differs. */
    private @Nullable String why(@Nullable Title old, @Nullable Title now) {
        if (old == null || now == null) {
            edited.add((old == null ? Objects.requireNonNull(now) : old).id());
            return old == null ? "it is new in the catalogue" : "it has gone from the catalogue";
        }
        String edit = edit(old, now);
        if (edit != null) {
            edited.add(now.id());
            return edit;
        }
        if (!sameUnits) {
            return MOVED;
        }
        return looksAtTheSame(now) ? null : differentSet(old, now);
    }

    private boolean looksAtTheSame(Title title) {
        return before.audiences().sharesAllWith(after.audiences())
                || after.audiences().standsAs(before.audiences()) && after.looksAtTheSame(before, title);
    }

    private @Nullable String edit(Title old, Title now) {
        if (!old.equals(now)) {
            return "its entry in the catalogue is edited";
        }
        String id = now.id();
        String assignment = editedAssignment(before.estate(), after.estate(), id);
        if (assignment != null) {
            return assignment;
        }
        return before.estate().requests(id).equals(after.estate().requests(id)) ? left(id)
                : "a request for it came or went";
    }

    private static @Nullable String editedAssignment(Estate old, Estate now, String title) {
        List<Assignment> was = old.assignments().of(title);
        List<Assignment> is = now.assignments().of(title);
        if (was.equals(is)) {
            return null;
        }
        for (Assignment one : is) {
            if (!was.contains(one)) {
                return one.id() + (old.assignments().find(one.id()) == null ? " is added" : " is edited");
            }
        }
        return was.stream().filter(one -> !is.contains(one)).map(one -> one.id() + " no longer assigns it").findFirst()
                .orElse("its assignments are in another order");
    }

    /** An assignment of another title may have put it on, and now be ended. */
    private @Nullable String left(String id) {
        return sameLeaving || before.leavingOf(id).equals(after.leavingOf(id)) ? null
                : "an assignment that put it on is edited";
    }

    private static Set<String> removing(Estate estate) {
        Set<String> removing = new HashSet<>();
        for (Assignment assignment : estate.assignments().all()) {
            if (assignment.removesWhatItLeaves(estate.asOf())) {
                removing.add(assignment.id());
            }
        }
        return removing;
    }

    private @Nullable String differentSet(Title old, Title now) {
        List<RankedPair> was = before.ladder(old);
        List<RankedPair> is = after.ladder(now);
        for (int i = 0; i < Math.min(was.size(), is.size()); i++) {
            RankedPair one = is.get(i);
            if (!one.assignment().equals(was.get(i).assignment()) || !one.rank().equals(was.get(i).rank())
                    || !one.pair().holdsWhere(was.get(i).pair())) {
                return "whom " + one.assignment().id() + " reaches through " + one.pair().target() + " is different";
            }
        }
        if (was.size() != is.size()) {
            return "another assignment is live";
        }
        if (!before.fitsOf(old).equals(after.fitsOf(now))) {
            return "where it fits is different";
        }
        if (!before.presentAt(old).equals(after.presentAt(now))) {
            return "where it is present is different";
        }
        return before.keptByRest(old).equals(after.keptByRest(now)) ? null : "something that an assignment which put it on names has gone or is back";
    }
}
