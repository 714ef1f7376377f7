package rivo.core;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Title;

/**
 * The rules again, one unit at a time and straight from their text, with nothing clever in it. Knows OUs by their parents
 * only; shares no code with the engine but the values.
 */
public final class NaiveModel {

    private record Pair(Assignment assignment, String ou, int depth) {
    }

    private final Estate estate;

    public NaiveModel(Estate estate) {
        this.estate = estate;
    }

    /** The outcome, the deciding assignments and the release in one text; "nothing" for none. */
    public String outcome(Device device, Title title) {
        List<Pair> candidates = candidates(device, title);
        if (candidates.isEmpty()) {
            return "nothing";
        }
        List<Pair> level = candidates.stream()
                .filter(pair -> candidates.stream().noneMatch(other -> stronger(other, pair))).toList();
        List<Assignment> group = level.stream().map(Pair::assignment).distinct().toList();
        boolean installs = group.stream().anyMatch(a -> a.intent() == Intent.REQUIRED);
        boolean removes = group.stream().anyMatch(a -> a.intent() == Intent.UNINSTALL);
        if (installs && removes) {
            return "contested " + String.join(";", group.stream().map(Assignment::id).sorted().toList());
        }
        String winner = group.stream().min(Comparator.comparingLong(Assignment::seq)).orElseThrow().id();
        if (removes) {
            return "uninstall " + winner;
        }
        return title.newest() == null ? "unfit " + winner
                : "required " + winner + " " + Objects.requireNonNull(title.newest()).version();
    }

    private List<Pair> candidates(Device device, Title title) {
        List<Pair> candidates = new ArrayList<>();
        for (Assignment assignment : estate.assignments().all()) {
            if (!assignment.isLive() || !assignment.title().equals(title.id())) {
                continue;
            }
            for (String target : assignment.ous()) {
                boolean holds = ancestors(device.ou()).contains(target);
                if (holds && (assignment.binding() || passesFences(device, target))) {
                    candidates.add(new Pair(assignment, target, ancestors(target).size()));
                }
            }
        }
        return candidates;
    }

    private boolean passesFences(Device device, String target) {
        for (String above : ancestors(device.ou())) {
            boolean fenced = Objects.requireNonNull(estate.ous().find(above)).fenced();
            if (fenced && !ancestors(target).contains(above)) {
                return false;
            }
        }
        return true;
    }

    /** The OU and all above it; the root alone for what has no OU. */
    private List<String> ancestors(@Nullable String ou) {
        List<String> ancestors = new ArrayList<>();
        String at = ou == null ? estate.ous().root().id() : ou;
        while (at != null) {
            ancestors.add(at);
            Ou found = Objects.requireNonNull(estate.ous().find(at));
            at = found.parent();
        }
        return ancestors;
    }

    private static boolean stronger(Pair one, Pair other) {
        if (one.assignment().binding() != other.assignment().binding()) {
            return one.assignment().binding();
        }
        if (one.depth() != other.depth()) {
            return one.assignment().binding() ? one.depth() < other.depth() : one.depth() > other.depth();
        }
        return one.assignment().priority() > other.assignment().priority();
    }
}
