package rivo.server.estate;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.health.contributor.Health;
import org.springframework.boot.health.contributor.HealthIndicator;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionStatus;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The one way through for every change.
 *
 * <p><b>How.</b> Commands queue; a single writer thread takes those that wait together, runs each in turn within one
 * transaction (a savepoint before each that writes, so that one that fails takes nothing with it), commits, has H2 force the file to
 * disk, puts the new snapshot in place, and only then answers. So whoever got an answer finds the change there
 * after a kill at any moment, and many small reports share one forced write.
 *
 * <p><b>Stops loudly:</b> when the transaction cannot be committed or forced, or what was written cannot be put in place, disk and
 * memory might disagree; and when the memory runs out nobody knows what else is missing. The writer stops, the health check says so,
 * and every later command is refused until a restart reads H2 anew. Whatever else a command throws, an {@link Error} too, is that one
 * command's failure. It does not come that far where memory fills slowly: {@link MemoryWatch} has changes refused before, until there is
 * room again.
 */
@Component
public class ChangeWriter implements HealthIndicator {

    private static final Logger LOG = LoggerFactory.getLogger(ChangeWriter.class);
    private static final int MOST_TOGETHER = 512;
    private static final int MOST_WAITING = 20_000;
    private static final long PATIENCE_SECONDS = 60;
    private static final String MEMORY_RAN_OUT = "Rivo takes no more changes, because its memory ran out. Start it again with more "
            + "(--memory).";
    private static final String MEMORY_IS_SHORT = "Rivo takes no changes now, because its memory is nearly full; nothing was changed. It goes "
            + "on when there is room again; if that does not come, start it again with more (--memory).";

    private record Waiting<T>(Command<T> command, CompletableFuture<T> answer) {
    }

    /** A command that has run, what is still to be written of it, and what is to be done once it is on disk. */
    private record Ran(Runnable answer, List<ChangeContext.Brought<?>> brought, List<Runnable> afterwards) {
    }

    /** What the commands of one transaction have brought to be written as one. */
    private record Together<T>(Gathered<T> to, List<T> brought) {

        Together(Gathered<T> to) {
            this(to, new ArrayList<>());
        }

        @SuppressWarnings("unchecked") // What is brought to it is what it takes: gather() lets nothing else by.
        void add(Object what) {
            brought.add((T) what);
        }

        void write() {
            to.write(brought);
        }

        void isWritten() {
            to.isWritten(brought);
        }
    }

    /** Where a command that fails goes back to; made when the command first asks for the database, which many never do. */
    private final class Savepoint {
        private final TransactionStatus transaction;
        private @Nullable Object made;

        Savepoint(TransactionStatus transaction) {
            this.transaction = transaction;
        }

        JdbcClient db() {
            if (made == null) {
                made = transaction.createSavepoint();
            }
            return db;
        }

        void release() {
            if (made != null) {
                transaction.releaseSavepoint(made);
            }
        }

        void rollback() {
            if (made != null) {
                transaction.rollbackToSavepoint(made);
            }
        }
    }

    private final JdbcClient db;
    private final JdbcTemplate batches;
    private final TransactionTemplate transaction;
    private final CurrentSnapshot current;
    private final Clock clock;
    private final BlockingQueue<Waiting<?>> queue = new LinkedBlockingQueue<>(MOST_WAITING);
    private final Thread writer = new Thread(this::work, "writer");
    private volatile @Nullable String closed;
    private volatile boolean memoryIsShort;

    ChangeWriter(JdbcClient db, JdbcTemplate batches, PlatformTransactionManager transactions, CurrentSnapshot current, Clock clock) {
        this.db = db;
        this.batches = batches;
        this.transaction = new TransactionTemplate(transactions);
        this.current = current;
        this.clock = clock;
        writer.start();
    }

    /**
     * Takes the command and waits until it is on disk.
     *
     * @throws RuntimeException what the command threw; nothing of it was kept
     * @throws ChangesRefusedException when no more changes are taken, or too many wait
     */
    public <T> T take(Command<T> command) {
        Waiting<T> waiting = new Waiting<>(command, new CompletableFuture<>());
        String refusal = refusal();
        if (refusal != null || !queue.offer(waiting)) {
            throw new ChangesRefusedException(refusal != null ? refusal
                    : "Too many changes wait to be written; nothing was changed. Try again in a moment.");
        }
        try {
            return waiting.answer().get(PATIENCE_SECONDS, TimeUnit.SECONDS);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException own) {
                throw own;
            }
            throw new IllegalStateException("a change failed", e.getCause());
        } catch (TimeoutException e) {
            throw new ChangesRefusedException("The change was not written within " + PATIENCE_SECONDS
                    + " s. Look whether it took effect before trying again.");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new ChangesRefusedException("Rivo stops. Look whether the change took effect before trying again.");
        }
    }

    private void work() {
        Connections.thisThreadWrites();
        List<Waiting<?>> together = new ArrayList<>();
        try {
            while (closed == null) {
                together.clear();
                together.add(queue.take());
                queue.drainTo(together, MOST_TOGETHER - 1);
                write(together);
            }
        } catch (InterruptedException e) {
            LOG.debug("the writer stops");
        } catch (Throwable e) {
            failed(together, e);
        } finally {
            refuseTheRest();
        }
    }

    private void write(List<Waiting<?>> together) {
        List<Ran> ran = new ArrayList<>();
        Map<Gathered<?>, Together<?>> gathered = new LinkedHashMap<>();
        Snapshot[] next = {current.now()};
        transaction.executeWithoutResult(status -> {
            for (Waiting<?> waiting : together) {
                next[0] = run(waiting, status, next[0], ran);
            }
            ran.forEach(one -> one.brought().forEach(each -> gathered.computeIfAbsent(each.to(), Together::new).add(each.what())));
            gathered.values().forEach(Together::write);
        });
        db.sql("checkpoint sync").update();
        current.become(next[0]);
        gathered.values().forEach(one -> quietly(one::isWritten));
        for (Ran one : ran) {
            one.afterwards().forEach(ChangeWriter::quietly);
            one.answer().run();
        }
    }

    /** Nobody may go on as if nothing had happened: neither those who wait, nor those who come. */
    private void failed(List<Waiting<?>> together, Throwable e) {
        close(e instanceof VirtualMachineError ? MEMORY_RAN_OUT : "Rivo takes no more changes, because the last one could not be written to disk, or not be put in place. "
                        + "Look into the log, make room or mend the disk, and start Rivo again.");
        String sentence = String.valueOf(closed);
        together.forEach(w -> w.answer().completeExceptionally(new ChangesRefusedException(sentence)));
        LOG.error("The writer stops: a change could not be made durable", e);
    }

    /** Runs one command; gives the snapshot after it. */
    private <T> Snapshot run(Waiting<T> waiting, TransactionStatus status, Snapshot before, List<Ran> ran) {
        Savepoint savepoint = new Savepoint(status);
        try {
            ChangeContext context = new ChangeContext(savepoint::db, batches, clock.instant().truncatedTo(ChangeContext.ON_DISK), before);
            T result = waiting.command().run(context);
            savepoint.release();
            ran.add(new Ran(() -> waiting.answer().complete(result), context.brought(), context.afterwards()));
            return context.snapshot();
        } catch (RuntimeException | StackOverflowError | AssertionError | LinkageError e) {
            savepoint.rollback();
            waiting.answer().completeExceptionally(e);
            return before;
        }
    }

    private static void quietly(Runnable afterwards) {
        try {
            afterwards.run();
        } catch (RuntimeException | StackOverflowError | AssertionError | LinkageError e) {
            LOG.error("A listener failed after a change had been written", e);
        }
    }

    /** Why no change is taken now; null when one is. */
    private @Nullable String refusal() {
        return closed != null ? closed : memoryIsShort ? MEMORY_IS_SHORT : null;
    }

    /** While the memory is nearly full no change is taken, so that what is left serves those who read. */
    void memoryIsShort(boolean isShort) {
        if (memoryIsShort != isShort) {
            memoryIsShort = isShort;
            LOG.error(isShort ? MEMORY_IS_SHORT : "There is room in memory again: changes are taken.");
        }
    }

    /** Somebody else has found out: no more changes are taken, and the health check says so. */
    public void memoryRanOut() {
        if (closed == null) {
            close(MEMORY_RAN_OUT);
        }
    }

    private void close(String sentence) {
        closed = sentence;
    }

    private void refuseTheRest() {
        List<Waiting<?>> rest = new ArrayList<>();
        queue.drainTo(rest);
        rest.forEach(w -> w.answer().completeExceptionally(new ChangesRefusedException(
                closed == null ? "Rivo stops; nothing was changed." : closed)));
    }

    @Override
    public Health health() {
        String refusal = refusal();
        return refusal == null ? Health.up().build() : Health.down().withDetail("reason", refusal).build();
    }

    @PreDestroy
    void stop() throws InterruptedException {
        if (closed == null) {
            close("Rivo stops; nothing was changed.");
        }
        writer.interrupt();
        writer.join(TimeUnit.SECONDS.toMillis(5));
    }
}
