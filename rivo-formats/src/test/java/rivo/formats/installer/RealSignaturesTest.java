package rivo.formats.installer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Enumeration;
import java.util.List;
import java.util.Random;
import java.util.function.UnaryOperator;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.formats.installer.FileSignature.State;
import rivo.formats.installer.TrustedRoots.Chain;

/** Files that the usual tools have signed: they hold, a changed byte shows, and the chain leads to roots that somebody trusts. */
class RealSignaturesTest {

    private static final Path SAMPLES = Path.of("..", "samples");
    private static final String SIGNED_MSIX = "kingfisher-meter-reader-6.2.0-x64.msix";

    @TempDir
    private static Path folder;
    private static Tools tools;

    @BeforeAll
    static void sign() throws Exception {
        tools = new Tools(folder);
        tools.certificate("root", "Fernhill Signing Authority", "", "", 3650);
        tools.certificate("maker", "Sallow & Finch", "root", "codeSigning", 365);
        tools.certificate("expired", "Sallow & Finch", "root", "codeSigning", -1);
        tools.certificate("mailer", "Sallow & Finch", "root", "emailProtection", 365);
        tools.certificate("stamps", "Fernhill Time", "root", "timeStamping", 3650);
        tools.program("plain.exe", "Sallow & Finch", "Tidewatch", "2.1.0");
        sign("plain.exe", "signed.exe", "maker", "-h sha256");
    }

    private static void sign(String file, String signed, String by, String more) throws Exception {
        tools.run("rm -f " + signed + " && osslsigncode sign -certs " + by + ".pem -key " + by + ".key -ac root.pem " + more + " -in " + file + " -out " + signed);
    }

    private static TrustedRoots roots(String... names) throws IOException {
        List<java.security.cert.X509Certificate> all = new java.util.ArrayList<>();
        for (String name : names) {
            all.addAll(TrustedRoots.certificates(Files.readAllBytes(folder.resolve(name + ".pem"))));
        }
        return new TrustedRoots(all);
    }

    private static FileSignature signature(String name) throws Exception {
        return tools.read(name).signature();
    }

    private static State with(String name, UnaryOperator<byte[]> change) throws Exception {
        Files.write(folder.resolve("other-" + name), change.apply(Files.readAllBytes(folder.resolve(name))));
        return signature("other-" + name).state();
    }

    private static UnaryOperator<byte[]> flipped(int at) {
        return bytes -> {
            bytes[at] ^= 1;
            return bytes;
        };
    }

    @Test
    void aSignedProgramHoldsAndItsChainLeadsToTheRoot() throws Exception {
        FileSignature signature = signature("signed.exe");
        assertThat(signature.state()).isEqualTo(State.HOLDS);
        assertThat(signature.signer()).isEqualTo("Sallow & Finch");
        assertThat(roots("root").judge(signature, Instant.now())).extracting(TrustedRoots.Judgement::chain, TrustedRoots.Judgement::root)
                .containsExactly(Chain.TRUSTED, "Fernhill Signing Authority");
        assertThat(roots("stamps").judge(signature, Instant.now()).chain()).isEqualTo(Chain.UNKNOWN);
        assertThat(roots().judge(signature, Instant.now()).chain()).isEqualTo(Chain.UNKNOWN);
        assertThat(roots("root").judge(signature, Instant.now().plus(Duration.ofDays(400))).chain()).isEqualTo(Chain.EXPIRED);
        assertThat(roots("root").judge(signature, Instant.now().minus(Duration.ofDays(400))).chain()).isEqualTo(Chain.EXPIRED);
        assertThat(signature("plain.exe").state()).isEqualTo(State.NONE);
    }

    /** Several in one text, as authorities publish theirs; one in DER; and what is none. */
    @Test
    void everyCertificateOfWhatIsGivenIsRead() throws Exception {
        tools.run("cat root.pem maker.pem stamps.pem > three.pem && openssl x509 -in stamps.pem -outform DER -out one.der && { cat root.pem; head -c 200 maker.pem; "
                + "printf -- '\\n-----END CERTIFICATE-----\\n'; } > broken.pem");
        assertThat(TrustedRoots.certificates(Files.readAllBytes(folder.resolve("three.pem")))).extracting(one -> one.getSubjectX500Principal().getName())
                .allMatch(name -> name.startsWith("CN=")).hasSize(3).doesNotHaveDuplicates();
        assertThat(TrustedRoots.certificates(Files.readAllBytes(folder.resolve("one.der")))).hasSize(1);
        assertThat(TrustedRoots.certificates(Files.readAllBytes(folder.resolve("broken.pem")))).as("all or none").isEmpty();
        assertThat(TrustedRoots.certificates(new byte[] {1, 2, 3})).isEmpty();
        assertThat(TrustedRoots.certificates(new byte[0])).isEmpty();
    }

    @Test
    void aRootThatWasRenewedIsFoundByItsKeyAndNotByItsNameAlone() throws Exception {
        tools.certificate("renewed", "Fernhill Signing Authority", "", "", 3650);
        assertThat(roots("renewed", "root").judge(signature("signed.exe"), Instant.now()).chain()).isEqualTo(Chain.TRUSTED);
        assertThat(roots("renewed").judge(signature("signed.exe"), Instant.now()).chain()).isEqualTo(Chain.UNKNOWN);
    }

    @Test
    void anyByteThatIsChangedShows() throws Exception {
        byte[] signed = Files.readAllBytes(folder.resolve("signed.exe"));
        long plain = Files.size(folder.resolve("plain.exe"));
        Random random = new Random(20261129);
        for (int i = 0; i < 40; i++) {
            // Behind the headers, whose damage may make it no program at all.
            int at = 1024 + random.nextInt((int) plain - 1024);
            assertThat(with("signed.exe", flipped(at))).as("byte %d", at).isEqualTo(State.CHANGED);
        }
        assertThat(with("signed.exe", bytes -> Arrays.copyOf(bytes, bytes.length + 8))).as("something behind it").isEqualTo(State.CHANGED);
        assertThat(with("signed.exe", flipped(signed.length - 300))).as("in the signature itself").isEqualTo(State.CHANGED);
        assertThat(InstallerReader.read(folder.resolve("other-signed.exe"), "x.exe").findings()).extracting(InstallerFile.Finding::code).contains("changed");
    }

    @Test
    void theChecksumIsNotSigned() throws Exception {
        int header = java.nio.ByteBuffer.wrap(Files.readAllBytes(folder.resolve("signed.exe"))).order(java.nio.ByteOrder.LITTLE_ENDIAN).getInt(0x3c);
        assertThat(with("signed.exe", flipped(header + 24 + 64))).isEqualTo(State.HOLDS);
    }

    @Test
    void aSignatureOfAnotherFileIsNone() throws Exception {
        tools.program("evil.exe", "Sallow & Finch", "Tidewatch", "2.1.1");
        tools.run("osslsigncode extract-signature -in signed.exe -out signed.p7 && rm -f moved.exe && osslsigncode attach-signature -sigin signed.p7 -in evil.exe -out moved.exe || true");
        if (Files.exists(folder.resolve("moved.exe"))) {
            assertThat(signature("moved.exe").state()).isEqualTo(State.CHANGED);
        }
    }

    @Test
    void aTimeStampTellsThatTheCertificateWasValidThen() throws Exception {
        Instant late = Instant.ofEpochSecond(Instant.now().plus(Duration.ofDays(400)).getEpochSecond());
        sign("plain.exe", "late.exe", "maker", "-h sha256 -TSA-certs stamps.pem -TSA-key stamps.key -TSA-time " + late.getEpochSecond());
        assertThat(roots("root").judge(signature("late.exe"), Instant.now())).as("it had run out when that was stamped")
                .isEqualTo(new TrustedRoots.Judgement(Chain.EXPIRED, "Fernhill Signing Authority", late));
        sign("plain.exe", "unstamped.exe", "expired", "-h sha256");
        assertThat(roots("root").judge(signature("unstamped.exe"), Instant.now()).chain()).isEqualTo(Chain.EXPIRED);
        sign("plain.exe", "later.exe", "maker", "-h sha256 -TSA-certs stamps.pem -TSA-key stamps.key");
        assertThat(roots("root").judge(signature("later.exe"), Instant.now().plus(Duration.ofDays(800))).chain()).as("long after it ran out").isEqualTo(Chain.TRUSTED);
        assertThat(roots("root").judge(signature("signed.exe"), Instant.now().plus(Duration.ofDays(800))).chain()).isEqualTo(Chain.EXPIRED);
    }

    @Test
    void aStampOfNobodyWhoIsTrustedTellsNothing() throws Exception {
        tools.certificate("stranger", "Stranger", "", "timeStamping", 3650);
        sign("plain.exe", "strange.exe", "maker", "-h sha256 -TSA-certs stranger.pem -TSA-key stranger.key");
        assertThat(signature("strange.exe").signedAt()).isNotNull();
        assertThat(roots("root").judge(signature("strange.exe"), Instant.now().plus(Duration.ofDays(800))).chain()).isEqualTo(Chain.EXPIRED);
    }

    @Test
    void aCertificateForSomethingElseSignsNoPrograms() throws Exception {
        sign("plain.exe", "mailed.exe", "mailer", "-h sha256");
        assertThat(signature("mailed.exe").state()).isEqualTo(State.HOLDS);
        assertThat(roots("root").judge(signature("mailed.exe"), Instant.now()).chain()).isEqualTo(Chain.UNKNOWN);
    }

    @Test
    void aWeakDigestIsSaidUnlessAStrongerIsThereToo() throws Exception {
        sign("plain.exe", "weak.exe", "maker", "-h sha1");
        sign("weak.exe", "both.exe", "maker", "-nest -h sha256");
        assertThat(tools.read("weak.exe").findings()).extracting(InstallerFile.Finding::code).contains("weak-signature");
        assertThat(signature("both.exe")).extracting(FileSignature::state, FileSignature::weakness).containsExactly(State.HOLDS, "");
        assertThat(with("both.exe", flipped(1500))).isEqualTo(State.CHANGED);
    }

    @Test
    void aSignedDatabaseHoldsAndAChangedOneDoesNot() throws Exception {
        Files.copy(SAMPLES.resolve("siltscope-lab-4.4.0-x64.msi"), folder.resolve("sample.msi"), StandardCopyOption.REPLACE_EXISTING);
        tools.run("rm -f bare.msi && osslsigncode remove-signature -in sample.msi -out bare.msi");
        assertThat(signature("bare.msi").state()).isEqualTo(State.NONE);
        sign("bare.msi", "signed.msi", "maker", "-h sha256");
        sign("bare.msi", "extended.msi", "maker", "-h sha256 -add-msi-dse");
        for (String name : List.of("signed.msi", "extended.msi")) {
            assertThat(signature(name)).as(name).extracting(FileSignature::state, FileSignature::signer).containsExactly(State.HOLDS, "Sallow & Finch");
            byte[] bytes = Files.readAllBytes(folder.resolve(name));
            int at = new String(bytes, StandardCharsets.ISO_8859_1).indexOf("Fenwick Instruments");
            assertThat(with(name, flipped(at))).as(name).isEqualTo(State.CHANGED);
        }
        // The time at which a stream was made is in the list of parts alone.
        byte[] bytes = Files.readAllBytes(folder.resolve("extended.msi"));
        String text = new String(bytes, StandardCharsets.ISO_8859_1);
        int name = text.indexOf("\u0005\0S\0u\0m\0m\0a\0r\0y");
        assertThat(with("extended.msi", flipped(name + 100))).isEqualTo(State.CHANGED);
        assertThat(signature("other-extended.msi").problem()).contains("list of parts");
    }

    @Test
    void aSignedPackageHoldsAndAnyFileThatIsChangedOrAddedShows() throws Exception {
        Path signed = SAMPLES.resolve(SIGNED_MSIX);
        assertThat(InstallerReader.read(signed, SIGNED_MSIX).signature().state()).isEqualTo(State.HOLDS);
        try (ZipFile zip = new ZipFile(signed.toFile())) {
            for (ZipEntry entry : java.util.Collections.list(zip.entries())) {
                if (!entry.getName().equals("AppxSignature.p7x") && !entry.getName().equals("AppxManifest.xml")) {
                    assertThat(rebuilt(zip, entry.getName(), "").signature().state()).as(entry.getName()).isEqualTo(State.CHANGED);
                }
            }
            assertThat(rebuilt(zip, "", "").signature().state()).as("packed anew, nothing changed").isEqualTo(State.HOLDS);
            // Another reader of the archive may see the other one of two files with one name.
            assertThat(rebuilt(zip, "", "reader%2Eexe").signature().problem()).endsWith("was changed after it was signed");
            assertThat(rebuilt(zip, "", "extra.dll").signature().problem()).isEqualTo("extra.dll was changed after it was signed");
        }
    }

    /** Anybody can put a signature that holds beside a list that unpacks to gigabytes. */
    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void aListThatUnpacksToFarMoreThanAnyHasIsNotRead(boolean liesAboutItsSize) throws Exception {
        Path file = folder.resolve("bomb.msix");
        try (ZipFile zip = new ZipFile(SAMPLES.resolve(SIGNED_MSIX).toFile()); ZipOutputStream to = new ZipOutputStream(Files.newOutputStream(file))) {
            for (String name : List.of("AppxManifest.xml", "AppxSignature.p7x", "[Content_Types].xml")) {
                to.putNextEntry(new ZipEntry(name));
                to.write(zip.getInputStream(zip.getEntry(name)).readAllBytes());
            }
            to.putNextEntry(new ZipEntry("AppxBlockMap.xml"));
            byte[] blanks = new byte[1 << 20];
            Arrays.fill(blanks, (byte) ' ');
            for (int i = 0; i < 64; i++) {
                to.write(blanks);
            }
        }
        byte[] bytes = Files.readAllBytes(file);
        int entry = new String(bytes, StandardCharsets.ISO_8859_1).lastIndexOf("AppxBlockMap.xml") - 46;
        if (liesAboutItsSize) {
            Arrays.fill(bytes, entry + 24, entry + 28, (byte) 0);
            bytes[entry + 25] = 1;
            Files.write(file, bytes);
        }
        assertThatThrownBy(() -> InstallerReader.read(file, "bomb.msix")).isInstanceOf(UnreadableInstallerException.class)
                .hasMessageContaining("AppxBlockMap.xml");
    }

    private static InstallerFile rebuilt(ZipFile zip, String changed, String added) throws Exception {
        Path file = folder.resolve("rebuilt.msix");
        try (OutputStream out = Files.newOutputStream(file, StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING); ZipOutputStream to = new ZipOutputStream(out)) {
            Enumeration<? extends ZipEntry> entries = zip.entries();
            while (entries.hasMoreElements()) {
                ZipEntry entry = entries.nextElement();
                to.putNextEntry(new ZipEntry(entry.getName()));
                try (InputStream in = zip.getInputStream(entry)) {
                    byte[] bytes = in.readAllBytes();
                    if (entry.getName().equals(changed)) {
                        bytes[bytes.length - 1] ^= 1;
                    }
                    to.write(bytes);
                }
            }
            if (!added.isEmpty()) {
                to.putNextEntry(new ZipEntry(added));
                to.write(1);
            }
        }
        return InstallerReader.read(file, "rebuilt.msix");
    }

    private static byte[] key() throws Exception {
        Files.createDirectories(folder.resolve("gpg"));
        tools.run("chmod 700 gpg && export GNUPGHOME=$PWD/gpg && (gpg --batch --list-keys packager@example.org >/dev/null 2>&1 || "
                + "gpg --batch --pinentry-mode loopback --passphrase '' --quick-gen-key 'Sallow Packager <packager@example.org>' rsa2048 sign never) && gpg --armor --export > packager.asc");
        return Files.readAllBytes(folder.resolve("packager.asc"));
    }

    private static FileSignature by(String name, byte[]... keys) throws Exception {
        return InstallerReader.read(folder.resolve(name), name, List.of(keys)).signature();
    }

    @Test
    void aSignedRpmPackageIsCheckedByTheKeyThatIsTrusted() throws Exception {
        byte[] key = key();
        Files.copy(SAMPLES.resolve("tidewatch-2.1.0-1.x86_64.rpm"), folder.resolve("t.rpm"), StandardCopyOption.REPLACE_EXISTING);
        tools.run("GNUPGHOME=$PWD/gpg rpmsign --define '__gpg /usr/bin/gpg' --define '_gpg_name packager@example.org' --addsign t.rpm");
        assertThat(by("t.rpm")).extracting(FileSignature::state, FileSignature::problem).containsExactly(State.NOT_CHECKED, "that key is not known here");
        assertThat(by("t.rpm", key)).extracting(FileSignature::state, FileSignature::signer).containsExactly(State.HOLDS, "Sallow Packager");
        byte[] bytes = Files.readAllBytes(folder.resolve("t.rpm"));
        Files.write(folder.resolve("changed.rpm"), flipped(bytes.length - 5).apply(bytes));
        assertThatThrownBy(() -> by("changed.rpm", key)).isInstanceOf(UnreadableInstallerException.class)
                .hasMessageContaining("its content is not as it was packed");
        assertThat(TrustedRoots.keyOwners(key)).isEqualTo("Sallow Packager");
    }

    @Test
    void aSignedDebianPackageIsCheckedByTheKeyThatIsTrusted() throws Exception {
        byte[] key = key();
        Files.copy(SAMPLES.resolve("tidewatch_2.1.0-1_amd64.deb"), folder.resolve("t.deb"), StandardCopyOption.REPLACE_EXISTING);
        tools.run("GNUPGHOME=$PWD/gpg debsigs --sign=origin -k packager@example.org t.deb");
        assertThat(by("t.deb").state()).isEqualTo(State.NOT_CHECKED);
        assertThat(by("t.deb", key)).extracting(FileSignature::state, FileSignature::signer).containsExactly(State.HOLDS, "Sallow Packager");
        byte[] bytes = Files.readAllBytes(folder.resolve("t.deb"));
        int data = new String(bytes, StandardCharsets.ISO_8859_1).indexOf("data.tar") + 80;
        Files.write(folder.resolve("changed.deb"), flipped(data).apply(bytes));
        assertThat(by("changed.deb", key).state()).isEqualTo(State.CHANGED);
    }

    /** As dpkg-sig, which Debian no longer has, wrote it. */
    @Test
    void aSignedListOfDigestsIsCheckedToo() throws Exception {
        byte[] key = key();
        tools.run("rm -rf parts && mkdir parts && cp " + SAMPLES.toAbsolutePath().resolve("tidewatch_2.1.0-1_amd64.deb") + " l.deb && cd parts && ar x ../l.deb && "
                + "{ echo 'Version: 4'; echo 'Signer: Sallow Packager'; echo 'Role: builder'; echo 'Files: '; for f in debian-binary control.tar* data.tar*; do "
                + "printf '\\t%s %s %s %s\\n' $(md5sum < $f | cut -d' ' -f1) $(sha1sum < $f | cut -d' ' -f1) $(stat -c %s $f) $f; done; } > list && "
                + "GNUPGHOME=$PWD/../gpg gpg --batch --yes --clearsign -o _gpgbuilder list && ar q ../l.deb _gpgbuilder");
        assertThat(by("l.deb", key)).extracting(FileSignature::state, FileSignature::signer).containsExactly(State.HOLDS, "Sallow Packager");
        byte[] bytes = Files.readAllBytes(folder.resolve("l.deb"));
        int data = new String(bytes, StandardCharsets.ISO_8859_1).indexOf("data.tar") + 80;
        Files.write(folder.resolve("changed-l.deb"), flipped(data).apply(bytes));
        assertThat(by("changed-l.deb", key).problem()).startsWith("data.tar").endsWith("was changed after it was signed");
    }
}
