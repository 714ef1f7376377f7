package rivo.server.estate;

import org.springframework.jdbc.core.simple.JdbcClient;

/**
 * Names one part of the {@link Snapshot} besides the estate, and reads it from H2. A constant of the feature whose records it holds.
 *
 * @param <T> an immutable value whose {@code equals} compares what it holds
 */
public interface SnapshotPart<T> {

    /** All of it, as the rows have it. Done once, when the server starts. */
    T read(JdbcClient db);
}
