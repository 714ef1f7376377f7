package rivo.core.rehearse;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Devices;
import rivo.core.estate.Estate;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.Title;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.TitleOutcomes;

/**
 * What changes for whom when the estate {@code before} becomes {@code after}.
 *
 * <p>Only the titles that the edits touch are looked at: an edited assignment can change nothing but its own title.
 * Costs a resolution of each such title, twice.
 *
 * @param devices how many devices were looked at: all of them
 */
public record Rehearsal(int devices, List<TitleDifference> titles) {

    /**
     * The differences for one title. The sets may overlap: a device that is now contested also loses, when it was
     * required before.
     *
     * @param gains required now, and not before
     * @param loses required before, and not now
     * @param removes taken off now, and not before
     * @param removesPresent those of {@code removes} where it is present now: a removal that will really happen
     * @param newlyContested contested now, and not before
     * @param settled contested before, and not now
     * @param fetches those of {@code gains} that do not have the chosen release yet
     */
    public record TitleDifference(String title, DeviceSet gains, DeviceSet loses, DeviceSet removes,
            DeviceSet removesPresent, DeviceSet newlyContested, DeviceSet settled, DeviceSet fetches) {

        /** Whether nothing changes for anybody. */
        public boolean isEmpty() {
            return gains.isEmpty() && loses.isEmpty() && removes.isEmpty() && newlyContested.isEmpty()
                    && settled.isEmpty();
        }
    }

    public Rehearsal {
        titles = List.copyOf(titles);
    }

    /**
     * @param touched the ids of the titles that the edits speak of, known in both estates
     * @throws IllegalArgumentException when the two estates do not have the same devices in the same places
     */
    public static Rehearsal of(Estate before, Estate after, Collection<String> touched) {
        if (!before.devices().sameOrderAs(after.devices())) {
            throw new IllegalArgumentException("a rehearsal of assignments needs the same devices on both sides");
        }
        List<TitleDifference> differences = new ArrayList<>();
        for (String id : touched) {
            differences.add(difference(before, after, Objects.requireNonNull(after.title(id))));
        }
        return new Rehearsal(after.devices().size(), differences);
    }

    private static TitleDifference difference(Estate before, Estate after, Title title) {
        TitleOutcomes old = new Resolver(before).title(title);
        TitleOutcomes now = new Resolver(after).title(title);
        DeviceSet gains = entering(old, now, Outcome.REQUIRED);
        DeviceSet removes = entering(old, now, Outcome.UNINSTALL);
        Release newest = title.newest();
        return new TitleDifference(title.id(), gains, entering(now, old, Outcome.REQUIRED), removes,
                keep(after.devices(), removes, title.id(), present -> true),
                entering(old, now, Outcome.CONTESTED), entering(now, old, Outcome.CONTESTED),
                newest == null ? DeviceSet.NONE
                        : gains.without(keep(after.devices(), gains, title.id(), p -> isThere(p, newest))));
    }

    private static DeviceSet entering(TitleOutcomes from, TitleOutcomes to, Outcome outcome) {
        return to.with(outcome).without(from.with(outcome));
    }

    private static boolean isThere(Present present, Release release) {
        return present.version() != null && present.version().compareTo(release.version()) >= 0;
    }

    private static DeviceSet keep(Devices devices, DeviceSet among, String title,
            java.util.function.Predicate<Present> test) {
        return DeviceSet.of(among.stream().filter(p -> {
            Present present = devices.at(p).present(title);
            return present != null && test.test(present);
        }).toArray());
    }
}
