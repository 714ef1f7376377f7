package rivo.server.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.core.audience.DeviceSet;
import rivo.devices.protocol.PresenceKind;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.Readiness.Look;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.StepKind;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.About;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;

/** What is looked at before a release is assigned, thing by thing. */
class ReadinessTest {

    private static final List<Step> REMOVE = List.of(Step.run("", "remove --quiet", List.of()));
    private static final Presence SEEN = Presence.inventory("Siltscope Lab");

    @TempDir
    private static Path data;
    private static TestServer server;
    private static Content content;

    @BeforeAll
    static void start() throws IOException {
        server = TestServer.start(data);
        content = server.bean(Contents.class).keep(new ByteArrayInputStream(TestTitles.INSTALLER), "setup.bin");
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static Snapshot now() {
        return server.bean(CurrentSnapshot.class).now();
    }

    private static DeviceSet devices(String rule) {
        return now().resolver().audiences().devicesWhere(rule);
    }

    private static DeviceSet none() {
        return devices("name eq \"nobody\"");
    }

    private static TitleRecord title(ReleaseRecord... releases) {
        return TitleRecord.of("siltscope", "Siltscope Lab", "Fenwick Instruments", List.of(releases));
    }

    private static Look look(String code, TitleRecord title, ReleaseRecord release, DeviceSet without) {
        List<Look> looks = server.bean(Readiness.class).looks(now(), title, release, without);
        return looks.stream().filter(look -> look.code().equals(code)).findFirst().orElseThrow(() -> new AssertionError(code + " is none of " + looks));
    }

    private static List<String> codes(TitleRecord title, ReleaseRecord release) {
        return server.bean(Readiness.class).looks(now(), title, release, none()).stream().map(Look::code).toList();
    }

    private static List<String> codes(VariantRecord variant) {
        ReleaseRecord release = ReleaseRecord.of("4.2.0", List.of(variant));
        return codes(title(release), release);
    }

    private static Look look(String code, VariantRecord variant) {
        ReleaseRecord release = ReleaseRecord.of("4.2.0", List.of(variant));
        return look(code, title(release), release, none());
    }

    private static VariantRecord running(String command) {
        return new VariantRecord("x64", null, false, List.of(content), List.of(Step.run("", command, List.of())), REMOVE, List.of(), SEEN);
    }

    private static VariantRecord holding(Content... contents) {
        return new VariantRecord("x64", null, false, List.of(contents), REMOVE, REMOVE, List.of(), SEEN);
    }

    @Test
    void aReleaseThatIsReadyIsWellInEverything() {
        ReleaseRecord release = ReleaseRecord.of("4.2.0", List.of(running("setup.exe /S")));
        assertThat(server.bean(Readiness.class).looks(now(), title(release), release, none())).allMatch(Look::well).allMatch(look -> look.remedy() == null)
                .extracting(Look::code).contains("silent", "removable", "presence-check", "content", "paths", "signer", "fits", "window", "newest");
    }

    @ParameterizedTest
    @CsvSource({"setup.exe, false", "setup.exe /S, true", "SETUP.EXE /quiet, true", "setup.exe /qn /norestart, true", "msiexec /i app.msi, false",
        "msiexec.exe /i app.msi /q, true", "setup.exe --silent, true", "setup.exe -y, true", "setup.exe /quietly, false", "setup.exe /query, false",
        "sh install.sh, true", "setup.exe/S, false", "notes.exercise, true"})
    void aProgramThatMayWaitForAClickIsPointedOut(String command, boolean silent) {
        assertThat(codes(running(command))).contains(silent ? "silent" : "no-silent-switch").doesNotContain(silent ? "no-silent-switch" : "silent");
    }

    @Test
    void aStepThatIsNoCommandWaitsForNoClick() {
        Step copy = new Step(StepKind.COPY, "", "{content}/setup.exe", "C:/Tools", null, null, "", 60, false, "", Map.of(), List.of(), false, null, null, false, "");
        assertThat(codes(new VariantRecord("x64", null, false, List.of(content), List.of(copy), REMOVE, List.of(), SEEN))).contains("silent");
    }

    @Test
    void whatHasNoCommandsIsSaid() {
        VariantRecord bare = new VariantRecord("x64", null, false, List.of(), List.of(), List.of(), List.of(), null);
        assertThat(codes(bare)).contains("no-install", "no-removal", "no-presence-check");
        assertThat(look("no-install", bare).remedy()).isEqualTo("edit-install");
        VariantRecord onlyRemoval = new VariantRecord("x64", null, false, List.of(), List.of(), REMOVE, List.of(), SEEN);
        assertThat(codes(onlyRemoval)).as("it is offered").contains("no-install", "removable");
        ReleaseRecord withdrawn = new ReleaseRecord("4.2.0", false, "", List.of(), List.of(), List.of(), List.of(onlyRemoval));
        assertThat(codes(title(withdrawn), withdrawn)).contains("only-removal").doesNotContain("no-install");
        ReleaseRecord nothing = new ReleaseRecord("4.2.0", false, "", List.of(), List.of(), List.of(), List.of(bare));
        assertThat(codes(title(nothing), nothing)).contains("no-install");
    }

    @ParameterizedTest
    @EnumSource(PresenceKind.class)
    void eachKindOfPresenceCheckIsNamed(PresenceKind kind) {
        Presence presence = new Presence(false, List.of(new Presence.Check(kind, "a", ""), new Presence.Check(kind, "b", "")));
        String words = Map.of(PresenceKind.INVENTORY, "its inventory name", PresenceKind.PRODUCT_CODE, "a product code", PresenceKind.PACKAGE, "a package name",
                PresenceKind.FILE, "a file", PresenceKind.REGISTRY, "a registry value", PresenceKind.SCRIPT, "a script").get(kind);
        assertThat(look("presence-check", new VariantRecord("x64", null, false, List.of(), REMOVE, REMOVE, List.of(), presence)).sentence())
                .isEqualTo("Presence check: " + words);
    }

    @ParameterizedTest
    @CsvSource({"0, 1 KiB", "1023, 1 KiB", "2048, 2 KiB", "1048575, 1023 KiB", "1048576, 1 MiB", "3145728, 3 MiB"})
    void howMuchItIsIsSaid(long bytes, String words) {
        assertThat(look("content", holding(new Content(content.sha256(), bytes, "setup.bin"))).detail()).startsWith(words + " on the server, SHA-256 "
                + content.sha256().substring(0, 4) + "…" + content.sha256().substring(60));
    }

    @Test
    void contentThatIsMissingIsNamedAndNoneIsWell() {
        assertThat(look("content-missing", holding(content, new Content("ab".repeat(32), 5, "lost.cab"))).detail()).isEqualTo("lost.cab is not on the server.");
        assertThat(look("content", holding()).sentence()).isEqualTo("No content needed");
    }

    @ParameterizedTest
    @CsvSource(value = {"D:\\tools\\setup.exe /S|own-drive", "copy x 'e:/tools'|own-drive", "set DIR=z:/x|own-drive", "C:\\tools\\a /S|paths", "A:\\x /S|paths",
        "run cd:/x|paths", "\\\\files\\c$\\setup.exe /S|administrators-share", "\\\\files\\ADMIN$\\a.exe /S|administrators-share",
        "\\\\files\\software\\a.exe /S|paths"}, delimiter = '|')
    void aPathThatDevicesMayNotHaveIsPointedOut(String command, String code) {
        assertThat(codes(running(command))).contains(code);
        List<Step> steps = List.of(Step.run("", command, List.of()));
        assertThat(codes(new VariantRecord("x64", null, false, List.of(), REMOVE, steps, List.of(), SEEN))).as("removing").contains(code);
        assertThat(codes(new VariantRecord("x64", null, false, List.of(), REMOVE, REMOVE, steps, SEEN))).as("repairing").contains(code);
    }

    @Test
    void aCopyToADriveIsPointedOutByItsLetter() {
        Step copy = new Step(StepKind.COPY, "", "{content}", "f:\\tools", null, null, "", 60, false, "", Map.of(), List.of(), false, null, null, false, "");
        assertThat(look("own-drive", new VariantRecord("x64", null, false, List.of(), List.of(copy), REMOVE, List.of(), SEEN)).sentence())
                .isEqualTo("Refers to drive F:");
    }

    @Test
    void whomItFitsIsSaid() {
        ReleaseRecord release = ReleaseRecord.of("4.2.0", List.of(running("a")));
        int all = now().estate().devices().size();
        DeviceSet laboratories = devices("name sw \"QB-LAB\"");
        assertThat(look("fits", title(release), release, none()).sentence()).isEqualTo("Fits every device");
        assertThat(look("fits", title(release), release, laboratories).sentence()).isEqualTo("Fits " + (all - laboratories.size()) + " of " + all + " devices");
        assertThat(look("fits-nowhere", title(release), release, now().resolver().audiences().everyDevice()).detail()).startsWith("None of " + all + " devices");
        ReleaseRecord empty = ReleaseRecord.of("4.2.0", List.of());
        assertThat(look("no-variant", title(empty), empty, none()).well()).isFalse();
    }

    private static ReleaseRecord release(String version, boolean offered) {
        return new ReleaseRecord(version, offered, "", List.of(), List.of(), List.of(), List.of(running("a")));
    }

    @Test
    void thatDevicesWouldGetANewerOneIsSaidOfOneThatIsNotOffered() {
        ReleaseRecord old = release("4.9", false);
        Look look = look("older", title(old, release("5.0", false), release("4.10", true)), old, none());
        assertThat(look.detail()).isEqualTo("Devices would get 4.10.");
        assertThat(look.remedy()).isEqualTo("show:4.10");
        assertThat(codes(title(release("4.9", true), release("4.10", true)), release("4.9", true))).contains("newest");
        assertThat(codes(title(old, release("4.8", true), release("4.9.0", true)), old)).contains("newest");
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void aWebPageInstallsNothingThatCouldBeLookedAt(boolean licence) {
        About about = new About("", "", "", "", "", "", "", "", licence ? "Read this." : " ", "https://rota.quillbrook.example/");
        TitleRecord page = new TitleRecord("rota", "Rota", "", about, "device", null, List.of(), List.of(), List.of());
        ReleaseRecord release = ReleaseRecord.of("1.0", List.of(new VariantRecord("all", null, false, List.of(), List.of(), List.of(), List.of(), null)));
        assertThat(codes(page, release)).isEqualTo(Stream.concat(Stream.of("web-page", "fits", "window", "newest"), Stream.of("licence-not-accepted")
                .filter(code -> licence)).toList());
        assertThat(look("web-page", page, release, none()).detail()).isEqualTo("https://rota.quillbrook.example/");
    }

    @Test
    void whoSignedIsHeldAgainstTheMakerAndThoseWhoAreTrusted() {
        Content signed = new Content(content.sha256(), content.size(), "setup.bin", "Harbour Packaging");
        ReleaseRecord release = ReleaseRecord.of("4.2.0", List.of(holding(signed)));
        Look look = look("signer-is-not-maker", title(release), release, none());
        assertThat(look.detail()).isEqualTo("Signed by Harbour Packaging, made by Fenwick Instruments.");
        assertThat(look.remedy()).isEqualTo("trust:Harbour Packaging");
        TitleRecord trusting = new TitleRecord("siltscope", "Siltscope Lab", "", About.NOTHING, "device", null, List.of("Harbour Packaging"), List.of(), List.of(release));
        assertThat(codes(trusting, release)).contains("signer");
        TitleRecord nobody = new TitleRecord("siltscope", "Siltscope Lab", "", About.NOTHING, "device", null, List.of(), List.of(), List.of(release));
        assertThat(look("signer-is-not-maker", nobody, release, none()).detail()).endsWith("made by nobody who is named.");
    }
}
