package rivo.server.estate;

import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.SQLException;
import javax.sql.DataSource;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.datasource.AbstractDataSource;

/**
 * Connections to H2: a few that everybody shares, and one that is the writer's alone, so that readers can never keep a change from being
 * written. Which one it is, the thread decides.
 */
@Configuration
class Connections {

    private static final int READERS = 6;
    private static final ThreadLocal<Boolean> WRITER = ThreadLocal.withInitial(() -> false);

    /** From here on the calling thread is a writer. */
    static void thisThreadWrites() {
        WRITER.set(true);
    }

    @Bean
    DataSource dataSource(DataSourceProperties properties) {
        return new ByThread(pool(properties, "readers", READERS), pool(properties, "writer", 1));
    }

    private static HikariDataSource pool(DataSourceProperties properties, String name, int size) {
        HikariDataSource pool = properties.initializeDataSourceBuilder().type(HikariDataSource.class).build();
        pool.setPoolName(name);
        pool.setMaximumPoolSize(size);
        return pool;
    }

    private static final class ByThread extends AbstractDataSource implements AutoCloseable {

        private final HikariDataSource readers;
        private final HikariDataSource writer;

        ByThread(HikariDataSource readers, HikariDataSource writer) {
            this.readers = readers;
            this.writer = writer;
        }

        @Override
        public Connection getConnection() throws SQLException {
            return (WRITER.get() ? writer : readers).getConnection();
        }

        @Override
        public Connection getConnection(String user, String password) throws SQLException {
            throw new SQLException("the database has one user");
        }

        /** The writer's last, so that H2 closes its file after everything has been written. */
        @Override
        public void close() {
            readers.close();
            writer.close();
        }
    }
}
