package rivo.server.storage;

import java.nio.file.Path;

/** Where the database lies and how it is opened: {@code docs/decisions/0012-a-database-that-stays-small.md} says why so. */
public final class Database {

    private Database() {
    }

    /** The address of the database in this data folder. */
    public static String url(Path data) {
        return "jdbc:h2:file:" + data.resolve("rivo") + ";WRITE_DELAY=500;RETENTION_TIME=1000;DB_CLOSE_ON_EXIT=FALSE";
    }
}
