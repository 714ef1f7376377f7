package rivo.server.people;

import jakarta.servlet.http.HttpSession;
import jakarta.servlet.http.HttpSessionEvent;
import jakarta.servlet.http.HttpSessionListener;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.server.web.ApiException;

/**
 * The sessions that are open, in memory alone: a restart ends all. A session ends after twelve hours whatever happens, and before that
 * after eight hours without a request. Safe for any number of threads.
 */
@Component
class Sessions implements HttpSessionListener {

    static final Duration LONGEST = Duration.ofHours(12);
    private static final int LONGEST_BROWSER = 200;

    private record Open(HttpSession session, SignedIn who, String address, String browser, Instant lastSeen) {
        Open seen(Instant now) {
            return new Open(session, who, address, browser, now);
        }
    }

    /**
     * One session, for its owner.
     *
     * @param address from which it was begun
     * @param browser what the browser says of itself
     * @param own whether it is the one that asks
     */
    record SessionView(String id, Instant since, Instant lastSeen, String address, String browser, boolean own) {
    }

    private final Clock clock;
    private final SecureRandom random = new SecureRandom();
    private final Map<String, Open> open = new ConcurrentHashMap<>();

    Sessions(Clock clock) {
        this.clock = clock;
    }

    String newName() {
        byte[] name = new byte[12];
        random.nextBytes(name);
        return HexFormat.of().formatHex(name);
    }

    void begun(HttpSession session, SignedIn who, String address, @Nullable String browser) {
        String text = browser == null ? "" : browser.substring(0, Math.min(LONGEST_BROWSER, browser.length()));
        open.put(who.session(), new Open(session, who, address, text, clock.instant()));
    }

    /** Whether the session is open, and not older than any may be. */
    boolean goesOn(SignedIn who) {
        Instant now = clock.instant();
        return open.computeIfPresent(who.session(), (name, one) -> one.seen(now)) != null
                && who.since().plus(LONGEST).isAfter(now);
    }

    /** Whether whoever listens may go on listening; does not count as a request. */
    boolean isOpen(SignedIn who) {
        return open.containsKey(who.session()) && who.since().plus(LONGEST).isAfter(clock.instant());
    }

    /** Those of one person, the newest first. */
    List<SessionView> of(SignedIn who) {
        return open.values().stream().filter(one -> one.who().id().equals(who.id()))
                .sorted(Comparator.comparing((Open one) -> one.who().since()).reversed())
                .map(one -> new SessionView(one.who().session(), one.who().since(), one.lastSeen(), one.address(), one.browser(),
                        one.who().session().equals(who.session()))).toList();
    }

    /** @throws ApiException when this person has no such session */
    void end(SignedIn owner, String name) {
        Open one = open.get(name);
        if (one == null || !one.who().id().equals(owner.id())) {
            throw ApiException.notFound("no-session", "This session has ended already; look at the list again.");
        }
        end(one.who());
    }

    void end(SignedIn who) {
        Open one = open.remove(who.session());
        if (one != null) {
            try {
                one.session().invalidate();
            } catch (IllegalStateException e) {
                // It has run out by itself in this very moment, which is what was wanted.
                return;
            }
        }
    }

    /** Whatever ends it: it is not listed any more. */
    @Override
    public void sessionDestroyed(HttpSessionEvent event) {
        open.values().removeIf(one -> one.session().getId().equals(event.getSession().getId()));
    }
}
