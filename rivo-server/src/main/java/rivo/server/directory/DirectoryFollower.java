package rivo.server.directory;

import jakarta.annotation.PreDestroy;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.directory.Differences;
import rivo.directory.Directory;
import rivo.directory.DirectoryException;
import rivo.directory.DirectoryPicture;
import rivo.directory.DirectoryPicture.Identified;
import rivo.directory.DirectorySettings;
import rivo.server.ServerSettings;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Rows;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/**
 * Follows the directory by full scans, compared with what is held. What is new, changed or gone is written as one
 * change; a scan that finds nothing new writes nothing.
 *
 * <p><b>Nothing is lost:</b> a directory that is away, hangs or breaks off leaves what is held as it is. A scan in which
 * more than a fifth of the computers would be gone is held back until somebody agrees.
 */
@Component
public class DirectoryFollower {

    private static final Logger LOG = LoggerFactory.getLogger(DirectoryFollower.class);
    private static final String DIRECTORY = "directory";
    private static final Duration AGAIN_WHEN_AWAY = Duration.ofSeconds(10);
    private static final int ALWAYS_ALLOWED_GONE = 10;
    private static final double LARGEST_SHARE_GONE = 0.2;
    /** Above this many differences the journal tells their number instead of each. */
    private static final int MOST_IN_JOURNAL = 2000;

    private final @Nullable Directory directory;
    private final ServerSettings.@Nullable DirectorySection settings;
    private final JdbcClient db;
    private final ChangeWriter writer;
    private final LiveEvents events;
    private final Clock clock;
    private final ScheduledExecutorService scanner = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "directory");
        thread.setDaemon(true);
        return thread;
    });
    private volatile DirectoryState state;

    DirectoryFollower(ServerSettings settings, JdbcClient db, ChangeWriter writer, LiveEvents events, Clock clock) {
        this.settings = settings.directory();
        this.directory = this.settings == null ? null : new Directory(settings(this.settings));
        this.db = db;
        this.writer = writer;
        this.events = events;
        this.clock = clock;
        Instant last = db.sql("select at from directory_scans where id = 1")
                .query((row, n) -> Rows.instant(row, "at")).optional().orElse(null);
        this.state = new DirectoryState("unread", directory == null
                ? "No directory is set up; start Rivo with --directory-url." : "The directory is being read.",
                clock.instant(), last);
    }

    private static DirectorySettings settings(ServerSettings.DirectorySection section) {
        return new DirectorySettings(section.url(), section.baseDn(), section.bindDn(), section.password(),
                section.pageSize(), section.patience(), section.startTls(), section.ca());
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        if (settings != null) {
            scanner.execute(this::follow);
        }
    }

    /** One scan, and the next one after its time: sooner while the directory is away. */
    private void follow() {
        DirectoryState now = scan(false);
        Duration every = Objects.requireNonNull(settings).scanEvery();
        Duration next = "away".equals(now.kind()) && AGAIN_WHEN_AWAY.compareTo(every) < 0 ? AGAIN_WHEN_AWAY : every;
        scanner.schedule(this::follow, next.toMillis(), TimeUnit.MILLISECONDS);
    }

    public DirectoryState state() {
        return state;
    }

    /** The directory, for signing in. */
    public Directory directory() {
        if (directory == null) {
            throw new DirectoryException(state.sentence());
        }
        return directory;
    }

    /** Reads the directory now and waits for it. */
    public DirectoryState scanNow(boolean acceptRemovals) {
        if (directory == null) {
            throw ApiException.conflict("no-directory", state.sentence());
        }
        try {
            return scanner.submit(() -> scan(acceptRemovals)).get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return state;
        } catch (java.util.concurrent.ExecutionException e) {
            throw new IllegalStateException(e);
        }
    }

    private DirectoryState scan(boolean acceptRemovals) {
        try {
            DirectoryPicture found = Objects.requireNonNull(directory).scan();
            found.notes().forEach(note -> LOG.debug("{}", note));
            Changes changes = Changes.between(DirectoryRecords.held(db), found);
            if (changes.removesTooMuch() && !acceptRemovals) {
                become("held", changes.held(), null);
                return state;
            }
            if (!changes.isEmpty()) {
                writer.take(context -> write(context, changes, found));
            }
            become("following", "The directory is followed. Read whole: " + found.computers().size() + " computers, "
                    + found.users().size() + " people, " + found.groups().size() + " groups, " + found.ous().size()
                    + " OUs.", clock.instant());
        } catch (DirectoryException e) {
            become("away", e.getMessage() + " What was read before is kept, and reading is tried again.", null);
        } catch (RuntimeException e) {
            LOG.error("The scan of the directory failed", e);
            become("away", "Rivo could not take in what the directory holds; its log says more. "
                    + "What was read before is kept.", null);
        }
        return state;
    }

    private boolean write(ChangeContext context, Changes changes, DirectoryPicture found) {
        DirectoryRecords.writeOus(context, changes.ous());
        DirectoryRecords.writeUsers(context, changes.users());
        DirectoryRecords.writeComputers(context, changes.computers());
        DirectoryRecords.writeGroups(context, changes.groups());
        changes.disabled().write(context, changes.computers(), changes.groups());
        context.db().sql("merge into directory_scans (id, at, entries) values (1, ?, ?)")
                .params(Rows.at(context.now()), found.computers().size()).update();
        changes.journal(context);
        context.becomes(new DirectoryEdit(context).apply(changes.ous(), changes.users(), changes.computers(), changes.groups(),
                changes.disabled().enabledIn()));
        context.afterwards(() -> events.changed(Topics.ESTATE));
        return true;
    }

    private void become(String kind, String sentence, @Nullable Instant scanned) {
        DirectoryState before = state;
        state = before.to(kind, sentence, clock.instant(), scanned);
        if (!before.kind().equals(kind)) {
            if ("following".equals(kind)) {
                LOG.info("{}", sentence);
            } else {
                LOG.warn("{}", sentence);
            }
            events.changed(Topics.DIRECTORY);
        }
    }

    @PreDestroy
    void stop() {
        scanner.shutdownNow();
    }

    /** All differences of one scan. */
    private record Changes(Differences<DirectoryPicture.OuEntry> ous, Differences<DirectoryPicture.UserEntry> users,
            Differences<DirectoryPicture.ComputerEntry> computers, Differences<DirectoryPicture.GroupEntry> groups,
            DisabledMembers disabled, int computersHeld) {

        static Changes between(DirectoryPicture held, DirectoryPicture found) {
            Differences<DirectoryPicture.ComputerEntry> computers = Differences.between(held.computers(), found.computers());
            Differences<DirectoryPicture.GroupEntry> groups = Differences.between(held.groups(), found.groups());
            return new Changes(Differences.between(held.ous(), found.ous()), Differences.between(held.users(), found.users()), computers, groups,
                    DisabledMembers.between(held, found, computers, groups), held.computers().size());
        }

        boolean isEmpty() {
            return size() == 0;
        }

        int size() {
            return ous.size() + users.size() + computers.size() + groups.size();
        }

        boolean removesTooMuch() {
            int gone = computers.gone().size();
            return gone > ALWAYS_ALLOWED_GONE && gone > computersHeld * LARGEST_SHARE_GONE;
        }

        String held() {
            return computers.gone().size() + " of " + computersHeld + " computers would be gone from the directory. "
                    + "Nothing was changed. Check what the reading account may see, or agree to the removal.";
        }

        void journal(ChangeContext context) {
            if (size() > MOST_IN_JOURNAL) {
                context.journal(DIRECTORY, "directory-read", DIRECTORY, "scan", null, Map.of("added",
                        ous.added().size() + users.added().size() + computers.added().size() + groups.added().size(),
                        "differences", size()));
                return;
            }
            each(context, "ou", ous);
            each(context, "user", users);
            each(context, "device", computers);
            each(context, "group", groups);
        }

        private static <T extends Identified> void each(ChangeContext context, String kind, Differences<T> differences) {
            List<T> changed = differences.changed();
            differences.added().forEach(one -> context.journal(DIRECTORY, kind + "-added", kind + ":" + one.id(),
                    "scan", null, one));
            changed.forEach(one -> context.journal(DIRECTORY, kind + "-changed", kind + ":" + one.id(), "scan", null,
                    one));
            differences.gone().forEach(one -> context.journal(DIRECTORY, kind + "-gone", kind + ":" + one.id(),
                    "scan", one, null));
        }
    }
}
