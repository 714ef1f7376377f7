package rivo.server.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rivo.core.audience.Pair;
import rivo.core.estate.Assignment;
import rivo.core.estate.Intent;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.RankedPair;
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
        TestTitles.add(server, "brookmap", "Brookmap");
    }

    private static Snapshot now() {
        return server.bean(CurrentSnapshot.class).now();
    }

    private static int installs(Snapshot seen) {
        return seen.resolver().title(Objects.requireNonNull(seen.estate().title("siltscope"))).with(Outcome.REQUIRED).size();
    }

    /** A tick moves the instant of the whole server: each test begins at the clock's. */
    @BeforeEach
    void bringTimeBack() {
        server.bean(ChangeWriter.class).take(context -> {
            context.becomes(context.estate().at(context.now()));
            return true;
        });
    }

    private static void publish(Assignment assignment) {
        Drafts drafts = server.bean(Drafts.class);
        Publishing publishing = server.bean(Publishing.class);
        drafts.put("test", AssignmentDocument.KIND, assignment.id(), 0, Json.tree(AssignmentDocument.of(assignment, Delivery.AS_USUAL)));
        publishing.publish("test", "to begin with", publishing.token("test"));
    }

    private static Assignment required(String id, String title, String ou) {
        return Assignment.of(id, 0, Subject.title(title), Intent.REQUIRED, List.of(Target.ou(server.ou(ou))));
    }

    /** By the server's own scheduler and clock. */
    @Test
    void anAssignmentStartsAtItsInstantByItself() throws InterruptedException {
        Instant start = Instant.now().plusSeconds(3);
        publish(required("later", "siltscope", "Hartsmere Laboratory").withFrom(start));
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

    /** So the first device that asks after it waits no longer than before. */
    @Test
    void whatWasKnownIsFoundOutAgainBeforeTheTickIsTaken() {
        publish(required("now", "brookmap", "Hartsmere Laboratory"));
        Instant start = now().estate().asOf().plusSeconds(90);
        publish(required("soon", "brookmap", "Hartsmere Laboratory").withFrom(start));
        Snapshot before = now();
        before.estate().devices().all().forEach(before.resolver()::device);
        assertThat(looked(before)).containsExactly("now");
        HandClock clock = new HandClock(start);
        new Ticks(server.bean(CurrentSnapshot.class), server.bean(ChangeWriter.class), mock(LiveEvents.class), clock).tickWhenDue();
        assertThat(now().estate().asOf()).isEqualTo(start);
        assertThat(looked(now())).as("before anybody asks").containsExactly("now");
        assertThat(now().resolver().ladder(brookmap(now()))).as("it has started").hasSize(2);
    }

    private static Title brookmap(Snapshot seen) {
        return Objects.requireNonNull(seen.estate().title("brookmap"));
    }

    /** The assignments that have worked out what they look at. */
    private static List<String> looked(Snapshot seen) {
        return seen.resolver().ladder(brookmap(seen)).stream().map(RankedPair::pair).filter(Pair::hasLooked)
                .map(pair -> pair.assignment().id()).toList();
    }

    @Test
    void aChangeThatIsFasterThanATickIsKept() {
        Snapshot before = now();
        CurrentSnapshot current = mock(CurrentSnapshot.class);
        when(current.now()).thenReturn(before);
        HandClock clock = new HandClock(before.estate().asOf().plusSeconds(61));
        Ticks ticks = new Ticks(current, server.bean(ChangeWriter.class), mock(LiveEvents.class), clock);
        TestTitles.add(server, "weirwatch", "Weirwatch");
        ticks.tickWhenDue();
        assertThat(now().estate().title("weirwatch")).as("added meanwhile").isNotNull();
        assertThat(now().estate().asOf()).isEqualTo(clock.instant());
        assertThat(now().resolver().estate()).isSameAs(now().estate());
        TestTitles.add(server, "sluicepad", "Sluicepad");
        Snapshot later = now();
        ticks.tickWhenDue();
        assertThat(now()).as("time has come there already").isSameAs(later);
    }
}
