package rivo.server.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.KeyStore;
import java.security.cert.Certificate;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManagerFactory;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.datasource.SingleConnectionDataSource;
import rivo.directory.demo.DemoLdif;
import rivo.directory.demo.DemoOrganisation;
import rivo.directory.demo.EmbeddedDirectory;
import rivo.server.Rivo;

/** The command as an administrator starts it, in a process of its own. */
class ServeTest {

    private static final Duration PATIENCE = Duration.ofSeconds(60);

    @TempDir
    private Path folder;
    private EmbeddedDirectory directory;
    private @Nullable Process process;
    private final List<String> said = new ArrayList<>();

    @BeforeEach
    void directory() throws IOException {
        Path ldif = folder.resolve("directory.ldif");
        DemoLdif.write(new DemoOrganisation(true), ldif, "heron", "reads");
        directory = EmbeddedDirectory.start(ldif, 0);
    }

    @AfterEach
    void stop() throws InterruptedException {
        if (process != null) {
            process.destroyForcibly().waitFor();
        }
        directory.close();
    }

    /** Starts it, and gives its address. */
    private URI serve(String... options) throws IOException {
        List<String> command = new ArrayList<>(List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1", "-cp", System.getProperty("java.class.path"), Rivo.class.getName(), "serve", "--port", "0", "--data",
                folder.resolve("data").toString(), "--directory-url", directory.url().toString(), "--base-dn", DemoOrganisation.BASE_DN,
                "--bind-dn", DemoOrganisation.READER_DN));
        command.addAll(Arrays.asList(options));
        if (!command.contains("--administrators")) {
            command.addAll(List.of("--administrators", DemoOrganisation.ADMINISTRATORS_DN));
        }
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
        builder.environment().put("RIVO_DIRECTORY_PASSWORD", "reads");
        process = builder.start();
        BufferedReader out = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        for (String line = out.readLine(); line != null; line = out.readLine()) {
            said.add(line);
            if (line.startsWith("Rivo runs at ")) {
                return URI.create(line.substring("Rivo runs at ".length(), line.indexOf('/', 25) + 1));
            }
        }
        return URI.create("none:/");
    }

    private Path certificate(String alias, Path store) throws Exception {
        Files.deleteIfExists(store);
        Process keytool = new ProcessBuilder(Path.of(System.getProperty("java.home"), "bin", "keytool").toString(), "-genkeypair", "-alias", alias,
                "-keyalg", "EC", "-dname", "CN=" + alias, "-ext", "san=ip:127.0.0.1", "-validity", "3", "-keystore", store.toString(), "-storetype",
                "PKCS12", "-storepass", "changeit").redirectErrorStream(true).start();
        String words = new String(keytool.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(keytool.waitFor()).as(words).isZero();
        return store;
    }

    private void writePem(String alias) throws Exception {
        KeyStore store = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(certificate(alias, folder.resolve(alias + ".p12")))) {
            store.load(in, "changeit".toCharArray());
        }
        Files.writeString(folder.resolve("key.pem"), pem("PRIVATE KEY", store.getKey(alias, "changeit".toCharArray()).getEncoded()));
        Files.writeString(folder.resolve("certificate.pem"), pem("CERTIFICATE", store.getCertificate(alias).getEncoded()));
    }

    private static String pem(String what, byte[] bytes) {
        return "-----BEGIN " + what + "-----\n" + Base64.getMimeEncoder().encodeToString(bytes) + "\n-----END " + what + "-----\n";
    }

    private HttpClient trusting() throws Exception {
        KeyStore store = KeyStore.getInstance(KeyStore.getDefaultType());
        store.load(null, null);
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.filter(f -> f.toString().endsWith(".p12")).toList()) {
                KeyStore one = KeyStore.getInstance("PKCS12");
                try (InputStream in = Files.newInputStream(file)) {
                    one.load(in, "changeit".toCharArray());
                }
                Certificate certificate = one.getCertificate(one.aliases().nextElement());
                store.setCertificateEntry("c" + store.size(), certificate);
            }
        }
        TrustManagerFactory trust = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        trust.init(store);
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(null, trust.getTrustManagers(), null);
        return HttpClient.newBuilder().sslContext(context).version(HttpClient.Version.HTTP_1_1).build();
    }

    private static HttpResponse<String> signIn(HttpClient http, URI url, String... headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(url.resolve("/api/session")).timeout(PATIENCE)
                .header("Content-Type", "application/json").POST(HttpRequest.BodyPublishers.ofString("{\"account\":\""
                        + DemoOrganisation.ADMINISTRATOR + "\",\"password\":\"heron\"}"));
        for (int i = 0; i < headers.length; i += 2) {
            request.header(headers[i], headers[i + 1]);
        }
        HttpResponse<String> answer = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        for (int i = 0; i < 50 && answer.statusCode() == 403; i++) {
            // The directory is being read.
            Thread.sleep(200);
            answer = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        }
        return answer;
    }

    @Test
    void itTerminatesTlsItselfAndReadsItsCertificateAnew() throws Exception {
        writePem("first");
        URI url = serve("--tls-certificate", folder.resolve("certificate.pem").toString(), "--tls-key", folder.resolve("key.pem").toString());
        assertThat(url.getScheme()).as(said.toString()).isEqualTo("https");
        HttpResponse<String> answer = signIn(trusting(), url);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        assertThat(answer.headers().allValues("Set-Cookie")).hasSize(2).allMatch(c -> c.contains("Secure") && c.contains("SameSite=Strict"));
        assertThat(answer.headers().firstValue("Strict-Transport-Security")).isPresent();
        assertThatThrownBy(() -> signIn(HttpClient.newHttpClient(), url)).as("nobody else's certificate").isInstanceOf(IOException.class);
        writePem("second");
        long end = System.nanoTime() + PATIENCE.toNanos();
        String shown = "CN=first";
        while (shown.contains("first") && System.nanoTime() < end) {
            Thread.sleep(500);
            HttpResponse<Void> now = trusting().send(HttpRequest.newBuilder(url.resolve("/health")).build(), HttpResponse.BodyHandlers.discarding());
            shown = ((X509Certificate) now.sslSession().orElseThrow().getPeerCertificates()[0]).getSubjectX500Principal().getName();
        }
        assertThat(shown).isEqualTo("CN=second");
        assertThat(said).noneMatch(line -> line.contains("WARNING: Rivo listens"));
        everythingIsItsOwnersAlone();
    }

    private void everythingIsItsOwnersAlone() throws IOException {
        try (Stream<Path> all = Files.walk(folder.resolve("data"))) {
            for (Path path : all.toList()) {
                assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(path))).as(path.toString())
                        .isEqualTo(Files.isDirectory(path) ? "rwx------" : "rw-------");
            }
        }
    }

    @Test
    void behindAProxyForwardedHeadersCount() throws Exception {
        URI url = serve("--behind-proxy");
        HttpResponse<String> answer = signIn(HttpClient.newHttpClient(), url, "X-Forwarded-Proto", "https", "X-Forwarded-For", "10.1.2.3");
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        assertThat(answer.headers().allValues("Set-Cookie")).hasSize(2).allMatch(c -> c.contains("Secure"));
        assertThat(answer.headers().firstValue("Strict-Transport-Security")).isPresent();
        String cookie = answer.headers().allValues("Set-Cookie").stream().map(c -> c.split(";")[0])
                .collect(java.util.stream.Collectors.joining("; "));
        String sessions = HttpClient.newHttpClient().send(HttpRequest.newBuilder(url.resolve("/api/sessions")).header("Cookie", cookie)
                .header("X-Forwarded-Proto", "https").build(), HttpResponse.BodyHandlers.ofString()).body();
        assertThat(sessions).contains("\"address\":\"10.1.2.3\"");
    }

    @Test
    void itSaysLoudlyThatItListensWithoutTls() throws Exception {
        serve("--address", "0.0.0.0");
        assertThat(said).anyMatch(line -> line.startsWith("WARNING: Rivo listens on 0.0.0.0 without TLS."));
        assertThat(said.get(said.size() - 1)).contains("with its data in " + folder.resolve("data"));
    }

    @Test
    void whatCannotBeIsSaidBeforeItStarts() throws Exception {
        writePem("only");
        serve("--tls-certificate", folder.resolve("certificate.pem").toString());
        assertThat(String.join("\n", said)).contains("TLS needs both a certificate and its key");
        said.clear();
        serve("--directory-ca", folder.resolve("none.pem").toString());
        assertThat(String.join("\n", said)).contains("none.pem cannot be read");
        said.clear();
        serve("--administrators", "rivo-administrators");
        assertThat(String.join("\n", said)).contains("Give its distinguished name");
    }

    /** An older program would write into it what the newer one does not expect. */
    @Test
    void whatANewerRivoHasWrittenIsLeftAsItIs() throws Exception {
        serve();
        Objects.requireNonNull(process).destroyForcibly().waitFor();
        JdbcClient db = JdbcClient.create(new SingleConnectionDataSource("jdbc:h2:file:" + folder.resolve("data").resolve("rivo"), true));
        db.sql("""
                insert into "flyway_schema_history" ("installed_rank", "version", "description", "type", "script", "checksum", "installed_by", "execution_time", "success")
                values (1000, '1000', 'of a later version', 'SQL', 'V1000__of_a_later_version.sql', 1, 'rivo', 1, true)""").update();
        db.sql("shutdown").update();
        said.clear();
        assertThat(serve()).hasToString("none:/");
        assertThat(String.join("\n", said)).contains("The data in " + folder.resolve("data") + " was written by another version of Rivo");
    }
}
