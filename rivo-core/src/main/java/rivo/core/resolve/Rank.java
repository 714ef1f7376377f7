package rivo.core.resolve;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Follows;
import rivo.core.estate.OuTree;
import rivo.core.estate.Target;

/**
 * A place on the ladder (section 4 of the resolution rules); the natural order puts the <b>stronger first</b>.
 *
 * @param binding whether the assignment is binding
 * @param nearness {@link #NAMES}, {@link #LISTS}, one more than the depth of an OU, or {@link #EVERYONE}; the higher is
 *     the nearer
 * @param side the side that the assignment follows
 * @param priority 0 to 1000
 */
public record Rank(boolean binding, int nearness, Follows side, int priority) implements Comparable<Rank> {

    /** The target names the unit. */
    public static final int NAMES = Integer.MAX_VALUE;
    /** The target is a list that the unit is on. */
    public static final int LISTS = NAMES - 1;
    /** The target is everyone, anywhere. */
    public static final int EVERYONE = 0;

    private static final int HIGHEST = 1000;
    private static final int PRIORITY_BITS = 10;

    /** Where an assignment with one of its targets stands. */
    public static Rank of(OuTree ous, Assignment assignment, Target target) {
        int nearness = switch (target.kind()) {
            case DEVICE, USER -> NAMES;
            case GROUP, COLLECTION -> LISTS;
            case OU -> 1 + depth(ous, target.id());
            case ALL_DEVICES, ALL_USERS -> {
                int base = depth(ous, assignment.base());
                yield base == 0 ? EVERYONE : 1 + base;
            }
        };
        return new Rank(assignment.binding(), nearness, assignment.follows(), assignment.priority());
    }

    /** Of one that has gone, like the root's: what names it reaches nobody. */
    private static int depth(OuTree ous, @Nullable String ou) {
        return ou == null || ous.find(ou) == null ? 0 : ous.depth(ous.position(ou));
    }

    @Override
    public int compareTo(Rank other) {
        return Long.compare(place(), other.place());
    }

    /** The lower, the stronger; the same for level ones. */
    long place() {
        long far = binding ? nearness : NAMES - nearness;
        return (((binding ? 0L : 1L) << Integer.SIZE | far) << 1 | side.ordinal()) << PRIORITY_BITS | HIGHEST - priority;
    }

    /** The first step at which the two differ; empty when they are level. */
    public Optional<LadderStep> firstDifference(Rank other) {
        if (binding != other.binding) {
            return Optional.of(LadderStep.BINDING);
        }
        if (nearness != other.nearness) {
            return Optional.of(LadderStep.NEARNESS);
        }
        if (side != other.side) {
            return Optional.of(LadderStep.SIDE);
        }
        return priority == other.priority ? Optional.empty() : Optional.of(LadderStep.PRIORITY);
    }
}
