package rivo.server.fleet;

import java.time.Clock;
import java.time.Duration;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.server.estate.Rows;

/**
 * What devices said of their jobs and of themselves is kept for three months. Older lines are deleted a part at a time and beside the
 * writer, which never waits for it: nothing else is made of them.
 */
@Component
class OldLines {

    private static final Duration KEPT = Duration.ofDays(90);
    private static final int AT_A_TIME = 5_000;

    private final JdbcClient db;
    private final Clock clock;

    OldLines(JdbcClient db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    @Scheduled(initialDelayString = "PT10M", fixedDelayString = "PT6H")
    void forget() {
        for (String table : new String[] {"job_log", "device_changes", "notices"}) {
            int deleted = AT_A_TIME;
            while (deleted == AT_A_TIME) {
                deleted = db.sql("delete from " + table + " where at < ? fetch first " + AT_A_TIME + " rows only")
                        .params(Rows.at(clock.instant().minus(KEPT))).update();
            }
        }
    }
}
