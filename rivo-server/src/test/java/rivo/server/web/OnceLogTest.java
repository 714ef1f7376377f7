package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.mockito.Mock;
import org.mockito.Mockito;
import org.mockito.junit.jupiter.MockitoExtension;
import org.springframework.boot.test.system.CapturedOutput;
import org.springframework.boot.test.system.OutputCaptureExtension;

@ExtendWith({MockitoExtension.class, OutputCaptureExtension.class})
class OnceLogTest {

    private final AtomicReference<Instant> now = new AtomicReference<>(Instant.parse("2026-11-23T08:00:00Z"));
    @Mock
    private Clock clock;

    private OnceLog log() {
        Mockito.when(clock.instant()).thenAnswer(call -> now.get());
        Mockito.lenient().when(clock.getZone()).thenReturn(ZoneOffset.UTC);
        return new OnceLog(clock);
    }

    @Test
    void theSameLineIsWrittenOnce(CapturedOutput output) {
        OnceLog log = log();
        log.warn("bad-signature from d1");
        log.warn("bad-signature from d1");
        log.warn("bad-signature from d2");
        assertThat(output.getOut().lines().filter(l -> l.contains("from d1"))).hasSize(1);
        assertThat(output.getOut().lines().filter(l -> l.contains("from d2"))).hasSize(1);
    }

    @Test
    void itIsWrittenAgainAfterAWhile(CapturedOutput output) {
        OnceLog log = log();
        log.warn("again and again");
        now.set(now.get().plus(Duration.ofMinutes(11)));
        log.warn("again and again");
        assertThat(output.getOut().lines().filter(l -> l.contains("again and again"))).hasSize(2);
    }
}
