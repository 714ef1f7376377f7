package rivo.server.change;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.server.estate.Rows;

/** By which change each assignment came to be. Held in memory; safe for any number of threads. */
@Component
public class Origins {

    /** The number of the change and when it was published. */
    public record Origin(long change, Instant at) {
    }

    private final Map<String, Origin> origins = new ConcurrentHashMap<>();

    Origins(JdbcClient db) {
        db.sql("select a.id, c.number, c.at from assignments a join changes c on c.number = a.change_number")
                .query((row, n) -> origins.put(row.getString("id"),
                        new Origin(row.getLong("number"), Rows.instant(row, "at"))) == null)
                .list();
    }

    /** Empty for an assignment that is not published yet. */
    public Optional<Origin> of(String assignment) {
        return Optional.ofNullable(origins.get(assignment));
    }

    void put(String assignment, Origin origin) {
        origins.putIfAbsent(assignment, origin);
    }
}
