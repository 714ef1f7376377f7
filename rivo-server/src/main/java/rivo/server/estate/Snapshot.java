package rivo.server.estate;

import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.resolve.Resolver;

/**
 * Everything that answers are made from, at one instant: the estate, what has been resolved of it, and each feature's records. Immutable.
 * Whoever answers takes one and asks nothing else, so that all of an answer is of the same instant.
 *
 * <p>What the estate comes to is found out when it is first asked for, from the nearest estate before for which that is known; so a
 * thousand changes written together are followed once.
 */
public final class Snapshot {

    private final Estate estate;
    private final Map<SnapshotPart<?>, Object> parts;
    private volatile @Nullable Resolver resolver;
    /** That of the nearest estate before; only until this one's is known. */
    private volatile @Nullable Resolver before;

    private Snapshot(Estate estate, Map<SnapshotPart<?>, Object> parts, @Nullable Resolver resolver, @Nullable Resolver before) {
        this.estate = estate;
        this.parts = parts;
        this.resolver = resolver;
        this.before = before;
    }

    /** @param parts each with its value */
    public static Snapshot of(Estate estate, Map<SnapshotPart<?>, Object> parts) {
        return new Snapshot(estate, Map.copyOf(parts), Resolver.of(estate), null);
    }

    public Estate estate() {
        return estate;
    }

    /** The estate with everything that has been found out about it. */
    public Resolver resolver() {
        Resolver known = resolver;
        return known != null ? known : resolve();
    }

    private synchronized Resolver resolve() {
        Resolver known = resolver;
        if (known == null) {
            Resolver from = before;
            known = from == null ? Resolver.of(estate) : from.follow(estate);
            resolver = known;
            before = null;
        }
        return known;
    }

    /** @throws IllegalArgumentException for a part that nobody has read */
    public <T> T get(SnapshotPart<T> part) {
        @SuppressWarnings("unchecked")
        T value = (T) parts.get(part);
        if (value == null) {
            throw new IllegalArgumentException("the snapshot has no part " + part);
        }
        return value;
    }

    /** The same with another estate. */
    public Snapshot with(Estate next) {
        if (next == estate) {
            return this;
        }
        Resolver known = resolver;
        return new Snapshot(next, parts, null, known != null ? known : before);
    }

    /** The same with another estate, of which everything is known already. */
    public Snapshot with(Resolver known) {
        return new Snapshot(known.estate(), parts, known, null);
    }

    /** The same with another value of one part. */
    public <T> Snapshot with(SnapshotPart<T> part, T value) {
        Map<SnapshotPart<?>, Object> next = new HashMap<>(parts);
        next.put(part, value);
        return new Snapshot(estate, Map.copyOf(next), resolver, before);
    }

    /** Whether both hold the very same estate and the very same value of each of these parts; costs a comparison each. */
    public boolean isSameAs(Snapshot other, Iterable<? extends SnapshotPart<?>> looked) {
        if (estate != other.estate) {
            return false;
        }
        for (SnapshotPart<?> part : looked) {
            if (parts.get(part) != other.parts.get(part)) {
                return false;
            }
        }
        return true;
    }
}
