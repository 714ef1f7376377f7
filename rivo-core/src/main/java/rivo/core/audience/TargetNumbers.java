package rivo.core.audience;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import rivo.core.estate.Follows;
import rivo.core.estate.Target;

/** A number, from 0 on, for each target that some pair has been made of, by the side that is followed. Safe for any thread. */
final class TargetNumbers {

    private final Map<Numbered, Integer> numbers = new ConcurrentHashMap<>();

    private record Numbered(Target target, Follows side) {
    }

    /** The target's number; a new one where it has none yet. */
    int of(Target target, Follows side) {
        synchronized (numbers) {
            return numbers.computeIfAbsent(new Numbered(target, side), k -> numbers.size());
        }
    }

    /** The target's number, or -1 when no pair has been made of it. */
    int find(Target target, Follows side) {
        return numbers.getOrDefault(new Numbered(target, side), -1);
    }

    int size() {
        return numbers.size();
    }
}
