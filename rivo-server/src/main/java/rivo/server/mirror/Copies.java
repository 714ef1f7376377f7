package rivo.server.mirror;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.net.ConnectException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import javax.net.ssl.SSLException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.server.catalogue.content.ContentPlaces;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;

/**
 * What each mirror holds, and how far a copy is. A mirror is asked, slice by slice, whether it has a slice
 * ({@code HEAD /held/…}), or to fetch it ({@code HEAD /content/…}): so nothing of the content comes back to the server.
 * Held in memory; asked anew every ten minutes, after a start, and on demand. Safe for any number of threads; one thread
 * looks and two copy.
 */
@Component
public class Copies implements ContentPlaces {

    private static final Logger LOG = LoggerFactory.getLogger(Copies.class);
    private static final Duration TO_LOOK = Duration.ofSeconds(5);
    private static final Duration TO_COPY = Duration.ofMinutes(10);

    /** How a copy stands. */
    enum State {
        UNKNOWN, ABSENT, PARTLY, WAITING, COPYING, HELD, FAILED
    }

    /**
     * One content on one mirror.
     *
     * @param held how much of it is there, in bytes
     * @param message why it failed; empty when it did not
     */
    record Copy(State state, long held, String message) {
        static final Copy UNKNOWN = new Copy(State.UNKNOWN, 0, "");
    }

    /** Whether a mirror answered when it was last asked. @param trouble why it did not; null when it did */
    record Standing(@Nullable String trouble, @Nullable Instant lookedAt) {
        static final Standing NEVER = new Standing(null, null);
    }

    /** Where a mirror is. What is found at an address that the mirror has left by then is not said of the new one. */
    private record Place(String mirror, String address) {
        static Place of(Mirror mirror) {
            return new Place(mirror.id(), mirror.address());
        }
    }

    private record Of(Place place, String sha256) {
        static Of of(Mirror mirror, Content content) {
            return new Of(Place.of(mirror), content.sha256());
        }
    }

    /** What may be said of a mirror that does not do as mirrors do, in words of ours: never what its port answered. */
    private static final class NoMirrorException extends IOException {
        NoMirrorException(String words) {
            super(words);
        }
    }

    private final Mirrors mirrors;
    private final Catalogue catalogue;
    private final LiveEvents events;
    private final Clock clock;
    private final HttpClient http = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).connectTimeout(TO_LOOK).build();
    private final Map<Of, Copy> copies = new ConcurrentHashMap<>();
    private final Map<Place, Standing> standings = new ConcurrentHashMap<>();
    private final Set<Of> wanted = ConcurrentHashMap.newKeySet();
    private final ExecutorService looking = threads(1, "mirror-look");
    private final ExecutorService copying = threads(2, "mirror-copy");

    Copies(Mirrors mirrors, Catalogue catalogue, LiveEvents events, Clock clock) {
        this.mirrors = mirrors;
        this.catalogue = catalogue;
        this.events = events;
        this.clock = clock;
    }

    private static ExecutorService threads(int n, String name) {
        return Executors.newFixedThreadPool(n, work -> {
            Thread thread = new Thread(work, name);
            thread.setDaemon(true);
            return thread;
        });
    }

    Copy of(Mirror mirror, Content content) {
        return copies.getOrDefault(Of.of(mirror, content), Copy.UNKNOWN);
    }

    Standing standing(Mirror mirror) {
        return standings.getOrDefault(Place.of(mirror), Standing.NEVER);
    }

    @Override
    public int count() {
        return mirrors.all().size();
    }

    @Override
    public List<String> lacking(Content content) {
        return mirrors.all().stream().filter(m -> of(m, content).state() != State.HELD).map(Mirror::name).toList();
    }

    /** Looks at all mirrors: soon after the start, and every ten minutes. */
    @Scheduled(initialDelayString = "PT20S", fixedDelayString = "PT10M")
    void lookAtAll() {
        mirrors.all().forEach(mirror -> look(mirror.id()));
    }

    /** Asks a mirror what it holds, in the background. */
    public void look(String mirror) {
        looking.execute(() -> {
            Mirror asked = mirrors.all().stream().filter(m -> m.id().equals(mirror)).findFirst().orElse(null);
            if (asked != null) {
                lookNow(asked);
            }
        });
    }

    private void lookNow(Mirror mirror) {
        try {
            for (Content content : catalogue.now().contents().values()) {
                lookAt(mirror, content);
            }
            stands(mirror, null);
        } catch (IOException e) {
            LOG.info("The mirror {} does not answer: {}", mirror.name(), words(e));
            stands(mirror, "It does not answer at " + mirror.address() + ": " + words(e));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void lookAt(Mirror mirror, Content content) throws IOException, InterruptedException {
        Of of = Of.of(mirror, content);
        if (wanted.contains(of)) {
            return;
        }
        long held = 0;
        for (long from = 0; from < content.size(); from += NginxFile.SLICE) {
            int status = head(mirror, "held", content, from, TO_LOOK);
            if (status != 206 && status != 404) {
                throw new NoMirrorException("what answers there is no mirror; give it the configuration anew");
            }
            held += status == 206 ? Math.min(NginxFile.SLICE, content.size() - from) : 0;
        }
        long all = held;
        if (!wanted.contains(of)) {
            copies.compute(of, (k, before) -> all == content.size() ? new Copy(State.HELD, all, "")
                    : before != null && before.state() == State.FAILED && before.held() == all ? before
                            : new Copy(all == 0 ? State.ABSENT : State.PARTLY, all, ""));
        }
    }

    /** Has a mirror fetch all that it lacks, in the background. */
    public void copyAll(String mirror) {
        copy(mirrors.mirror(mirror), catalogue.now().contents().values());
    }

    /** Has a mirror fetch these, in the background; those it holds are left out. */
    void copy(Mirror mirror, Iterable<Content> contents) {
        for (Content content : contents) {
            Of of = Of.of(mirror, content);
            Copy before = of(mirror, content);
            if (before.state() != State.HELD && wanted.add(of)) {
                put(of, new Copy(State.WAITING, before.held(), ""));
                copying.execute(() -> copyNow(mirror, content, of));
            }
        }
    }

    private void copyNow(Mirror mirror, Content content, Of of) {
        long held = 0;
        try {
            for (long from = 0; from < content.size() && wanted.contains(of); from += NginxFile.SLICE) {
                put(of, new Copy(State.COPYING, held, ""));
                int status = head(mirror, "content", content, from, TO_COPY);
                if (status != 206) {
                    throw new NoMirrorException(status == 401 || status == 403 ? "the server refuses it: its key is an old one; give it "
                            + "the configuration anew" : "it could not fetch it; look into its log");
                }
                held += Math.min(NginxFile.SLICE, content.size() - from);
            }
            put(of, new Copy(held == content.size() ? State.HELD : held == 0 ? State.ABSENT : State.PARTLY, held, ""));
            stands(mirror, null);
        } catch (IOException e) {
            put(of, new Copy(State.FAILED, held, "Not copied: " + words(e)));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } finally {
            wanted.remove(of);
        }
    }

    private void put(Of of, Copy copy) {
        copies.put(of, copy);
        events.changed(Topics.MIRRORS);
    }

    private void stands(Mirror mirror, @Nullable String trouble) {
        standings.put(Place.of(mirror), new Standing(trouble, clock.instant()));
        events.changed(Topics.MIRRORS);
    }

    /** Stops what is being copied to a mirror and what waits to be; what is there stays. */
    void cancel(String mirror) {
        List<Of> stopped = new ArrayList<>(wanted);
        for (Of of : stopped) {
            if (of.place().mirror().equals(mirror) && wanted.remove(of)) {
                copies.computeIfPresent(of, (k, copy) -> copy.state() == State.WAITING
                        ? new Copy(copy.held() == 0 ? State.ABSENT : State.PARTLY, copy.held(), "") : copy);
            }
        }
        events.changed(Topics.MIRRORS);
    }

    /** Forgets a mirror that there is no more, or one that is elsewhere now. */
    void forget(String mirror) {
        cancel(mirror);
        copies.keySet().removeIf(of -> of.place().mirror().equals(mirror));
        standings.keySet().removeIf(place -> place.mirror().equals(mirror));
    }

    private int head(Mirror mirror, String what, Content content, long from, Duration patience)
            throws IOException, InterruptedException {
        if (!mirrors.mayBeAsked(mirror)) {
            throw new NoMirrorException("its name means this computer itself now; write the name under which devices reach it");
        }
        HttpRequest request = HttpRequest.newBuilder(URI.create(mirror.address() + "/" + what + "/" + content.sha256()))
                .timeout(patience).header("Range", "bytes=" + from + "-" + from)
                .method("HEAD", HttpRequest.BodyPublishers.noBody()).build();
        return http.send(request, HttpResponse.BodyHandlers.discarding()).statusCode();
    }

    private static String words(IOException e) {
        if (e instanceof NoMirrorException) {
            return String.valueOf(e.getMessage());
        }
        if (e instanceof HttpTimeoutException) {
            return "it did not answer in time";
        }
        if (e instanceof SSLException) {
            return "its certificate is not one that this server trusts for that name";
        }
        return e instanceof ConnectException ? "nothing listens there, or its name is not known" : "what answers there is no mirror";
    }

    @PreDestroy
    void stop() {
        wanted.clear();
        looking.shutdownNow();
        copying.shutdownNow();
    }
}
