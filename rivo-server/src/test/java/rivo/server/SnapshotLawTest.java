package rivo.server;

import static org.assertj.core.api.Assertions.assertThat;

import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.Modification;
import com.unboundid.ldap.sdk.ModificationType;
import com.unboundid.ldap.sdk.SearchScope;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Ou;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.core.resolve.Resolver;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.audience.CollectionDocument;
import rivo.server.audience.Fences;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.change.Drafts;
import rivo.server.change.OuAssignment;
import rivo.server.change.Publishing;
import rivo.server.directory.DirectoryFollower;
import rivo.server.document.Kept;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Json;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.estate.SnapshotReader;
import rivo.server.fleet.ForgottenSignIns;
import rivo.server.request.Requests;
import rivo.server.web.ApiException;

/** After any sequence of commands, the snapshot is what a restart would read, and so is every outcome. */
class SnapshotLawTest {

    private static final String BASE = DemoOrganisation.BASE_DN;
    private static final int MOST_AWAY = 12;
    private static final int STEPS = Integer.getInteger("rivo.law-steps", 80);
    private static final List<String> INTENTS = List.of("required", "uninstall", "none");

    @TempDir
    private Path data;
    private final long seed = System.nanoTime();
    private final Random random = new Random(seed);
    private final List<Entry> away = new ArrayList<>();
    private TestServer server;
    private Snapshot older;
    private final List<TestDevice> devices = new ArrayList<>();
    private int rested;
    private int refused;
    private int told;
    private int taken;

    @Test
    void memoryHoldsWhatARestartWouldRead() throws Exception {
        try (TestServer started = TestServer.start(data)) {
            server = started.signIn();
            TestTitles.add(server);
            TestTitles.add(server, "gauge", "Gauge");
            TestTitles.add(server, "maps", "Maps", Scope.USER);
            for (String name : List.of("QB-LAB-001", "QB-LAB-002", "QB-LAB-003")) {
                devices.add(TestDevice.enrolled(server, name));
            }
            publish(server.ou("Archive"), "required");
            takeAway("ou=Archive,ou=Corporate," + BASE);
            for (int step = 0; step < STEPS; step++) {
                older = step == 0 || random.nextInt(3) == 0 ? now() : older;
                for (int i = random.nextInt(3); i >= 0; i--) {
                    change();
                }
                assertThat(server.bean(DirectoryFollower.class).scanNow(true).kind()).as("seed %d, step %d", seed, step).isEqualTo("following");
                check("seed " + seed + ", step " + step);
            }
            assertThat(rested).as("something rested, or less was tested than this says").isPositive();
            assertThat(refused).as("something was refused").isPositive();
        }
    }

    private void change() throws Exception {
        switch (random.nextInt(22)) {
            case 0 -> takeAway(one("(objectClass=device)"));
            case 1, 2 -> bringBack();
            case 3 -> replace(one("(objectClass=device)"), "userAccountControl", List.of(random.nextBoolean() ? "4098" : "4096"));
            case 4 -> move(one("(objectClass=device)"), one("(objectClass=organizationalUnit)"));
            case 5 -> replace(one("(member=*)"), "member", List.of(one("(objectClass=device)"), one("(uid=*)")));
            case 6 -> takeAwayAnEmptyOu();
            case 7, 8 -> publish();
            case 9 -> {
                List<String> ous = ouIds();
                server.bean(Fences.class).raise("test", List.of(ous.get(1 + random.nextInt(ous.size() - 1))));
            }
            case 10 -> tick();
            case 11, 12 -> report(devices.get(random.nextInt(devices.size())));
            case 13 -> editTheCatalogue();
            case 14 -> takeAway(one("(&(uid=*)(objectClass=person))"));
            case 15 -> forgetSignIns();
            case 16, 17 -> request();
            default -> draftADocument();
        }
    }

    /** Some are made ready from an older state than the one they are taken into. */
    private void tick() {
        Snapshot from = random.nextBoolean() ? now() : older;
        Resolver ticked = from.resolver().follow(from.estate().at(now().estate().asOf().plusSeconds(random.nextInt(100_000))));
        ticked.catchUpWith(from.resolver());
        server.bean(ChangeWriter.class).take(context -> {
            context.becomes(context.snapshot().at(ticked));
            return 1;
        });
    }

    /** Two at once, so that the second is made from what the first has made and nobody has seen yet. */
    private void report(TestDevice device) throws Exception {
        String one = report();
        String other = report();
        server.together(() -> device.report(one), () -> devices.get(0).report(other));
        device.work();
    }

    private String notice() {
        return "{\"notice\":\"n" + random.nextInt(4) + "\",\"kind\":\"" + oneOf("restart", "done") + "\",\"titles\":[\"siltscope\"],\"state\":\""
                + oneOf("shown", "held", "put-off", "over") + "\",\"at\":\"2026-11-27T08:00:00.123456789Z\",\"until\":\"2026-11-27T09:00:00.123456789Z\""
                + oneOf("", ",\"answer\":\"at-sign-out\"") + "}";
    }

    private String report() {
        String present = random.nextBoolean() ? "" : "{\"title\":\"" + oneOf("siltscope", "gauge") + "\",\"version\":\"" + oneOf("4.1.0", "4.2.0") + "\"}";
        int n = ++told;
        return "{\"number\":" + n + ",\"facts\":{\"arch\":\"" + oneOf("x64", "arm64") + "\",\"lastSeen\":\""
                + oneOf("2026-11-27T08:00:00Z", "2026-10-01T08:00:00Z") + "\"},\"signedIn\":" + Json.write(signedIn()) + ",\"present\":[" + present
                + maps(present) + "],\"progress\":[{\"title\":\"siltscope\","
                + "\"action\":\"install\",\"version\":\"4.2.0\",\"state\":\"" + oneOf("running", "done") + "\",\"step\":1,\"steps\":4,\"percent\":" + n % 100
                + ",\"message\":\"fetching\",\"at\":\"2026-11-27T08:00:00Z\"}],\"notices\":[" + notice() + "]}";
    }

    /** People of the directory, and now and then somebody who is not in it, so that the whole is refused. */
    private List<String> signedIn() {
        List<User> people = now().estate().users().all();
        return random.nextInt(12) == 0 ? List.of("nobody.here") : random.nextInt(3) == 0 ? List.of() : List.of(people.get(random.nextInt(12)).name());
    }

    private String maps(String before) {
        return random.nextBoolean() ? "" : (before.isEmpty() ? "" : ",") + "{\"title\":\"maps\",\"version\":\"4.2.0\",\"person\":\""
                + now().estate().users().at(random.nextInt(12)).id() + "\"}";
    }

    /** Somebody takes what may be offered to them, or gives it back; what cannot be is refused and leaves nothing. */
    private void request() {
        Device device = now().estate().devices().find(devices.get(random.nextInt(devices.size())).id);
        String person = device == null ? "nobody" : device.people().stream().findFirst().orElse("nobody");
        String title = oneOf("siltscope", "gauge", "maps");
        try {
            if (random.nextInt(3) == 0) {
                server.bean(Requests.class).giveBack("test", person, device == null ? "none" : device.id(), title);
            } else {
                server.bean(Requests.class).take("test", person, device == null ? "none" : device.id(), title, Requests.Taking.NOTHING);
                taken++;
            }
        } catch (ApiException e) {
            refused++;
        }
    }

    private void forgetSignIns() {
        server.bean(ForgottenSignIns.class).forget(Duration.ofHours(-1));
    }

    private void editTheCatalogue() {
        switch (random.nextInt(6)) {
            case 0 -> {
                TitleRecord gauge = server.bean(Catalogue.class).now().record("gauge");
                List<TitleRecord.ReleaseRecord> releases = new ArrayList<>(gauge.releases().subList(0, 1));
                releases.add(TitleRecord.ReleaseRecord.of(oneOf("4.2.0", "5.0"), releases.get(0).variants()));
                server.bean(Catalogue.class).put("test", gauge.withReleases(releases));
            }
            case 1 -> ask("PUT", "/api/windows/night", Map.of("id", "night", "name", "Night", "days", List.of("MONDAY"), "opens", "22:00", "minutes",
                    1 + random.nextInt(60)));
            case 2 -> ask("DELETE", "/api/windows/night", null);
            case 3 -> ask("PUT", "/api/mirrors/upland", Map.of("id", "upland", "name", oneOf("Upland", "Uplands"), "address",
                    "http://mirror.example:8094"));
            case 4 -> ask("DELETE", "/api/mirrors/upland", null);
            default -> {
                Kept<KitDocument> kit = now().get(KitDocument.KIND).kept("k1");
                ask("PUT", "/api/kits/k1", Map.of("revision", kit == null ? 0 : kit.revision(), "kit", Map.of("id", "k1", "name", "Bench",
                        "description", "", "titles", oneOf(List.of("gauge"), List.of("gauge", "siltscope")))));
            }
        }
    }

    /** An assignment of any form, a collection or a fence; put or retired, and published or not. What cannot be is refused and leaves nothing. */
    private void draftADocument() {
        String id = oneOf("x", "y", "z");
        String ou = ouIds().get(random.nextInt(ouIds().size()));
        String group = List.copyOf(now().estate().groups().keySet()).get(random.nextInt(now().estate().groups().size()));
        String target = oneOf("ou:" + ou, "group:" + group, "collection:" + id, "device:" + devices.get(0).id, "all-devices");
        switch (random.nextInt(6)) {
            case 0 -> ask("DELETE", "/api/draft/documents/" + oneOf("assignment", "collection") + "/" + id + "?revision=" + revision(id), null);
            case 1, 2 -> put("collection", Map.of("id", id, "name", "Of " + id, "rule", oneOf("arch eq \"x64\"", "lastSeen gt \"-P14D\"",
                    "collection eq \"Of z\"", "nonsense"), "base", ou));
            default -> put("assignment", Map.of("id", id, "seq", 0, "subject", oneOf("title:siltscope", "title:gauge", "title:maps", "kit:k1"), "intent",
                    oneOf("required", "available", "uninstall"), "follows", "device", "include", List.of(target), "exclude",
                    random.nextBoolean() ? List.of() : List.of("ou:" + ou), "binding", random.nextBoolean(), "from",
                    now().estate().asOf().plusSeconds(random.nextInt(200_000) - 100_000L).toString(), "leaving", oneOf("keep", "remove")));
        }
        if (random.nextInt(3) > 0) {
            String token = server.ask("GET", "/api/draft", null).body().at("/rehearsal/token").asString("");
            ask("POST", "/api/draft/publication", Map.of("reason", "for the tests", "token", token));
        }
        if (random.nextInt(4) == 0) {
            ask("POST", oneOf("/api/draft/undo", "/api/draft/redo"), null);
        }
        if (random.nextInt(8) == 0) {
            ask("DELETE", "/api/draft", null);
        }
    }

    private long revision(String id) {
        return Math.max(now().get(AssignmentDocument.KIND).revision(id), now().get(CollectionDocument.KIND).revision(id));
    }

    private void put(String kind, Map<String, Object> document) {
        String id = String.valueOf(document.get("id"));
        long revision = kind.equals("collection") ? now().get(CollectionDocument.KIND).revision(id) : now().get(AssignmentDocument.KIND).revision(id);
        ask("PUT", "/api/draft/documents/" + kind + "/" + id, Map.of("revision", revision, "document", document));
    }

    private void ask(String method, String path, Object body) {
        int status = server.ask(method, path, body).status();
        assertThat(status).as("seed %d: %s %s", seed, method, path).isLessThan(500);
        refused += status >= 400 ? 1 : 0;
    }

    @SafeVarargs
    private <T> T oneOf(T... all) {
        return all[random.nextInt(all.length)];
    }

    private Snapshot now() {
        return server.bean(CurrentSnapshot.class).now();
    }

    private List<String> ouIds() {
        return server.bean(CurrentSnapshot.class).now().estate().ous().all().stream().map(ou -> ou.id()).toList();
    }

    private String one(String filter) throws LDAPException {
        List<String> found = server.directory().search(BASE, SearchScope.SUB, filter, "1.1").getSearchEntries().stream().map(Entry::getDN).toList();
        return found.get(random.nextInt(found.size()));
    }

    /** However long it goes on, most of the directory is there. */
    private void takeAway(String dn) throws LDAPException {
        if (away.size() == MOST_AWAY) {
            bringBack();
            return;
        }
        away.add(server.directory().getEntry(dn, "*", "+").duplicate());
        server.directory().delete(dn);
    }

    private void takeAwayAnEmptyOu() throws LDAPException {
        for (Entry ou : server.directory().search(BASE, SearchScope.SUB, "(objectClass=organizationalUnit)").getSearchEntries()) {
            boolean isEmpty = server.directory().search(ou.getDN(), SearchScope.ONE, "(objectClass=*)", "1.1").getEntryCount() == 0;
            if (isEmpty && !ou.getDN().startsWith("ou=Groups")) {
                takeAway(ou.getDN());
                return;
            }
        }
    }

    private void bringBack() throws LDAPException {
        if (!away.isEmpty()) {
            Entry entry = away.get(random.nextInt(away.size()));
            if (server.directory().getEntry(entry.getParentDNString()) != null && server.directory().getEntry(entry.getDN()) == null) {
                server.directory().add(entry);
                away.remove(entry);
            }
        }
    }

    private void replace(String dn, String attribute, List<String> values) throws LDAPException {
        server.directory().modify(dn, new Modification(ModificationType.REPLACE, attribute, values.toArray(String[]::new)));
    }

    private void move(String dn, String to) throws LDAPException {
        String name = dn.substring(0, dn.indexOf(','));
        if (server.directory().getEntry(name + "," + to) == null) {
            server.directory().modifyDN(dn, name, false, to);
        }
    }

    /** Now and then at the empty OU, which goes and comes back. */
    private void publish() {
        List<String> ous = ouIds();
        String ou = server.bean(CurrentSnapshot.class).now().estate().ous().all().stream().filter(o -> o.name().equals("Archive") && random.nextBoolean())
                .map(Ou::id).findFirst().orElse(ous.get(random.nextInt(ous.size())));
        publish(ou, INTENTS.get(random.nextInt(3)));
    }

    private void publish(String ou, String intent) {
        server.bean(Drafts.class).put("test", OuAssignment.title("siltscope", ou, intent, random.nextBoolean()));
        if (server.bean(Drafts.class).size("test") > 0) {
            Publishing publishing = server.bean(Publishing.class);
            publishing.publish("test", "for the tests", publishing.token("test"));
        }
    }

    private void check(String what) {
        Snapshot snapshot = now();
        Resolver now = snapshot.resolver();
        Snapshot restart = server.bean(SnapshotReader.class).read(now.estate().asOf());
        for (SnapshotPart<?> part : SnapshotRecords.PARTS) {
            assertThat((Object) snapshot.get(part)).as(what + ": " + part).isEqualTo(restart.get(part));
        }
        Estate anew = restart.estate();
        EstateParts mine = now.estate().parts();
        EstateParts read = anew.parts();
        assertThat(mine.ous()).as(what).containsExactlyInAnyOrderElementsOf(read.ous());
        assertThat(mine.users()).as(what).isEqualTo(read.users());
        assertThat(mine.devices()).as(what).isEqualTo(read.devices());
        assertThat(members(mine)).as(what).isEqualTo(members(read));
        assertThat(mine.assignments()).as(what).isEqualTo(read.assignments());
        assertThat(mine.collections()).as(what).containsExactlyInAnyOrderElementsOf(read.collections());
        assertThat(mine.kits()).as(what).containsExactlyInAnyOrderElementsOf(read.kits());
        assertThat(mine.titles()).as(what).containsExactlyInAnyOrderElementsOf(read.titles());
        assertThat(mine.requests()).as(what).containsExactlyInAnyOrderElementsOf(read.requests());
        assertThat(mine.gone()).as(what).containsExactlyInAnyOrderElementsOf(read.gone());
        Resolver restarted = Resolver.of(anew);
        for (Device device : anew.devices().all()) {
            assertThat(now.device(device)).as(what + ", " + device.name()).isEqualTo(restarted.device(device));
        }
        rested += mine.gone().size();
    }

    private static Set<String> members(EstateParts parts) {
        return parts.groups().stream().map(g -> g.id() + " " + g.name() + " " + new HashSet<>(g.members()).stream().map(Target::toString).sorted()
                .toList()).collect(Collectors.toSet());
    }
}
