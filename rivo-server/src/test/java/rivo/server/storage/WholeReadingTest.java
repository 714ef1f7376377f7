package rivo.server.storage;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.h2.jdbcx.JdbcConnectionPool;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Large results, read while the database is written to. */
class WholeReadingTest {

    private static final int ROWS = 4_000;
    /** So wide that the table has many pages, which are read one after the other. */
    private static final int WIDTH = 1_000;
    private static final int ROUNDS = 15;

    @TempDir
    private Path data;
    private JdbcConnectionPool database;

    @BeforeEach
    void fill() {
        database = JdbcConnectionPool.create(Database.url(data), "sa", "");
        JdbcClient db = JdbcClient.create(database);
        db.sql("create table things (id int primary key, round int not null, filling varchar(2000) not null)").update();
        write(db, 0);
    }

    @AfterEach
    void close() {
        JdbcClient.create(database).sql("shutdown").update();
        database.dispose();
    }

    private static void write(JdbcClient db, int round) {
        db.sql("merge into things (id, round, filling) select x, ?, repeat(char(65 + ?), ?) from system_range(1, ?)")
                .params(round, round % 26, WIDTH, ROWS).update();
    }

    /** The pages that were read from are long overwritten by then, but for what the transaction keeps. */
    @Test
    void whatIsWrittenMeanwhileNeitherShowsNorBreaksIt() throws SQLException {
        List<Integer> rounds = new ArrayList<>();
        try (WholeReading reading = new WholeReading(database)) {
            reading.client().sql("select id, round from things").query(row -> {
                rounds.add(row.getInt("round"));
                if (rounds.size() == 10) {
                    overwrite();
                }
            });
            assertThat(reading.client().sql("select max(round) from things").query(Integer.class).single()).as("of one instant").isZero();
        }
        assertThat(rounds).hasSize(ROWS).containsOnly(0);
        assertThat(JdbcClient.create(database).sql("select min(round) from things").query(Integer.class).single()).isEqualTo(ROUNDS);
    }

    private void overwrite() {
        try {
            for (int round = 1; round <= ROUNDS; round++) {
                write(JdbcClient.create(database), round);
                JdbcClient.create(database).sql("checkpoint").update();
                Thread.sleep(100);
            }
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void theConnectionIsGivenBackAsItWas() throws SQLException {
        JdbcConnectionPool one = JdbcConnectionPool.create(Database.url(data), "sa", "");
        one.setMaxConnections(1);
        new WholeReading(one).close();
        try (Connection again = one.getConnection()) {
            assertThat(again.getAutoCommit()).isTrue();
            try (var settings = again.createStatement().executeQuery(
                    "select isolation_level from information_schema.sessions where session_id = session_id()")) {
                settings.next();
                assertThat(settings.getString(1)).isEqualTo("READ COMMITTED");
            }
        }
        one.dispose();
    }
}
