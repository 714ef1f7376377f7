package rivo.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;

/**
 * What one device has to bring about, in order: first what comes off, then what goes on, each in the order of
 * publishing. It says what shall hold, not what is left to do, so it changes only when an outcome does; a device
 * skips what its presence checks show to be so already.
 */
public record Plan(List<Action> actions) {

    public Plan {
        actions = List.copyOf(actions);
    }

    public static Plan of(Estate estate, Device device) {
        List<Action> removals = new ArrayList<>();
        List<Action> installs = new ArrayList<>();
        new Resolver(estate).device(device).entrySet().stream()
                .sorted(Map.Entry.<String, Decision>comparingByValue(
                        java.util.Comparator.comparingLong(d -> d.winner().seq())).thenComparing(Map.Entry::getKey))
                .forEach(entry -> add(entry.getKey(), entry.getValue(), removals, installs));
        List<Action> all = new ArrayList<>(removals);
        all.addAll(installs);
        return new Plan(all);
    }

    private static void add(String title, Decision decision, List<Action> removals, List<Action> installs) {
        Outcome outcome = decision.outcome();
        switch (outcome) {
            case REQUIRED -> installs.add(new Action(Action.Kind.INSTALL, title,
                    Objects.requireNonNull(decision.release()).version(), decision.variant(), decision.winner(),
                    "after what comes off, in the order of publishing"));
            case UNINSTALL -> removals.add(new Action(Action.Kind.REMOVE, title, null, null, decision.winner(),
                    "before anything goes on"));
            case CONTESTED, UNFIT -> {
                // Left as it is.
            }
        }
    }
}
