package rivo.server.catalogue.proposal;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rivo.devices.protocol.PresenceKind;
import rivo.devices.protocol.Work;
import rivo.formats.installer.InstallerReader;
import rivo.server.TestServer;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.proposal.Proposals.Proposal;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;

/** The commands that are proposed for Linux, really run: packages into a root of their own, scripts and archives in a folder. */
class RealCommandsTest {

    @TempDir
    private static Path data;
    @TempDir
    private static Path folder;
    private static TestServer server;
    private static Proposals proposals;
    private static Path root;

    @BeforeAll
    static void start() throws IOException {
        server = TestServer.start(data).signIn();
        proposals = server.bean(Proposals.class);
        root = folder.resolve("root");
        for (String path : List.of("var/lib/dpkg/info", "var/lib/dpkg/updates", "var/lib/apt/lists/partial", "var/cache/apt/archives/partial", "var/log/apt",
                "etc/apt/preferences.d", "etc/apt/apt.conf.d")) {
            Files.createDirectories(root.resolve(path));
        }
        Files.createFile(root.resolve("var/lib/dpkg/status"));
        Files.createFile(root.resolve("etc/apt/sources.list"));
        // All that makes it another root; the commands are run as they are proposed.
        Files.writeString(folder.resolve("apt.conf"), "Dir \"" + root + "/\";\nDir::State::status \"" + root + "/var/lib/dpkg/status\";\nDir::Bin::dpkg \"/usr/bin/dpkg\";\n"
                + "DPkg::Options { \"--root=" + root + "\"; \"--force-not-root\"; \"--log=" + folder + "/dpkg.log\"; };\nAPT::Architecture \"amd64\";\nAPT::Sandbox::User \"\";\n"
                + "Debug::NoLocking \"true\";\n");
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private record Ended(int code, String said) {
    }

    private static Ended run(String command, Map<String, String> environment) throws IOException, InterruptedException {
        ProcessBuilder builder = new ProcessBuilder("sh", "-c", command).directory(folder.toFile()).redirectErrorStream(true);
        builder.environment().put("APT_CONFIG", folder.resolve("apt.conf").toString());
        builder.environment().putAll(environment);
        Process process = builder.start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return new Ended(process.waitFor(), said);
    }

    /** As a device carries the steps out: one after the other, with its own folders filled in. */
    private static Ended carryOut(List<Step> steps) throws IOException, InterruptedException {
        Ended last = new Ended(0, "");
        for (Step step : steps) {
            last = run(step.command().replace("{content}", folder.toString()).replace("{programs}", folder.resolve("programs").toString()), step.environment());
            if (last.code() != 0) {
                break;
            }
        }
        return last;
    }

    private static void make(String command) throws IOException, InterruptedException {
        Ended ended = run("set -e; " + command, Map.of());
        assertThat(ended.code()).as(ended.said()).isZero();
    }

    private static VariantRecord proposed(String name) throws Exception {
        Proposal proposal = proposals.propose(InstallerReader.read(folder.resolve(name), name), new Content("ab".repeat(32), 1, name), null);
        return proposal.title().leading().variant(proposal.variant());
    }

    private static String deb(String version, String configuration) throws Exception {
        String name = "weir gauge " + version.replaceAll("[^0-9]", "") + ".deb";
        make("rm -rf d && mkdir -p d/DEBIAN d/etc d/opt/weirgauge && echo x > d/opt/weirgauge/x && echo " + configuration + " > d/etc/weirgauge.conf && "
                + "printf 'Package: weirgauge\\nVersion: " + version + "\\nArchitecture: all\\nMaintainer: S <s@example.org>\\nDescription: W\\n' > d/DEBIAN/control && "
                + "echo /etc/weirgauge.conf > d/DEBIAN/conffiles && dpkg-deb -Zxz -b d '" + name + "'");
        return name;
    }

    /** What a device would find: the version of the installed package; empty where it is not there. */
    private static String installed() throws Exception {
        return run("dpkg-query --admindir=" + root + "/var/lib/dpkg -W -f='${db:Status-Abbrev}${Version}' weirgauge 2>/dev/null | sed -n 's/^ii *//p'", Map.of()).said().strip();
    }

    private static boolean isSeen(VariantRecord variant) throws Exception {
        Presence.Check check = variant.presence().checks().get(0);
        assertThat(check.kind()).isEqualTo(PresenceKind.PACKAGE);
        return !installed().isEmpty() && new Work.Look(check.kind(), check.subject(), check.version(), check.order()).isMetBy(installed());
    }

    @Test
    void aDebianPackageIsInstalledSeenRemovedAndGone() throws Exception {
        VariantRecord first = proposed(deb("1:1.4-2", "factory"));
        assertThat(isSeen(first)).isFalse();
        Ended ended = carryOut(first.install());
        assertThat(ended.code()).as(ended.said()).isZero();
        assertThat(isSeen(first)).isTrue();
        assertThat(root.resolve("opt/weirgauge/x")).exists();

        // Whoever has changed its configuration keeps that over an upgrade, and nobody is asked.
        Files.writeString(root.resolve("etc/weirgauge.conf"), "ours\n");
        VariantRecord rebuilt = proposed(deb("1:1.4-2+deb12u1", "newer"));
        assertThat(isSeen(rebuilt)).as("an older build does not do").isFalse();
        assertThat(carryOut(rebuilt.install()).code()).isZero();
        assertThat(isSeen(rebuilt)).isTrue();
        assertThat(Files.readString(root.resolve("etc/weirgauge.conf"))).isEqualTo("ours\n");

        Ended older = carryOut(first.install());
        assertThat(older.code()).as("an older one is refused").isNotZero();
        assertThat(first.install().get(0).says()).contains("remove that first");
        assertThat(isSeen(rebuilt)).isTrue();

        assertThat(carryOut(rebuilt.remove()).code()).isZero();
        assertThat(isSeen(first)).isFalse();
        assertThat(root.resolve("opt/weirgauge/x")).doesNotExist();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', value = {"hello one.sh|echo ran > out.txt", "b.sh|#!/bin/bash\\n[[ a == a ]] && echo ran > out.txt",
        "p.py|open('out.txt', 'w').write('ran')", "p.pl|open(F, '>', 'out.txt'); print F 'ran';"})
    void aScriptIsReallyRun(String name, String text) throws Exception {
        Files.writeString(folder.resolve(name), text.replace("out.txt", folder.resolve("out.txt").toString()).replace("\\n", "\n") + "\n");
        Files.deleteIfExists(folder.resolve("out.txt"));
        Ended ended = carryOut(proposed(name).install());
        assertThat(ended.code()).as(ended.said()).isZero();
        assertThat(folder.resolve("out.txt")).exists();
    }

    @Test
    void aTarArchiveIsUnpackedAndDeletedAgain() throws Exception {
        make("mkdir -p t && echo x > t/x && tar -czf 'Tide tables.tar.gz' t");
        VariantRecord variant = proposed("Tide tables.tar.gz");
        Ended ended = carryOut(variant.install());
        assertThat(ended.code()).as(ended.said()).isZero();
        try (var files = Files.walk(folder.resolve("programs"))) {
            assertThat(files.filter(Files::isRegularFile).map(file -> file.getFileName().toString())).containsExactly("x");
        }
        assertThat(carryOut(variant.remove()).code()).isZero();
        try (var files = Files.list(folder.resolve("programs"))) {
            assertThat(files).isEmpty();
        }
    }

    @Test
    void aPackageInAnArchiveIsUnpackedAndInstalled() throws Exception {
        String name = deb("1:1.6-1", "factory");
        make("rm -rf z && mkdir -p z/in && cp '" + name + "' z/in/w.deb && cd z && python3 -m zipfile -c ../boxed.zip in");
        VariantRecord variant = proposed("boxed.zip");
        Ended ended = carryOut(variant.install());
        assertThat(ended.code()).as(ended.said()).isZero();
        assertThat(installed()).isEqualTo("1:1.6-1");
        assertThat(carryOut(variant.remove()).code()).isZero();
        assertThat(installed()).isEmpty();
    }
}
