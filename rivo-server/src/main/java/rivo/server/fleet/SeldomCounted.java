package rivo.server.fleet;

import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * What takes long to count, counted when somebody asks, and for at most a twentieth of the time: whoever asks too soon is told the same again,
 * so that many who look cost no more than one. Safe for any number of threads.
 *
 * @param <T> what is counted
 */
public final class SeldomCounted<T> {

    private static final int REST = 20;

    private @Nullable T counted;
    private long goodUntil;

    public synchronized T get(Supplier<T> count) {
        T known = counted;
        if (known == null || System.nanoTime() - goodUntil >= 0) {
            long begun = System.nanoTime();
            known = count.get();
            long ended = System.nanoTime();
            counted = known;
            goodUntil = ended + REST * (ended - begun);
        }
        return known;
    }
}
