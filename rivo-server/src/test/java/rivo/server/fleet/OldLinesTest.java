package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.h2.jdbcx.JdbcDataSource;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.server.HandClock;
import rivo.server.estate.Rows;

/** What is kept for a while only: old lines, and figures that take long to count. */
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

    @Test
    void whoeverAsksAtOnceIsToldTheSameAgainAndAfterAWhileItIsCountedAnew() throws InterruptedException {
        SeldomCounted<Integer> counted = new SeldomCounted<>();
        AtomicInteger counts = new AtomicInteger();
        for (int i = 0; i < 3; i++) {
            assertThat(counted.get(() -> slowly(counts))).isEqualTo(1);
        }
        long begun = System.nanoTime();
        while (counted.get(() -> slowly(counts)) == 1) {
            Thread.sleep(10);
        }
        assertThat(Duration.ofNanos(System.nanoTime() - begun)).as("twenty times as long as it took").isGreaterThan(Duration.ofMillis(500));
    }

    private static int slowly(AtomicInteger counts) {
        try {
            Thread.sleep(100);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        return counts.incrementAndGet();
    }
}
