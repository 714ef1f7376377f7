package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import java.util.function.Supplier;
import rivo.core.audience.Positions;

/** Spreads independent pieces of work over threads that live as long as the work. */
final class Threads {

    private static final long STACK = 1L << 28;
    /** From so many units on, of one title each, more threads than one are worth their start. */
    private static final long MANY = 200_000;

    private Threads() {
    }

    /** How many threads are for work with so many units of a family: all that the machine has, or one. */
    static int forUnits(Positions units, Family family) {
        return (long) units.size() * family.titles().size() >= MANY ? Runtime.getRuntime().availableProcessors() : 1;
    }

    /**
     * Does all pieces; the first that fails makes all of it fail.
     *
     * @param worker makes what does a piece; asked once by each thread, which keeps it to itself
     */
    static <T> void run(int threads, List<T> pieces, Supplier<Consumer<T>> worker) {
        if (threads == 1 || pieces.size() < 2) {
            pieces.forEach(worker.get());
            return;
        }
        Queue<T> open = new ConcurrentLinkedQueue<>(pieces);
        AtomicReference<Throwable> failure = new AtomicReference<>();
        List<Thread> running = new ArrayList<>();
        for (int i = 0; i < Math.min(threads, pieces.size()); i++) {
            Thread thread = new Thread(null, () -> drain(open, worker, failure), "resolve-" + i, STACK);
            thread.start();
            running.add(thread);
        }
        running.forEach(Threads::join);
        if (failure.get() != null) {
            throw new IllegalStateException("a title could not be resolved", failure.get());
        }
    }

    /** Does a piece of work that calls itself very often, on a thread that has room for it. */
    static void deep(Runnable work) {
        AtomicReference<Throwable> failure = new AtomicReference<>();
        Thread thread = new Thread(null, () -> drain(new ConcurrentLinkedQueue<>(List.of(work)), () -> Runnable::run, failure), "resolve-deep", STACK);
        thread.start();
        join(thread);
        if (failure.get() != null) {
            throw new IllegalStateException("a title could not be resolved", failure.get());
        }
    }

    private static <T> void drain(Queue<T> open, Supplier<Consumer<T>> worker, AtomicReference<Throwable> failure) {
        try {
            Consumer<T> work = worker.get();
            for (T piece = open.poll(); piece != null && failure.get() == null; piece = open.poll()) {
                work.accept(piece);
            }
        } catch (RuntimeException | Error e) {
            failure.compareAndSet(null, e);
        }
    }

    private static void join(Thread thread) {
        boolean interrupted = false;
        while (thread.isAlive()) {
            try {
                thread.join();
            } catch (InterruptedException e) {
                interrupted = true;
            }
        }
        if (interrupted) {
            Thread.currentThread().interrupt();
        }
    }
}
