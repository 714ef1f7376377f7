package rivo.server.directory;

import static org.assertj.core.api.Assertions.assertThat;

import com.unboundid.ldap.listener.InMemoryDirectoryServerSnapshot;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.Modification;
import com.unboundid.ldap.sdk.ModificationType;
import com.unboundid.ldap.sdk.SearchScope;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.TestClient;
import rivo.server.TestDevice;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.change.Drafts;
import rivo.server.change.OuAssignment;
import rivo.server.change.Publishing;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.SignIns;
import rivo.server.live.Told;
import rivo.server.live.Topics;
import tools.jackson.databind.JsonNode;

/** The follower against the in-memory server. */
class DirectoryFollowerTest {

    private static final String BASE = DemoOrganisation.BASE_DN;

    @TempDir
    private static Path data;
    private static TestServer server;
    private static InMemoryDirectoryServerSnapshot directory;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        directory = server.directory().createSnapshot();
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    @AfterEach
    void putTheDirectoryBack() {
        server.directory().restoreSnapshot(directory);
        assertThat(server.bean(DirectoryFollower.class).scanNow(true).kind()).isEqualTo("following");
        assertThat(devices()).isEqualTo(60);
    }

    private DirectoryState scan() {
        return server.bean(DirectoryFollower.class).scanNow(false);
    }

    private int devices() {
        return server.bean(CurrentSnapshot.class).now().estate().devices().size();
    }

    private long journalRows() {
        return server.bean(JdbcClient.class).sql("select count(*) from journal").query(Long.class).single();
    }

    @Test
    void aScanBringsEverythingIn() {
        assertThat(devices()).isEqualTo(60);
        assertThat(server.bean(CurrentSnapshot.class).now().estate().ous().root().name()).isEqualTo("Quillbrook Water");
        assertThat(scan().kind()).isEqualTo("following");
    }

    @Test
    void aSecondScanThatFindsNothingNewWritesNothing() {
        CurrentSnapshot current = server.bean(CurrentSnapshot.class);
        Estate before = current.now().estate();
        long rows = journalRows();
        scan();
        assertThat(journalRows()).isEqualTo(rows);
        Estate after = current.now().estate();
        assertThat(after.devices()).isSameAs(before.devices());
        assertThat(after.users()).isSameAs(before.users());
        assertThat(after.ous()).isSameAs(before.ous());
        assertThat(after.groups()).isSameAs(before.groups());
        assertThat(after.collections()).isSameAs(before.collections());
        assertThat(after.assignments()).isSameAs(before.assignments());
        assertThat(after.gone()).isSameAs(before.gone());
        assertThat(after.sharesTitlesWith(before)).isTrue();
    }

    @Test
    void aNewComputerIsTakenInAndJournalled() throws LDAPException {
        add("QB-NEW-900", "ou=Finance,ou=Corporate");
        scan();
        assertThat(server.device("QB-NEW-900")).isEqualTo("0d54c1b0-0000-0000-0000-000000000900");
        assertThat(server.bean(JdbcClient.class).sql("select kind from journal order by number desc limit 1")
                .query(String.class).single()).isEqualTo("device-added");
    }

    @Test
    void whatHasChangedAndWhatHasGoneIsJournalledOneByOne() throws LDAPException {
        long before = journalRows();
        String computer = laboratoryComputers().get(0);
        server.directory().modify("cn=loan-pool,ou=Groups," + BASE, new Modification(ModificationType.ADD, "member", computer));
        scan();
        server.directory().delete(computer);
        scan();
        assertThat(server.bean(JdbcClient.class).sql("select kind from journal where number > ? order by number").params(before).query(String.class).list())
                .as("the group lists the computer no more, either").containsExactly("group-changed", "device-gone", "group-changed");
    }

    @Test
    void whoeverHasLeftUsesNoDeviceAndHasNothingThere() throws LDAPException {
        User person = server.bean(CurrentSnapshot.class).now().estate().users().all().stream().filter(u -> !u.name().equals("imara.voss"))
                .findFirst().orElseThrow();
        TestTitles.add(server, "maps", "Maps", Scope.USER);
        TestDevice device = TestDevice.enrolled(server, "QB-NET-001");
        assertThat(device.report("{\"number\":1,\"signedIn\":[\"" + person.name() + "\"],\"present\":[{\"title\":\"maps\",\"version\":\"4.2.0\","
                + "\"person\":\"" + person.id() + "\"}]}").status()).isLessThan(300);
        assertThat(known(device).people()).contains(person.id());
        assertThat(known(device).present("maps", person.id())).isNotNull();
        server.directory().delete(server.directory().search(BASE, SearchScope.SUB, "(uid=" + person.name() + ")").getSearchEntries().get(0).getDN());
        scan();
        assertThat(known(device).people()).doesNotContain(person.id());
        assertThat(known(device).present("maps", person.id())).isNull();
        assertThat(server.bean(CurrentSnapshot.class).now().get(SignIns.PART).get(device.id).people()).isEmpty();
    }

    private static Device known(TestDevice device) {
        return server.bean(CurrentSnapshot.class).now().estate().devices().find(device.id);
    }

    private void add(String name, String ou) throws LDAPException {
        try {
            server.directory().add("dn: cn=" + name + "," + ou + "," + BASE, "objectClass: device", "cn: " + name,
                    "entryUUID: 0d54c1b0-0000-0000-0000-000000000" + name.substring(7));
        } catch (com.unboundid.ldif.LDIFException e) {
            throw new IllegalArgumentException(e);
        }
    }

    @Test
    void aMovedOuCarriesItsAssignmentsAndDevicesAlong() throws LDAPException {
        TestTitles.add(server, "dosecalc", "Dosecalc");
        publish("dosecalc", "Finance");
        String finance = server.ou("Finance");
        server.directory().modifyDN("ou=Finance,ou=Corporate," + BASE, "ou=Money", true, "ou=Customer," + BASE);
        scan();
        CurrentSnapshot current = server.bean(CurrentSnapshot.class);
        assertThat(current.now().estate().ous().find(finance).name()).isEqualTo("Money");
        assertThat(current.now().estate().ous().find(finance).parent()).isEqualTo(server.ou("Customer"));
        assertThat(server.bean(JdbcClient.class).sql("select kind from journal where subject = ? order by number desc limit 1")
                .params("ou:" + finance).query(String.class).single()).isEqualTo("ou-changed");
        assertThat(server.ask("GET", "/api/reach/dosecalc", null).body().at("/totals/required").asInt()).isEqualTo(2);
    }

    /** How many of the lines at an OU say that something rests. */
    private static long rests(String ou) {
        TestClient.Answer answer = server.ask("GET", "/api/reach/siltscope/ous/" + server.ou(ou), null);
        assertThat(answer.status()).as(ou).isEqualTo(200);
        return answer.body().path("rungs").valueStream().filter(rung -> rung.path("verdict").asString().equals("rests")).count();
    }

    /** Gives the assignment's id. */
    private String publish(String title, String ou) {
        server.bean(Drafts.class).put("test", OuAssignment.title(title, server.ou(ou), "required", false));
        Publishing publishing = server.bean(Publishing.class);
        publishing.publish("test", "for the tests", publishing.token("test"));
        return server.bean(CurrentSnapshot.class).now().estate().assignments().of(title).get(0).id();
    }

    @Test
    void anAssignmentToAnOuThatHasGoneRestsUntilItIsBack() throws Exception {
        TestTitles.add(server, "siltscope", "Siltscope Lab");
        String assignment = publish("siltscope", "Archive");
        String archive = server.ou("Archive");
        server.directory().delete("ou=Archive,ou=Corporate," + BASE);
        assertThat(scan().kind()).isEqualTo("following");
        CurrentSnapshot current = server.bean(CurrentSnapshot.class);
        assertThat(current.now().estate().assignments().find(assignment).include()).as("nothing is forgotten").containsExactly(Target.ou(archive));
        assertThat(current.now().estate().gone().get(Target.ou(archive)).name()).isEqualTo("Archive");
        assertThat(server.ask("GET", "/api/reach/siltscope", null).body().at("/totals/required").asInt()).isZero();
        assertThat(server.ask("GET", "/api/devices/" + server.device("QB-LAB-001") + "/titles/siltscope", null).body().at("/rungs/0/verdict")
                .asString()).isEqualTo("rests");
        assertThat(rests("Quillbrook Water")).isEqualTo(1);
        assertThat(rests("Finance")).isZero();
        for (String page : List.of("/api/titles/siltscope", "/api/titles/siltscope/choices", "/api/kits", "/api/devices?q=lab", "/api/search?q=arch",
                "/api/draft", "/api/devices/" + server.device("QB-LAB-001"), "/api/reach/siltscope")) {
            assertThat(server.ask("GET", page, null).status()).as(page).isIn(200, 404);
        }
        JsonNode gone = server.ask("GET", "/api/directory/gone", null).body();
        assertThat(gone.size()).isEqualTo(1);
        assertThat(gone.at("/0/target").asString() + " " + gone.at("/0/name").asString() + " " + gone.at("/0/namedBy/0").asString())
                .isEqualTo("ou:" + archive + " Archive " + assignment);
        server.directory().add("dn: ou=Archive,ou=Corporate," + BASE, "objectClass: organizationalUnit", "ou: Archive", "entryUUID: " + archive);
        server.directory().add("dn: cn=QB-ARC-001,ou=Archive,ou=Corporate," + BASE, "objectClass: device", "cn: QB-ARC-001",
                "entryUUID: 0d54c1b0-0000-0000-0000-000000000777");
        assertThat(scan().kind()).isEqualTo("following");
        assertThat(current.now().estate().gone()).isEmpty();
        assertThat(server.ask("GET", "/api/reach/siltscope", null).body().at("/totals/required").asInt()).isEqualTo(1);
    }

    @Test
    void whatRestsCanBeDroppedAndNothingElseBeSaidOfIt() throws Exception {
        TestTitles.add(server, "muds", "Mudlark");
        String assignment = publish("muds", "Archive");
        String archive = server.ou("Archive");
        server.directory().delete("ou=Archive,ou=Corporate," + BASE);
        scan();
        for (String intent : List.of("required", "none")) {
            TestClient.Answer answer = server.ask("PUT", "/api/draft/edits", Map.of("subject", "title:muds", "ou", archive, "intent", intent,
                    "binding", false));
            assertThat(answer.status()).as(intent).isEqualTo(intent.equals("none") ? 200 : 422);
            if (intent.equals("none")) {
                assertThat(answer.body().at("/edits/0/places/0/name").asString()).isEqualTo("Archive");
                assertThat(server.ask("POST", "/api/draft/publication", Map.of("reason", "it is no more", "token",
                        answer.body().at("/rehearsal/token").asString())).status()).isEqualTo(200);
            }
        }
        CurrentSnapshot current = server.bean(CurrentSnapshot.class);
        assertThat(current.now().estate().assignments().find(assignment).state()).isEqualTo(AssignmentState.RETIRED);
        assertThat(server.ask("GET", "/api/directory/gone", null).body().at("/0/namedBy").size()).as("only an ended one names it").isZero();
    }

    @Test
    void aDisabledComputerIsNoDeviceUntilItIsEnabledAgain() throws Exception {
        String found = laboratoryComputers().get(0);
        String name = found.substring("cn=".length(), found.indexOf(','));
        Target device = Target.device(server.device(name));
        String group = server.directory().search(BASE, SearchScope.SUB, "(member=*)").getSearchEntries().get(0).getDN();
        server.directory().modify(group, new Modification(ModificationType.ADD, "member", found));
        scan();
        long holding = holding(device);
        assertThat(holding).isPositive();
        disable(found, "4098");
        assertThat(devices()).isEqualTo(59);
        assertThat(holding(device)).isZero();
        disable(found, "4096");
        assertThat(devices()).isEqualTo(60);
        assertThat(holding(device)).as("back in its groups, which are no different in the directory").isEqualTo(holding);
    }

    private static long holding(Target device) {
        return server.bean(CurrentSnapshot.class).now().estate().groups().values().stream().filter(g -> g.members().contains(device)).count();
    }

    private void disable(String dn, String control) throws LDAPException {
        server.directory().modify(dn, new Modification(ModificationType.REPLACE, "userAccountControl", control));
        scan();
    }

    @Test
    void aScanThatWouldRemoveTooMuchIsHeldUntilSomebodyAgrees() throws LDAPException {
        for (String dn : laboratoryComputers()) {
            server.directory().delete(dn);
        }
        DirectoryState held = scan();
        assertThat(held.kind()).isEqualTo("held");
        assertThat(held.sentence()).contains("16 of 60 computers").contains("agree");
        assertThat(devices()).isEqualTo(60);
        assertThat(server.bean(DirectoryFollower.class).scanNow(true).kind()).isEqualTo("following");
        assertThat(devices()).isEqualTo(44);
    }

    /** A fifth of 60 is no more than a fifth. */
    @Test
    void aFifthMayGoWithoutBeingAskedFor() throws LDAPException {
        for (String dn : laboratoryComputers().subList(0, 12)) {
            server.directory().delete(dn);
        }
        assertThat(scan().kind()).isEqualTo("following");
        assertThat(devices()).isEqualTo(48);
    }

    @Test
    void howItGoesIsSaidAndItCanBeReadAtOnce() throws Exception {
        JsonNode state = server.ask("GET", "/api/directory", null).body();
        assertThat(state.path("kind").asString()).isEqualTo("following");
        assertThat(state.path("sentence").asString()).contains("60 computers");
        server.directory().delete(laboratoryComputers().get(0));
        JsonNode after = server.ask("POST", "/api/directory/scan", null).body();
        assertThat(after.path("sentence").asString()).contains("59 computers");
        assertThat(after.path("lastScan").asString()).isNotEqualTo(state.path("lastScan").asString());
        assertThat(devices()).isEqualTo(59);
    }

    private List<String> laboratoryComputers() throws LDAPException {
        return server.directory().search("ou=Laboratories," + BASE, SearchScope.SUB, "(objectClass=device)")
                .getSearchEntries().stream().map(e -> e.getDN()).toList();
    }

    @Test
    void whatWasReadIsKeptWhileTheDirectoryIsAway() throws LDAPException {
        server.directory().shutDown(true);
        Told.by(server, this::scan, Topics.DIRECTORY);
        DirectoryState away = server.bean(DirectoryFollower.class).state();
        server.directory().startListening();
        assertThat(away.kind()).isEqualTo("away");
        assertThat(away.sentence()).contains("does not answer").contains("kept");
        assertThat(devices()).isEqualTo(60);
    }
}
