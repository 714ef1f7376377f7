package rivo.formats.installer;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.time.Duration;

/**
 * What reading one file may cost: 64 MiB of memory and five seconds of processor time, whatever the file says. Every reader draws from
 * it before it holds something whose size comes from the file, and what it streams passes through {@link #metered}. Of one thread.
 *
 * <p>Memory is counted as it is asked for and never given back: a file that makes a reader hold and drop the same over and over is
 * refused, too.
 */
final class ReadingBudget {

    static final long MOST_MEMORY = 64L << 20;
    static final Duration MOST_TIME = Duration.ofSeconds(5);
    /** After how many bytes or steps the time is looked at. */
    private static final long LOOK_EVERY = 1 << 16;
    private static final ThreadMXBean THREADS = ManagementFactory.getThreadMXBean();

    /** The file asks for more than it gets. */
    static final class ExceededException extends IOException {
        ExceededException(String what) {
            super(what);
        }
    }

    private final long begun = THREADS.getCurrentThreadCpuTime();
    private long memory;
    private long untilLook = LOOK_EVERY;

    /** @throws ExceededException when the file has asked for more than the budget, this included */
    void hold(long bytes) throws ExceededException {
        memory += Math.max(0, bytes);
        if (bytes < 0 || memory > MOST_MEMORY) {
            throw new ExceededException("reading it would take more than " + (MOST_MEMORY >> 20) + " MiB of memory");
        }
        work(1);
    }

    /** @param steps about as much work as so many bytes looked at */
    void work(long steps) throws ExceededException {
        untilLook -= Math.max(1, steps);
        if (untilLook <= 0) {
            untilLook = LOOK_EVERY;
            if (THREADS.getCurrentThreadCpuTime() - begun > MOST_TIME.toNanos()) {
                throw new ExceededException("reading it would take more than " + MOST_TIME.toSeconds() + " s");
            }
        }
    }

    /**
     * A stream that may give so much and no more.
     *
     * @param what it is, for saying so
     */
    InputStream metered(InputStream in, long most, String what) {
        return new FilterInputStream(in) {
            private long left = most;

            @Override
            public int read() throws IOException {
                int b = super.read();
                passed(b < 0 ? 0 : 1);
                return b;
            }

            @Override
            public int read(byte[] to, int from, int length) throws IOException {
                int n = super.read(to, from, length);
                passed(n);
                return n;
            }

            @Override
            public long skip(long n) throws IOException {
                byte[] thrown = new byte[(int) Math.min(n, 1 << 13)];
                return n <= 0 ? 0 : Math.max(0, read(thrown, 0, thrown.length));
            }

            private void passed(int n) throws ExceededException {
                left -= Math.max(0, n);
                work(n);
                if (left < 0) {
                    throw new ExceededException(what + " comes to more than " + (most >> 20) + " MiB when it is unpacked");
                }
            }
        };
    }
}
