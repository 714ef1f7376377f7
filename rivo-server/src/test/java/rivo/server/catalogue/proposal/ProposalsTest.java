package rivo.server.catalogue.proposal;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rivo.devices.protocol.PresenceKind;
import rivo.formats.installer.InstallerFile;
import rivo.formats.installer.InstallerFile.Finding;
import rivo.formats.installer.InstallerFormat;
import rivo.formats.installer.InstallerKind;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.proposal.Proposals.Proposal;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.StepKind;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;

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
        return new InstallerFile(format, name, version, "Sallow & Finch", "Charts", architecture, "tide-code", null, null,
                kind, true, null, List.of(), List.of());
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
        assertThat(variant.remove().get(0).command()).startsWith("\"{uninstaller:Tidewatch}\" ");
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
    @CsvSource({"SHELL_SCRIPT, van, sh \"{content}/van\",", "BASH_SCRIPT, van.sh, bash \"{content}/van.sh\",", "PYTHON_SCRIPT, van.py, python3 \"{content}/van.py\",",
        "PERL_SCRIPT, van.pl, perl \"{content}/van.pl\",",
        "POWERSHELL_SCRIPT, van.ps1, powershell -ExecutionPolicy Bypass -File \"{content}\\van.ps1\", os.family eq \"windows\"",
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
        assertThat(variant.install().get(0).command()).isEqualTo("apt-get -y install \"{content}/tidewatch-download.deb\"");
        assertThat(variant.contents().get(0).fileName()).isEqualTo("tidewatch-download.deb");
    }

    @Test
    void whatTellsNoNameIsCalledByItsFileAndMarkedWithoutVersion() {
        Proposal proposal = propose(file(InstallerFormat.OTHER, null, null, null, InstallerKind.UNKNOWN), "Weir_levels-set.bin");
        assertThat(proposal.title().name()).isEqualTo("Weir levels set");
        assertThat(proposal.title().id()).isEqualTo("weir-levels-set");
        assertThat(proposal.findings()).extracting(Finding::code).containsExactly("no-version");
        assertThat(variant(proposal).install().get(0).kind()).isEqualTo(StepKind.COPY);
    }

    @Test
    void aKnownTitleGetsTheReleaseAndKeepsItsOwn() {
        Proposal proposal = propose(file(InstallerFormat.RPM, "siltscope lab", "5.0", "x64", InstallerKind.UNKNOWN), "s.rpm");
        assertThat(proposal.title().id()).isEqualTo("siltscope");
        assertThat(proposal.title().releases()).extracting(ReleaseRecord::version).containsExactly("4.1.0", "4.2.0", "5.0");
        assertThat(proposal.title().releases()).extracting(ReleaseRecord::offered).containsExactly(true, true, false);
        assertThat(variant(proposal).presence().checks()).containsExactly(
                new Presence.Check(PresenceKind.PACKAGE, "tide-code", "5.0"));
    }

    @Test
    void aSecondArchitectureOfAReleaseIsAnotherVariantOfIt() {
        Proposal proposal = propose(file(InstallerFormat.MSI, "Siltscope Lab", "4.2", "arm64", InstallerKind.UNKNOWN), "s.msi");
        assertThat(proposal.version()).as("4.2 is 4.2.0").isEqualTo("4.2.0");
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
}
