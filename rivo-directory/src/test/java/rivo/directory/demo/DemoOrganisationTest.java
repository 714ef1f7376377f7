package rivo.directory.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.directory.Directory;
import rivo.directory.DirectoryException;
import rivo.directory.DirectoryPicture;
import rivo.directory.DirectorySettings;

class DemoOrganisationTest {

    @TempDir
    private Path folder;

    private Path ldif(boolean small) throws IOException {
        Path file = folder.resolve("directory.ldif");
        DemoLdif.write(new DemoOrganisation(small), file, "heron", "reads");
        return file;
    }

    private static Directory directory(URI url) {
        return new Directory(new DirectorySettings(url, DemoOrganisation.BASE_DN, DemoOrganisation.READER_DN, "reads",
                5000, Duration.ofSeconds(10)));
    }

    @Test
    void itIsTheSameOnEveryRun() throws IOException {
        List<String> one = Files.readAllLines(ldif(true));
        assertThat(Files.readAllLines(ldif(true))).isEqualTo(one);
    }

    /** Data folders of the demo hold assignments to its groups, OUs and devices by their ids: who changes the organisation should mean to. */
    @Test
    void itIsTheSameInEveryVersion() throws Exception {
        assertThat(hash(ldif(true))).isEqualTo("68cc53cc8f6609ac92d76c60435985860045e911c5f3ff8dda6de3eb45a4e9ec");
        assertThat(hash(ldif(false))).isEqualTo("0ac319a3594f07d307a81aad2d0af9ba0cdaae232b6f577b58718c5f62ab25c4");
    }

    private static String hash(Path file) throws Exception {
        return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(Files.readAllBytes(file)));
    }

    @Test
    void theSmallOneHasSixtyDevicesAndTheFullOneThoseOfTheCompany() {
        assertThat(new DemoOrganisation(true).computers()).hasSize(60);
        assertThat(new DemoOrganisation(false).computers()).hasSize(6480);
        assertThat(new DemoOrganisation(false).people()).hasSizeBetween(6700, 7200);
    }

    @Test
    void whoeverItTellsOfIsThereOnceAndMaySignIn() {
        for (boolean small : List.of(true, false)) {
            DemoOrganisation organisation = new DemoOrganisation(small);
            List<String> accounts = organisation.people().stream().map(DemoOrganisation.Person::account).toList();
            assertThat(new HashSet<>(accounts)).as("small: " + small).hasSameSizeAs(accounts);
            assertThat(accounts.stream().filter(DemoOrganisation::mayBeTried)).containsExactlyInAnyOrder("imara.voss", "rowena.elmby", "mirko.colddale",
                    "imke.craneham", "odile.quarrycombe");
        }
        DemoOrganisation full = new DemoOrganisation(false);
        assertThat(full.computers().stream().filter(one -> one.owners().stream().anyMatch(owner -> owner.account().equals("imke.craneham")))).hasSize(2);
        assertThat(full.computers().stream().filter(one -> one.name().equals("QB-LAB-014")).findFirst().orElseThrow().owners().get(0).account())
                .isEqualTo("rowena.elmby");
        assertThat(full.computers().stream().filter(one -> one.owners().stream().anyMatch(owner -> owner.account().equals("mirko.colddale")))
                .findFirst().orElseThrow().owners()).hasSize(3);
    }

    @Test
    void idsAndNamesAreUnique() {
        DemoOrganisation organisation = new DemoOrganisation(false);
        List<String> ids = Stream.of(organisation.ous().stream().map(DemoOrganisation.DemoOu::id),
                organisation.people().stream().map(DemoOrganisation.Person::id),
                organisation.computers().stream().map(DemoOrganisation.Computer::id),
                organisation.groups().stream().map(DemoOrganisation.Group::id)).flatMap(s -> s).toList();
        assertThat(new HashSet<>(ids)).hasSameSizeAs(ids);
        List<String> names = organisation.computers().stream().map(DemoOrganisation.Computer::name).toList();
        assertThat(new HashSet<>(names)).hasSameSizeAs(names);
    }

    @Test
    void theEmbeddedDirectoryServesAllOfIt() throws IOException {
        try (EmbeddedDirectory directory = EmbeddedDirectory.start(ldif(true), 0)) {
            DirectoryPicture picture = directory(directory.url()).scan();
            assertThat(picture.computers()).hasSize(60);
            assertThat(picture.notes()).isEmpty();
            assertThat(picture.ous()).anyMatch(ou -> ou.name().equals("Quillbrook Water"))
                    .anyMatch(ou -> ou.name().equals("Reservoirs, planned"));
            assertThat(directory(directory.url()).signIn(DemoOrganisation.ADMINISTRATOR, "heron")).isPresent();
        }
    }

    @Test
    void aLineThatDoesNotParseIsNamed() throws IOException {
        Path file = ldif(true);
        List<String> lines = Files.readAllLines(file);
        lines.set(10, "this is no LDIF");
        Files.write(file, lines);
        assertThatThrownBy(() -> EmbeddedDirectory.start(file, 0)).isInstanceOf(DirectoryException.class)
                .hasMessageContaining("directory.ldif, line ").hasMessageContaining("--fresh");
    }

    @Test
    void aFileThatIsNotThereIsSaid() {
        assertThatThrownBy(() -> EmbeddedDirectory.start(folder.resolve("none.ldif"), 0))
                .isInstanceOf(DirectoryException.class).hasMessageContaining("none.ldif");
    }

    @Test
    void theSchemaRefusesWhatItDoesNotKnow() throws IOException {
        Path file = ldif(true);
        Files.writeString(file, Files.readString(file) + "\ndn: cn=odd," + DemoOrganisation.BASE_DN
                + "\nobjectClass: moonware\ncn: odd\n");
        assertThatThrownBy(() -> EmbeddedDirectory.start(file, 0)).isInstanceOf(DirectoryException.class)
                .hasMessageContaining("Mend the file");
    }
}
