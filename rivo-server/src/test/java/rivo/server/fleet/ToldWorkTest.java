package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.pcollections.HashTreePMap;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Facts;
import rivo.core.estate.Group;
import rivo.core.estate.Request;
import rivo.core.estate.Target;
import rivo.devices.protocol.Work;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.change.Drafts;
import rivo.server.change.OuAssignment;
import rivo.server.change.Publishing;
import rivo.server.document.Documents;
import rivo.server.document.Kept;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.SignIns;
import rivo.server.estate.Snapshot;
import rivo.server.request.RequestDocument;

/** What devices were told last counts as long as nothing that it was made from is another. */
class ToldWorkTest {

    @TempDir
    private static Path data;
    private static TestServer server;
    private final ToldWork told = new ToldWork();

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        TestTitles.add(server);
        Drafts drafts = server.bean(Drafts.class);
        drafts.put("test", OuAssignment.title("siltscope", server.ou("Laboratories"), "required", true));
        server.bean(Publishing.class).publish("test", "for the tests", server.bean(Publishing.class).token("test"));
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static Snapshot now() {
        return server.bean(CurrentSnapshot.class).now();
    }

    private void tell(Snapshot snapshot, Device device, String etag) {
        told.told(snapshot, device, null, WorkOfDevice.of(snapshot, device), etag);
    }

    @Test
    void aDeviceIsToldNothingThatWasNotFoundOutForIt() {
        Snapshot snapshot = now();
        Device one = snapshot.estate().devices().at(0);
        Device other = snapshot.estate().devices().at(1);
        assertThat(told.etag(snapshot, one, null)).isNull();
        tell(snapshot, one, "one");
        assertThat(told.etag(snapshot, one, null)).isEqualTo("one");
        assertThat(told.etag(snapshot, one, "key")).as("another key of the server").isNull();
        assertThat(told.etag(snapshot, other, null)).isNull();
    }

    @Test
    void whatOthersSayAndATickChangeNothing() {
        Snapshot snapshot = now();
        Device one = snapshot.estate().devices().at(0);
        Device other = snapshot.estate().devices().at(1);
        tell(snapshot, one, "one");
        Snapshot jobs = snapshot.with(ArrivedReports.JOBS, HashTreePMap.singleton(other.id(), Map.of()));
        Snapshot facts = jobs.with(jobs.estate().withDevice(other.withReport(Facts.of(Map.of("arch", "arm64")), List.of(), List.of())));
        Snapshot tick = facts.with(facts.estate().at(facts.estate().asOf().plusSeconds(60)));
        for (Snapshot same : List.of(jobs, facts, tick, snapshot)) {
            assertThat(told.etag(same, same.estate().devices().find(one.id()), null)).isEqualTo("one");
        }
        Snapshot chosen = snapshot.with(FixedChoices.PART, Map.of("siltscope", Map.of("u1", Map.of("languages", "cy"))));
        assertThat(told.etag(chosen, one, null)).isNull();
        Snapshot tells = snapshot.with(SignIns.PART, HashTreePMap.singleton(one.id(), new SignIns(List.of())));
        assertThat(told.etag(tells, one, null)).as("it has said who signs in").isNull();
        assertThat(told.etag(snapshot.with(RequestDocument.KIND, requests(other)), one, null)).as("somebody took something elsewhere").isEqualTo("one");
        assertThat(told.etag(snapshot.with(RequestDocument.KIND, requests(one)), one, null)).as("here").isNull();
        Device newer = one.withReport(Facts.of(Map.of("arch", "arm64")), List.of(), List.of());
        assertThat(told.etag(snapshot.with(snapshot.estate().withDevice(newer)), newer, null)).as("it has said something itself").isNull();
    }

    private static Documents<RequestDocument> requests(Device device) {
        RequestDocument request = RequestDocument.of(new Request(device.id(), "siltscope", null), Instant.EPOCH);
        return Documents.of(List.of(new Kept<>(request, 1, "test", Instant.EPOCH, null)));
    }

    /** A call-in that is slower than a change makes nobody else's work forgotten, and its own counts for its own instant alone. */
    @Test
    void whoIsStillBeingAnsweredOfAnEarlierInstantMakesNobodyForgotten() {
        Snapshot before = now();
        Device one = before.estate().devices().at(0);
        Device late = before.estate().devices().at(1);
        Snapshot after = before.with(before.estate().withAssignments(before.estate().assignments().all().stream()
                .map(a -> a.withBinding(!a.binding())).toList()));
        tell(before, late, "earlier");
        tell(after, one, "one");
        tell(before, late, "late");
        assertThat(told.etag(after, one, null)).isEqualTo("one");
        assertThat(told.etag(after, late, null)).isNull();
        assertThat(told.etag(before, late, null)).isEqualTo("late");
    }

    /** Whatever is remembered is what would be made. */
    @Test
    void afterAnyChangesNothingIsRememberedThatWouldBeMadeOtherwise() {
        Random random = new Random(7);
        Snapshot snapshot = now();
        int remembered = 0;
        for (int step = 0; step < 400; step++) {
            snapshot = changed(snapshot, random);
            for (int i = 0; i < 5; i++) {
                Device device = snapshot.estate().devices().at(random.nextInt(snapshot.estate().devices().size()));
                Work work = WorkOfDevice.of(snapshot, device);
                String known = told.etag(snapshot, device, null);
                if (known != null) {
                    assertThat(known).as("step " + step).isEqualTo(Integer.toString(work.hashCode()));
                    remembered++;
                }
                told.told(snapshot, device, null, work, Integer.toString(work.hashCode()));
            }
        }
        assertThat(remembered).as("something was, or less was tested than this says").isGreaterThan(100);
    }

    private static Snapshot changed(Snapshot snapshot, Random random) {
        Estate estate = snapshot.estate();
        Device device = estate.devices().at(random.nextInt(estate.devices().size()));
        return switch (random.nextInt(12)) {
            case 0 -> snapshot.with(estate.withDevice(device.withOu(estate.ous().at(random.nextInt(estate.ous().size())).id())));
            case 1 -> snapshot.with(estate.withDevice(device.withPeople(List.of(estate.users().all().get(random.nextInt(20)).id()))));
            case 2 -> {
                Group group = List.copyOf(estate.groups().values()).get(random.nextInt(estate.groups().size()));
                yield snapshot.with(estate.withGroup(new Group(group.id(), group.name(), random.nextBoolean() ? List.of()
                        : List.of(Target.device(device.id())))));
            }
            case 3 -> snapshot.with(estate.withAssignments(estate.assignments().all().stream().map(a -> a.withBinding(!a.binding())).toList()));
            case 4, 5, 6 -> snapshot.with(estate.at(estate.asOf().plusSeconds(60)));
            default -> snapshot.with(estate.withDevice(device.withReport(Facts.of(Map.of("arch", random.nextBoolean() ? "x64" : "arm64")),
                    List.of(), random.nextBoolean() ? List.of() : List.of(rivo.core.estate.Present.of("siltscope",
                            rivo.core.estate.Version.of("4.2.0"))))));
        };
    }
}
