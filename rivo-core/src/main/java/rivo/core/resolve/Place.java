package rivo.core.resolve;

import java.util.Optional;

/**
 * A place on the ladder (section 4 of the resolution rules); the natural order puts the <b>stronger first</b>.
 *
 * @param binding whether the assignment is binding
 * @param depth how near the target is: the depth of its OU, the root 0
 * @param priority 0 to 1000
 */
public record Place(boolean binding, int depth, int priority) implements Comparable<Place> {

    @Override
    public int compareTo(Place other) {
        if (binding != other.binding) {
            return binding ? -1 : 1;
        }
        if (depth != other.depth) {
            return binding ? Integer.compare(depth, other.depth) : Integer.compare(other.depth, depth);
        }
        return Integer.compare(other.priority, priority);
    }

    /** The first step at which the two differ; empty when they are level. */
    public Optional<LadderStep> firstDifference(Place other) {
        if (binding != other.binding) {
            return Optional.of(LadderStep.BINDING);
        }
        if (depth != other.depth) {
            return Optional.of(LadderStep.NEARNESS);
        }
        return priority == other.priority ? Optional.empty() : Optional.of(LadderStep.PRIORITY);
    }
}
