package rivo.formats.installer;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Map;

/** Runs the real tools that make and sign installers, in a folder. {@code ./rivo test} installs them. */
record Tools(Path folder) {

    private static final Path NPM = Path.of("src", "test", "npm");

    /** Runs a command line of the shell; what it says is in the failure. */
    String run(String command) throws IOException, InterruptedException {
        return run(command, Map.of());
    }

    String run(String command, Map<String, String> environment) throws IOException, InterruptedException {
        ProcessBuilder builder = new ProcessBuilder("sh", "-ec", command).directory(folder.toFile()).redirectErrorStream(true);
        builder.environment().putAll(environment);
        Process process = builder.start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new AssertionError("'" + command + "' ended with " + process.exitValue() + ": " + said);
        }
        return said;
    }

    Path write(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    InstallerFile read(String name) throws Exception {
        return InstallerReader.read(folder.resolve(name), name);
    }

    /** A certificate of this organisation, issued by another of this folder, or by itself: {@code NAME.pem} and {@code NAME.key}. */
    void certificate(String name, String organisation, String issuer, String purpose, int days) throws IOException, InterruptedException {
        write(name + ".ext", "basicConstraints=" + (issuer.isEmpty() ? "critical,CA:true" : "CA:false") + (purpose.isEmpty() ? "" : "\nextendedKeyUsage=critical," + purpose)
                + "\n");
        run("openssl req -new -newkey rsa:2048 -nodes -subj '/O=" + organisation + "/CN=" + organisation + "' -keyout " + name + ".key -out " + name + ".csr");
        run("openssl x509 -req -in " + name + ".csr -extfile " + name + ".ext -days " + days + " -out " + name + ".pem "
                + (issuer.isEmpty() ? "-signkey " + name + ".key" : "-CA " + issuer + ".pem -CAkey " + issuer + ".key -CAcreateserial"));
    }

    /** A small Windows program with a version resource, as a compiler makes it. */
    void program(String name, String organisation, String product, String version) throws IOException, InterruptedException {
        write("main.c", "int WinMain(void *a, void *b, char *c, int d) { return 0; }\nint main(void) { return 0; }\n");
        String numbers = version.replace('.', ',') + ",0".repeat(3 - (int) version.chars().filter(c -> c == '.').count());
        write("version.rc", "1 VERSIONINFO\nFILEVERSION " + numbers + "\nPRODUCTVERSION " + numbers + "\nBEGIN\nBLOCK \"StringFileInfo\"\nBEGIN\nBLOCK \"040904b0\"\nBEGIN\n"
                + "VALUE \"CompanyName\", \"" + organisation + "\"\nVALUE \"ProductName\", \"" + product + "\"\nVALUE \"ProductVersion\", \"" + version + "\"\nEND\nEND\n"
                + "BLOCK \"VarFileInfo\"\nBEGIN\nVALUE \"Translation\", 0x409, 1200\nEND\nEND\n");
        run("x86_64-w64-mingw32-windres version.rc version.o && x86_64-w64-mingw32-gcc -mwindows -o " + name + " main.c version.o");
    }

    /** Real programs of well-known packages; fetched once for each build folder. */
    static Path realPrograms() throws IOException, InterruptedException {
        Path target = Files.createDirectories(Path.of("target", "real-programs"));
        if (!Files.exists(target.resolve("node_modules"))) {
            for (String name : List.of("package.json", "package-lock.json")) {
                Files.copy(NPM.resolve(name), target.resolve(name), StandardCopyOption.REPLACE_EXISTING);
            }
            new Tools(target).run("npm ci --ignore-scripts --no-audit --no-fund");
        }
        return target.resolve("node_modules");
    }
}
