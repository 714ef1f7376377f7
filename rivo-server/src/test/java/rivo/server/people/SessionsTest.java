package rivo.server.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.http.HttpSessionEvent;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpSession;
import rivo.server.HandClock;
import rivo.server.web.ApiException;

class SessionsTest {

    private final HandClock clock = new HandClock(Instant.parse("2026-11-23T08:00:00Z"));
    private final Sessions sessions = new Sessions(clock);

    private SignedIn begin(String person, MockHttpSession session) {
        SignedIn who = new SignedIn(sessions.newName(), person, person, person, clock.instant(), true, null);
        sessions.begun(session, who, "10.0.0.1", "a browser");
        return who;
    }

    @Test
    void aSessionEndsAfterTwelveHoursHoweverBusyItIs() {
        SignedIn who = begin("imara", new MockHttpSession());
        for (int i = 0; i < 71; i++) {
            clock.passes(Duration.ofMinutes(10));
            assertThat(sessions.goesOn(who)).as(i + " tens of minutes").isTrue();
        }
        assertThat(sessions.isOpen(who)).isTrue();
        clock.passes(Duration.ofMinutes(10));
        assertThat(sessions.goesOn(who)).isFalse();
        assertThat(sessions.isOpen(who)).isFalse();
    }

    @Test
    void aPersonSeesAndEndsTheirOwnAlone() {
        MockHttpSession first = new MockHttpSession();
        SignedIn here = begin("imara", first);
        clock.passes(Duration.ofMinutes(5));
        MockHttpSession second = new MockHttpSession();
        SignedIn there = begin("imara", second);
        SignedIn other = begin("odile", new MockHttpSession());
        assertThat(sessions.of(here)).extracting(Sessions.SessionView::id).containsExactly(there.session(), here.session());
        assertThat(sessions.of(here)).extracting(Sessions.SessionView::own).containsExactly(false, true);
        assertThatThrownBy(() -> sessions.end(here, other.session())).isInstanceOf(ApiException.class);
        assertThat(sessions.goesOn(other)).isTrue();
        sessions.end(here, there.session());
        assertThat(second.isInvalid()).isTrue();
        assertThat(sessions.goesOn(there)).isFalse();
        assertThat(sessions.goesOn(here)).isTrue();
    }

    @Test
    void oneThatRunsOutByItselfIsNotListedAnyMore() {
        MockHttpSession session = new MockHttpSession();
        SignedIn who = begin("imara", session);
        sessions.sessionDestroyed(new HttpSessionEvent(session));
        assertThat(sessions.of(who)).isEmpty();
        assertThat(sessions.goesOn(who)).isFalse();
    }
}
