package rivo.core.explain;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Resolver;
import rivo.core.rule.Clause;

/**
 * Why a unit, or a device that would stand in an OU, receives what it receives of one title, or receives nothing: every
 * assignment that speaks for the title, in ladder order, each with what became of it (section 10 of the resolution
 * rules). Immutable; safe for any thread.
 *
 * <p><b>Never disagrees:</b> the decision is the resolver's own for the same unit, and the rungs are judged by the very
 * pairs and gates with which it was made. Made by {@link Trails}.
 */
public final class Trail {

    private final Trails trails;
    private final Resolver resolver;
    private final Title title;
    private final int unit;
    private final int ou;
    private final @Nullable Decision decision;
    private final List<Rung> rungs;

    /**
     * @param unit -1 for one at an OU
     * @param rungs which nobody changes any more
     */
    Trail(Trails trails, Title title, int unit, int ou, @Nullable Decision decision, List<Rung> rungs) {
        this.trails = trails;
        this.resolver = trails.resolver();
        this.title = title;
        this.unit = unit;
        this.ou = ou;
        this.decision = decision;
        this.rungs = Collections.unmodifiableList(rungs);
    }

    /** One unit's, where no more than one is wanted; else see {@link Trails}. */
    public static Trail of(Resolver resolver, Title title, int unit) {
        return Trails.of(resolver).of(title, unit);
    }

    /** One OU's, where no more than one is wanted; else see {@link Trails}. */
    public static Trail at(Resolver resolver, int ou, Title title) {
        return Trails.of(resolver).at(ou, title);
    }

    public Title title() {
        return title;
    }

    /** The id of the person whose unit it is; empty for one of a device, or at an OU. */
    public String person() {
        return unit < 0 ? "" : resolver.audiences().user(unit, title.scope());
    }

    /** What comes out; empty when nothing does. */
    public Optional<Decision> decision() {
        return Optional.ofNullable(decision);
    }

    /** The strongest first; those without a say last. */
    public List<Rung> rungs() {
        return rungs;
    }

    /** The rung that decided; null when nobody's assignment did. */
    public @Nullable Rung deciding() {
        return rungs.stream().filter(r -> r.verdict().kind() == Verdict.Kind.DECIDES
                || r.verdict() instanceof Verdict.Later later && later.decides()).findFirst().orElse(null);
    }

    /** The title's releases from the highest down, each with what became of it; only for a unit, not for an OU. */
    public List<ReleaseLook> releases() {
        if (unit < 0) {
            return List.of();
        }
        Rung rung = deciding();
        Version pin = rung == null ? null : rung.assignment().pin();
        List<ReleaseLook> looks = new ArrayList<>();
        boolean found = false;
        for (Release release : title.newestFirst()) {
            List<ReleaseLook.VariantLook> variants = release.variants().stream().map(this::look).toList();
            ReleaseLook.Kind kind = !release.isOffered() ? ReleaseLook.Kind.WITHDRAWN
                    : pin != null && release.version().compareTo(pin) != 0 ? ReleaseLook.Kind.NOT_PINNED
                            : found ? ReleaseLook.Kind.OLDER
                                    : variants.stream().anyMatch(ReleaseLook.VariantLook::fits) ? ReleaseLook.Kind.CHOSEN
                                            : ReleaseLook.Kind.DOES_NOT_FIT;
            found |= kind == ReleaseLook.Kind.CHOSEN;
            looks.add(new ReleaseLook(release, kind, variants));
        }
        return looks;
    }

    private ReleaseLook.VariantLook look(Variant variant) {
        if (variant.fits() == null) {
            return new ReleaseLook.VariantLook(variant, true, List.of());
        }
        int device = resolver.audiences().devicePosition(unit, title.scope());
        return new ReleaseLook.VariantLook(variant,
                resolver.audiences().satisfying(variant.fits(), Scope.DEVICE).contains(device),
                resolver.audiences().clauses(variant.fits(), device));
    }

    /** The clauses of the assignment's {@code within}, each with the fact it saw; none without a rule or a unit. */
    public List<Clause> clauses(Rung rung) {
        String rule = rung.assignment().within();
        return rule == null || unit < 0 || rung.verdict().kind() == Verdict.Kind.NOT_LIVE ? List.of()
                : resolver.audiences().clauses(rule, resolver.audiences().devicePosition(unit, title.scope()));
    }

    /** The trail of the title that implies, replaces, displaces or blocks this one; null when none does. */
    public @Nullable Trail other() {
        String by = decision == null ? null : decision.by();
        Title other = by == null ? null : resolver.estate().title(by);
        if (other == null) {
            return null;
        }
        int at = other.scope() == title.scope() ? unit : resolver.audiences().devicePosition(unit, title.scope());
        return trails.of(other, at);
    }

    /** The whole in one sentence. */
    public String sentence() {
        return new Sentences(resolver.estate(), ou).whole(this);
    }

    /** What became of one rung, in words. */
    public String sentence(Rung rung) {
        return new Sentences(resolver.estate(), ou).rung(rung, Objects.requireNonNullElse(deciding(), rung));
    }
}
