package rivo.server.people;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Component;
import rivo.server.web.ApiException;

/** Slows down guessing: after five wrong passwords an account waits a minute. Safe for any number of threads. */
@Component
class SignInLimit {

    private static final int WRONG_ALLOWED = 5;
    private static final Duration WAIT = Duration.ofMinutes(1);
    private static final int REMEMBERED = 10_000;

    private record Wrong(int times, Instant last) {
    }

    private final Clock clock;
    private final Map<String, Wrong> wrong = new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Wrong> eldest) {
            return size() > REMEMBERED;
        }
    };

    SignInLimit(Clock clock) {
        this.clock = clock;
    }

    /** @throws ApiException when the account has to wait */
    synchronized void check(String account) {
        Wrong before = wrong.get(key(account));
        if (before != null && before.times() >= WRONG_ALLOWED && before.last().plus(WAIT).isAfter(clock.instant())) {
            throw ApiException.tooMany("wait", "Too many wrong passwords for this account. Try again in a minute.",
                    WAIT.toSeconds());
        }
    }

    synchronized void wrong(String account) {
        Wrong before = wrong.get(key(account));
        boolean recent = before != null && before.last().plus(WAIT).isAfter(clock.instant());
        wrong.put(key(account), new Wrong(recent && before != null ? before.times() + 1 : 1, clock.instant()));
    }

    synchronized void right(String account) {
        wrong.remove(key(account));
    }

    private static String key(String account) {
        return account.toLowerCase(Locale.ROOT);
    }
}
