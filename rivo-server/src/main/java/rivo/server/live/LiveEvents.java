package rivo.server.live;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.security.SecureRandom;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Collection;
import java.util.Deque;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Queue;
import java.util.Set;
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
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Tells those who look which topics have changed, by server-sent events.
 *
 * <p><b>How.</b> What happens within a fifth of a second is a round, which has a number; the last ones are kept. A listener is told everything
 * since the round that it was told last, each topic once: so one that was away, or is slow, catches up with a single event, and one that was
 * away for longer than rounds are kept is told that it has missed some. Events have the server's start and the round as their id, which a
 * browser sends back when it opens a broken stream again (the HTML standard, 9.2 Server-sent events).
 *
 * <p>Nobody waits for a slow listener: each is written to by a thread of its own, as many as there are listeners, and one that takes nothing
 * for half a minute is cut off by the server. Safe for any number of threads.
 */
@Component
public class LiveEvents {

    private static final Duration TOGETHER = Duration.ofMillis(200);
    private static final int HEARTBEAT_EVERY = 75;
    private static final int MOST_LISTENERS = 500;
    private static final int KEPT_ROUNDS = 600;
    private static final int START_BYTES = 6;
    /** So many devices of a round are named; of more it is only said that there are many. */
    static final int MOST_DEVICES = 100;

    private record Round(long number, Set<String> topics) {
    }

    /**
     * What has changed since a listener was told last.
     *
     * @param devices the ids of the devices that said something
     * @param manyDevices whether those are too many to name
     */
    record Changed(List<String> topics, List<String> devices, boolean manyDevices) {

        static Changed of(Collection<String> topics) {
            List<String> devices = topics.stream().filter(Topics::isDevice).map(Topics::deviceOf).sorted().toList();
            boolean many = devices.size() > MOST_DEVICES || topics.contains(Topics.MANY_DEVICES);
            return new Changed(topics.stream().filter(t -> !Topics.isDevice(t) && !t.equals(Topics.MANY_DEVICES)).sorted().toList(),
                    many ? List.of() : devices, many);
        }
    }

    private static final class Listener {
        private final SseEmitter emitter = new SseEmitter(0L);
        private final Predicate<String> hears;
        private final BooleanSupplier mayListen;
        private final AtomicBoolean sending = new AtomicBoolean();
        private boolean greeted;
        private long told;
        private int rounds;

        Listener(Predicate<String> hears, BooleanSupplier mayListen, long told) {
            this.hears = hears;
            this.mayListen = mayListen;
            this.told = told;
        }
    }

    private final String start = newStart();
    private final Queue<Listener> listeners = new ConcurrentLinkedQueue<>();
    private final ScheduledExecutorService rounds = Executors.newSingleThreadScheduledExecutor(work -> daemon(work, "live-rounds"));
    private final ExecutorService senders = new ThreadPoolExecutor(0, MOST_LISTENERS + 1, 30, TimeUnit.SECONDS,
            new SynchronousQueue<>(), work -> daemon(work, "live"));

    /** Guards what is below. */
    private final Object lock = new Object();
    private final Deque<Round> kept = new ArrayDeque<>();
    private Set<String> changed = new HashSet<>();
    private int devicesChanged;
    private long number;

    private static String newStart() {
        byte[] random = new byte[START_BYTES];
        new SecureRandom().nextBytes(random);
        return HexFormat.of().formatHex(random);
    }

    private static Thread daemon(Runnable work, String name) {
        Thread thread = new Thread(work, name);
        thread.setDaemon(true);
        return thread;
    }

    LiveEvents() {
        rounds.scheduleWithFixedDelay(this::round, TOGETHER.toMillis(), TOGETHER.toMillis(), TimeUnit.MILLISECONDS);
    }

    /** Says that what these topics stand for has changed. */
    public void changed(String topic, String... others) {
        changed(Stream.concat(Stream.of(topic), Stream.of(others)).toList());
    }

    /** The same for any number of them. */
    public void changed(Collection<String> topics) {
        synchronized (lock) {
            for (String topic : topics) {
                if (Topics.isDevice(topic) && devicesChanged >= MOST_DEVICES) {
                    changed.add(Topics.MANY_DEVICES);
                } else if (changed.add(topic) && Topics.isDevice(topic)) {
                    devicesChanged++;
                }
            }
        }
    }

    /**
     * A stream of what changes; the oldest listener makes room when there are too many.
     *
     * @param hears the topics that are told
     * @param mayListen asked at each heartbeat; the stream ends when it says no
     * @param after the id of the last event that was heard, from which it goes on; null for whoever has just come
     */
    SseEmitter listen(Predicate<String> hears, BooleanSupplier mayListen, @Nullable String after) {
        Listener listener = new Listener(hears, mayListen, after == null ? now() : numberOf(after));
        listeners.add(listener);
        listener.sending.set(true);
        begin(listener, true);
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

    /** The number of the last round. */
    long now() {
        synchronized (lock) {
            return number;
        }
    }

    /** What has changed after a round, as far as it is kept, in the order in which it changed first. */
    Set<String> since(long told) {
        Set<String> topics = new LinkedHashSet<>();
        synchronized (lock) {
            kept.stream().filter(round -> round.number() > told).forEach(round -> topics.addAll(round.topics()));
        }
        return topics;
    }

    /** -1 for an id that is not of this start, or of none that was given: such a listener has missed everything. */
    private long numberOf(String id) {
        String prefix = start + "-";
        if (!id.startsWith(prefix) || !id.substring(prefix.length()).matches("[0-9]{1,18}")) {
            return -1;
        }
        long said = Long.parseLong(id.substring(prefix.length()));
        return said > now() ? -1 : said;
    }

    /** How many listen now. */
    int listening() {
        return listeners.size();
    }

    /** What has changed since the last round becomes one. */
    void endRound() {
        synchronized (lock) {
            if (!changed.isEmpty()) {
                kept.addLast(new Round(++number, Set.copyOf(changed)));
                if (kept.size() > KEPT_ROUNDS) {
                    kept.removeFirst();
                }
                changed = new HashSet<>();
                devicesChanged = 0;
            }
        }
    }

    /** Whether a round after this one is not kept any more. */
    boolean isMissed(long told) {
        synchronized (lock) {
            return told < (kept.isEmpty() ? number : kept.getFirst().number() - 1);
        }
    }

    private void round() {
        endRound();
        long last = now();
        for (Listener listener : listeners) {
            boolean heartbeat = ++listener.rounds % HEARTBEAT_EVERY == 1;
            if (listener.sending.compareAndSet(false, true)) {
                if (heartbeat || listener.told < last) {
                    begin(listener, heartbeat);
                } else {
                    listener.sending.set(false);
                }
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
            if (!listener.greeted) {
                listener.greeted = true;
                listener.emitter.send(event("begun", Math.max(0, listener.told), ""));
            } else if (heartbeat) {
                listener.emitter.send(SseEmitter.event().comment("here"));
            }
            tell(listener);
        } catch (IOException | IllegalStateException e) {
            // The listener has gone.
            listeners.remove(listener);
        } finally {
            listener.sending.set(false);
        }
    }

    private void tell(Listener listener) throws IOException {
        Set<String> topics;
        boolean missed;
        long last;
        synchronized (lock) {
            last = number;
            missed = isMissed(listener.told);
            topics = since(listener.told);
        }
        topics.removeIf(listener.hears.negate());
        listener.told = last;
        if (missed) {
            listener.emitter.send(event("missed", last, ""));
        } else if (!topics.isEmpty()) {
            listener.emitter.send(event("changed", last, Changed.of(topics)));
        }
    }

    private SseEmitter.SseEventBuilder event(String name, long last, Object data) {
        return SseEmitter.event().id(start + "-" + last).name(name)
                .data(data, data instanceof String ? MediaType.TEXT_PLAIN : MediaType.APPLICATION_JSON);
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
