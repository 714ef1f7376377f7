package rivo.server.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import rivo.server.HandClock;
import rivo.server.web.ApiException;

class SignInLimitTest {

    private final HandClock clock = new HandClock(Instant.parse("2026-11-23T08:00:00Z"));
    private final SignInLimit limit = new SignInLimit(clock);

    private boolean let(String account, String address) {
        try {
            limit.begin(account, address);
            return true;
        } catch (ApiException e) {
            assertThat(e.code()).isEqualTo("wait");
            return false;
        }
    }

    private int let(int tries, String account, String address) {
        int let = 0;
        for (int i = 0; i < tries; i++) {
            let += let(account, address) ? 1 : 0;
        }
        return let;
    }

    @Test
    void anAccountGetsFiveTriesThenOneInTwentySeconds() {
        assertThat(let(40, "imara.voss", "10.0.0.1")).isEqualTo(5);
        clock.passes(Duration.ofSeconds(19));
        assertThat(let("imara.voss", "10.0.0.1")).isFalse();
        clock.passes(Duration.ofSeconds(2));
        assertThat(let(5, "imara.voss", "10.0.0.1")).isEqualTo(1);
        clock.passes(Duration.ofMinutes(10));
        assertThat(let(9, "imara.voss", "10.0.0.1")).as("never more than five at once").isEqualTo(5);
    }

    @Test
    void aNameIsTheSameInCapitalsAndFromEverywhere() {
        assertThat(let(3, "imara.voss", "10.0.0.1") + let(3, "Imara.VOSS", "10.0.0.2")).isEqualTo(5);
    }

    @Test
    void fortyAtOnceGetNoMoreThanFiveInTurn() throws InterruptedException {
        ExecutorService threads = Executors.newFixedThreadPool(40);
        AtomicInteger let = new AtomicInteger();
        for (int i = 0; i < 40; i++) {
            threads.submit(() -> let.addAndGet(let("imara.voss", "10.0.0.1") ? 1 : 0));
        }
        threads.shutdown();
        assertThat(threads.awaitTermination(20, TimeUnit.SECONDS)).isTrue();
        assertThat(let.get()).isEqualTo(5);
    }

    @Test
    void anAddressGetsThirtyTriesWhateverTheNames() {
        int let = 0;
        for (int i = 0; i < 200; i++) {
            let += let("person" + i, "10.0.0.1") ? 1 : 0;
        }
        assertThat(let).isEqualTo(30);
        assertThat(let("person300", "10.0.0.2")).as("others are not held up").isTrue();
        clock.passes(Duration.ofSeconds(6));
        assertThat(let("person301", "10.0.0.1")).isTrue();
    }

    @Test
    void guessingElsewhereDoesNotHoldUpWhoHasSignedInBefore() {
        limit.begin("imara.voss", "10.0.0.1").wasRight();
        assertThat(let(40, "imara.voss", "10.6.6.6")).isLessThanOrEqualTo(5);
        assertThat(let("imara.voss", "10.0.0.1")).isTrue();
        assertThat(let(40, "imara.voss", "10.0.0.1")).as("but that address is held to its own").isEqualTo(4);
    }

    @Test
    void whoHasNotBeenThereForThreeMonthsIsLikeAnybodyElse() {
        limit.begin("imara.voss", "10.0.0.1").wasRight();
        clock.passes(Duration.ofDays(91));
        assertThat(let(40, "imara.voss", "10.6.6.6")).isEqualTo(5);
        assertThat(let("imara.voss", "10.0.0.1")).isFalse();
    }

    @Test
    void aRightPasswordCostsNothing() {
        for (int i = 0; i < 100; i++) {
            limit.begin("imara.voss", "10.0.0.1").wasRight();
        }
        assertThat(let("imara.voss", "10.0.0.1")).isTrue();
    }

    @Test
    void anAddressThatMayNotTryCostsNoAccountAnything() {
        for (int i = 0; i < 30; i++) {
            let("person" + i, "10.6.6.6");
        }
        assertThat(let(40, "imara.voss", "10.6.6.6")).isZero();
        assertThat(let(9, "imara.voss", "10.0.0.1")).isEqualTo(5);
    }

    @Test
    void itSaysHowLongToWait() {
        let(5, "imara.voss", "10.0.0.1");
        assertThatThrownBy(() -> limit.begin("imara.voss", "10.0.0.1")).hasMessageContaining("Try again in 2");
    }
}
