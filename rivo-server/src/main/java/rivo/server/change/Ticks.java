package rivo.server.change;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.core.estate.Assignment;
import rivo.core.estate.Assignments;
import rivo.core.estate.Estate;
import rivo.core.resolve.Resolver;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.ChangesRefusedException;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;

/**
 * Moves the instant that the estate describes: when an assignment is to start, and once a minute, so that periods in rules are never more
 * than a minute behind (section 11 of the resolution rules). What looks at no instant is kept, and nobody is told of a tick that changes
 * nothing. Used by the scheduler's thread.
 */
@Component
class Ticks {

    private static final Duration AT_LEAST_EVERY = Duration.ofMinutes(1);
    private static final long LOOK_EVERY_MILLIS = 100;

    private final CurrentSnapshot current;
    private final ChangeWriter writer;
    private final LiveEvents events;
    private final Clock clock;
    private @Nullable Assignments looked;
    private @Nullable Instant lookedAt;
    private Instant start = Instant.MAX;

    Ticks(CurrentSnapshot current, ChangeWriter writer, LiveEvents events, Clock clock) {
        this.current = current;
        this.writer = writer;
        this.events = events;
        this.clock = clock;
    }

    @Scheduled(fixedDelay = LOOK_EVERY_MILLIS, timeUnit = TimeUnit.MILLISECONDS)
    void tickWhenDue() {
        Estate estate = current.now().estate();
        Instant due = estate.asOf().plus(AT_LEAST_EVERY);
        Instant first = nextStart(estate);
        if (!clock.instant().isBefore(first.isBefore(due) ? first : due)) {
            try {
                tick();
            } catch (ChangesRefusedException e) {
                // The log and the health check say so already; it is tried again.
                return;
            }
        }
    }

    /**
     * Everything that another instant makes different is found out here, and not by the writer or by the first device that asks. Where other
     * changes were faster, they are followed from there.
     */
    private void tick() {
        Snapshot before = current.now();
        Resolver ticked = before.resolver().follow(before.estate().at(clock.instant().truncatedTo(ChangeContext.ON_DISK)));
        ticked.catchUpWith(before.resolver());
        writer.take(context -> {
            Estate estate = context.estate();
            if (estate.asOf().isBefore(ticked.estate().asOf())) {
                Object answers = current.now().resolver().answers();
                context.becomes(estate == before.estate() ? context.snapshot().with(ticked) : context.snapshot().at(ticked));
                context.afterwards(() -> {
                    if (current.now().resolver().answers() != answers) {
                        events.changed(Topics.ESTATE);
                    }
                });
            }
            return context.now();
        });
    }

    /** When the next assignment is to start; the end of time where none is. */
    private Instant nextStart(Estate estate) {
        if (looked != estate.assignments() || lookedAt != estate.asOf()) {
            looked = estate.assignments();
            lookedAt = estate.asOf();
            start = Instant.MAX;
            for (Assignment assignment : estate.assignments().all()) {
                Instant from = assignment.from();
                if (from != null && from.isAfter(estate.asOf()) && from.isBefore(start)) {
                    start = from;
                }
            }
        }
        return start;
    }
}
