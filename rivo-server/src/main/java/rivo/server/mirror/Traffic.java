package rivo.server.mirror;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.devices.protocol.Report;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.ChangesRefusedException;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;

/**
 * What was fetched from where. Counted in memory and written once a minute and at the end: a kill loses at most the last
 * minute's figures. Safe for any number of threads.
 */
@Component
public class Traffic {

    /** Stands for the server itself. */
    private static final String SERVER = "-";

    /**
     * @param fetches how often devices took it there
     * @param fetchedBytes how much devices took there
     * @param servedBytes how much the mirror took from the server
     */
    record Total(long fetches, long fetchedBytes, long servedBytes) {

        static final Total NOTHING = new Total(0, 0, 0);

        Total and(Total more) {
            return new Total(fetches + more.fetches, fetchedBytes + more.fetchedBytes, servedBytes + more.servedBytes);
        }

        /** What did not have to come from the server; nothing while the mirror has fetched more than it gave. */
        long saved() {
            return Math.max(0, fetchedBytes - servedBytes);
        }
    }

    private record Of(String mirror, String sha256) {
    }

    private final ChangeWriter writer;
    private final Mirrors mirrors;
    private final Catalogue catalogue;
    private final LiveEvents events;
    private final Map<Of, Total> totals = new HashMap<>();
    private final Set<Of> unwritten = new HashSet<>();

    Traffic(ChangeWriter writer, Mirrors mirrors, Catalogue catalogue, LiveEvents events, JdbcClient db) {
        this.writer = writer;
        this.mirrors = mirrors;
        this.catalogue = catalogue;
        this.events = events;
        db.sql("select * from mirror_traffic").query((row, n) -> totals.put(new Of(row.getString("mirror"),
                row.getString("sha256")), new Total(row.getLong("fetches"), row.getLong("fetched_bytes"),
                        row.getLong("served_bytes"))) == null).list();
    }

    /** A device has fetched something. What names no mirror or no content of ours counts for nothing. */
    public void fetched(Report.Fetched fetched) {
        Content content = catalogue.now().contents().get(fetched.sha256());
        boolean known = fetched.mirror() == null || mirrors.all().stream().anyMatch(m -> m.id().equals(fetched.mirror()));
        if (known && content != null) {
            count(new Of(fetched.mirror() == null ? SERVER : fetched.mirror(), fetched.sha256()),
                    new Total(1, Math.max(0, Math.min(fetched.bytes(), content.size())), 0));
        }
    }

    /** A mirror has fetched something from the server. */
    public void served(String mirror, String sha256, long bytes) {
        count(new Of(mirror, sha256), new Total(0, 0, bytes));
    }

    private synchronized void count(Of of, Total more) {
        totals.merge(of, more, Total::and);
        unwritten.add(of);
        events.changed(Topics.MIRRORS);
    }

    synchronized Total of(String mirror, String sha256) {
        return totals.getOrDefault(new Of(mirror, sha256), Total.NOTHING);
    }

    /** All content together. @param mirror null for the server itself */
    synchronized Total of(@Nullable String mirror) {
        String id = mirror == null ? SERVER : mirror;
        return totals.entrySet().stream().filter(e -> e.getKey().mirror().equals(id)).map(Map.Entry::getValue)
                .reduce(Total.NOTHING, Total::and);
    }

    synchronized void forget(String mirror) {
        totals.keySet().removeIf(of -> of.mirror().equals(mirror));
        unwritten.removeIf(of -> of.mirror().equals(mirror));
    }

    private synchronized List<Object[]> takeUnwritten() {
        List<Object[]> rows = new ArrayList<>();
        for (Of of : unwritten) {
            Total total = totals.getOrDefault(of, Total.NOTHING);
            rows.add(new Object[] {of.mirror(), of.sha256(), total.fetches(), total.fetchedBytes(), total.servedBytes()});
        }
        unwritten.clear();
        return rows;
    }

    @Scheduled(fixedDelayString = "PT1M")
    void write() {
        List<Object[]> rows = takeUnwritten();
        if (!rows.isEmpty()) {
            writer.take(context -> {
                context.batch("merge into mirror_traffic (mirror, sha256, fetches, fetched_bytes, served_bytes) "
                        + "values (?, ?, ?, ?, ?)", rows);
                return rows.size();
            });
        }
    }

    @PreDestroy
    void stop() {
        try {
            write();
        } catch (ChangesRefusedException e) {
            // The last minute's figures are all that is lost.
            return;
        }
    }
}
