package rivo.core.resolve;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.Positions;
import rivo.core.estate.Release;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;

/** Which release and variant of a title a unit gets (section 5). Immutable; safe for any thread. */
final class Choices {

    /** A variant of a release; {@code units} are those that its rule fits, null without a rule. */
    private record Option(Choice choice, @Nullable Positions units) {

        boolean fits(int unit) {
            return units == null || units.contains(unit);
        }

        Positions among(Positions asked) {
            return units == null ? asked : asked.and(units);
        }
    }

    private final Title title;
    private final List<Release> newestFirst;
    private final Map<Release, List<Option>> byRelease = new IdentityHashMap<>();
    /** Those of the offered releases, in the order in which they are preferred. */
    private final List<Option> offered;

    Choices(Audiences audiences, Title title) {
        this.title = title;
        this.newestFirst = title.newestFirst();
        for (Release release : newestFirst) {
            byRelease.put(release, release.variants().stream().map(v -> new Option(new Choice(release, v),
                    v.fits() == null ? null : audiences.satisfying(v.fits(), title.scope()))).toList());
        }
        this.offered = newestFirst.stream().filter(Release::isOffered).flatMap(r -> options(r).stream()).toList();
    }

    /** These in other audiences in which everyone stands as in their own: the same, where every rule says the same. */
    Choices in(Audiences other, Audiences own) {
        boolean same = title.releases().stream().flatMap(r -> r.variants().stream()).map(Variant::fits)
                .allMatch(fits -> fits == null || other.isSame(fits, own));
        return same ? this : new Choices(other, title);
    }

    private List<Option> options(Release release) {
        return Objects.requireNonNull(byRelease.get(release));
    }

    /** The release of exactly this version that is offered; null when there is none. */
    @Nullable Release pinned(Version version) {
        for (Release release : newestFirst) {
            if (release.version().compareTo(version) == 0) {
                return release.isOffered() ? release : null;
            }
        }
        return null;
    }

    /** What {@link #newest} gives every unit alike; null when that depends on the unit, or nothing is offered. */
    @Nullable Choice only() {
        return offered.isEmpty() || offered.get(0).units() != null ? null : offered.get(0).choice();
    }

    /**
     * What units get.
     *
     * @param unfit those that nothing fits
     */
    record Chosen(List<UnitsWith<Choice>> shares, Positions unfit) {
    }

    /** The newest offered release that fits, for each of the units that any fits. */
    Chosen newest(Positions units) {
        return choose(offered, units);
    }

    /** This release, for each of the units that it fits. */
    Chosen of(Release release, Positions units) {
        return choose(options(release), units);
    }

    private static Chosen choose(List<Option> options, Positions units) {
        List<UnitsWith<Choice>> chosen = new ArrayList<>(1);
        Positions rest = units;
        for (int o = 0; o < options.size() && !rest.isEmpty(); o++) {
            Positions fits = options.get(o).among(rest);
            if (!fits.isEmpty()) {
                chosen.add(new UnitsWith<>(options.get(o).choice(), fits));
                rest = rest.without(fits);
            }
        }
        return new Chosen(chosen, rest);
    }

    /** How many variants are offered. */
    int offered() {
        return offered.size();
    }

    /** The variant at this place in the order in which they are preferred. */
    Choice offered(int place) {
        return offered.get(place).choice();
    }

    /** The units that the variant at this place fits; null where it fits all. */
    @Nullable Positions fits(int place) {
        return offered.get(place).units();
    }

    /** What {@link #newest} gives one unit; null when nothing fits. */
    @Nullable Choice newestAt(int unit) {
        return first(offered, unit);
    }

    /** What {@link #of} gives one unit; null when it does not fit. */
    @Nullable Choice at(Release release, int unit) {
        return first(options(release), unit);
    }

    private static @Nullable Choice first(List<Option> options, int unit) {
        for (int o = 0; o < options.size(); o++) {
            if (options.get(o).fits(unit)) {
                return options.get(o).choice();
            }
        }
        return null;
    }

    /** Where each variant of each release fits, whatever stands before it. */
    List<UnitsWith<Choice>> everywhere(Positions units) {
        return newestFirst.stream().flatMap(release -> options(release).stream())
                .map(option -> new UnitsWith<>(option.choice(), option.among(units))).toList();
    }
}
