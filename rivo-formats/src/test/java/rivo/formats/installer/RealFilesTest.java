package rivo.formats.installer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rivo.formats.installer.InstallerFile.Fact;
import rivo.formats.installer.InstallerFile.Finding;
import rivo.formats.installer.InstallerFile.Needed;
import rivo.formats.installer.InstallerFile.Part;
import rivo.formats.installer.InstallerFile.Setting;

/** Files that the usual tools make, and programs of well-known packages. */
class RealFilesTest {

    @TempDir
    private static Path folder;
    private static Tools tools;
    private static Path programs;

    @BeforeAll
    static void make() throws Exception {
        tools = new Tools(folder);
        programs = Tools.realPrograms();
        tools.program("gauge.exe", "Sallow & Finch", "Tidewatch", "2.1.0");
        tools.run("x86_64-w64-mingw32-gcc -o console.exe main.c && x86_64-w64-mingw32-gcc -shared -o library.dll main.c");
    }

    private static List<String> codes(InstallerFile file) {
        return file.findings().stream().map(Finding::code).toList();
    }

    private static String fact(InstallerFile file, String what) {
        return file.facts().stream().filter(one -> one.what().equals(what)).map(Fact::value).findFirst().orElse("");
    }

    @Test
    void whatACompilerMakesIsNoSetUpProgram() throws Exception {
        InstallerFile program = tools.read("gauge.exe");
        assertThat(List.of(program.name(), program.version(), program.maker(), program.architectures().get(0))).containsExactly("Tidewatch", "2.1.0", "Sallow & Finch", "x64");
        assertThat(codes(program)).containsExactly("unsigned", "unknown-make");
        assertThat(tools.read("console.exe").findings().get(0).sentence()).contains("a console program");
        assertThat(tools.read("library.dll").findings().get(0).sentence()).contains("a library");
        assertThat(tools.read("library.dll").version()).isNull();
    }

    @ParameterizedTest
    @CsvSource({"'', true", "RequestExecutionLevel user, false"})
    void anNsisSetUpProgramIsToldWithTheLevelThatItAsksFor(String line, boolean perMachine) throws Exception {
        tools.write("set-up.nsi", "Name \"Tidewatch\"\nOutFile \"set-up.exe\"\n" + line + "\nInstallDir \"$PROGRAMFILES\\Tidewatch\"\nVIProductVersion \"2.1.0.0\"\n"
                + "VIAddVersionKey ProductName \"Tidewatch\"\nVIAddVersionKey ProductVersion \"2.1.0\"\nSection\nSetOutPath \"$INSTDIR\"\nFile gauge.exe\nWriteUninstaller \"$INSTDIR\\u.exe\"\n"
                + "SectionEnd\nSection Uninstall\nSectionEnd\n");
        tools.run("makensis -V1 set-up.nsi");
        InstallerFile setUp = tools.read("set-up.exe");
        assertThat(setUp.kind()).isEqualTo(InstallerKind.NSIS);
        assertThat(setUp.perMachine()).isEqualTo(perMachine);
        assertThat(List.of(setUp.name(), setUp.version())).containsExactly("Tidewatch", "2.1.0");
        assertThat(codes(setUp)).containsExactly("unsigned");
    }

    /** Programs, libraries and tools of well-known packages: none is taken for a set-up program, and each tells what its own resource says. */
    @Test
    void realProgramsAreWhatTheyAre() throws Exception {
        int seen = 0;
        List<Path> all;
        try (Stream<Path> files = Files.walk(programs)) {
            all = files.filter(file -> file.toString().matches(".*\\.(exe|dll)")).toList();
        }
        for (Path file : all) {
            InstallerFile read = InstallerReader.read(file, file.getFileName().toString());
            assertThat(read.format()).as("%s", file).isEqualTo(InstallerFormat.EXE);
            assertThat(read.kind()).as("%s", file).isEqualTo(InstallerKind.UNKNOWN);
            assertThat(read.signature().state()).as("%s", file).isIn(FileSignature.State.NONE, FileSignature.State.HOLDS);
            assertThat(codes(read)).as("%s", file).containsAnyOf("no-set-up", "unknown-make");
            seen++;
        }
        assertThat(seen).isGreaterThanOrEqualTo(8);
        InstallerFile signtool = InstallerReader.read(programs.resolve("@electron/windows-sign/vendor/signtool.exe"), "signtool.exe");
        assertThat(List.of(signtool.maker(), signtool.signer())).allMatch(name -> name.startsWith("Microsoft"));
        assertThat(signtool.signature().state()).isEqualTo(FileSignature.State.HOLDS);
        assertThat(signtool.signature().signedAt()).isNotNull();
    }

    private static final String WIX = """
            <?xml version="1.0" encoding="utf-8"?>
            <Wix xmlns="http://schemas.microsoft.com/wix/2006/wi">
              <Product Id="{5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F3}" Name="Sluice Suite" Language="2057" Version="3.2.1" Manufacturer="Fenwick Instruments"
                  UpgradeCode="{A7D3E6C4-1B52-4F0E-8C9D-6E2A5B3F4D11}">
                <Package InstallerVersion="500" Compressed="yes" InstallScope="%s" Description="Sluices" />
                <Media Id="1" Cabinet="a.cab" EmbedCab="yes" />
                <Property Id="DESKTOPICON" Value="1" /><Property Id="SERVERNAME" Value="tarn" /><Property Id="HELPMENU" Value="0" />
                <Condition Message="It needs Windows 10.">VersionNT &gt;= 603</Condition>
                <Upgrade Id="{A7D3E6C4-1B52-4F0E-8C9D-6E2A5B3F4D10}"><UpgradeVersion Minimum="1.0.0" Maximum="9.0.0" Property="CLASSICFOUND" /></Upgrade>
                <Upgrade Id="{A7D3E6C4-1B52-4F0E-8C9D-6E2A5B3F4D12}"><UpgradeVersion Minimum="1.0.0" OnlyDetect="yes" Property="OTHERFOUND" /></Upgrade>
                <Directory Id="TARGETDIR" Name="SourceDir"><Directory Id="ProgramFilesFolder"><Directory Id="INSTALLDIR" Name="Sluice">
                  <Component Id="A" Guid="{0E6F1D5B-93C7-4B7A-A0D8-27C5B1E94F34}"><File Id="F" Source="gauge.exe" KeyPath="yes" /></Component>
                </Directory></Directory></Directory>
                <Feature Id="Main" Title="The suite" Level="1"><ComponentRef Id="A" /></Feature>
                <Feature Id="Samples" Title="Sample data" Level="1000"></Feature>
                <Feature Id="Inner" Level="1" Display="hidden"></Feature>
              </Product>
            </Wix>""";

    @Test
    void aDatabaseTellsItsPartsSettingsAndWhatItReplaces() throws Exception {
        tools.write("suite.wxs", WIX.formatted("perMachine"));
        tools.run("rm -f suite.msi && wixl -o suite.msi suite.wxs");
        InstallerFile suite = tools.read("suite.msi");
        assertThat(List.of(suite.name(), suite.version(), suite.architectures().get(0))).containsExactly("Sluice Suite", "3.2.1", "x86");
        assertThat(suite.perMachine()).isTrue();
        assertThat(suite.parts()).contains(new Part("Main", "The suite", true, true), new Part("Samples", "Sample data", false, true));
        assertThat(suite.parts()).filteredOn(part -> part.id().equals("Inner")).extracting(Part::shown).containsExactly(false);
        assertThat(suite.settings()).containsExactly(new Setting("DESKTOPICON", "1"), new Setting("HELPMENU", "0"), new Setting("SERVERNAME", "tarn"));
        assertThat(suite.replaces()).containsExactly("{A7D3E6C4-1B52-4F0E-8C9D-6E2A5B3F4D10}");
        assertThat(fact(suite, "Installs only where")).isEqualTo("It needs Windows 10.");
    }

    @Test
    void aDatabaseWithoutAllUsersIsForOnePerson() throws Exception {
        tools.write("own.wxs", WIX.formatted("perUser"));
        tools.run("rm -f own.msi && wixl -o own.msi own.wxs");
        assertThat(tools.read("own.msi").perMachine()).isFalse();
    }

    /** The tables of a database, and its summary, are changed with Debian's msibuild. */
    @ParameterizedTest
    @CsvSource({"1, '', true", "2, '', true", "2, 1, false", "'', '', false", "'', 1, false"})
    void whomItIsForIsAsTheDocumentationDefinesIt(String allUsers, String perUser, boolean perMachine) throws Exception {
        tools.write("own.wxs", WIX.formatted("perUser"));
        tools.run("rm -f own.msi && wixl -o own.msi own.wxs");
        if (!allUsers.isEmpty()) {
            tools.run("msibuild own.msi -q \"INSERT INTO \\`Property\\` (\\`Property\\`, \\`Value\\`) VALUES ('ALLUSERS', '" + allUsers + "')\"");
        }
        if (!perUser.isEmpty()) {
            tools.run("msibuild own.msi -q \"INSERT INTO \\`Property\\` (\\`Property\\`, \\`Value\\`) VALUES ('MSIINSTALLPERUSER', '" + perUser + "')\"");
        }
        assertThat(tools.read("own.msi").perMachine()).isEqualTo(perMachine);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"x64;1033|x64|English (United States)", "Intel;1031,1036|x86|German (Germany), French (France)", "Arm64;0|arm64|", "Arm;1033|arm|English (United States)",
        "Intel64;1033|ia64|English (United States)", ";1033|x86|English (United States)", "AMD64;1033|x64|English (United States)"})
    void theTemplateSaysTheArchitectureAndTheLanguages(String template, String architecture, String language) throws Exception {
        tools.write("own.wxs", WIX.formatted("perUser"));
        tools.run("rm -f own.msi && wixl -o own.msi own.wxs && msibuild own.msi -s 'Sluice Suite' 'Fenwick' '" + template + "' '{5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F3}'");
        InstallerFile own = tools.read("own.msi");
        assertThat(own.architectures()).containsExactly(architecture);
        assertThat(fact(own, "Language")).isEqualTo(language == null ? "" : language);
    }

    /** As a database packs the names of its tables: two letters into one character. */
    private static String packed(String table) {
        String letters = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz._";
        StringBuilder name = new StringBuilder("\u4840");
        for (int i = 0; i < table.length(); i += 2) {
            int first = letters.indexOf(table.charAt(i));
            name.append((char) (i + 1 < table.length() ? 0x3800 + first + (letters.indexOf(table.charAt(i + 1)) << 6) : 0x4800 + first));
        }
        return name.toString();
    }

    @ParameterizedTest
    @CsvSource({"1361, x-Johab, \uc218\ubb38\uc81c\uc5b4\uad00\ub9ac", "932, windows-31j, \u6c34\u9580\u5236\u5fa1\u7ba1\u7406", "1252, windows-1252, Schl\u00fcssel \u00e4\u00f6"})
    void textsAreReadInTheCodePageOfTheDatabase(int codepage, String charset, String name) throws Exception {
        tools.write("own.wxs", WIX.formatted("perUser"));
        tools.run("rm -f paged.msi && wixl -o paged.msi own.wxs");
        byte[] other = name.getBytes(Charset.forName(charset));
        assertThat(other).hasSameSizeAs("Sluice Suite".getBytes(StandardCharsets.US_ASCII));
        try (POIFSFileSystem file = new POIFSFileSystem(folder.resolve("paged.msi").toFile(), false)) {
            for (String table : List.of("_StringPool", "_StringData")) {
                byte[] bytes;
                try (var in = file.createDocumentInputStream(packed(table))) {
                    bytes = in.readAllBytes();
                }
                if (table.equals("_StringPool")) {
                    bytes[0] = (byte) codepage;
                    bytes[1] = (byte) (codepage >> 8);
                } else {
                    int at = new String(bytes, StandardCharsets.ISO_8859_1).indexOf("Sluice Suite");
                    System.arraycopy(other, 0, bytes, at, other.length);
                }
                file.createOrUpdateDocument(new java.io.ByteArrayInputStream(bytes), packed(table));
            }
            file.writeFilesystem();
        }
        assertThat(tools.read("paged.msi").name()).isEqualTo(name);
    }

    @Test
    void patchesTransformsAndMergeModulesAreToldByTheirStorages() throws Exception {
        for (String[] one : new String[][] {{"000c1086-0000-0000-c000-000000000046", "MSI_PATCH"}, {"000c1082-0000-0000-c000-000000000046", "MSI_TRANSFORM"}}) {
            try (var storage = new POIFSFileSystem(); var out = Files.newOutputStream(folder.resolve("x.bin"))) {
                storage.getRoot().setStorageClsid(new org.apache.poi.hpsf.ClassID("{" + one[0].toUpperCase(java.util.Locale.ROOT) + "}"));
                storage.createDocument(new java.io.ByteArrayInputStream(new byte[10]), "a");
                storage.writeFilesystem(out);
            }
            assertThat(tools.read("x.bin").format()).isEqualTo(InstallerFormat.valueOf(one[1]));
        }
        tools.write("own.wxs", WIX.formatted("perUser"));
        tools.run("rm -f module.msi && wixl -o module.msi own.wxs && msibuild module.msi -q \"CREATE TABLE \\`ModuleSignature\\` (\\`ModuleID\\` CHAR(72) NOT NULL PRIMARY KEY \\`ModuleID\\`)\""
                + " -q \"INSERT INTO \\`ModuleSignature\\` (\\`ModuleID\\`) VALUES ('m')\"");
        assertThat(tools.read("module.msi").format()).isEqualTo(InstallerFormat.MERGE_MODULE);
        tools.run("cp own.msi bare.msi && msibuild bare.msi -q \"DROP TABLE \\`Property\\`\"");
        assertThat(tools.read("bare.msi")).extracting(InstallerFile::format, InstallerFile::name).containsExactly(InstallerFormat.MSI, null);
        assertThat(codes(tools.read("bare.msi"))).contains("no-product");
    }

    private static void deb(String name, String control) throws IOException, InterruptedException {
        tools.run("rm -rf d && mkdir -p d/DEBIAN d/opt/t && echo x > d/opt/t/x");
        tools.write("d/DEBIAN/control", control);
        tools.run("dpkg-deb -Zxz -b d " + name);
    }

    @Test
    void aDebianPackageKeepsItsEpochRevisionAndAlternatives() throws Exception {
        deb("t.deb", "Package: tidewatch\nVersion: 1:2.1.0~rc1-2+deb12u1\nArchitecture: riscv64\nMaintainer: Sallow <s@example.org>\nPre-Depends: base-kit (>= 1:2)\n"
                + "Depends: libgraph9 (>= 3.1-2) | graphkit (>= 2.3), python3:any\nDescription: Tides\n");
        InstallerFile deb = tools.read("t.deb");
        assertThat(List.of(deb.version(), deb.packaged(), deb.architectures().get(0))).containsExactly("2.1.0~rc1", "1:2.1.0~rc1-2+deb12u1", "riscv64");
        assertThat(deb.needs()).containsExactly(new Needed("base-kit", "2"), new Needed("libgraph9", "3.1", List.of(new Needed("graphkit", "2.3"))), new Needed("python3", null));
    }

    @ParameterizedTest
    @CsvSource({"amd64, x64", "arm64, arm64", "i386, x86", "armhf, arm", "ppc64el, ppc64el", "all, "})
    void everyArchitectureOfDebianIsTold(String word, String architecture) throws Exception {
        deb("a.deb", "Package: a\nVersion: 1\nArchitecture: " + word + "\nMaintainer: S <s@example.org>\nDescription: A\n");
        assertThat(tools.read("a.deb").architectures()).isEqualTo(architecture == null ? List.of() : List.of(architecture));
    }

    private static void rpm(String version, String options, String how) throws IOException, InterruptedException {
        tools.write("t.spec", "Name: tidewatch\nVersion: " + version + "\nRelease: 3.el9\n" + options + "\nSummary: Tides\nLicense: Own\nVendor: Sallow\nRequires: graphkit >= 2.3\n"
                + "%description\nTides\n%install\nmkdir -p %{buildroot}/opt/t && echo x > %{buildroot}/opt/t/x\n%files\n/opt/t/x\n");
        tools.run("rm -rf rpms && rpmbuild " + how + " --define \"_topdir $PWD/rpms\" t.spec && find rpms -name '*.rpm' -exec cp {} t.rpm ';'");
    }

    @Test
    void anRpmPackageKeepsItsEpochReleaseAndCaret() throws Exception {
        rpm("2.1.0^git7", "Epoch: 2", "-bb --target aarch64");
        InstallerFile rpm = tools.read("t.rpm");
        assertThat(List.of(rpm.version(), rpm.packaged(), rpm.architectures().get(0))).containsExactly("2.1.0^git7", "2:2.1.0^git7-3.el9", "arm64");
        rpm("2.1.0", "BuildArch: noarch", "-bb");
        assertThat(tools.read("t.rpm")).extracting(InstallerFile::packaged, InstallerFile::architectures).containsExactly("2.1.0-3.el9", List.of());
    }

    @Test
    void aSourcePackageIsRefused() throws Exception {
        rpm("2.1.0", "", "-bs");
        assertThatThrownBy(() -> tools.read("t.rpm")).isInstanceOf(UnreadableInstallerException.class).hasMessageContaining("This is a source package");
    }

    @Test
    void whatAnArchiveHoldsIsReadToo() throws Exception {
        tools.write("own.wxs", WIX.formatted("perMachine"));
        tools.run("rm -rf z *.zip && mkdir -p 'z/for all' && wixl -o 'z/for all/suite.msi' own.wxs && echo read > z/readme.txt && cd z && python3 -m zipfile -c ../one.zip . && cd .. && "
                + "cp 'z/for all/suite.msi' z/second.msi && cd z && python3 -m zipfile -c ../two.zip . && cd .. && { echo 'some prefix'; cat one.zip; } > prefixed.zip");
        InstallerFile one = tools.read("one.zip");
        assertThat(one.inside().path()).isEqualTo("for all/suite.msi");
        assertThat(one.inside().file().name()).isEqualTo("Sluice Suite");
        assertThat(fact(one, "Contains")).startsWith("2 files: ").contains("readme.txt");
        assertThat(tools.read("prefixed.zip")).extracting(InstallerFile::format, file -> file.inside().file().name()).containsExactly(InstallerFormat.ZIP, "Sluice Suite");
        assertThat(tools.read("two.zip").inside()).isNull();
        assertThat(codes(tools.read("two.zip"))).containsExactly("several-installers");
        assertThat(tools.read("two.zip").findings().get(0).sentence()).startsWith("It contains 2 installers: ").contains("for all/suite.msi", "second.msi");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"tar -czf x.tgz main.c|x.tgz|TAR", "tar -cJf x.tar.xz main.c|x.tar.xz|TAR", "tar -cjf x.tar.bz2 main.c|x.tar.bz2|TAR", "tar -cf x.tar main.c|x.tar|TAR", "gzip -kf main.c|main.c.gz|OTHER",
        "7z a -bd x.7z main.c|x.7z|SEVEN_ZIP", "genisoimage -quiet -o x.iso main.c|x.iso|DISK_IMAGE", "mksquashfs main.c x.snap -quiet -noappend|x.snap|SNAP",
        "cp /bin/true prog|prog|LINUX_PROGRAM", "printf 'xar!\\000\\034' > x.pkg|x.pkg|XAR", "printf 'flatpak\\000\\001' > x.flatpak|x.flatpak|FLATPAK",
        "printf 'MSCF\\000\\000\\000\\000' > x.cab|x.cab|CAB", "printf 'Rar!\\032\\007' > x.rar|x.rar|RAR", "printf '\\177ELF\\002\\001\\001\\000AI\\002' > x.AppImage|x.AppImage|APP_IMAGE",
        "truncate -s 1024 x.dmg && printf koly >> x.dmg && truncate -s 1536 x.dmg|x.dmg|DISK_IMAGE"})
    void whatIsNotUnpackedIsNamedForWhatItIs(String command, String file, InstallerFormat format) throws Exception {
        tools.run(command);
        InstallerFile read = tools.read(file);
        assertThat(read.format()).isEqualTo(format);
        assertThat(codes(read)).doesNotContain("not-what-it-says");
        assertThat(codes(read).contains("no-installer")).isEqualTo(!List.of(InstallerFormat.TAR, InstallerFormat.OTHER).contains(format));
    }

    @Test
    void aBundleTellsTheVersionsAndArchitecturesOfThePackagesInIt() throws Exception {
        tools.write("bundle.py", """
                import io, zipfile
                def package(arch, families='<TargetDeviceFamily Name="Windows.Desktop" MinVersion="10.0.19041.0"/>', more=''):
                    data = io.BytesIO()
                    with zipfile.ZipFile(data, 'w') as z:
                        z.writestr('AppxManifest.xml', f'''<Package xmlns="http://schemas.microsoft.com/appx/manifest/foundation/windows10">
                          <Identity Name="Kingfisher.Reader" Publisher="O=Kingfisher Metering" Version="6.2.0.7" ProcessorArchitecture="{arch}"/>
                          <Properties><DisplayName>Meter Reader</DisplayName><PublisherDisplayName>Kingfisher</PublisherDisplayName>{more}</Properties>
                          <Dependencies>{families}<PackageDependency Name="Ardley.Frame" MinVersion="2.4.0.0"/></Dependencies></Package>''')
                    return data.getvalue()
                with zipfile.ZipFile('all.msixbundle', 'w') as z:
                    z.writestr('r_x64.msix', package('x64')); z.writestr('r_arm64.msix', package('arm64'))
                    z.writestr('AppxMetadata/AppxBundleManifest.xml', '''<Bundle xmlns="http://schemas.microsoft.com/appx/2013/bundle">
                      <Identity Name="Kingfisher.Reader" Publisher="O=Kingfisher Metering" Version="2026.1.2.3"/><Packages>
                      <Package Type="application" Version="6.2.0.7" Architecture="x64" FileName="r_x64.msix"/><Package Type="application" Version="6.2.0.7" Architecture="arm64"
                        FileName="r_arm64.msix"/><Package Type="resource" Version="6.2.0.7" ResourceId="cy" FileName="r_cy.msix"/></Packages></Bundle>''')
                open('phone.msix', 'wb').write(package('arm', '<TargetDeviceFamily Name="Windows.Mobile" MinVersion="10.0.1.0"/>'))
                open('frame.msix', 'wb').write(package('x64', more='<Framework>true</Framework>'))
                open('welsh.msix', 'wb').write(package('x64', more='<ResourcePackage>true</ResourcePackage>'))
                """);
        tools.run("python3 bundle.py");
        InstallerFile bundle = tools.read("all.msixbundle");
        assertThat(List.of(bundle.name(), bundle.version(), bundle.packaged(), bundle.minimumSystem())).containsExactly("Meter Reader", "6.2.0.7", "6.2.0.7", "10.0.19041.0");
        assertThat(bundle.architectures()).containsExactly("x64", "arm64");
        assertThat(bundle.needs()).containsExactly(new Needed("Ardley.Frame", "2.4.0"));
        assertThat(fact(bundle, "Bundle")).isEqualTo("2 packages, bundle version 2026.1.2.3");
        assertThatThrownBy(() -> tools.read("phone.msix")).isInstanceOf(UnreadableInstallerException.class).hasMessageContaining("for Windows.Mobile, not for desktop");
        assertThat(codes(tools.read("frame.msix"))).contains("framework-package");
        assertThat(codes(tools.read("welsh.msix"))).contains("resource-package");
    }

    @Test
    void beforeThereWereFamiliesThePrerequisitesSayTheLowestSystem() throws Exception {
        tools.run("rm -rf o old.appx && mkdir o");
        tools.write("o/AppxManifest.xml", "<Package xmlns=\"http://schemas.microsoft.com/appx/2010/manifest\"><Identity Name=\"Old.Reader\" Publisher=\"O=Kingfisher\" Version=\"1.0.0.0\"/>"
                + "<Prerequisites><OSMinVersion>6.3.0</OSMinVersion></Prerequisites></Package>");
        tools.run("cd o && python3 -m zipfile -c ../old.appx AppxManifest.xml");
        assertThat(tools.read("old.appx")).extracting(InstallerFile::minimumSystem, InstallerFile::version).containsExactly("6.3.0", "1.0.0");
    }

    /** What the page says is read, by its words. */
    private static final Map<String, Predicate<InstallerFile>> READ = Map.ofEntries(Map.entry("name", file -> file.name() != null), Map.entry("version", file -> file.version() != null),
            Map.entry("whole version", file -> file.packaged() != null), Map.entry("maker", file -> file.maker() != null), Map.entry("product code", file -> file.code() != null),
            Map.entry("package name", file -> file.code() != null), Map.entry("upgrade code", file -> file.family() != null),
            Map.entry("architecture", file -> !file.architectures().isEmpty()), Map.entry("language", file -> !fact(file, "Language").isEmpty()),
            Map.entry("parts", file -> !file.parts().isEmpty()), Map.entry("settings", file -> !file.settings().isEmpty()),
            Map.entry("launch conditions", file -> !fact(file, "Installs only where").isEmpty()), Map.entry("what it replaces", file -> !file.replaces().isEmpty()),
            Map.entry("lowest system version", file -> file.minimumSystem() != null), Map.entry("needs", file -> !file.needs().isEmpty()),
            Map.entry("set-up kit", file -> !fact(file, "Set-up kit").isEmpty()), Map.entry("whom it runs as", file -> !fact(file, "Asks to run as").isEmpty()),
            Map.entry("contents", file -> !fact(file, "Contains").isEmpty()), Map.entry("interpreter", file -> file.format().isScript()), Map.entry("what it is", file -> true),
            Map.entry("nothing", file -> file.name() == null && file.facts().isEmpty()));

    private static InstallerFile ofFormat(InstallerFormat format) throws Exception {
        Path samples = Path.of("..", "samples");
        String sample = switch (format) {
            case MSI -> "siltscope-lab-4.4.0-x64.msi";
            case EXE -> "tarnlog-viewer-3.4.0-setup.exe";
            case MSIX -> "kingfisher-meter-reader-6.2.0-x64.msix";
            case DEB -> "tidewatch_2.1.0-1_amd64.deb";
            case RPM -> "tidewatch-2.1.0-1.x86_64.rpm";
            case SHELL_SCRIPT -> "set-proxy-for-vans.sh";
            default -> null;
        };
        if (sample != null) {
            return InstallerReader.read(samples.resolve(sample), sample);
        }
        tools.run("rm -f some.zip && python3 -m zipfile -c some.zip main.c");
        return format == InstallerFormat.ZIP ? tools.read("some.zip") : InstallerFile.of(format).build();
    }

    /** The table of the page about the catalogue: all formats are in it, and what it says is read and verified is. */
    @Test
    void whatThePageSaysIsReadIsRead() throws Exception {
        tools.write("suite.wxs", WIX.formatted("perMachine"));
        tools.run("rm -f suite.msi && wixl -o suite.msi suite.wxs");
        Set<InstallerFormat> seen = EnumSet.noneOf(InstallerFormat.class);
        for (String line : Files.readAllLines(Path.of("..", "docs", "catalogue.md"))) {
            List<String> cells = Stream.of(line.split("\\|")).map(String::strip).toList();
            for (InstallerFormat format : InstallerFormat.values()) {
                if (cells.size() == 6 && (", " + cells.get(1) + ",").contains(", " + format.words() + ",")) {
                    seen.add(format);
                    List<InstallerFile> files = format == InstallerFormat.MSI ? List.of(ofFormat(format), tools.read("suite.msi"))
                            : format == InstallerFormat.EXE ? List.of(ofFormat(format), tools.read("gauge.exe")) : List.of(ofFormat(format));
                    for (String word : cells.get(2).split(", ")) {
                        assertThat(READ).as(line).containsKey(word);
                        assertThat(files).as("%s of %s", word, format).anyMatch(READ.get(word));
                    }
                    boolean isSignedInSamples = files.get(0).signature().state() == FileSignature.State.HOLDS;
                    assertThat(!isSignedInSamples || cells.get(4).contains("signature")).as(line).isTrue();
                    assertThat(cells.get(4)).as(line).isIn("signature", "OpenPGP signature", "the signature of the one installer", "nothing");
                }
            }
        }
        assertThat(seen).containsExactlyInAnyOrder(InstallerFormat.values());
    }
}
