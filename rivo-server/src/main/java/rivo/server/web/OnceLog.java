package rivo.server.web;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Writes the same line at most once in ten minutes, so that one broken device cannot fill the log. Remembers the last
 * thousand lines. Safe for any number of threads.
 */
@Component
class OnceLog {

    private static final Logger LOG = LoggerFactory.getLogger("rivo.refused");
    private static final Duration QUIET = Duration.ofMinutes(10);
    private static final int REMEMBERED = 1000;

    private final Clock clock;
    private final Map<String, Instant> written = new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Instant> eldest) {
            return size() > REMEMBERED;
        }
    };

    OnceLog(Clock clock) {
        this.clock = clock;
    }

    void warn(String line) {
        synchronized (written) {
            Instant before = written.get(line);
            if (before != null && before.plus(QUIET).isAfter(clock.instant())) {
                return;
            }
            written.put(line, clock.instant());
        }
        LOG.warn("{}", line);
    }
}
