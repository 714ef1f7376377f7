package rivo.server.fleet;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.DeviceSet;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Title;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.TitleOutcomes;
import rivo.server.estate.Snapshot;

/**
 * Which devices a list shows; every part that is given has to hold.
 *
 * @param words each has to stand in the name, the OUs or the people
 * @param ou in it or below
 * @param title with {@code outcome}: those that have this outcome for it, or {@code none}
 * @param state as {@link DeviceRow#state()}
 */
record DeviceFilter(@Nullable String words, @Nullable String ou, @Nullable String title, @Nullable String outcome,
        @Nullable String state) {

    /**
     * The positions of the devices that pass: those with a failed job first, those that have never called in last, and each in the order of
     * their OUs and, within one, of their names.
     */
    int[] positions(Snapshot snapshot, Fleet fleet, Instant now) {
        Estate estate = snapshot.estate();
        IntPredicate byOutcome = outcomes(snapshot.resolver());
        int within = ou == null ? 0 : position(estate, ou);
        String[] wanted = words == null ? new String[0] : words.strip().toLowerCase(Locale.ROOT).split("\\s+");
        List<Found> found = new ArrayList<>();
        IntStream.range(estate.devices().from(within), estate.devices().to(within)).filter(byOutcome).forEach(p -> {
            Device device = estate.devices().at(p);
            if (hasWords(estate, device, wanted)) {
                String its = DeviceRow.state(fleet.of(snapshot, device.id()), now);
                if (state == null || its.equals(state)) {
                    found.add(new Found(p, its.equals("failed") ? 0 : its.equals("never") ? 2 : 1, estate.ous().position(device.ou()), device.name()));
                }
            }
        });
        return found.stream().sorted(Comparator.comparingInt(Found::pressing).thenComparingInt(Found::ou).thenComparing(Found::name))
                .mapToInt(Found::position).toArray();
    }

    /** @param pressing the lower, the earlier in the list */
    private record Found(int position, int pressing, int ou, String name) {
    }

    private static int position(Estate estate, String ou) {
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
        Title known = resolver.estate().title(title);
        if (known == null) {
            throw new RefusedException("unknown-title", "title", "There is no title " + title
                    + "; pick one from the catalogue.");
        }
        TitleOutcomes outcomes = resolver.title(known);
        if ("none".equals(outcome)) {
            UnitSet decided = outcomes.decided();
            return p -> resolver.audiences().countOn(decided, p, p + 1) < resolver.audiences().unitsOn(known.scope(), p, p + 1);
        }
        DeviceSet with = resolver.audiences().devicesOf(outcomes.with(outcome(outcome)));
        return with::contains;
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
