package rivo.core.resolve;

import org.jspecify.annotations.Nullable;

/**
 * How one title of a family stands at one unit before its relations are looked at.
 *
 * @param base null when nobody assigned it here
 * @param newest without a base outcome, the newest release that fits; null when none does
 * @param present whether it is there
 * @param reached how many of the versions asked of it the present one reaches, as {@link Family#reached} counts
 */
record TitleAtUnit(@Nullable BaseOutcome base, @Nullable Choice newest, boolean present, int reached) {

    static final TitleAtUnit NOTHING = new TitleAtUnit(null, null, false, 0);

    /** The release that counts: the chosen one, or the newest that fits for a title without a base outcome. */
    @Nullable Choice choice() {
        return base == null ? newest : base.choice();
    }

    boolean is(Outcome outcome) {
        return base != null && base.outcome() == outcome;
    }
}
