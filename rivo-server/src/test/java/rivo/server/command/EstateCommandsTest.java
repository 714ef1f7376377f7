package rivo.server.command;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.boot.test.system.CapturedOutput;
import org.springframework.boot.test.system.OutputCaptureExtension;
import rivo.server.Rivo;

/** The commands that work on estate files. */
@ExtendWith(OutputCaptureExtension.class)
class EstateCommandsTest {

    private static final String ESTATE = """
            {"format": "rivo-estate/1", "asOf": "2026-11-23T08:00:00Z",
             "ous": [{"id": "root", "dn": "dc=quillbrook", "parent": null}],
             "users": [{"id": "u1", "name": "imara"}, {"id": "u2", "name": "tobin"}],
             "devices": [{"id": "d1", "name": "QB-1", "people": ["u1", "u2"], "facts": {"arch": "x64"}}],
             "titles": [{"id": "siltscope", "name": "Siltscope Lab", "scope": "device",
                         "releases": [{"version": "4.2.0", "variants": [{"id": "x64", "fits": "arch eq \\"x64\\""}]}]},
                        {"id": "brookmap", "scope": "user", "releases": [{"version": "1.0", "variants": [{"id": "v"}]}]}],
             "assignments": [
               {"id": "a1", "seq": 1, "subject": "title:siltscope", "intent": "required", "follows": "device",
                "include": ["all-devices"]},
               {"id": "a2", "seq": 2, "subject": "title:brookmap", "intent": "available", "follows": "user",
                "include": ["user:u1"]}]}
            """;
    private static final String CSV = """
            device,user,title,outcome,release,variant,assignment,reason,by
            d1,,siltscope,required,4.2.0,x64,a1,assigned,
            d1,u1,brookmap,available,1.0,v,a2,assigned,
            """;

    @TempDir
    private Path folder;
    private Path estate = Path.of("");

    @BeforeEach
    void writeTheEstate() throws IOException {
        estate = Files.writeString(folder.resolve("lab.json"), ESTATE);
    }

    private int run(Object... words) {
        return Rivo.run(java.util.Arrays.stream(words).map(Object::toString).toArray(String[]::new));
    }

    @Test
    void resolveWritesTheEffectiveAssignments(CapturedOutput output) throws IOException {
        Path csv = folder.resolve("new/out.csv");
        assertThat(run("resolve", estate, "-o", csv, "--stats")).isZero();
        assertThat(csv).hasContent(CSV);
        assertThat(output.getErr()).contains("1 devices, 2 users, 2 titles, 2 assignments; 2 rows; read in ");
    }

    @Test
    void severalFilesGoIntoAFolderInOneGo() throws IOException {
        Path other = Files.writeString(folder.resolve("other.json"), ESTATE.replace("\"required\"", "\"uninstall\""));
        Path out = folder.resolve("out");
        assertThat(run("resolve", estate, other, "--out-dir", out)).isZero();
        assertThat(out.resolve("lab.csv")).hasContent(CSV);
        assertThat(Files.readString(out.resolve("other.csv"))).contains("siltscope,uninstall,,,a1,assigned,");
        assertThat(out).isDirectoryNotContaining(path -> path.toString().endsWith(".part"));
    }

    @Test
    void refusedInputIs2AndSaysAllOfIt(CapturedOutput output) throws IOException {
        Path broken = Files.writeString(folder.resolve("broken.json"), ESTATE.replace("\"intent\": \"required\"",
                "\"intent\": \"wished\"").replace("user:u1", "user:u9"));
        Path csv = Files.writeString(folder.resolve("out.csv"), "what was there before");
        assertThat(run("resolve", broken, "-o", csv)).isEqualTo(2);
        assertThat(output.getErr().lines()).containsExactly(
                "assignments[0].intent: \"wished\" is none of available, required, uninstall.",
                "assignments[1].include[0]: There is no user \"u9\"; name one that is declared.");
        assertThat(csv).hasContent("what was there before");
        assertThat(run("resolve", "--check", estate)).isZero();
        assertThat(run("resolve", "--check", folder.resolve("none.json"))).isEqualTo(2);
    }

    @Test
    void wrongUsageIs64(CapturedOutput output) {
        assertThat(run("resolve")).isEqualTo(64);
        assertThat(run("resolve", estate, estate)).isEqualTo(64);
        assertThat(run("resolve", estate, "-o", "x", "--out-dir", "y")).isEqualTo(64);
        assertThat(run("explain", estate, "--device", "moon", "--title", "siltscope")).isEqualTo(64);
        assertThat(run("explain", estate, "--device", "d1", "--title", "brookmap")).isEqualTo(64);
        assertThat(output.getErr()).contains("There is no device \"moon\"; give its id.",
                "Say --user for a title of scope user; the device's people are u1, u2.");
    }

    @Test
    void explainSaysWhyAndWhyNot(CapturedOutput output) {
        assertThat(run("explain", estate, "--device", "qb-1", "--title", "Siltscope Lab")).isZero();
        assertThat(run("explain", estate, "--device", "d1", "--title", "brookmap", "--user", "tobin")).isZero();
        assertThat(output.getOut()).contains("Required, because the nearest assignment that reaches here, for all devices",
                "true   arch eq \"x64\"  saw x64", "Nothing: no assignment of brookmap reaches here.",
                "a2 available user:u1: does not reach here");
    }

    @Test
    void rehearseTellsWhatChanges(CapturedOutput output) throws IOException {
        Path after = Files.writeString(folder.resolve("after.json"), ESTATE.replace("\"required\"", "\"uninstall\""));
        Path csv = folder.resolve("diff.csv");
        assertThat(run("rehearse", estate, after, "-o", csv)).isZero();
        assertThat(Files.readString(csv).lines().skip(1)).containsExactly(
                "d1,,siltscope,removed,required,4.2.0,x64,a1,assigned,,uninstall,,,a1,assigned,");
        assertThat(output.getErr()).contains("1 titles looked at, 1 changed.", "siltscope: 1 removed (a1 is edited)");
        assertThat(run("rehearse", estate, folder.resolve("none.json"))).isEqualTo(2);
    }
}
