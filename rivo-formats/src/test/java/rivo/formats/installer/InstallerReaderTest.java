package rivo.formats.installer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.formats.installer.InstallerFile.Finding;
import rivo.formats.installer.InstallerFile.Needed;

/** The samples are made by {@code samples/make.sh} with the real tools of each format. */
class InstallerReaderTest {

    private static final Path SAMPLES = Path.of("..", "samples");
    private static final String MSI = "siltscope-lab-4.4.0-x64.msi";
    private static final String EXE = "tarnlog-viewer-3.4.0-setup.exe";
    private static final String DEB = "tidewatch_2.1.0-1_amd64.deb";
    private static final String RPM = "tidewatch-2.1.0-1.x86_64.rpm";
    private static final String MSIX = "kingfisher-meter-reader-6.1.0-arm64.msix";

    private static final String PLAIN_ZIP = "plain.zip";
    private static final String TITLE_FILE = "title.rivo.zip";

    @TempDir
    private Path folder;

    private static InstallerFile sample(String name) throws Exception {
        return InstallerReader.read(SAMPLES.resolve(name), name);
    }

    private InstallerFile read(String name, byte[] bytes) throws Exception {
        Path file = folder.resolve("file");
        Files.write(file, bytes);
        return InstallerReader.read(file, name);
    }

    private static List<String> codes(InstallerFile file) {
        return file.findings().stream().map(Finding::code).toList();
    }

    @Test
    void aWindowsInstallerDatabaseTellsItsProduct() throws Exception {
        InstallerFile msi = sample(MSI);
        assertThat(msi.format()).isEqualTo(InstallerFormat.MSI);
        assertThat(List.of(msi.name(), msi.version(), msi.maker(), msi.architectures().get(0)))
                .containsExactly("Siltscope Lab", "4.4.0", "Fenwick Instruments", "x64");
        assertThat(msi.code()).isEqualTo("{5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F2}");
        assertThat(msi.family()).isEqualTo("{A7D3E6C4-1B52-4F0E-8C9D-6E2A5B3F4D10}");
    }

    @Test
    void aSignedDatabaseTellsItsSigner() throws Exception {
        InstallerFile msi = sample(MSI);
        assertThat(msi.signer()).isEqualTo("Delwick Packaging");
        assertThat(msi.signature().state()).isEqualTo(FileSignature.State.HOLDS);
        assertThat(codes(msi)).isEmpty();
    }

    @Test
    void aSetUpProgramTellsItsVersionResourceAndItsMake() throws Exception {
        InstallerFile exe = sample(EXE);
        assertThat(List.of(exe.name(), exe.version(), exe.maker(), exe.signer()))
                .containsExactly("Tarnlog Viewer", "3.4.0", "Tarnlog", "Tarnlog");
        assertThat(exe.kind()).isEqualTo(InstallerKind.NSIS);
        assertThat(exe.architectures()).as("a 32-bit stub says nothing of what it installs").isEmpty();
        assertThat(codes(exe)).isEmpty();
    }

    @Test
    void aDebianPackageTellsItsControlFile() throws Exception {
        InstallerFile deb = sample(DEB);
        assertThat(List.of(deb.name(), deb.version(), deb.maker(), deb.architectures().get(0), deb.code()))
                .containsExactly("Tidewatch", "2.1.0", "Sallow & Finch", "x64", "tidewatch");
        assertThat(deb.needs()).containsExactly(new Needed("graphkit-runtime", "2.3"), new Needed("libc6", null));
        assertThat(deb.description()).isEqualTo("Tidewatch tide and level charts");
    }

    @Test
    void anRpmPackageTellsItsHeader() throws Exception {
        InstallerFile rpm = sample(RPM);
        assertThat(List.of(rpm.name(), rpm.version(), rpm.maker(), rpm.architectures().get(0), rpm.code()))
                .containsExactly("Tidewatch", "2.1.0", "Sallow & Finch", "x64", "tidewatch");
        assertThat(rpm.needs()).containsExactly(new Needed("graphkit-runtime", "2.3"));
    }

    @Test
    void anMsixPackageTellsItsManifest() throws Exception {
        InstallerFile msix = sample(MSIX);
        assertThat(List.of(msix.name(), msix.version(), msix.maker(), msix.architectures().get(0), msix.code()))
                .containsExactly("Kingfisher Meter Reader", "6.1.0", "Kingfisher Metering", "arm64",
                        "KingfisherMetering.MeterReader");
        assertThat(msix.minimumSystem()).isEqualTo("10.0.19045.0");
        assertThat(msix.needs()).containsExactly(new Needed("Ardley.GraphkitRuntime", "2.4.0"));
        assertThat(codes(msix)).containsExactly("unsigned");
    }

    @Test
    void aSignedMsixPackageTellsItsSigner() throws Exception {
        InstallerFile msix = sample("kingfisher-meter-reader-6.2.0-x64.msix");
        assertThat(List.of(msix.version(), msix.architectures().get(0), msix.signer())).containsExactly("6.2.0", "x64",
                "Kingfisher Metering");
        assertThat(codes(msix)).isEmpty();
    }

    @Test
    void aBundleOfPackagesTellsItsOwnManifest() throws Exception {
        InstallerFile bundle = read("a.msixbundle", zip("AppxMetadata/AppxBundleManifest.xml", """
                <Bundle xmlns="http://schemas.microsoft.com/appx/2013/bundle" SchemaVersion="4.0">
                  <Identity Name="KingfisherMetering.MeterReader" Publisher="O=Kingfisher Metering" Version="2026.1123.4.0"/>
                  <Packages><Package Type="application" Version="6.2.0.0" Architecture="x64" FileName="a.msix"/></Packages>
                </Bundle>""".getBytes(StandardCharsets.UTF_8)));
        assertThat(bundle.format()).isEqualTo(InstallerFormat.MSIX);
        assertThat(List.of(bundle.code(), bundle.version(), bundle.maker())).containsExactly("KingfisherMetering.MeterReader",
                "6.2.0", "Kingfisher Metering");
        assertThat(bundle.architectures()).containsExactly("x64");
        assertThat(codes(bundle)).containsExactly("bundle-only", "unsigned");
    }

    @Test
    void aDebianPackageMayBePackedWithZstandard() throws Exception {
        InstallerFile deb = sample("tidewatch_2.2.0-1_amd64.deb");
        assertThat(List.of(deb.name(), deb.version(), deb.architectures().get(0))).containsExactly("Tidewatch", "2.2.0", "x64");
    }

    /** Where the sectors of a compound file lead ([MS-CFB], section 2.3): each entry of its tables is made to lead as told. */
    private static byte[] sectorsLeading(java.util.function.IntUnaryOperator to) throws IOException {
        java.nio.ByteBuffer file = java.nio.ByteBuffer.wrap(Files.readAllBytes(SAMPLES.resolve(MSI)))
                .order(java.nio.ByteOrder.LITTLE_ENDIAN);
        int sector = 1 << file.getShort(30);
        for (int table = 0; table < file.getInt(44); table++) {
            int at = (file.getInt(76 + 4 * table) + 1) * sector;
            for (int i = 0; i < sector / 4; i++) {
                file.putInt(at + 4 * i, to.applyAsInt(table * (sector / 4) + i));
            }
        }
        return file.array();
    }

    @Test
    void sectorsThatLeadInCirclesEndSoonAndInWords() {
        List<java.util.function.IntUnaryOperator> circles = List.of(own -> own, own -> 0, own -> own ^ 1, own -> own == 0 ? 40 : own - 1,
                own -> 0x7ffffff0, own -> -own);
        for (java.util.function.IntUnaryOperator circle : circles) {
            Assertions.assertTimeout(Duration.ofSeconds(10), () -> assertThatThrownBy(() -> read(MSI, sectorsLeading(circle)))
                    .isInstanceOf(UnreadableInstallerException.class).hasMessageContaining(MSI));
        }
    }

    @Test
    void absurdCountsInACompoundFileEndSoonAndInWords() {
        for (int field : new int[] {44, 64, 72, 48, 60, 68}) {
            Assertions.assertTimeout(Duration.ofSeconds(10), () -> {
                java.nio.ByteBuffer file = java.nio.ByteBuffer.wrap(Files.readAllBytes(SAMPLES.resolve(MSI)))
                        .order(java.nio.ByteOrder.LITTLE_ENDIAN);
                file.putInt(field, 0x7fffffff);
                try {
                    read(MSI, file.array());
                } catch (UnreadableInstallerException e) {
                    assertThat(e.getMessage()).as("field at " + field).contains(MSI);
                }
            });
        }
    }

    @Test
    void theContentDecidesAndNotTheName() throws Exception {
        InstallerFile disguised = InstallerReader.read(SAMPLES.resolve(DEB), "harmless.msi");
        assertThat(disguised.format()).isEqualTo(InstallerFormat.DEB);
        assertThat(codes(disguised)).containsExactly("not-what-it-says");
        assertThat(disguised.findings().get(0).sentence()).isEqualTo("The name says a Windows Installer database, the "
                + "content is a Debian package. Ask where it came from before you use it.");
    }

    @Test
    void scriptsAndStrangeFilesAreTakenForWhatTheyAre() throws Exception {
        assertThat(sample("set-proxy-for-vans.sh").format()).isEqualTo(InstallerFormat.SHELL_SCRIPT);
        assertThat(read("x.bin", new byte[] {1, 2, 3, 0, 5}).format()).isEqualTo(InstallerFormat.OTHER);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"#!/bin/sh\\necho|x|SHELL_SCRIPT", "#!/usr/bin/env bash\\n|x.sh|BASH_SCRIPT", "#! /usr/bin/python3.11 -u\\n|x|PYTHON_SCRIPT",
        "#!/usr/bin/env -S perl -w\\n|x.cgi|PERL_SCRIPT", "#!/usr/bin/env pwsh\\n|x|POWERSHELL_SCRIPT", "#!/usr/bin/ruby\\n|x.sh|OTHER", "Write-Host 1|x.ps1|POWERSHELL_SCRIPT",
        "@echo off|X.CMD|BATCH_FILE", "echo 1|x.sh|SHELL_SCRIPT", "print(1)|x.py|PYTHON_SCRIPT", "echo 1|x|OTHER", "Dear all,|letter.txt|OTHER", "a|x.sh|OTHER",
        "<!DOCTYPE html><p>404|x.sh|OTHER", "<?xml version='1.0'?>|x.ps1|OTHER", "{ \"error\": 1 }|x.sh|OTHER", "{ echo 1; }|x.sh|SHELL_SCRIPT"})
    void aScriptIsRunByWhatItsFirstLineNamesElseByItsEnding(String text, String name, InstallerFormat format) throws Exception {
        assertThat(read(name, text.replace("\\n", "\n").getBytes(StandardCharsets.UTF_8)).format()).isEqualTo(format);
    }

    @Test
    void aScriptThatIsNamedForAnotherShellIsNoDisguise() throws Exception {
        assertThat(codes(read("x.sh", "#!/bin/bash\n".getBytes(StandardCharsets.UTF_8)))).isEmpty();
        assertThat(codes(read("x.sh", "<!DOCTYPE html>".getBytes(StandardCharsets.UTF_8)))).containsExactly("not-what-it-says");
    }

    @Test
    void scriptsAreReadInTheEncodingsThatTheyAreWrittenIn() throws Exception {
        assertThat(read("x.ps1", "\uFEFFWrite-Host 1".getBytes(StandardCharsets.UTF_16LE)).format()).isEqualTo(InstallerFormat.POWERSHELL_SCRIPT);
        assertThat(read("x.ps1", "\uFEFFWrite-Host 1".getBytes(StandardCharsets.UTF_16BE)).format()).isEqualTo(InstallerFormat.POWERSHELL_SCRIPT);
        assertThat(read("x.sh", "\uFEFF#!/bin/bash\n".getBytes(StandardCharsets.UTF_8)).format()).isEqualTo(InstallerFormat.BASH_SCRIPT);
        assertThat(read("x.bat", new byte[] {'r', 'e', 'm', ' ', (byte) 0x81, (byte) 0x9a, (byte) 0xff}).format()).isEqualTo(InstallerFormat.BATCH_FILE);
        assertThat(read("x.bat", new byte[] {'r', 'e', 'm', 0, 1}).format()).isEqualTo(InstallerFormat.OTHER);
    }

    @Test
    void whatAShellWouldReadIsNoCode() {
        InstallerFile told = InstallerFile.of(InstallerFormat.DEB).name("Tide\u0000watch\u202e ").version("2.1; reboot").maker(" ")
                .architecture("x64").architecture("x64\" or 1").code("tidewatch; rm -rf /").family("{5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F2}")
                .needs(List.of(new Needed("$(reboot)", null), new Needed("graphkit", "2.3", List.of(new Needed("a`b", null)))))
                .part(new InstallerFile.Part("Main", "Main \u202epart", true, true)).part(new InstallerFile.Part("a&b", "x", true, true))
                .setting(new InstallerFile.Setting("ICON", "1")).setting(new InstallerFile.Setting("KEY", "a\" & reboot"))
                .replaces("{5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F2}").replaces("{x}").fact("Language", "\u0000").fact("Language", "Welsh\u0007")
                .inside(new InstallerFile.Inside("a`reboot`.msi", InstallerFile.of(InstallerFormat.MSI).build())).build();
        InstallerFile tidied = Tidied.of(told);
        assertThat(tidied.name()).isEqualTo("Tide watch");
        assertThat(tidied.version()).isNull();
        assertThat(tidied.maker()).isNull();
        assertThat(tidied.code()).isNull();
        assertThat(tidied.family()).isEqualTo("{5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F2}");
        assertThat(tidied.needs()).containsExactly(new Needed("graphkit", "2.3"));
        assertThat(tidied.architectures()).containsExactly("x64");
        assertThat(tidied.parts()).containsExactly(new InstallerFile.Part("Main", "Main  part", true, true));
        assertThat(tidied.settings()).extracting(InstallerFile.Setting::name).containsExactly("ICON");
        assertThat(tidied.replaces()).containsExactly("{5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F2}");
        assertThat(tidied.facts()).containsExactly(new InstallerFile.Fact("Language", "Welsh"));
        assertThat(tidied.inside()).isNull();
    }

    @Test
    void anEmptyFileIsRefused() {
        assertThatThrownBy(() -> read("setup.exe", new byte[0])).isInstanceOf(UnreadableInstallerException.class)
                .hasMessage("setup.exe is empty; fetch it anew from where it came from.");
    }

    @ParameterizedTest
    @ValueSource(strings = {"../../etc/passwd", "/etc/passwd", "C:\\Windows\\x.dll", "C:x.dll", "a/../../b", "..\\x.dll", "a\\..\\..\\x.dll",
        "\\\\server\\share\\x.dll", "\\x.dll", "..", "a/..", "a\\.."})
    void anArchiveThatReachesOutsideIsRefused(String entry) {
        assertThatThrownBy(() -> read("a.zip", zip(entry, "x".getBytes(StandardCharsets.UTF_8))))
                .isInstanceOf(UnreadableInstallerException.class).hasMessageContaining("outside the folder");
    }

    @ParameterizedTest
    @ValueSource(strings = {"a/b.txt", "a\\b.txt", "..a/b", "a../b", "a/...", "a..b", ".../x", "a/.b", "ab:c", "12:30 notes", "1:x", "."})
    void aNameWithDotsThatStaysInsideIsTaken(String entry) throws Exception {
        assertThat(read("a.zip", zip(entry, "x".getBytes(StandardCharsets.UTF_8))).format().name()).isEqualTo("ZIP");
    }

    @Test
    void aManifestOfManyTimesItsSizeIsNotUnpacked() {
        assertThatThrownBy(() -> read("a.msix", zip("AppxManifest.xml", new byte[50 << 20])))
                .isInstanceOf(UnreadableInstallerException.class).hasMessageContaining("longer than 256 KiB");
    }

    @Test
    void aManifestMayNotBringEntities() {
        String xml = "<?xml version='1.0'?><!DOCTYPE x [<!ENTITY a SYSTEM 'file:///etc/passwd'>]><Package>&a;</Package>";
        assertThatThrownBy(() -> read("a.msix", zip("AppxManifest.xml", xml.getBytes(StandardCharsets.UTF_8))))
                .isInstanceOf(UnreadableInstallerException.class).hasMessageContaining("its manifest is no XML");
    }

    @Test
    void anArchiveThatWouldFillTheDiskIsRefused() throws Exception {
        byte[] bomb = zip("a.bin", new byte[10]);
        // The size that the central directory tells: at 24 from its mark.
        for (int i = 0; i + 4 < bomb.length; i++) {
            if (bomb[i] == 'P' && bomb[i + 1] == 'K' && bomb[i + 2] == 1 && bomb[i + 3] == 2) {
                Arrays.fill(bomb, i + 24, i + 27, (byte) 0xff);
                bomb[i + 27] = 0x7f;
            }
        }
        assertThatThrownBy(() -> read("a.zip", bomb)).isInstanceOf(UnreadableInstallerException.class)
                .hasMessageContaining("times its size");
    }

    private static byte[] zip(String entry, byte[] content) throws IOException {
        var bytes = new java.io.ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
            ZipEntry one = new ZipEntry(entry);
            CRC32 crc = new CRC32();
            crc.update(content);
            zip.putNextEntry(one);
            zip.write(content);
            zip.closeEntry();
        }
        return bytes.toByteArray();
    }

    @ParameterizedTest
    @ValueSource(strings = {MSI, EXE, DEB, RPM, MSIX, PLAIN_ZIP, TITLE_FILE})
    void whateverIsCutOffOrDamagedEndsSoonAndInWords(String name) throws Exception {
        byte[] whole = seed(name);
        long seed = 20261123;
        Random random = new Random(seed);
        for (int i = 0; i < Integer.getInteger("rivo.damaged-files", 1500); i++) {
            byte[] damaged = i % 3 == 0 ? Arrays.copyOf(whole, random.nextInt(whole.length)) : whole.clone();
            for (int flips = i % 3 == 0 ? 0 : 1 + random.nextInt(12); flips > 0; flips--) {
                int within = random.nextBoolean() ? Math.min(damaged.length, 4096) : damaged.length;
                damaged[random.nextInt(within)] = (byte) (random.nextInt(4) == 0 ? 0xff : random.nextInt(256));
            }
            int number = i;
            HostileFilesTest.Cost cost = HostileFilesTest.Cost.of(() -> {
                try {
                    read(name, damaged);
                } catch (UnreadableInstallerException e) {
                    assertThat(e.getMessage()).as("seed " + seed + ", case " + number).isNotBlank();
                }
            });
            assertThat(cost.time()).as("seed " + seed + ", case " + number).isLessThan(Duration.ofSeconds(6));
            assertThat(cost.allocated()).as("seed " + seed + ", case " + number).isLessThan(ReadingBudget.MOST_MEMORY);
        }
    }

    private static byte[] seed(String name) throws IOException {
        return switch (name) {
            case PLAIN_ZIP -> zip("folder/readme.txt", "a text, and more of it".getBytes(StandardCharsets.UTF_8));
            case TITLE_FILE -> zip("manifest.json", "{\"format\":\"rivo-title\",\"formatVersion\":1}".getBytes(StandardCharsets.UTF_8));
            default -> Files.readAllBytes(SAMPLES.resolve(name));
        };
    }

    @ParameterizedTest
    @CsvSource({"Fenwick Instruments Ltd., Fenwick Instruments, true", "'Fenwick, Inc.', FENWICK, true", "Gauge B.V., Gauge, true", "Sallow & Finch, Sallow and Finch GmbH & Co. KG, true",
        "Fenwick, Fenwick Instruments, false", "Fenwick Instruments, Fenwick Instrumentation, false", "Delwick Packaging, Fenwick Instruments, false", "'', Fenwick, false",
        "Co, Co Ltd, true", "Ltd, Inc, false"})
    void organisationsAreComparedWordByWordWithoutTheirForms(String one, String other, boolean same) {
        assertThat(Organisations.same(one, other)).isEqualTo(same);
        assertThat(Organisations.same(other, one)).isEqualTo(same);
    }
}
