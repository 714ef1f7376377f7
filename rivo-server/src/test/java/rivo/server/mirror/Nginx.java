package rivo.server.mirror;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;

/** Debian's nginx with a configuration of Rivo's, in a folder of its own. */
final class Nginx implements AutoCloseable {

    private static final Path PROGRAM = Path.of("/usr/sbin/nginx");

    private final Path folder;
    private Process process;

    private Nginx(Path folder) {
        this.folder = folder;
    }

    /** @param config as the server wrote it; only the place of its cache is moved into the folder */
    static Nginx start(Path folder, String config) throws IOException, InterruptedException {
        Files.createDirectories(folder.resolve("logs"));
        Path cache = Files.createDirectories(folder.resolve("cache"));
        Files.writeString(folder.resolve("rivo-mirror.conf"), config.replace("/var/cache/nginx/rivo", cache.toString()));
        StringBuilder main = new StringBuilder("pid nginx.pid;\nerror_log stderr;\ndaemon off;\nevents {}\nhttp {\n");
        for (String temporary : new String[] {"client_body", "proxy", "fastcgi", "uwsgi", "scgi"}) {
            main.append("  ").append(temporary).append("_temp_path ").append(folder).append("/").append(temporary).append(";\n");
        }
        Files.writeString(folder.resolve("nginx.conf"), main.append("  include rivo-mirror.conf;\n}\n"));
        if (System.getProperty("user.name").equals("root")) {
            Files.writeString(folder.resolve("nginx.conf"), "user root;\n" + Files.readString(folder.resolve("nginx.conf")));
        }
        Nginx nginx = new Nginx(folder);
        nginx.check();
        nginx.run();
        return nginx;
    }

    private Process program(String... more) throws IOException {
        java.util.List<String> command = new java.util.ArrayList<>(java.util.List.of(PROGRAM.toString(), "-p", folder.toString(), "-c",
                "nginx.conf"));
        command.addAll(java.util.List.of(more));
        return new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(folder.resolve("out.log").toFile()).start();
    }

    private void check() throws IOException, InterruptedException {
        if (program("-t").waitFor() != 0) {
            throw new IOException("nginx does not take the configuration: " + output());
        }
    }

    String output() throws IOException {
        return Files.readString(folder.resolve("out.log"));
    }

    void run() throws IOException {
        process = program();
    }

    void stop() throws InterruptedException {
        process.destroy();
        if (!process.waitFor(5, TimeUnit.SECONDS)) {
            process.destroyForcibly().waitFor();
        }
    }

    @Override
    public void close() {
        try {
            stop();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }
}
