package rivo.server.live;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BooleanSupplier;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Tells those who look which topics have changed. What happens within a fifth of a second is told together, each topic
 * once. Nobody waits for a slow listener: each is written to by a thread of its own, as many as there are listeners, and one that
 * takes nothing for half a minute is cut off by the server. Safe for any number of threads.
 */
@Component
public class LiveEvents {

    private static final Duration TOGETHER = Duration.ofMillis(200);
    private static final int HEARTBEAT_EVERY = 75;
    private static final int MOST_LISTENERS = 500;

    private static final class Listener {
        private final SseEmitter emitter = new SseEmitter(0L);
        private final Collection<String> topics;
        private final BooleanSupplier mayListen;
        private final Set<String> changed = ConcurrentHashMap.newKeySet();
        private final AtomicBoolean sending = new AtomicBoolean();
        private int rounds;

        Listener(Collection<String> topics, BooleanSupplier mayListen) {
            this.topics = List.copyOf(topics);
            this.mayListen = mayListen;
        }
    }

    private final Queue<Listener> listeners = new ConcurrentLinkedQueue<>();
    private final ScheduledExecutorService rounds = Executors.newSingleThreadScheduledExecutor(work -> daemon(work, "live-rounds"));
    private final ExecutorService senders = new ThreadPoolExecutor(0, MOST_LISTENERS + 1, 30, TimeUnit.SECONDS,
            new SynchronousQueue<>(), work -> daemon(work, "live"));

    private static Thread daemon(Runnable work, String name) {
        Thread thread = new Thread(work, name);
        thread.setDaemon(true);
        return thread;
    }

    LiveEvents() {
        rounds.scheduleWithFixedDelay(this::round, TOGETHER.toMillis(), TOGETHER.toMillis(), TimeUnit.MILLISECONDS);
    }

    /** Says that what this topic stands for has changed. */
    public void changed(String topic) {
        for (Listener listener : listeners) {
            if (listener.topics.contains(topic)) {
                listener.changed.add(topic);
            }
        }
    }

    /**
     * A stream of the changed topics; the oldest listener makes room when there are too many.
     *
     * @param mayListen asked at each heartbeat; the stream ends when it says no
     */
    SseEmitter listen(Collection<String> topics, BooleanSupplier mayListen) {
        Listener listener = new Listener(topics, mayListen);
        listeners.add(listener);
        Runnable leave = () -> listeners.remove(listener);
        listener.emitter.onCompletion(leave);
        listener.emitter.onTimeout(leave);
        listener.emitter.onError(e -> leave.run());
        if (listeners.size() > MOST_LISTENERS) {
            Listener oldest = listeners.poll();
            if (oldest != null) {
                oldest.emitter.complete();
            }
        }
        return listener.emitter;
    }

    /** How many listen now. */
    int listening() {
        return listeners.size();
    }

    private void round() {
        for (Listener listener : listeners) {
            boolean heartbeat = ++listener.rounds % HEARTBEAT_EVERY == 1;
            if ((heartbeat || !listener.changed.isEmpty()) && listener.sending.compareAndSet(false, true)) {
                begin(listener, heartbeat);
            }
        }
    }

    private void begin(Listener listener, boolean heartbeat) {
        try {
            senders.execute(() -> send(listener, heartbeat));
        } catch (RejectedExecutionException e) {
            // Every thread writes to somebody slow: it is told with the next round.
            listener.sending.set(false);
        }
    }

    private void send(Listener listener, boolean heartbeat) {
        try {
            if (heartbeat && !listener.mayListen.getAsBoolean()) {
                listeners.remove(listener);
                listener.emitter.complete();
                return;
            }
            if (heartbeat) {
                listener.emitter.send(SseEmitter.event().comment("here"));
            }
            for (String topic : List.copyOf(listener.changed)) {
                listener.changed.remove(topic);
                listener.emitter.send(SseEmitter.event().name("changed").data(topic));
            }
        } catch (IOException | IllegalStateException e) {
            // The listener has gone.
            listeners.remove(listener);
        } finally {
            listener.sending.set(false);
        }
    }

    @PreDestroy
    void stop() {
        rounds.shutdownNow();
        senders.shutdownNow();
        listeners.forEach(LiveEvents::end);
    }

    private static void end(Listener listener) {
        try {
            listener.emitter.complete();
        } catch (IllegalStateException e) {
            // It has gone already.
            return;
        }
    }
}
