package rivo.core.plan;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.CodePointOrder;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Kit;
import rivo.core.estate.Need;
import rivo.core.estate.Release;
import rivo.core.estate.Replacement;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver.UnitOutcome;
import rivo.core.resolve.Resolver;

/**
 * What one device has to bring about, in order. First what comes off: a title before those it needs. Then what goes on:
 * a title after those it needs, those of a kit in the order of the kit, the rest by deadline and then in the order of
 * publishing. It says what shall hold; a device skips what its presence checks show to be so already.
 */
public record Plan(List<Action> actions) {

    public Plan {
        actions = List.copyOf(actions);
    }

    /** The plan of a device where no assignment has a deadline. */
    public static Plan of(Resolver resolver, Device device) {
        return of(resolver, device, assignment -> null);
    }

    /**
     * Costs a resolution of the device, and one step for each outcome and each need among them.
     *
     * @param deadline the instant until which what an assignment asks for shall hold; null for none
     */
    public static Plan of(Resolver resolver, Device device, Function<Assignment, @Nullable Instant> deadline) {
        return new Plan(new Planner(resolver.estate(), device, resolver.device(device), deadline).plan());
    }

    /** Puts one plan together. Of one thread. */
    private static final class Planner {

        private final Estate estate;
        private final Device device;
        private final List<UnitOutcome> outcomes;
        private final Function<Assignment, @Nullable Instant> deadline;
        private final Map<String, UnitOutcome> byUnit = new HashMap<>();
        private final List<Action> actions = new ArrayList<>();
        /** By identity: there is one for each unit, and to compare two is dear. */
        private final Set<UnitOutcome> placed = Collections.newSetFromMap(new IdentityHashMap<>());

        Planner(Estate estate, Device device, List<UnitOutcome> outcomes,
                Function<Assignment, @Nullable Instant> deadline) {
            this.estate = estate;
            this.device = device;
            this.outcomes = outcomes;
            this.deadline = deadline;
            outcomes.forEach(o -> byUnit.put(key(o.user(), o.title().id()), o));
        }

        private static String key(String user, String title) {
            return user + "\n" + title;
        }

        List<Action> plan() {
            List<UnitOutcome> off = outcomes.stream().filter(this::comesOff)
                    .sorted(Comparator.comparing((UnitOutcome o) -> o.title().scope()).reversed()
                            .thenComparing(o -> o.title().id(), CodePointOrder.INSTANCE)).toList();
            off.forEach(outcome -> takeOff(outcome, off));
            placed.clear();
            List<UnitOutcome> on = outcomes.stream().filter(o -> o.decision().outcome() == Outcome.REQUIRED)
                    .sorted(Comparator.comparing((UnitOutcome o) -> due(o), Comparator.nullsLast(Comparator.naturalOrder()))
                            .thenComparing(this::seq).thenComparing(this::placeInKit)
                            .thenComparing(o -> o.title().scope())
                            .thenComparing(o -> o.title().id(), CodePointOrder.INSTANCE)
                            .thenComparing(UnitOutcome::user, CodePointOrder.INSTANCE)).toList();
            on.forEach(outcome -> putOn(outcome, null));
            return actions;
        }

        private boolean comesOff(UnitOutcome outcome) {
            Outcome kind = outcome.decision().outcome();
            return switch (kind) {
                case UNINSTALL -> true;
                case REPLACED -> isPresent(outcome) && isRemovedFirst(outcome);
                case DISPLACED -> isPresent(outcome) && isPutOn(outcome.user(), outcome.decision().by());
                case REQUIRED, AVAILABLE, CONTESTED, LATER, UNFIT, BLOCKED, WAITING -> false;
            };
        }

        private boolean isPresent(UnitOutcome outcome) {
            return device.present(outcome.title().id(), outcome.user().isEmpty() ? null : outcome.user()) != null;
        }

        private boolean isPutOn(String user, @Nullable String title) {
            UnitOutcome other = title == null ? null : byUnit.get(key(user, title));
            return other != null && other.decision().outcome() == Outcome.REQUIRED;
        }

        /** In place, the installer of what replaces it does the work. */
        private boolean isRemovedFirst(UnitOutcome outcome) {
            UnitOutcome by = byUnit.get(key(outcome.user(), Objects.requireNonNull(outcome.decision().by())));
            Release release = by == null ? null : by.decision().release();
            return release == null || release.replaces().stream().anyMatch(r -> r.title().equals(outcome.title().id())
                    && r.mode() == Replacement.Mode.REMOVE_FIRST);
        }

        /** What needs this one and comes off too goes before it. */
        private void takeOff(UnitOutcome outcome, List<UnitOutcome> off) {
            if (!placed.add(outcome)) {
                return;
            }
            for (UnitOutcome other : off) {
                if (needs(other.title(), outcome.title().id())) {
                    takeOff(other, off);
                }
            }
            actions.add(new Action(Action.Kind.REMOVE, outcome.title().id(), outcome.user(), null, null,
                    outcome.decision().winner(), whyOff(outcome)));
        }

        private static boolean needs(Title title, String other) {
            return title.releases().stream().anyMatch(r -> r.needs().stream().anyMatch(n -> n.title().equals(other)));
        }

        private String whyOff(UnitOutcome outcome) {
            String by = outcome.decision().by();
            return by == null ? "before anything goes on" : "before " + name(by) + (outcome.decision().outcome()
                    == Outcome.REPLACED ? ", which takes its place" : ", in whose way it is");
        }

        private void putOn(UnitOutcome outcome, @Nullable UnitOutcome neededBy) {
            if (!placed.add(outcome)) {
                return;
            }
            Release release = Objects.requireNonNull(outcome.decision().release());
            for (Need need : release.needs()) {
                Title needed = Objects.requireNonNull(estate.title(need.title()));
                String user = needed.scope() == Scope.DEVICE ? "" : outcome.user();
                UnitOutcome other = byUnit.get(key(user, need.title()));
                if (other != null && other.decision().outcome() == Outcome.REQUIRED) {
                    putOn(other, outcome);
                }
            }
            actions.add(new Action(Action.Kind.INSTALL, outcome.title().id(), outcome.user(), release.version(),
                    outcome.decision().variant(), outcome.decision().winner(), whyOn(outcome, neededBy)));
        }

        private String whyOn(UnitOutcome outcome, @Nullable UnitOutcome neededBy) {
            if (neededBy != null) {
                return "before " + name(neededBy.title().id()) + ", which needs it";
            }
            Kit kit = kit(outcome);
            if (kit != null) {
                return "in the order of the kit " + (kit.name().isEmpty() ? kit.id() : kit.name());
            }
            return due(outcome) == null ? "after what comes off, in the order of publishing" : "by its deadline, "
                    + due(outcome);
        }

        private String name(String title) {
            Title found = estate.title(title);
            return found == null || found.name().isEmpty() ? title : found.name();
        }

        private @Nullable Kit kit(UnitOutcome outcome) {
            Assignment winner = outcome.decision().winner();
            return winner == null || !winner.subject().kit() ? null : estate.kits().get(winner.subject().id());
        }

        private int placeInKit(UnitOutcome outcome) {
            Kit kit = kit(outcome);
            return kit == null ? 0 : kit.titles().indexOf(outcome.title().id());
        }

        private @Nullable Instant due(UnitOutcome outcome) {
            Assignment winner = outcome.decision().winner();
            return winner == null ? null : deadline.apply(winner);
        }

        private long seq(UnitOutcome outcome) {
            Assignment winner = outcome.decision().winner();
            return winner == null ? Long.MAX_VALUE : winner.seq();
        }
    }
}
