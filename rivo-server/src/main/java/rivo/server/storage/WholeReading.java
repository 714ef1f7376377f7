package rivo.server.storage;

import java.sql.Connection;
import java.sql.SQLException;
import javax.sql.DataSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.datasource.SingleConnectionDataSource;

/**
 * Reads large results row by row, while H2 finds them: else it first gathers each on disk and reads it back, which takes several times as
 * long. All that is read is of one instant. Of one thread; one query at a time.
 *
 * <p><b>Why a transaction.</b> H2 keeps what a query reads from being overwritten for as long as its statement runs, and a statement whose rows
 * are still being found has ended for it. In a transaction of repeatable reads it keeps all until the end of that.
 */
public final class WholeReading implements AutoCloseable {

    private final Connection connection;

    public WholeReading(DataSource database) throws SQLException {
        connection = database.getConnection();
        connection.setAutoCommit(false);
        connection.setTransactionIsolation(Connection.TRANSACTION_REPEATABLE_READ);
        rowByRow(1);
    }

    private void rowByRow(int on) throws SQLException {
        try (var statement = connection.createStatement()) {
            statement.execute("set lazy_query_execution " + on);
        }
    }

    public JdbcClient client() {
        return JdbcClient.create(new SingleConnectionDataSource(connection, true));
    }

    /** Gives the connection back as it was. */
    @Override
    public void close() throws SQLException {
        try {
            rowByRow(0);
            connection.commit();
            connection.setTransactionIsolation(Connection.TRANSACTION_READ_COMMITTED);
            connection.setAutoCommit(true);
        } finally {
            connection.close();
        }
    }
}
