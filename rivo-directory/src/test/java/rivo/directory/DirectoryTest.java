package rivo.directory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static rivo.directory.Ldif.BASE;
import static rivo.directory.Ldif.id;

import com.unboundid.ldap.sdk.LDAPException;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.directory.DirectoryPicture.ComputerEntry;
import rivo.directory.DirectoryPicture.Member;
import rivo.directory.DirectoryPicture.MemberKind;
import rivo.directory.DirectoryPicture.OuEntry;
import rivo.directory.DirectoryPicture.UserEntry;

class DirectoryTest {

    private Ldif ldif;

    @BeforeEach
    void fill() throws LDAPException {
        ldif = new Ldif().entry("ou=Laboratories," + BASE, "labs", "objectClass: organizationalUnit")
                .entry("ou=Bench\\, wet,ou=Laboratories," + BASE, "bench", "objectClass: organizationalUnit")
                .entry("cn=Unplaced," + BASE, "unplaced", "objectClass: applicationProcess")
                .entry("uid=imara.voss,ou=Laboratories," + BASE, "imara", "objectClass: inetOrgPerson",
                        "cn: Imara Voss", "mail: imara.voss@quillbrook.example", "userPassword: heron")
                .entry("uid=old,ou=Laboratories," + BASE, "old", "objectClass: inetOrgPerson",
                        "userAccountControl: 514")
                .entry("cn=QB-LAB-014,ou=Bench\\2C wet,ou=Laboratories," + BASE, "d14", "objectClass: device",
                        "owner: UID=imara.voss, OU=laboratories," + BASE, "owner: uid=nobody," + BASE)
                .entry("cn=QB-NEW-001,cn=Unplaced," + BASE, "new", "objectClass: device");
    }

    @AfterEach
    void close() {
        ldif.close();
    }

    @Test
    void ousKnowTheirParentsAndNamesAreUnescaped() {
        assertThat(ldif.directory().scan().ous()).extracting(OuEntry::name, OuEntry::parent).containsExactlyInAnyOrder(
                tuple("quillbrook", null), tuple("Laboratories", id("root")), tuple("Bench, wet", id("labs")));
    }

    @Test
    void peopleAndComputersAreFoundWithTheirOus() {
        DirectoryPicture picture = ldif.directory().scan();
        assertThat(picture.users()).extracting(UserEntry::account, UserEntry::fullName, UserEntry::ou,
                UserEntry::enabled).containsExactlyInAnyOrder(tuple("imara.voss", "Imara Voss", id("labs"), true),
                        tuple("old", "old", id("labs"), false));
        assertThat(picture.computers()).extracting(ComputerEntry::name, ComputerEntry::ou, ComputerEntry::people)
                .containsExactlyInAnyOrder(tuple("QB-LAB-014", id("bench"), List.of(id("imara"))),
                        tuple("QB-NEW-001", null, List.of()));
    }

    @Test
    void aReferenceToNobodyIsPassedOverAndSaid() {
        assertThat(ldif.directory().scan().notes()).anyMatch(note -> note.contains("uid=nobody"));
    }

    @Test
    void groupsHoldPeopleComputersAndGroupsAndMayHoldEachOther() throws LDAPException {
        ldif.entry("cn=a," + BASE, "a", "objectClass: groupOfNames", "member: cn=b," + BASE,
                "member: uid=imara.voss,ou=Laboratories," + BASE)
                .entry("cn=b," + BASE, "b", "objectClass: groupOfNames", "member: cn=a," + BASE,
                        "member: cn=QB-NEW-001,cn=Unplaced," + BASE);
        assertThat(ldif.directory().scan().groups()).extracting(DirectoryPicture.GroupEntry::members)
                .containsExactlyInAnyOrder(
                        List.of(new Member(MemberKind.GROUP, id("b")), new Member(MemberKind.USER, id("imara"))),
                        List.of(new Member(MemberKind.GROUP, id("a")), new Member(MemberKind.DEVICE, id("new"))));
    }

    @Test
    void everyPageIsRead() {
        int entries = ldif.directory("secret", 1).scan().computers().size();
        assertThat(entries).isEqualTo(ldif.directory("secret", 1000).scan().computers().size()).isEqualTo(2);
    }

    @Test
    void aMovedOuTakesWhatIsBelowItAlong() throws LDAPException {
        DirectoryPicture before = ldif.directory().scan();
        ldif.entry("ou=Works," + BASE, "works", "objectClass: organizationalUnit");
        ldif.server().modifyDN("ou=Bench\\, wet,ou=Laboratories," + BASE, "ou=Bench\\, wet", true,
                "ou=Works," + BASE);
        DirectoryPicture after = ldif.directory().scan();
        assertThat(Differences.between(before.ous(), after.ous()).changed()).extracting(OuEntry::id, OuEntry::parent)
                .containsExactly(tuple(id("bench"), id("works")));
        assertThat(after.computers()).filteredOn(c -> c.name().equals("QB-LAB-014")).extracting(ComputerEntry::ou)
                .containsExactly(id("bench"));
    }

    @Test
    void aRenamedComputerIsTheSameOne() throws LDAPException {
        DirectoryPicture before = ldif.directory().scan();
        ldif.server().modifyDN("cn=QB-NEW-001,cn=Unplaced," + BASE, "cn=QB-LAB-900", true);
        Differences<ComputerEntry> differences = Differences.between(before.computers(),
                ldif.directory().scan().computers());
        assertThat(differences.added()).isEmpty();
        assertThat(differences.gone()).isEmpty();
        assertThat(differences.changed()).extracting(ComputerEntry::name).containsExactly("QB-LAB-900");
    }

    @Test
    void twoScansOfTheSameDirectoryDoNotDiffer() {
        DirectoryPicture one = ldif.directory("secret", 3).scan();
        DirectoryPicture two = ldif.directory("secret", 100).scan();
        assertThat(Differences.between(one.users(), two.users()).isEmpty()).isTrue();
        assertThat(Differences.between(one.computers(), two.computers()).isEmpty()).isTrue();
    }

    @Test
    void twentyThatAreSkippedAreNamedAndMoreAreCounted() throws LDAPException {
        try (Ldif other = new Ldif()) {
            for (int i = 0; i < 20; i++) {
                other.add("dn: cn=QB-X" + i + "," + BASE, "objectClass: device", "entryUUID: ");
            }
            assertThat(other.directory().scan().notes()).hasSize(20).noneMatch(note -> note.contains("more were skipped"));
            other.add("dn: cn=QB-Y," + BASE, "objectClass: device", "entryUUID: ");
            other.add("dn: cn=QB-Z," + BASE, "objectClass: device", "entryUUID: ");
            assertThat(other.directory().scan().notes()).hasSize(21).endsWith("2 more were skipped.");
        }
    }

    @Test
    void namesAreComparedAsWhatTheyMean() {
        assertThat(DistinguishedNames.same("ou=Bench\\, wet,DC=quillbrook", "OU=bench\\2C wet, dc=Quillbrook")).isTrue();
        assertThat(DistinguishedNames.same("ou=Bench,dc=quillbrook", "ou=Benches,dc=quillbrook")).isFalse();
        assertThat(DistinguishedNames.same("ou=Bench,dc=quillbrook", "Bench")).isFalse();
        assertThat(DistinguishedNames.isOne("cn=rivo-administrators,dc=quillbrook")).isTrue();
        assertThat(List.of("", "  ", "rivo-administrators")).noneMatch(DistinguishedNames::isOne);
    }

    @Test
    void anEntryWithoutAStableIdIsPassedOverAndSaid() throws LDAPException {
        try (Ldif other = new Ldif()) {
            other.add("dn: cn=QB-X," + BASE, "objectClass: device", "entryUUID: ");
            DirectoryPicture picture = other.directory().scan();
            assertThat(picture.computers()).isEmpty();
            assertThat(picture.notes()).anyMatch(note -> note.contains("neither entryUUID nor objectGUID"));
        }
    }

    @Test
    void theRightPasswordSignsIn() {
        assertThat(ldif.directory().signIn("imara.voss", "heron")).contains(id("imara"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "wrong"})
    void anyOtherPasswordDoesNot(String password) {
        assertThat(ldif.directory().signIn("imara.voss", password)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"*", "imara*", "*)(uid=*", "imara.voss)(objectClass=*", "nobody", " "})
    void namesAreNeverPatterns(String account) {
        assertThat(ldif.directory().signIn(account, "heron")).isEmpty();
    }

    /** With the password of either: whoever is meant cannot be told. */
    @Test
    void aNameThatTwoHaveIsNobodys() throws LDAPException {
        ldif.entry("uid=imara.voss,ou=Bench\\, wet,ou=Laboratories," + BASE, "imara2", "objectClass: inetOrgPerson",
                "cn: Imara Voss", "userPassword: another");
        assertThat(ldif.directory().signIn("imara.voss", "heron")).isEmpty();
        assertThat(ldif.directory().signIn("imara.voss", "another")).isEmpty();
    }

    @Test
    void aDisabledComputerIsReadAsOne() throws LDAPException {
        ldif.entry("cn=QB-OLD-002,ou=Laboratories," + BASE, "off", "objectClass: device", "userAccountControl: 4098");
        ldif.entry("cn=QB-OLD-003,ou=Laboratories," + BASE, "on", "objectClass: device", "userAccountControl: 4096");
        assertThat(ldif.directory().scan().computers()).filteredOn(c -> !c.enabled()).extracting(ComputerEntry::name)
                .containsExactly("QB-OLD-002");
    }

    @Test
    void aWrongReadingPasswordIsSaid() {
        assertThatThrownBy(() -> ldif.directory("wrong", 10).scan()).isInstanceOf(DirectoryException.class)
                .hasMessageContaining("refuses the account cn=reader");
    }

    @Test
    void aDirectoryThatIsAwayIsSaid() {
        Directory away = ldif.directory();
        ldif.close();
        assertThatThrownBy(away::scan).isInstanceOf(DirectoryException.class)
                .hasMessageContaining("does not answer");
    }

    @Test
    void aDirectoryThatHangsIsLeftInTime() throws IOException {
        try (ServerSocket silent = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            Directory hanging = new Directory(new DirectorySettings(
                    URI.create("ldap://127.0.0.1:" + silent.getLocalPort()), BASE, "cn=x", "y", 10,
                    Duration.ofMillis(300)));
            long start = System.nanoTime();
            assertThatThrownBy(hanging::scan).isInstanceOf(DirectoryException.class).hasMessageContaining("longer than");
            assertThat(Duration.ofNanos(System.nanoTime() - start)).isLessThan(Duration.ofSeconds(5));
        }
    }

    @Test
    void aWrongSuffixIsSaid() {
        Directory wrong = new Directory(new DirectorySettings(ldif.directory().settings().url(), "dc=moon", Ldif.READER,
                "secret", 10, Duration.ofSeconds(2)));
        assertThatThrownBy(wrong::scan).isInstanceOf(DirectoryException.class);
    }

    @Test
    void settingsNeverShowThePassword() {
        assertThat(ldif.directory().settings().toString()).doesNotContain("secret");
    }

    @ParameterizedTest
    @ValueSource(strings = {"http://directory.example", "ldap:nowhere"})
    void anAddressThatIsNoneIsRefused(String url) {
        assertThatThrownBy(() -> new DirectorySettings(URI.create(url), BASE, "x", "y", 10, Duration.ofSeconds(1)))
                .isInstanceOf(IllegalArgumentException.class).hasMessageContaining("ldaps://directory.example:636");
    }
}
