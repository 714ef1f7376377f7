package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.h2.jdbcx.JdbcDataSource;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.server.HandClock;
import rivo.server.estate.Rows;

class OldLinesTest {

    private static final Instant NOW = Instant.parse("2026-11-23T08:00:00Z");

    @Test
    void linesAreKeptForThreeMonthsAndDeletedHoweverManyThereAre() {
        JdbcDataSource memory = new JdbcDataSource();
        memory.setUrl("jdbc:h2:mem:old-lines;DB_CLOSE_DELAY=-1");
        JdbcClient db = JdbcClient.create(memory);
        List<String> tables = List.of("job_log", "device_changes", "notices");
        for (String table : tables) {
            db.sql("create table " + table + " (at timestamp with time zone not null)").update();
            db.sql("insert into " + table + " select ? from system_range(1, 10001)").params(Rows.at(NOW.minus(Duration.ofDays(90)).minusMillis(1))).update();
            db.sql("insert into " + table + " values (?)").params(Rows.at(NOW.minus(Duration.ofDays(90)))).update();
            db.sql("insert into " + table + " values (?)").params(Rows.at(NOW)).update();
        }
        new OldLines(db, new HandClock(NOW)).forget();
        for (String table : tables) {
            assertThat(db.sql("select count(*) from " + table).query(Integer.class).single()).as(table).isEqualTo(2);
        }
    }
}
