package rivo.server.log;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Says what was refused: each kind at most once a minute, with how often it came since, so that nobody can fill the log. There are
 * as many kinds as there are codes in the code, and no more. Safe for any number of threads.
 */
@Component
public final class RefusalLog {

    private static final Logger LOG = LoggerFactory.getLogger("rivo.refused");
    private static final Duration AT_MOST_EVERY = Duration.ofMinutes(1);
    private static final int LONGEST = 400;

    private static final class Kind {
        private Instant written = Instant.MIN;
        private int since;
    }

    private final Clock clock;
    private final Map<String, Kind> kinds = new HashMap<>();

    public RefusalLog(Clock clock) {
        this.clock = clock;
    }

    /**
     * @param code of the refusal: one that stands in the code, never text from outside
     * @param line who, what and why; cut off where it is long
     */
    public void refused(String code, String line) {
        String counted;
        synchronized (kinds) {
            Kind kind = kinds.computeIfAbsent(code, k -> new Kind());
            kind.since++;
            if (kind.written.plus(AT_MOST_EVERY).isAfter(clock.instant())) {
                return;
            }
            counted = kind.since == 1 ? "" : kind.since + " times since the last line, now: ";
            kind.written = clock.instant();
            kind.since = 0;
        }
        LOG.warn("{}: {}{}", code, counted, line.length() > LONGEST ? line.substring(0, LONGEST) + "…" : line);
    }
}
