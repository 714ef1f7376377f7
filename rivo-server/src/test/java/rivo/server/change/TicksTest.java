package rivo.server.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verifyNoInteractions;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Assignment;
import rivo.core.estate.Intent;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.resolve.Outcome;
import rivo.server.HandClock;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Delivery;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Json;
import rivo.server.estate.Snapshot;
import rivo.server.live.LiveEvents;

/** The instant that the estate describes goes along with the clock. */
class TicksTest extends ServerTest {

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
    }

    private static Snapshot now() {
        return server.bean(CurrentSnapshot.class).now();
    }

    private static int installs(Snapshot seen) {
        return seen.resolver().title(Objects.requireNonNull(seen.estate().title("siltscope"))).with(Outcome.REQUIRED).size();
    }

    /** By the server's own scheduler and clock. */
    @Test
    void anAssignmentStartsAtItsInstantByItself() throws InterruptedException {
        Drafts drafts = server.bean(Drafts.class);
        Publishing publishing = server.bean(Publishing.class);
        Instant start = Instant.now().plusSeconds(3);
        Assignment assignment = Assignment.of("later", 0, Subject.title("siltscope"), Intent.REQUIRED,
                List.of(Target.ou(server.ou("Hartsmere Laboratory")))).withFrom(start);
        drafts.put("test", AssignmentDocument.KIND, "later", 0, Json.tree(AssignmentDocument.of(assignment, Delivery.AS_USUAL)));
        publishing.publish("test", "to begin with", publishing.token("test"));
        Snapshot seen = now();
        assertThat(installs(seen)).as("not before").isZero();
        while (seen.estate().asOf().isBefore(start) && Instant.now().isBefore(start.plusSeconds(20))) {
            assertThat(installs(seen)).as("not before").isZero();
            Thread.sleep(20);
            seen = now();
        }
        assertThat(installs(seen)).isEqualTo(8);
        assertThat(server.ask("GET", "/api/reach/siltscope", null).body().at("/totals/required").asInt()).isEqualTo(8);
        assertThat(seen.estate().asOf()).as("at its very instant, and not a minute later").isBetween(start, start.plusSeconds(10));
    }

    @Test
    void aMinuteLaterPeriodsMoveAndNobodyIsToldOfWhatDoesNotChange() {
        LiveEvents events = mock(LiveEvents.class);
        HandClock clock = new HandClock(now().estate().asOf());
        Ticks ticks = new Ticks(server.bean(CurrentSnapshot.class), server.bean(ChangeWriter.class), events, clock);
        Instant before = now().estate().asOf();
        clock.passes(Duration.ofMillis(1));
        ticks.tickWhenDue();
        assertThat(now().estate().asOf()).as("nothing is due").isEqualTo(before);
        clock.passes(Duration.ofMinutes(1));
        ticks.tickWhenDue();
        assertThat(now().estate().asOf()).isAfter(before);
        verifyNoInteractions(events);
    }
}
