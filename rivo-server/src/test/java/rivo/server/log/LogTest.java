package rivo.server.log;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.PatternLayout;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.spi.LoggingEvent;
import ch.qos.logback.core.read.ListAppender;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.slf4j.LoggerFactory;
import rivo.server.HandClock;

class LogTest {

    private final Logger refused = (Logger) LoggerFactory.getLogger("rivo.refused");
    private final ListAppender<ILoggingEvent> lines = new ListAppender<>();

    @BeforeEach
    void listen() {
        lines.start();
        refused.addAppender(lines);
    }

    @AfterEach
    void leave() {
        refused.detachAppender(lines);
    }

    private String written(String message, Throwable fault) {
        PatternLayout layout = new PatternLayout();
        layout.setContext(refused.getLoggerContext());
        layout.getInstanceConverterMap().put("escaped", EscapedMessage::new);
        layout.getInstanceConverterMap().put("fault", EscapedFault::new);
        layout.setPattern("%-5level %escaped%n%fault{12}");
        layout.start();
        return layout.doLayout(new LoggingEvent("x", refused, Level.WARN, message, fault, null));
    }

    @ParameterizedTest
    @ValueSource(strings = {"a\nERROR forged", "a\r\nERROR forged", "a\u2028ERROR forged", "a\u001b[2Jb", "a\u0000b", "a\u202eb", "a\u0085b",
        "a\tb"})
    void whateverComesFromOutsideStaysOnItsLine(String message) {
        String written = written(message, null);
        assertThat(written.lines()).hasSize(1);
        assertThat(written.strip().chars().filter(c -> Character.isISOControl(c) || Character.getType(c) == Character.FORMAT)).isEmpty();
        assertThat(written).contains("\\u");
    }

    @Test
    void aFaultsOwnWordsCannotBeginALine() {
        List<String> written = written("it failed", new IllegalStateException("a\nERROR forged")).lines().toList();
        assertThat(written.get(0)).isEqualTo("WARN  it failed");
        assertThat(written.subList(1, written.size())).isNotEmpty().allMatch(line -> line.startsWith("    | "));
    }

    @Test
    void aKindOfRefusalIsWrittenOnceAMinuteWithItsCount() {
        HandClock clock = new HandClock(Instant.parse("2026-11-23T08:00:00Z"));
        RefusalLog log = new RefusalLog(clock);
        for (int i = 0; i < 500; i++) {
            log.refused("bad-signature", "GET /device/v2/work from 10.0.0." + i % 256);
        }
        log.refused("no-upload", "another kind");
        assertThat(lines.list).extracting(ILoggingEvent::getFormattedMessage).containsExactly(
                "bad-signature: GET /device/v2/work from 10.0.0.0", "no-upload: another kind");
        clock.passes(Duration.ofSeconds(61));
        log.refused("bad-signature", "x".repeat(10_000));
        assertThat(lines.list.get(2).getFormattedMessage()).startsWith("bad-signature: 500 times since the last line, now: xxx")
                .hasSizeLessThan(500);
    }
}
