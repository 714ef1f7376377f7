package rivo.server.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.Mockito.atLeastOnce;
import static org.mockito.Mockito.clearInvocations;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class MemoryWatchTest {

    private final ChangeWriter writer = mock(ChangeWriter.class);
    private final MemoryWatch watch = new MemoryWatch(writer);

    @AfterEach
    void stop() {
        watch.stop();
    }

    private void expect(double full, boolean isShort) {
        clearInvocations(writer);
        watch.look(full);
        verify(writer, atLeastOnce()).memoryIsShort(isShort);
    }

    @Test
    void changesStopAbove85PercentAndGoOnBelow75() {
        watch.stop();
        expect(0.85, false);
        expect(0.86, true);
        expect(0.76, true);
        expect(0.75, false);
        expect(0.76, false);
    }

    @Test
    void itLooksByItself() {
        verify(writer, timeout(5_000).atLeast(2)).memoryIsShort(anyBoolean());
    }

    @Test
    void aThreadThatDiesForWantOfMemoryStopsChanges() throws InterruptedException {
        Thread dying = new Thread(() -> {
            throw new OutOfMemoryError("made up");
        }, "some-worker");
        dying.start();
        dying.join();
        verify(writer, timeout(5_000)).memoryRanOut();
    }

    @Test
    void aProcessThatNobodyCanReachAnyMoreEnds() throws IOException, InterruptedException {
        Process process = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-cp",
                System.getProperty("java.class.path"), Dying.class.getName()).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
        assertThat(process.exitValue()).as(said).isEqualTo(MemoryWatch.ENDED_FOR_MEMORY);
        assertThat(said).contains("Nobody can reach the server any more");
    }

    /** A process whose acceptor dies, and which would else wait for ever. */
    static final class Dying {

        private Dying() {
        }

        public static void main(String[] none) throws InterruptedException {
            new MemoryWatch(mock(ChangeWriter.class));
            new Thread(() -> {
                throw new OutOfMemoryError("made up");
            }, "http-nio-127.0.0.1-8080-Acceptor").start();
            Thread.sleep(TimeUnit.MINUTES.toMillis(2));
        }
    }
}
