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
    /** Where each part stands among the values; the same map in every snapshot that comes of this one. */
    private final Map<SnapshotPart<?>, Integer> places;
    private final Object[] values;
    private volatile @Nullable Resolver resolver;
    /** That of the nearest estate before; only until this one's is known. */
    private volatile @Nullable Resolver before;

    private Snapshot(Estate estate, Map<SnapshotPart<?>, Integer> places, Object[] values, @Nullable Resolver resolver, @Nullable Resolver before) {
        this.estate = estate;
        this.places = places;
        this.values = values;
        this.resolver = resolver;
        this.before = before;
    }

    /** @param parts each with its value */
    public static Snapshot of(Estate estate, Map<SnapshotPart<?>, Object> parts) {
        Map<SnapshotPart<?>, Integer> places = new HashMap<>();
        Object[] values = new Object[parts.size()];
        parts.forEach((part, value) -> {
            values[places.size()] = value;
            places.put(part, places.size());
        });
        return new Snapshot(estate, Map.copyOf(places), values, Resolver.of(estate), null);
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
        T value = (T) values[place(part)];
        return value;
    }

    private int place(SnapshotPart<?> part) {
        Integer place = places.get(part);
        if (place == null) {
            throw new IllegalArgumentException("the snapshot has no part " + part);
        }
        return place;
    }

    /** The same with another estate. */
    public Snapshot with(Estate next) {
        if (next == estate) {
            return this;
        }
        Resolver known = resolver;
        return new Snapshot(next, places, values, null, known != null ? known : before);
    }

    /** The same with another estate, of which everything is known already. */
    public Snapshot with(Resolver known) {
        return new Snapshot(known.estate(), places, values, known, null);
    }

    /**
     * The same at another instant.
     *
     * @param ticked what is known, at that instant, of this estate or of one shortly before it
     */
    public Snapshot at(Resolver ticked) {
        Estate next = estate.at(ticked.estate().asOf());
        return new Snapshot(next, places, values, null, ticked);
    }

    /** The same with another value of one part. @throws IllegalArgumentException for a part that nobody has read */
    public <T> Snapshot with(SnapshotPart<T> part, T value) {
        Object[] next = values.clone();
        next[place(part)] = value;
        return new Snapshot(estate, places, next, resolver, before);
    }

    /** Whether both hold the very same estate and the very same value of each of these parts; costs a comparison each. */
    public boolean isSameAs(Snapshot other, Iterable<? extends SnapshotPart<?>> looked) {
        if (estate != other.estate) {
            return false;
        }
        for (SnapshotPart<?> part : looked) {
            if (get(part) != other.get(part)) {
                return false;
            }
        }
        return true;
    }
}
