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

    private final List<Release> newestFirst;
    private final List<Release> offered;
    /** For each variant with a rule the units that it fits. */
    private final Map<Variant, Positions> fitting = new IdentityHashMap<>();

    Choices(Audiences audiences, Title title) {
        this.newestFirst = title.newestFirst();
        this.offered = newestFirst.stream().filter(Release::isOffered).toList();
        for (Release release : newestFirst) {
            for (Variant variant : release.variants()) {
                if (variant.fits() != null) {
                    fitting.put(variant, audiences.satisfying(variant.fits(), title.scope()));
                }
            }
        }
    }

    private Positions fitting(Variant variant) {
        return Objects.requireNonNull(fitting.get(variant));
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

    /** The newest offered release that fits, for each of the units that any fits. */
    List<Share<Choice>> newest(Positions units) {
        return choose(offered, units);
    }

    /** This release, for each of the units that it fits. */
    List<Share<Choice>> of(Release release, Positions units) {
        return choose(List.of(release), units);
    }

    private List<Share<Choice>> choose(List<Release> releases, Positions units) {
        List<Share<Choice>> chosen = new ArrayList<>(1);
        Positions rest = units;
        for (int r = 0; r < releases.size() && !rest.isEmpty(); r++) {
            Release release = releases.get(r);
            for (int v = 0; v < release.variants().size() && !rest.isEmpty(); v++) {
                Variant variant = release.variants().get(v);
                Positions fits = variant.fits() == null ? rest : rest.and(fitting(variant));
                if (!fits.isEmpty()) {
                    chosen.add(new Share<>(new Choice(release, variant), fits));
                    rest = rest.without(fits);
                }
            }
        }
        return chosen;
    }

    /** What {@link #newest} gives one unit; null when nothing fits. */
    @Nullable Choice newestAt(int unit) {
        for (int r = 0; r < offered.size(); r++) {
            Choice choice = at(offered.get(r), unit);
            if (choice != null) {
                return choice;
            }
        }
        return null;
    }

    /** What {@link #of} gives one unit; null when it does not fit. */
    @Nullable Choice at(Release release, int unit) {
        List<Variant> variants = release.variants();
        for (int v = 0; v < variants.size(); v++) {
            Variant variant = variants.get(v);
            if (variant.fits() == null || fitting(variant).contains(unit)) {
                return new Choice(release, variant);
            }
        }
        return null;
    }

    /** Where each variant of each release fits, whatever stands before it. */
    List<Share<Choice>> everywhere(Positions units) {
        List<Share<Choice>> all = new ArrayList<>();
        for (Release release : newestFirst) {
            for (Variant variant : release.variants()) {
                all.add(new Share<>(new Choice(release, variant), variant.fits() == null ? units
                        : units.and(fitting(variant))));
            }
        }
        return all;
    }
}
