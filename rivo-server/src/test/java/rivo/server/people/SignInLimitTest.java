package rivo.server.people;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rivo.server.web.ApiException;

class SignInLimitTest {

    private final Clock clock = mock(Clock.class);
    private final SignInLimit limit = new SignInLimit(clock);
    private Instant now = Instant.parse("2026-11-23T08:00:00Z");

    @BeforeEach
    void tick() {
        when(clock.instant()).thenAnswer(call -> now);
    }

    private void wrong(int times) {
        for (int i = 0; i < times; i++) {
            limit.wrong("imara.voss");
        }
    }

    @Test
    void afterFiveWrongPasswordsTheAccountWaits() {
        wrong(4);
        assertThatCode(() -> limit.check("imara.voss")).doesNotThrowAnyException();
        wrong(1);
        assertThatThrownBy(() -> limit.check("IMARA.VOSS")).isInstanceOf(ApiException.class)
                .hasMessageContaining("in a minute");
        assertThatCode(() -> limit.check("somebody.else")).doesNotThrowAnyException();
    }

    @Test
    void aMinuteLaterItMayTryAgain() {
        wrong(5);
        now = now.plus(Duration.ofSeconds(61));
        assertThatCode(() -> limit.check("imara.voss")).doesNotThrowAnyException();
        wrong(1);
        assertThatCode(() -> limit.check("imara.voss")).as("it counts from one again").doesNotThrowAnyException();
    }

    @Test
    void theRightPasswordForgetsTheWrongOnes() {
        wrong(4);
        limit.right("imara.voss");
        wrong(4);
        assertThatCode(() -> limit.check("imara.voss")).doesNotThrowAnyException();
    }
}
