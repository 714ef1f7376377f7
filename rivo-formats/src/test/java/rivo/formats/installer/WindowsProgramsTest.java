package rivo.formats.installer;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.formats.installer.InstallerFile.Finding;

/** What is made of Windows programs: only what their structure says, and never a word somewhere in them. */
class WindowsProgramsTest {

    private static final int VERSION = 16;
    private static final int MANIFEST = 24;
    private static final int RAW_DATA = 10;
    private static final int NEUTRAL = 0;
    private static final int ENGLISH = 0x409;
    private static final int GERMAN = 0x407;
    private static final String INNO_DATA = "Inno Setup Setup Data (6.2.0)";

    @TempDir
    private Path folder;

    private InstallerFile read(PeBuilder program) throws Exception {
        Path file = folder.resolve("setup.exe");
        Files.write(file, program.bytes());
        return InstallerReader.read(file, "setup.exe");
    }

    private static List<String> codes(InstallerFile file) {
        return file.findings().stream().map(Finding::code).toList();
    }

    private static byte[] nsis(int flags) {
        return ByteBuffer.allocate(1024).order(ByteOrder.LITTLE_ENDIAN).position(512).putInt(flags).putInt(0xDEADBEEF)
                .put("NullsoftInst".getBytes(StandardCharsets.US_ASCII)).putInt(100).putInt(400).array();
    }

    private static byte[] innoOffsets(int length, int at, long offset) {
        ByteBuffer table = ByteBuffer.allocate(length).order(ByteOrder.LITTLE_ENDIAN).put("rDlPtS".getBytes(StandardCharsets.US_ASCII));
        return (length > 50 ? table.putLong(at, offset) : table.putInt(at, (int) offset)).array();
    }

    private static byte[] bundle(int signature, long cabinet) {
        return ByteBuffer.allocate(64).order(ByteOrder.LITTLE_ENDIAN).putInt(0, signature).putInt(24, (int) cabinet).putInt(40, 1).array();
    }

    /** With this cabinet behind it. */
    private static PeBuilder bundled(int signature, byte[] cabinet) {
        long at = new PeBuilder().section(".text", new byte[10]).section(".wixburn", bundle(signature, 0)).bytes().length;
        return new PeBuilder().section(".text", new byte[10]).section(".wixburn", bundle(signature, at)).overlay(cabinet);
    }

    /** A cabinet with the manifest as its first file, as gcab makes it, packed or not. */
    private byte[] cabinet(String manifest, boolean packed) throws Exception {
        Tools tools = new Tools(folder);
        tools.write("0", manifest);
        tools.write("u1", "x".repeat(100_000));
        tools.run("gcab -c " + (packed ? "-z " : "") + "ux.cab 0 u1");
        return Files.readAllBytes(folder.resolve("ux.cab"));
    }

    private static final String BURN_MANIFEST = "<BurnManifest xmlns='http://schemas.microsoft.com/wix/2008/Burn'><Registration Id='{5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F2}' PerMachine='no'>"
            + "<Arp DisplayName='Weir Tools Suite' DisplayVersion='7.2.0.1' Publisher='Fenwick'/></Registration><!--%s--></BurnManifest>";

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void aBundleTellsWhatItRegistersItselfAs(boolean packed) throws Exception {
        // Longer than one block of a cabinet, so that blocks refer back to each other.
        StringBuilder long1 = new StringBuilder();
        for (int i = 0; i < 9000; i++) {
            long1.append("package ").append(i).append(' ');
        }
        InstallerFile file = read(bundled(0x00f14300, cabinet(BURN_MANIFEST.formatted(long1), packed)));
        assertThat(file.kind()).isEqualTo(InstallerKind.WIX_BUNDLE);
        assertThat(List.of(file.name(), file.version(), file.maker())).containsExactly("Weir Tools Suite", "7.2.0.1", "Fenwick");
        assertThat(file.perMachine()).isFalse();
    }

    @ParameterizedTest
    @ValueSource(strings = {";!@Install@!UTF-8!", "7z\u00bc\u00af'\u001c......", "PK\u0003\u0004........", "Rar!\u001a........"})
    void anArchiveThatUnpacksItselfIsCalledOne(String head) throws Exception {
        assertThat(sentence(new PeBuilder().section(".text", new byte[10]).overlay(head.getBytes(StandardCharsets.ISO_8859_1)))).contains("an archive that unpacks itself");
    }

    private static byte[] manifest(String level) {
        return ("<assembly><trustInfo><security><requestedPrivileges><requestedExecutionLevel level=\"" + level + "\" uiAccess=\"false\"/>"
                + "</requestedPrivileges></security></trustInfo></assembly>").getBytes(StandardCharsets.UTF_8);
    }

    /** The offset at which the overlay of a program with this one resource begins. */
    private static long overlayOf(byte[] offsets) {
        return new PeBuilder().section(".text", new byte[10]).resource(RAW_DATA, 11111, ENGLISH, offsets).bytes().length;
    }

    private static PeBuilder inno(int length, int at) {
        byte[] guess = innoOffsets(length, at, 1);
        byte[] offsets = innoOffsets(length, at, overlayOf(guess));
        return new PeBuilder().section(".text", new byte[10]).resource(RAW_DATA, 11111, ENGLISH, offsets).overlay(INNO_DATA.getBytes(StandardCharsets.US_ASCII));
    }

    @Test
    void aKitIsToldByTheStructureThatItsOwnLoaderLooksFor() throws Exception {
        assertThat(read(new PeBuilder().section(".text", new byte[10]).overlay(nsis(0))).kind()).isEqualTo(InstallerKind.NSIS);
        assertThat(read(inno(44, 32)).kind()).isEqualTo(InstallerKind.INNO);
        assertThat(read(inno(64, 44)).kind()).as("with 64 bits").isEqualTo(InstallerKind.INNO);
        assertThat(read(bundled(0x00f14300, cabinet(BURN_MANIFEST, true))).kind()).isEqualTo(InstallerKind.WIX_BUNDLE);
    }

    @ParameterizedTest
    @ValueSource(strings = {"NullsoftInst", "Nullsoft.NSIS.exehead", INNO_DATA, "JR.Inno.Setup", ".wixburn", "InstallShield", "SquirrelTemp"})
    void aProgramThatMerelyMentionsAKitIsNone(String word) throws Exception {
        InstallerFile file = read(new PeBuilder().section(".text", word.getBytes(StandardCharsets.US_ASCII)).overlay(word.getBytes(StandardCharsets.UTF_16LE)));
        assertThat(file.kind()).isEqualTo(InstallerKind.UNKNOWN);
        assertThat(codes(file)).contains("unknown-make");
    }

    @Test
    void aStructureThatIsNotWholeIsNone() throws Exception {
        byte[] otherSignature = nsis(0);
        otherSignature[516] = 0;
        byte[] oddPlace = new byte[1100];
        System.arraycopy(nsis(0), 512, oddPlace, 100, 28);
        assertThat(read(new PeBuilder().section(".text", new byte[10]).overlay(otherSignature)).kind()).isEqualTo(InstallerKind.UNKNOWN);
        assertThat(read(new PeBuilder().section(".text", new byte[10]).overlay(oddPlace)).kind()).isEqualTo(InstallerKind.UNKNOWN);
        assertThat(read(new PeBuilder().section(".text", new byte[10]).overlay(nsis(0x100))).kind()).isEqualTo(InstallerKind.UNKNOWN);
        assertThat(read(bundled(1, cabinet(BURN_MANIFEST, true))).kind()).isEqualTo(InstallerKind.UNKNOWN);
        assertThat(read(bundled(0x00f14300, "no cabinet, and longer than a header of one".getBytes(StandardCharsets.US_ASCII))).kind()).isEqualTo(InstallerKind.UNKNOWN);
        assertThat(read(new PeBuilder().section(".text", new byte[10]).resource(RAW_DATA, 11111, ENGLISH, innoOffsets(44, 32, 1_000_000))).kind())
                .isEqualTo(InstallerKind.UNKNOWN);
        assertThat(read(new PeBuilder().section(".text", new byte[10]).resource(RAW_DATA, 11111, ENGLISH, new byte[3])).kind()).isEqualTo(InstallerKind.UNKNOWN);
    }

    @Test
    void whatIsNoSetUpIsCalledWhatItIs() throws Exception {
        assertThat(sentence(new PeBuilder().section(".text", new byte[10]).library().overlay(nsis(0)))).contains("a library");
        assertThat(sentence(new PeBuilder().section(".text", new byte[10]).subsystem(1))).contains("a driver");
        assertThat(sentence(new PeBuilder().section(".text", new byte[10]).subsystem(3))).contains("a console program");
        assertThat(sentence(new PeBuilder().section(".text", new byte[10]).subsystem(10))).contains("an EFI image");
        assertThat(sentence(new PeBuilder().section(".text", new byte[10]).overlay(nsis(1)))).contains("an uninstaller");
        assertThat(sentence(new PeBuilder().section(".text", new byte[10]).subsystem(3).overlay(nsis(0)))).as("a set-up program may be one").isEmpty();
    }

    private String sentence(PeBuilder program) throws Exception {
        InstallerFile file = read(program);
        List<String> said = file.findings().stream().filter(finding -> "no-set-up".equals(finding.code())).map(Finding::sentence).toList();
        assertThat(said.isEmpty() || file.kind() == InstallerKind.UNKNOWN).isTrue();
        assertThat(codes(file).contains("unknown-make")).isEqualTo(said.isEmpty() && file.kind() == InstallerKind.UNKNOWN);
        return String.join("", said);
    }

    @ParameterizedTest
    @CsvSource({"asInvoker, false", "requireAdministrator, true", "highestAvailable, true"})
    void whomItInstallsForIsWhatItAsksToRunAs(String level, boolean perMachine) throws Exception {
        assertThat(read(new PeBuilder().section(".text", new byte[10]).resource(MANIFEST, 1, ENGLISH, manifest(level)).overlay(nsis(0))).perMachine()).isEqualTo(perMachine);
        assertThat(read(new PeBuilder().section(".text", new byte[10]).resource(MANIFEST, 1, ENGLISH, manifest(level))).perMachine()).as("of no kit").isTrue();
    }

    @ParameterizedTest
    @CsvSource({"0x8664, x64", "0xAA64, arm64", "0x1c4, arm", "0x1c0, arm", "0x14c, x86"})
    void theMachineIsRead(String machine, String architecture) throws Exception {
        assertThat(read(new PeBuilder().section(".text", new byte[10]).machine(Integer.decode(machine))).architectures()).containsExactly(architecture);
    }

    @Test
    void aSetUpProgramsOwnMachineSaysNothing() throws Exception {
        assertThat(read(new PeBuilder().section(".text", new byte[10]).overlay(nsis(0))).architectures()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"7.1.4|7.1.4", "7.1.4 (Release)|7.1.4", "3, 4, 0, 1|3.4.0.1", "2026.2 build 7|2026.2", "4.2.0-rc1|4.2.0-rc1", "v12|"})
    void theVersionIsWhatIsStated(String stated, String version) throws Exception {
        InstallerFile file = read(new PeBuilder().section(".text", new byte[10]).resource(VERSION, 1, ENGLISH, PeBuilder.version(Map.of("ProductVersion", stated))));
        assertThat(file.version()).isEqualTo(version);
        assertThat(codes(file).contains("version-read")).isEqualTo(version != null && !stated.replace(", ", ".").equals(version));
    }

    @Test
    void whereNoTextStatesItTheNumbersDoAndElseNothing() throws Exception {
        assertThat(read(new PeBuilder().section(".text", new byte[10]).resource(VERSION, 1, NEUTRAL, PeBuilder.version(Map.of("ProductName", "Tide"), 3, 4, 5, 6))).version())
                .isEqualTo("3.4.5.6");
        assertThat(read(new PeBuilder().section(".text", new byte[10]).resource(VERSION, 1, NEUTRAL, PeBuilder.version(Map.of("FileVersion", "9.9"), 3, 4, 5, 6))).version())
                .isEqualTo("9.9");
        assertThat(read(new PeBuilder().section(".text", new byte[10]).resource(VERSION, 1, NEUTRAL, PeBuilder.version(Map.of("ProductName", "Tide"), 0, 0, 0, 0))).version())
                .isNull();
        assertThat(read(new PeBuilder().section(".text", new byte[10])).version()).isNull();
    }

    @Test
    void ofSeveralLanguagesEnglishIsReadThenWhatIsOfNone() throws Exception {
        byte[] german = PeBuilder.version(Map.of("ProductName", "Gezeiten"));
        byte[] english = PeBuilder.version(Map.of("ProductName", "Tide"));
        byte[] neutral = PeBuilder.version(Map.of("ProductName", "T"));
        assertThat(read(new PeBuilder().section(".text", new byte[10]).resource(VERSION, 1, GERMAN, german).resource(VERSION, 1, NEUTRAL, neutral)
                .resource(VERSION, 1, ENGLISH, english)).name()).isEqualTo("Tide");
        assertThat(read(new PeBuilder().section(".text", new byte[10]).resource(VERSION, 1, GERMAN, german).resource(VERSION, 1, NEUTRAL, neutral)).name()).isEqualTo("T");
        assertThat(read(new PeBuilder().section(".text", new byte[10]).resource(VERSION, 1, GERMAN, german)).name()).isEqualTo("Gezeiten");
    }
}
