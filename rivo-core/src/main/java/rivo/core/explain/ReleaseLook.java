package rivo.core.explain;

import java.util.List;
import java.util.Locale;
import rivo.core.estate.Release;
import rivo.core.estate.Variant;
import rivo.core.rule.Clause;

/**
 * What became of one release of a title at one unit (section 5 of the resolution rules).
 *
 * @param variants in the order in which they are tried
 */
public record ReleaseLook(Release release, Kind kind, List<VariantLook> variants) {

    /** What became of it. */
    public enum Kind {
        CHOSEN, WITHDRAWN, NOT_PINNED, DOES_NOT_FIT, OLDER;

        /** The word in the command's output and the API. */
        public String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    /**
     * One variant.
     *
     * @param fits whether it fits the device
     * @param clauses of its rule, each with the fact it saw; none when it has no rule
     */
    public record VariantLook(Variant variant, boolean fits, List<Clause> clauses) {
        public VariantLook {
            clauses = List.copyOf(clauses);
        }
    }

    public ReleaseLook {
        variants = List.copyOf(variants);
    }
}
