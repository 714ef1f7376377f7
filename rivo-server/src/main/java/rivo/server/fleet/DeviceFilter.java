package rivo.server.fleet;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.Function;
import java.util.function.IntPredicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.DeviceSet;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.TitleOutcomes;
import rivo.core.state.UnitState;
import rivo.server.estate.Snapshot;

/**
 * Which devices a list shows; every part that is given has to hold.
 *
 * @param words each has to stand in the name, the OUs or the people
 * @param ou in it or below
 * @param title with {@code outcome}: those that have this outcome for it, or {@code none}
 * @param state as {@link DeviceRow#state()}
 * @param stands with {@code title}: those that have a unit of it in this state, as {@link UnitState#word} has it
 * @param order a column, {@code name}, {@code ou}, {@code person} or {@code last-seen}, with {@code -} before it for the other way round; null
 *     for the most pressing first
 */
record DeviceFilter(@Nullable String words, @Nullable String ou, @Nullable String title, @Nullable String outcome,
        @Nullable String state, @Nullable String stands, @Nullable String order) {

    /**
     * The positions of the devices that pass. Where no order is given, those with a failed job come first, those that have never called in last,
     * and each in the order of their OUs and, within one, of their names; which is also what decides where an order leaves two equal. Costs one
     * pass over the devices, and sorting those that pass.
     */
    int[] positions(Snapshot snapshot, Fleet fleet, TitleStates states, Instant now) {
        Estate estate = snapshot.estate();
        IntPredicate byOutcome = outcomes(snapshot.resolver()).and(states(snapshot, states));
        int within = ou == null ? 0 : position(estate, ou);
        String[] wanted = words == null ? new String[0] : words.strip().toLowerCase(Locale.ROOT).split("\\s+");
        List<Found> found = new ArrayList<>();
        IntStream.range(estate.devices().from(within), estate.devices().to(within)).filter(byOutcome).forEach(p -> {
            Device device = estate.devices().at(p);
            if (hasWords(estate, device, wanted)) {
                DeviceRow.State its = DeviceRow.state(fleet.of(snapshot, device.id()), now);
                if (state == null || its.word().equals(state)) {
                    found.add(new Found(p, its == DeviceRow.State.FAILED ? 0 : its == DeviceRow.State.NEVER ? 2 : 1, estate.ous().position(device.ou()), device.name()));
                }
            }
        });
        return found.stream().sorted(comparator(snapshot, fleet)).mapToInt(Found::position).toArray();
    }

    /** How many people on these devices have the outcome; null where no title for each person is asked for, or the outcome is none. */
    @Nullable Integer people(Resolver resolver, int[] positions) {
        Title known = title == null || outcome == null || "none".equals(outcome) ? null : resolver.estate().title(title);
        if (known == null || known.scope() == Scope.DEVICE) {
            return null;
        }
        UnitSet with = resolver.title(known).with(outcome(Objects.requireNonNull(outcome)));
        return Arrays.stream(positions).map(p -> resolver.audiences().countOn(with, p, p + 1)).sum();
    }

    /** @param pressing the lower, the earlier in the list */
    private record Found(int position, int pressing, int ou, String name) {
    }

    private Comparator<Found> comparator(Snapshot snapshot, Fleet fleet) {
        Comparator<Found> byItself = Comparator.comparingInt(Found::pressing).thenComparingInt(Found::ou).thenComparing(Found::name);
        if (order == null || order.isEmpty()) {
            return byItself;
        }
        boolean descending = order.startsWith("-");
        Comparator<Found> asked = switch (descending ? order.substring(1) : order) {
            case "name" -> Comparator.comparing(Found::name);
            case "ou" -> Comparator.comparingInt(Found::ou);
            case "person" -> by(found -> DeviceRow.people(snapshot.estate(), snapshot.estate().devices().at(found.position())).stream()
                    .findFirst().orElse(null));
            case "last-seen" -> by(found -> fleet.of(snapshot, snapshot.estate().devices().at(found.position()).id()).lastSeen());
            default -> throw new RefusedException("bad-order", "order", "There is no order " + order
                    + "; use name, ou, person or last-seen, with - before it for the other way round.");
        };
        return (descending ? asked.reversed() : asked).thenComparing(byItself);
    }

    /** What has none comes before what has one, so that it comes last the other way round. */
    private static <T extends Comparable<T>> Comparator<Found> by(Function<Found, @Nullable T> value) {
        return Comparator.comparing(value, Comparator.nullsFirst(Comparator.naturalOrder()));
    }

    static int position(Estate estate, String ou) {
        if (estate.ous().find(ou) == null) {
            throw new RefusedException("unknown-ou", "ou", "There is no such OU; it may have gone from the "
                    + "directory. Take the OU out of the address.");
        }
        return estate.ous().position(ou);
    }

    private IntPredicate outcomes(Resolver resolver) {
        if (title == null || outcome == null) {
            return p -> true;
        }
        Title known = title(resolver.estate(), title);
        TitleOutcomes outcomes = resolver.title(known);
        if ("none".equals(outcome)) {
            UnitSet decided = outcomes.decided();
            return p -> resolver.audiences().countOn(decided, p, p + 1) < resolver.audiences().unitsOn(known.scope(), p, p + 1);
        }
        DeviceSet with = resolver.audiences().devicesOf(outcomes.with(outcome(outcome)));
        return with::contains;
    }

    private static Title title(Estate estate, String id) {
        Title known = estate.title(id);
        if (known == null) {
            throw new RefusedException("unknown-title", "title", "There is no title " + id
                    + "; pick one from the catalogue.");
        }
        return known;
    }

    private IntPredicate states(Snapshot snapshot, TitleStates states) {
        if (stands == null) {
            return p -> true;
        }
        if (title == null) {
            throw new RefusedException("missing", "title", "Say of which title the devices stand so, with title.");
        }
        UnitState wanted = Arrays.stream(UnitState.values()).filter(one -> one.word().equals(stands)).findFirst()
                .orElseThrow(() -> new RefusedException("bad-state", "stands", "There is no state " + stands + "; use "
                        + Arrays.stream(UnitState.values()).map(UnitState::word).collect(Collectors.joining(", ")) + "."));
        return states.devices(snapshot, title(snapshot.estate(), title), wanted);
    }

    private static Outcome outcome(String word) {
        for (Outcome outcome : Outcome.values()) {
            if (outcome.word().equals(word)) {
                return outcome;
            }
        }
        throw new RefusedException("bad-outcome", "outcome", "There is no outcome " + word
                + "; use required, available, uninstall, contested, later, unfit, blocked, replaced, displaced, "
                + "waiting or none.");
    }

    private static boolean hasWords(Estate estate, Device device, String[] wanted) {
        if (wanted.length == 0 || wanted[0].isEmpty()) {
            return true;
        }
        String text = (device.name() + " " + DeviceRow.path(estate, device) + " "
                + String.join(" ", DeviceRow.people(estate, device))).toLowerCase(Locale.ROOT);
        for (String word : wanted) {
            if (!text.contains(word)) {
                return false;
            }
        }
        return true;
    }
}
