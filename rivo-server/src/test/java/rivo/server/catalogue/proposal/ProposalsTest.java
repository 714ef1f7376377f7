package rivo.server.catalogue.proposal;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.core.rule.Rule;
import rivo.devices.protocol.PresenceKind;
import rivo.devices.protocol.VersionOrder;
import rivo.formats.installer.InstallerFile;
import rivo.formats.installer.InstallerFile.Finding;
import rivo.formats.installer.InstallerFile.Needed;
import rivo.formats.installer.InstallerFile.Part;
import rivo.formats.installer.InstallerFile.Setting;
import rivo.formats.installer.InstallerFormat;
import rivo.formats.installer.InstallerKind;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.proposal.Proposals.Proposal;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.StepKind;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.estate.EstateRecords.NeedRecord;
import rivo.server.estate.EstateRecords.ReplacementRecord;

/** What is made of what was read. */
class ProposalsTest {

    private static final String HASH = "ab".repeat(32);

    @TempDir
    private static Path data;
    private static TestServer server;
    private static Proposals proposals;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        TestTitles.add(server);
        proposals = server.bean(Proposals.class);
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static InstallerFile file(InstallerFormat format, @Nullable String name, @Nullable String version,
            @Nullable String architecture, InstallerKind kind) {
        return told(format, name, version).architecture(architecture).kind(kind).build();
    }

    private static InstallerFile.Builder told(InstallerFormat format, @Nullable String name, @Nullable String version) {
        return InstallerFile.of(format).name(name).version(version).maker("Sallow & Finch").description("Charts").code("tide-code");
    }

    private static Proposal propose(InstallerFile file, String fileName) {
        return proposals.propose(file, new Content(HASH, 5, fileName), null);
    }

    private static VariantRecord variant(Proposal proposal) {
        ReleaseRecord release = proposal.title().releases().stream().filter(r -> r.version().equals(proposal.version()))
                .findFirst().orElseThrow();
        return release.variants().stream().filter(v -> v.id().equals(proposal.variant())).findFirst().orElseThrow();
    }

    @ParameterizedTest
    @CsvSource({"NSIS, /S", "INNO, /VERYSILENT /SUPPRESSMSGBOXES /NORESTART", "WIX_BUNDLE, /quiet /norestart"})
    void aSetUpProgramOfAKnownMakeGetsItsQuietSwitches(InstallerKind kind, String switches) {
        VariantRecord variant = variant(propose(file(InstallerFormat.EXE, "Tidewatch", "2.1", null, kind), "tide.exe"));
        assertThat(variant.install().get(0).command()).isEqualTo("\"{content}\\tide.exe\" " + switches);
        assertThat(variant.remove().get(0).command()).startsWith("{uninstaller:Tidewatch} ");
        assertThat(variant.fits()).isEqualTo("os.family eq \"windows\"");
    }

    @Test
    void oneOfAnUnknownMakeGetsNoCommandAtAll() {
        VariantRecord variant = variant(propose(file(InstallerFormat.EXE, "Tidewatch", "2.1", "x86",
                InstallerKind.UNKNOWN), "tide.exe"));
        assertThat(variant.install()).isEmpty();
        assertThat(variant.remove()).isEmpty();
        assertThat(variant.fits()).as("32-bit software runs on both")
                .isEqualTo("os.family eq \"windows\" and (arch eq \"x86\" or arch eq \"x64\")");
    }

    @Test
    void whatStatesNoVersionIsSeenInAny() {
        VariantRecord variant = variant(propose(file(InstallerFormat.EXE, "Tidewatch", null, null, InstallerKind.NSIS), "tide.exe"));
        assertThat(variant.presence().checks()).extracting(Presence.Check::version).containsExactly("");
    }

    @ParameterizedTest
    @CsvSource({"SHELL_SCRIPT, van, sh \"{content}/van\", os.family ne \"windows\"", "BASH_SCRIPT, van.sh, bash \"{content}/van.sh\", os.family ne \"windows\"",
        "PYTHON_SCRIPT, van.py, python3 \"{content}/van.py\", os.family ne \"windows\"", "PERL_SCRIPT, van.pl, perl \"{content}/van.pl\", os.family ne \"windows\"",
        "POWERSHELL_SCRIPT, van.ps1, powershell -NoProfile -NonInteractive -ExecutionPolicy Bypass -File \"{content}\\van.ps1\", os.family eq \"windows\"",
        "BATCH_FILE, van.cmd, cmd /c \"{content}\\van.cmd\", os.family eq \"windows\""})
    void aScriptIsRunByItsInterpreterWhereThatIs(InstallerFormat format, String name, String command, @Nullable String fits) {
        VariantRecord variant = variant(propose(file(format, null, null, null, InstallerKind.UNKNOWN), name));
        assertThat(variant.install().get(0).command()).isEqualTo(command);
        assertThat(variant.presence().hasChecks()).isFalse();
        assertThat(variant.fits()).isEqualTo(fits);
    }

    @Test
    void aDebianPackageIsCalledOneHoweverItsFileIs() {
        VariantRecord variant = variant(propose(file(InstallerFormat.DEB, "Tidewatch", "2.1", "x64", InstallerKind.UNKNOWN), "tidewatch-download"));
        assertThat(variant.install().get(0).command()).endsWith(" install \"{content}/tidewatch-download.deb\"");
        assertThat(variant.contents().get(0).fileName()).isEqualTo("tidewatch-download.deb");
    }

    @Test
    void whatTellsNoNameIsCalledByItsFileAndMarkedWithoutVersion() {
        Proposal proposal = proposals.propose(file(InstallerFormat.OTHER, null, null, null, InstallerKind.UNKNOWN),
                new Content("ef".repeat(32), 5, "Weir_levels-set.bin"), null);
        assertThat(proposal.title().name()).isEqualTo("Weir levels set");
        assertThat(proposal.title().id()).isEqualTo("weir-levels-set");
        assertThat(proposal.findings()).extracting(Finding::code).containsExactly("no-version");
        assertThat(proposal.version()).as("none is made up").isEmpty();
        assertThat(variant(proposal).install().get(0).kind()).isEqualTo(StepKind.COPY);
    }

    @Test
    void aKnownTitleGetsTheReleaseAndKeepsItsOwn() {
        Proposal proposal = propose(told(InstallerFormat.RPM, "siltscope lab", "5.0").architecture("x64").packaged("1:5.0-2").build(), "s.rpm");
        assertThat(proposal.title().id()).isEqualTo("siltscope");
        assertThat(proposal.title().releases()).extracting(ReleaseRecord::version).containsExactly("4.1.0", "4.2.0", "5.0");
        assertThat(proposal.title().releases()).extracting(ReleaseRecord::offered).containsExactly(true, true, false);
        assertThat(variant(proposal).presence().checks()).containsExactly(
                new Presence.Check(PresenceKind.PACKAGE, "tide-code", "1:5.0-2", VersionOrder.RPM));
    }

    @Test
    void aSecondArchitectureOfAReleaseIsAnotherVariantOfIt() {
        Proposal proposal = propose(file(InstallerFormat.MSI, "Siltscope Lab", "4.2", "arm64", InstallerKind.UNKNOWN), "s.msi");
        assertThat(proposal.version()).as("4.2 is 4.2.0").isEqualTo("4.2.0");
        assertThat(proposal.releaseIsThere()).isTrue();
        assertThat(proposal.title().releases()).hasSize(2);
        assertThat(proposal.title().releases().get(1).variants()).extracting(VariantRecord::id)
                .containsExactly("all", "arm64");
    }

    @Test
    void aNameThatIsTakenByAnotherTitleIsNoMatterForTheId() {
        TestTitles.add(server, "tidewatch", "Something else");
        assertThat(propose(file(InstallerFormat.DEB, "Tidewatch", "2.1", "x64", InstallerKind.UNKNOWN), "t.deb").title().id())
                .isEqualTo("tidewatch-2");
    }

    private static void put(Proposal proposal) {
        server.bean(Catalogue.class).put("imara.voss", proposal.title());
    }

    @Test
    void aRebuildOfAPackageIsAReleaseOfItsOwn() {
        InstallerFile.Builder first = told(InstallerFormat.DEB, "Weirgauge", "1.4").architecture("x64").packaged("1:1.4-2");
        put(propose(first.build(), "weirgauge.deb"));
        assertThat(propose(first.build(), "weirgauge.deb").version()).as("the very same").isEqualTo("1.4");
        Proposal rebuilt = propose(told(InstallerFormat.DEB, "Weirgauge", "1.4").architecture("x64").packaged("1:1.4-2+deb12u1").build(), "weirgauge.deb");
        assertThat(rebuilt.version()).isEqualTo("1.4-2+deb12u1");
        assertThat(rebuilt.title().releases()).hasSize(2);
        assertThat(rebuilt.releaseIsThere()).isFalse();
    }

    @Test
    void aPackageIsInstalledWithoutAskingAndKeepsWhatSomebodyHasConfigured() {
        Step step = variant(propose(file(InstallerFormat.DEB, "Tidewatch", "2.1", "riscv64", InstallerKind.UNKNOWN), "t.deb")).install().get(0);
        assertThat(step.environment()).containsEntry("DEBIAN_FRONTEND", "noninteractive");
        assertThat(step.command()).contains("--force-confdef").contains("--force-confold");
        assertThat(step.says()).contains("remove that first");
        assertThat(variant(propose(file(InstallerFormat.DEB, "Tidewatch", "2.1", "riscv64", InstallerKind.UNKNOWN), "t.deb")).fits())
                .isEqualTo("os.family eq \"linux\" and x.packages eq \"deb\" and arch eq \"riscv64\"");
    }

    @Test
    void ofSeveralThatWillDoTheOneInTheCatalogueIsNeeded() {
        TestTitles.add(server, "graphkit", "Graphkit Runtime");
        Needed any = new Needed("libgraph9", null, List.of(new Needed("graphkit-runtime", "2.3"), new Needed("siltscope-lab", null)));
        assertThat(propose(told(InstallerFormat.DEB, "Needy", "1").needs(List.of(any)).build(), "n.deb").title().releases().get(0).needs())
                .containsExactly(new NeedRecord("graphkit", "2.3"));
    }

    @Test
    void whatAPackageNeedsAndNoTitleIsIsPointedOut() {
        InstallerFile file = told(InstallerFormat.MSIX, "Reader", "1").needs(List.of(new Needed("Ardley.Reader.Frame", "2.4"), new Needed("Fenwick.SiltscopeLab", null))).build();
        assertThat(propose(file, "reader app.msix").findings()).extracting(Finding::code).contains("need-missing");
        VariantRecord variant = variant(propose(file, "reader app.msix"));
        assertThat(variant.install().get(0).command()).contains("-PackagePath '{content}\\reader app.msix'");
        assertThat(variant.remove().get(0).command()).contains("Remove-AppxProvisionedPackage").contains("Remove-AppxPackage -AllUsers");
    }

    /** PowerShell ends a text at any of them, and what comes after would run as the system. */
    @ParameterizedTest
    @ValueSource(strings = {"'", "\u2018", "\u2019", "\u201a", "\u201b", "\u201c", "\u201d"})
    void aFileNameCannotEndTheTextThatItStandsIn(String quote) {
        Step step = variant(propose(told(InstallerFormat.MSIX, "Quoted", "1").build(), "a" + quote + "; reboot; b.msix")).install().get(0);
        assertThat(step.command()).endsWith("'{content}\\a_; reboot; b.msix'\"");
    }

    @Test
    void aBundleFitsEveryArchitectureInIt() {
        assertThat(variant(propose(told(InstallerFormat.MSIX, "Reader", "1").architecture("x64").architecture("arm64").build(), "r.msixbundle")).fits())
                .isEqualTo("os.family eq \"windows\" and (arch eq \"x64\" or arch eq \"arm64\")");
        assertThat(variant(propose(told(InstallerFormat.MSIX, "Reader", "1").finding("resource-package", "x").build(), "r.msix")).install()).isEmpty();
    }

    @Test
    void partsAndSwitchesOfADatabaseBecomeChoicesOfItsCommand() {
        Proposal proposal = propose(told(InstallerFormat.MSI, "Sluice Suite", "3").part(new Part("Core", "Core", true, false)).part(new Part("Main", "Main part", true, true))
                .part(new Part("Extras", "Extras", false, true)).setting(new Setting("DESKTOPICON", "1")).setting(new Setting("SERVER", "")).build(), "s.msi");
        assertThat(variant(proposal).install().get(0).command())
                .endsWith(" /qn /norestart ADDLOCAL=Core,{choice:parts} DESKTOPICON={choice:set-desktopicon}");
        List<ChoiceRecord> choices = proposal.title().releases().get(0).choices();
        assertThat(choices).extracting(ChoiceRecord::usual).containsExactly("Main", "on");
        assertThat(choices).allMatch(choice -> choice.problem(choice.usual()) == null);
        put(proposal);
    }

    @Test
    void aDatabaseThatInstallsForOnePersonIsATitleForEachPerson() {
        assertThat(propose(told(InstallerFormat.MSI, "Pocket Gauge", "1").perMachine(false).build(), "p.msi").title().scope()).isEqualTo("user");
    }

    @Test
    void whatADatabaseTakesOffIsReplacedAndItsFamilyIsItsTitle() {
        put(propose(told(InstallerFormat.MSI, "Weir Planner Classic", "1").family("{A7D3E6C4-1B52-4F0E-8C9D-6E2A5B3F4D10}").build(), "w.msi"));
        InstallerFile successor = told(InstallerFormat.MSI, "Weir Planner", "2").family("{A7D3E6C4-1B52-4F0E-8C9D-6E2A5B3F4D11}")
                .replaces("{A7D3E6C4-1B52-4F0E-8C9D-6E2A5B3F4D10}").build();
        assertThat(propose(successor, "w2.msi").title().releases().get(0).replaces()).containsExactly(new ReplacementRecord("weir-planner-classic", false));
        Proposal renamed = propose(told(InstallerFormat.MSI, "Weir Planner Original", "1.1").family("{A7D3E6C4-1B52-4F0E-8C9D-6E2A5B3F4D10}").build(), "w3.msi");
        assertThat(renamed.title().id()).isEqualTo("weir-planner-classic");
    }

    @Test
    void aTransformGoesBesideTheDatabaseOfItsTitle() {
        put(propose(told(InstallerFormat.MSI, "Sonde", "1").build(), "sonde.msi"));
        Proposal proposal = proposals.propose(told(InstallerFormat.MSI_TRANSFORM, null, null).build(), new Content("cd".repeat(32), 3, "branch office.mst"), "sonde");
        assertThat(variant(proposal).install().get(0).command()).isEqualTo("msiexec /i \"{content}\\sonde.msi\" /qn /norestart TRANSFORMS=\"{content}\\branch office.mst\"");
        assertThat(variant(proposal).contents()).extracting(Content::fileName).containsExactly("sonde.msi", "branch office.mst");
        put(proposal);
        Proposal second = proposals.propose(told(InstallerFormat.MSI_TRANSFORM, null, null).build(), new Content("ce".repeat(32), 3, "welsh.mst"), "sonde");
        assertThat(variant(second).install().get(0).command()).endsWith(" TRANSFORMS=\"{content}\\branch office.mst;{content}\\welsh.mst\"");
    }

    @Test
    void anArchiveWithOneInstallerIsUnpackedAndThatIsRun() {
        InstallerFile inner = told(InstallerFormat.EXE, "Tidewatch Boxed", "2.1").kind(InstallerKind.NSIS).build();
        Proposal proposal = propose(InstallerFile.of(InstallerFormat.ZIP).inside(new InstallerFile.Inside("tide/setup.exe", inner)).build(), "tide.zip");
        assertThat(proposal.title().name()).isEqualTo("Tidewatch Boxed");
        assertThat(variant(proposal).install()).extracting(Step::command)
                .containsExactly("tar -xf \"{content}\\tide.zip\" -C \"{content}\"", "\"{content}\\tide\\setup.exe\" /S");
        InstallerFile unknown = told(InstallerFormat.EXE, "Tidewatch Odd", "2.1").build();
        assertThat(variant(propose(InstallerFile.of(InstallerFormat.ZIP).inside(new InstallerFile.Inside("x.exe", unknown)).build(), "t.zip")).install()).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(InstallerFormat.class)
    void whateverIsProposedCanBeSaved(InstallerFormat format) {
        Proposal proposal = propose(told(format, "Proposed " + format.word(), "1.0").packaged("1.0-1").kind(InstallerKind.NSIS).architecture("x64").build(), "file of O'Hara & b.x");
        put(proposal);
        assertThat(variant(proposal).fits()).satisfiesAnyOf(fits -> assertThat(fits).isNull(), fits -> assertThat(Rule.parse(fits)).isNotNull());
    }

    /** The table of the page about the catalogue: each command that it names is proposed, and where it says nothing, nothing is. */
    @ParameterizedTest
    @EnumSource(InstallerFormat.class)
    void whatThePageSaysIsProposedIs(InstallerFormat format) throws IOException {
        List<String> cells = Files.readAllLines(Path.of("..", "docs", "catalogue.md")).stream().map(line -> Stream.of(line.split("\\|")).map(String::strip).toList())
                .filter(line -> line.size() == 6 && (", " + line.get(1) + ",").contains(", " + format.words() + ",")).findFirst().orElseThrow();
        VariantRecord variant = variant(proposals.propose(told(format, "Paged " + format.word(), "1.0").packaged("1.0-1").kind(InstallerKind.NSIS).build(),
                new Content("9a".repeat(32), 5, "file.x"), null));
        String all = Stream.concat(variant.install().stream(), Stream.concat(variant.remove().stream(), variant.repair().stream()))
                .map(step -> step.command() + " " + step.to()).collect(Collectors.joining("\n"));
        Matcher command = Pattern.compile("`([^`]+)`").matcher(cells.get(3));
        while (command.find()) {
            assertThat(all).as(format.words()).contains(command.group(1));
        }
        assertThat(variant.install().isEmpty()).as(format.words()).isEqualTo(cells.get(3).equals("nothing") || format == InstallerFormat.MSI_TRANSFORM);
        assertThat(cells.get(5).contains("removal") || cells.get(5).contains("command") || cells.get(3).equals("nothing") || cells.get(3).contains("dropped"))
                .as("left to type of %s: %s", format.words(), cells.get(5)).isEqualTo(variant.remove().isEmpty() || format == InstallerFormat.EXE);
        assertThat(variant.presence().hasChecks()).isEqualTo(cells.get(3).contains("seen by"));
    }
}
