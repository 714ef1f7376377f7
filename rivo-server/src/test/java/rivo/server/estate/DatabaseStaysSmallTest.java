package rivo.server.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.server.TestServer;
import rivo.server.storage.Database;

/** Many small forced groups of changes leave much behind that H2 has to reuse: {@link Database} says how it is made to. */
class DatabaseStaysSmallTest {

    private static final Duration LONG = Duration.ofSeconds(Integer.getInteger("rivo.soak-seconds", 20));
    private static final long MEBIBYTE = 1 << 20;
    /** As often as hundreds of devices at work report. */
    private static final int PAUSE_MILLIS = 20;

    @TempDir
    private Path data;

    @Test
    void theFileIsNeverMuchLargerThanWhatItHolds() throws Exception {
        AtomicLong written = new AtomicLong();
        long largest = 0;
        try (TestServer server = TestServer.start(data)) {
            ExecutorService writers = Executors.newFixedThreadPool(4);
            long end = System.nanoTime() + LONG.toNanos();
            for (int i = 0; i < 4; i++) {
                int own = i;
                writers.submit(() -> {
                    for (long n = 0; System.nanoTime() < end; n++) {
                        write(server.bean(ChangeWriter.class), own, n);
                        written.incrementAndGet();
                        TimeUnit.MILLISECONDS.sleep(PAUSE_MILLIS);
                    }
                    return null;
                });
            }
            writers.shutdown();
            while (!writers.awaitTermination(500, TimeUnit.MILLISECONDS)) {
                largest = Math.max(largest, Files.size(data.resolve("rivo.mv.db")));
            }
        }
        long compact = compacted();
        assertThat(written.get()).as("changes, each on disk before the next of its thread").isGreaterThan(LONG.toSeconds() * 20);
        assertThat(largest).as(written + " changes; compacted it has " + compact + " bytes").isLessThan(3 * compact + 32 * MEBIBYTE);
    }

    /** Rows as reports and jobs write them: some again and again, some more and more. */
    private static void write(ChangeWriter writer, int own, long n) {
        writer.take(context -> {
            for (int device = 0; device < 5; device++) {
                String id = "d" + own + "-" + (n * 5 + device) % 500;
                context.db().sql("merge into call_ins (device, at) values (?, ?)").params(id, Rows.at(context.now())).update();
                context.db().sql("insert into report_batches (batch, reports) values (?, X'5B5D')").params((n * 4 + own) * 5 + device).update();
                context.db().sql("merge into device_reports (device, facts, software, present) values (?, ?, ?, ?)")
                        .params(id, "{\"x.n\":\"" + n + "\"}", "[" + "x".repeat(3000) + n + "]", "[]").update();
            }
            if (own == 0 && n % 50 == 0) {
                // As settling leaves them: the batches up to here are deleted in a moment.
                context.db().sql("update settled_batches set up_to = ?").params((n - 50) * 20).update();
            }
            context.journal("device", "device-reported", "device:" + own, null, null, n);
            return n;
        });
    }

    private long compacted() throws SQLException, IOException {
        Path copy = Files.createDirectories(data.resolve("copy"));
        Files.copy(data.resolve("rivo.mv.db"), copy.resolve("rivo.mv.db"));
        try (Connection connection = DriverManager.getConnection(Database.url(copy)); Statement statement = connection.createStatement()) {
            statement.execute("shutdown compact");
        }
        return Files.size(copy.resolve("rivo.mv.db"));
    }
}
