package rivo.server.directory;

import static org.assertj.core.api.Assertions.assertThat;

import com.unboundid.ldap.listener.InMemoryDirectoryServerSnapshot;
import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.Modification;
import com.unboundid.ldap.sdk.ModificationType;
import com.unboundid.ldap.sdk.SearchScope;
import com.unboundid.ldif.LDIFException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.directory.DirectoryPicture;
import rivo.directory.DirectoryPicture.ComputerEntry;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.TestServer;
import rivo.server.directory.MembershipChanges.MembershipChange;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.SnapshotReader;

/** Who came into OUs and groups and who left, as it is on record after scans of the in-memory directory. */
class WhoCameAndWentTest {

    private static final String BASE = DemoOrganisation.BASE_DN;

    @TempDir
    private static Path data;
    private static TestServer server;
    private static JdbcClient db;
    private static InMemoryDirectoryServerSnapshot directory;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        db = server.bean(JdbcClient.class);
        directory = server.directory().createSnapshot();
        assertThat(db.sql("select count(*) from membership_changes").query(Integer.class).single())
                .as("what stood in the directory when it was first read came from nowhere").isZero();
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    @AfterEach
    void putTheDirectoryBack() {
        server.directory().restoreSnapshot(directory);
        assertThat(server.bean(DirectoryFollower.class).scanNow(true).kind()).isEqualTo("following");
        db.sql("delete from membership_changes").update();
    }

    private static void scan() {
        assertThat(server.bean(DirectoryFollower.class).scanNow(false).kind()).isEqualTo("following");
    }

    private static Estate estate() {
        return server.bean(CurrentSnapshot.class).now().estate();
    }

    private static Device laboratoryComputer() throws LDAPException {
        String cn = server.directory().search("ou=Laboratories," + BASE, SearchScope.SUB, "(objectClass=device)").getSearchEntries().get(0)
                .getAttributeValue("cn");
        return Objects.requireNonNull(estate().devices().find(server.device(cn)));
    }

    private static String dn(String filter) throws LDAPException {
        return server.directory().search(BASE, SearchScope.SUB, filter).getSearchEntries().get(0).getDN();
    }

    private static String ouOf(Device device) {
        return Objects.requireNonNull(device.ou());
    }

    private static List<String> of(Target audience) {
        return lines(List.of(audience));
    }

    /** The newest first. */
    private static List<String> lines(Collection<Target> audiences) {
        return MembershipChanges.of(db, audiences, 50).stream().map(WhoCameAndWentTest::line).toList();
    }

    private static String line(MembershipChange one) {
        return one.name() + (one.came() ? " came: " : " left: ") + one.why();
    }

    private static void disable(String dn, boolean disabled) throws LDAPException {
        setDisabled(dn, disabled);
        scan();
    }

    private static void setDisabled(String dn, boolean disabled) throws LDAPException {
        server.directory().modify(dn, new Modification(ModificationType.REPLACE, "userAccountControl", disabled ? "4098" : "4096"));
    }

    /** With {@code entryUUID}s that begin alike and count from 1. */
    private static void addComputers(int n) throws LDAPException {
        try {
            for (int i = 1; i <= n; i++) {
                server.directory().add("dn: cn=QB-MANY-" + i + ",ou=Finance,ou=Corporate," + BASE, "objectClass: device", "cn: QB-MANY-" + i,
                        String.format("entryUUID: 0d54c1b0-0000-0000-0001-%012d", i));
            }
        } catch (LDIFException e) {
            throw new IllegalArgumentException(e);
        }
    }

    @Test
    void aComputerThatMovesIsOnRecordAtBothEndsWithTheOther() throws LDAPException {
        Device device = laboratoryComputer();
        String before = Objects.requireNonNull(estate().ous().find(ouOf(device))).name();
        server.directory().modifyDN(dn("(cn=" + device.name() + ")"), "cn=" + device.name(), true, "ou=Finance,ou=Corporate," + BASE);
        scan();
        assertThat(of(Target.ou(ouOf(device)))).containsExactly(device.name() + " left: moved to Finance");
        assertThat(of(Target.ou(server.ou("Finance")))).containsExactly(device.name() + " came: moved from " + before);
        MembershipChange one = MembershipChanges.of(db, List.of(Target.ou(ouOf(device))), 50).get(0);
        assertThat(one.audience()).isEqualTo(Target.ou(ouOf(device)));
        assertThat(one.member()).isEqualTo(Target.device(device.id()));
    }

    @Test
    void aComputerIsNowhereWhileItsAccountIsDisabled() throws LDAPException {
        Device device = laboratoryComputer();
        String dn = dn("(cn=" + device.name() + ")");
        disable(dn, true);
        assertThat(of(Target.ou(ouOf(device)))).containsExactly(device.name() + " left: its account was disabled");
        disable(dn, false);
        assertThat(of(Target.ou(ouOf(device)))).as("it was in no estate when it came back")
                .containsExactly("null came: enabled, or back in an OU", device.name() + " left: its account was disabled");
    }

    @Test
    void whatIsNewAndWhatHasGoneIsSaid() throws LDAPException {
        addComputers(1);
        scan();
        assertThat(of(Target.ou(server.ou("Finance")))).containsExactly("null came: new in the directory");
        server.directory().delete(dn("(cn=QB-MANY-1)"));
        scan();
        assertThat(of(Target.ou(server.ou("Finance")))).containsExactly("QB-MANY-1 left: left the directory", "null came: new in the directory");
        assertThat(MembershipChanges.of(db, List.of(Target.ou(server.ou("Finance"))), 1)).as("no more than are asked for").hasSize(1);
        assertThat(MembershipChanges.of(db, List.of(), 50)).isEmpty();
    }

    @Test
    void peopleMoveLikewiseAndStayWhereTheyAreWithADisabledAccount() throws LDAPException {
        User person = estate().users().all().stream().filter(user -> user.ou() != null && !user.name().equals("imara.voss")
                && !user.ou().equals(server.ou("Finance"))).findFirst().orElseThrow();
        String dn = dn("(uid=" + person.name() + ")");
        disable(dn, true);
        assertThat(of(Target.ou(Objects.requireNonNull(person.ou())))).isEmpty();
        assertThat(DisabledAccounts.people(db)).contains(person.id());
        disable(dn, false);
        assertThat(DisabledAccounts.people(db)).doesNotContain(person.id());
        long before = newest();
        server.directory().modifyDN(dn, dn.substring(0, dn.indexOf(',')), true, "ou=Finance,ou=Corporate," + BASE);
        scan();
        assertThat(kindsAfter(before)).containsEntry("user-changed", 1L);
        MembershipChange came = MembershipChanges.of(db, List.of(Target.ou(server.ou("Finance"))), 50).get(0);
        assertThat(came.member()).isEqualTo(Target.user(person.id()));
        assertThat(came.why()).startsWith("moved from ");
        assertThat(of(Target.ou(person.ou()))).hasSize(1).allMatch(line -> line.endsWith(" left: moved to Finance"));
    }

    @Test
    void aGroupTellsWhomItListsAndListsNoMoreByTheirNames() throws LDAPException {
        Device device = laboratoryComputer();
        String group = "cn=loan-pool,ou=Groups," + BASE;
        Target pool = Target.group(estate().groups().values().stream().filter(one -> one.name().equals("loan-pool")).findFirst().orElseThrow().id());
        server.directory().modify(group, new Modification(ModificationType.ADD, "member", dn("(cn=" + device.name() + ")")));
        scan();
        assertThat(of(pool)).containsExactly(device.name() + " came: null");
        server.directory().modify(group, new Modification(ModificationType.DELETE, "member", dn("(cn=" + device.name() + ")")));
        scan();
        assertThat(of(pool)).containsExactly(device.name() + " left: null", device.name() + " came: null");
    }

    @Test
    void disabledComputersAreCountedByTheGroupsThatListThemAndTheirOu() throws LDAPException {
        Device device = laboratoryComputer();
        String dn = dn("(cn=" + device.name() + ")");
        server.directory().modify("cn=loan-pool,ou=Groups," + BASE, new Modification(ModificationType.ADD, "member", dn));
        scan();
        assertThat(DisabledAccounts.computers(db)).isEmpty();
        disable(dn, true);
        Map<String, Integer> counts = DisabledAccounts.computers(db);
        String pool = estate().groups().values().stream().filter(one -> one.name().equals("loan-pool")).findFirst().orElseThrow().id();
        assertThat(counts).containsEntry(pool, 1).containsEntry(ouOf(device), 1);
    }

    @Test
    void whoIsDisabledWhereIsKeptWhateverHappensToComputersAndGroups() throws LDAPException {
        Random random = new Random(20);
        List<String> groups = List.of("cn=loan-pool,ou=Groups," + BASE, "cn=crew-tablets,ou=Groups," + BASE);
        List<String> computers = new ArrayList<>(server.directory().search("ou=Laboratories," + BASE, SearchScope.SUB, "(objectClass=device)")
                .getSearchEntries().subList(0, 12).stream().map(Entry::getDN).toList());
        int most = 0;
        for (int round = 0; round < 25; round++) {
            for (int i = random.nextInt(4); i >= 0; i--) {
                String computer = computers.get(random.nextInt(computers.size()));
                switch (random.nextInt(9)) {
                    case 0, 1, 2, 3 -> setDisabled(computer, random.nextInt(3) > 0);
                    case 4, 5, 6, 7 -> turnMembership(groups.get(random.nextInt(2)), computer);
                    default -> {
                        for (String group : groups) {
                            drop(group, computer);
                        }
                        server.directory().delete(computer);
                        computers.remove(computer);
                    }
                }
            }
            scan();
            List<String> rows = db.sql("select group_id || ' ' || computer from disabled_members").query(String.class).list();
            assertThat(rows).as("round " + round).containsExactlyInAnyOrderElementsOf(disabledByTheLists());
            assertThat(estate().groups()).as("round " + round).isEqualTo(server.bean(SnapshotReader.class).read(Instant.now()).estate().groups());
            most = Math.max(most, rows.size());
        }
        assertThat(most).as("there was something to keep").isGreaterThan(3);
    }

    private static Set<String> disabledByTheLists() {
        DirectoryPicture held = DirectoryRecords.held(db);
        Set<String> disabled = held.computers().stream().filter(computer -> !computer.enabled()).map(ComputerEntry::id).collect(Collectors.toSet());
        return held.groups().stream().flatMap(group -> group.members().stream().filter(member -> disabled.contains(member.id()))
                .map(member -> group.id() + " " + member.id())).collect(Collectors.toSet());
    }

    private static void turnMembership(String group, String member) throws LDAPException {
        if (!drop(group, member)) {
            server.directory().modify(group, new Modification(ModificationType.ADD, "member", member));
        }
    }

    /** Whether the group listed it. */
    private static boolean drop(String group, String member) throws LDAPException {
        boolean listed = List.of(server.directory().getEntry(group).getAttributeValues("member")).contains(member);
        if (listed) {
            server.directory().modify(group, new Modification(ModificationType.DELETE, "member", member));
        }
        return listed;
    }

    @Test
    void aThousandAtOnceAreOnRecordOneByOneAndMoreAreNot() throws LDAPException {
        addComputers(MembershipChanges.MOST_AT_ONCE);
        scan();
        assertThat(db.sql("select count(*) from membership_changes").query(Integer.class).single()).isEqualTo(MembershipChanges.MOST_AT_ONCE);
        putTheDirectoryBack();
        addComputers(MembershipChanges.MOST_AT_ONCE + 1);
        scan();
        assertThat(db.sql("select count(*) from membership_changes").query(Integer.class).single()).isZero();
    }

    @Test
    void theJournalHasTwoThousandDifferencesOneByOneAndMoreInOneLine() throws LDAPException {
        long before = newest();
        addComputers(2000);
        scan();
        assertThat(kindsAfter(before)).isEqualTo(Map.of("device-added", 2000L));
        putTheDirectoryBack();
        before = newest();
        addComputers(2001);
        scan();
        assertThat(kindsAfter(before)).isEqualTo(Map.of("directory-read", 1L));
        assertThat(db.sql("select after_value from journal where number > ?").params(before).query(String.class).single())
                .contains("\"added\":2001").contains("\"differences\":2001");
    }

    private static long newest() {
        return db.sql("select max(number) from journal").query(Long.class).single();
    }

    private static Map<String, Long> kindsAfter(long number) {
        return db.sql("select kind from journal where number > ?").params(number).query(String.class).list().stream()
                .collect(Collectors.groupingBy(kind -> kind, Collectors.counting()));
    }
}
