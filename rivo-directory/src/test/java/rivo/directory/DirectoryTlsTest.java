package rivo.directory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import com.unboundid.asn1.ASN1StreamReader;
import com.unboundid.ldap.listener.InMemoryDirectoryServer;
import com.unboundid.ldap.listener.InMemoryDirectoryServerConfig;
import com.unboundid.ldap.listener.InMemoryListenerConfig;
import com.unboundid.ldap.listener.interceptor.InMemoryInterceptedSimpleBindRequest;
import com.unboundid.ldap.listener.interceptor.InMemoryOperationInterceptor;
import com.unboundid.ldap.protocol.ExtendedResponseProtocolOp;
import com.unboundid.ldap.protocol.LDAPMessage;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.ResultCode;
import com.unboundid.ldap.sdk.extensions.StartTLSExtendedRequest;
import com.unboundid.util.ssl.KeyStoreKeyManager;
import com.unboundid.util.ssl.SSLUtil;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** That nothing, a password least of all, is said to a server that is not the one that was meant. */
class DirectoryTlsTest {

    private static final String SUFFIX = "dc=quillbrook,dc=example";
    private static final String READER = "cn=reader," + SUFFIX;

    private static final Map<String, Path> CERTIFICATES = new HashMap<>();

    @TempDir
    private static Path folder;
    private InMemoryDirectoryServer server;
    private final Queue<String> passwords = new ConcurrentLinkedQueue<>();

    /** A certificate for this name, signed by itself; the file that holds it in PEM. Made once: keytool takes its time. */
    private static Path certificate(String name) throws Exception {
        Path made = CERTIFICATES.get(name);
        if (made == null) {
            made = make(name);
            CERTIFICATES.put(name, made);
        }
        return made;
    }

    private static Path make(String name) throws Exception {
        Path store = folder.resolve(name + ".p12");
        keytool("-genkeypair", "-alias", "a", "-keyalg", "EC", "-dname", "CN=" + name, "-ext", "san=dns:" + name, "-validity", "3", "-keystore",
                store.toString(), "-storetype", "PKCS12", "-storepass", "changeit");
        Path pem = folder.resolve(name + ".pem");
        keytool("-exportcert", "-rfc", "-alias", "a", "-keystore", store.toString(), "-storepass", "changeit", "-file", pem.toString());
        return pem;
    }

    private static void keytool(String... arguments) throws Exception {
        String[] command = new String[arguments.length + 1];
        command[0] = Path.of(System.getProperty("java.home"), "bin", "keytool").toString();
        System.arraycopy(arguments, 0, command, 1, arguments.length);
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(said).isZero();
    }

    private void serve(String name, boolean startTls) throws Exception {
        SSLUtil tls = new SSLUtil(new KeyStoreKeyManager(folder.resolve(name + ".p12").toFile(), "changeit".toCharArray(), "PKCS12", "a"), null);
        InMemoryDirectoryServerConfig config = new InMemoryDirectoryServerConfig(SUFFIX);
        InetAddress loopback = InetAddress.getLoopbackAddress();
        config.setListenerConfigs(startTls
                ? InMemoryListenerConfig.createLDAPConfig("a", loopback, 0, tls.createSSLSocketFactory())
                : InMemoryListenerConfig.createLDAPSConfig("a", loopback, 0, tls.createSSLServerSocketFactory(), tls.createSSLSocketFactory()));
        config.addAdditionalBindCredentials(READER, "secret");
        config.setSchema(null);
        config.addInMemoryOperationInterceptor(new InMemoryOperationInterceptor() {
            @Override
            public void processSimpleBindRequest(InMemoryInterceptedSimpleBindRequest request) {
                passwords.add(request.getRequest().getPassword().stringValue());
            }
        });
        server = new InMemoryDirectoryServer(config);
        server.add("dn: " + SUFFIX, "objectClass: domain", "dc: quillbrook", "entryUUID: 00000000-0000-0000-0000-000000000001");
        server.startListening();
    }

    @AfterEach
    void stop() {
        if (server != null) {
            server.shutDown(true);
        }
    }

    private Directory directory(String host, boolean startTls, Path ca) {
        return new Directory(new DirectorySettings(URI.create((startTls ? "ldap://" : "ldaps://") + host + ":" + server.getListenPort()), SUFFIX,
                READER, "secret", 100, Duration.ofSeconds(5), startTls, ca));
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void theCertificateOfTheNameIsTaken(boolean startTls) throws Exception {
        Path pem = certificate("localhost");
        serve("localhost", startTls);
        assertThat(directory("localhost", startTls, pem).scan().ous()).hasSize(1);
        assertThat(passwords).isNotEmpty();
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void aTrustedCertificateForAnotherNameIsSentNothing(boolean startTls) throws Exception {
        Path pem = certificate("elsewhere.quillbrook.example");
        serve("elsewhere.quillbrook.example", startTls);
        Directory directory = directory("localhost", startTls, pem);
        assertThatThrownBy(directory::scan).isInstanceOf(DirectoryException.class).hasMessageContaining("no certificate that may be trusted");
        assertThatThrownBy(() -> directory.signIn("imara", "heron")).isInstanceOf(DirectoryException.class);
        assertThat(passwords).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void aCertificateThatNobodyTrustsIsSentNothing(boolean startTls) throws Exception {
        certificate("localhost");
        Path other = certificate("other.quillbrook.example");
        serve("localhost", startTls);
        assertThatThrownBy(() -> directory("localhost", startTls, other).scan()).isInstanceOf(DirectoryException.class)
                .hasMessageContaining("--directory-ca");
        assertThatThrownBy(() -> directory("localhost", startTls, null).scan()).as("those that Java trusts").isInstanceOf(DirectoryException.class);
        assertThat(passwords).isEmpty();
    }

    @Test
    void aServerThatSpeaksNoStartTlsIsSentNothing() throws Exception {
        Path pem = certificate("localhost");
        InMemoryDirectoryServerConfig config = new InMemoryDirectoryServerConfig(SUFFIX);
        config.setSchema(null);
        server = new InMemoryDirectoryServer(config);
        server.startListening();
        assertThatThrownBy(() -> directory("localhost", true, pem).scan()).isInstanceOf(DirectoryException.class);
    }

    @Test
    void aServerThatAgreesToStartTlsAndThenSaysNothingIsNotWaitedForWithoutEnd() throws Exception {
        Path pem = certificate("localhost");
        try (ServerSocket silent = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
            Thread agrees = new Thread(() -> agreeToStartTls(silent), "agrees to StartTLS");
            agrees.start();
            Directory hanging = new Directory(new DirectorySettings(URI.create("ldap://localhost:" + silent.getLocalPort()), SUFFIX, READER,
                    "secret", 100, Duration.ofSeconds(3), true, pem));
            assertTimeoutPreemptively(Duration.ofSeconds(20), () -> assertThatThrownBy(hanging::scan).isInstanceOf(DirectoryException.class)
                    .hasMessageContaining("does not answer"));
            agrees.join();
        }
    }

    /** Takes a connection, says yes to its first request, and nothing more until the other side goes. */
    private static void agreeToStartTls(ServerSocket silent) {
        try (Socket socket = silent.accept();
                ASN1StreamReader asked = new ASN1StreamReader(socket.getInputStream())) {
            int id = LDAPMessage.readFrom(asked, true).getMessageID();
            socket.getOutputStream().write(new LDAPMessage(id, new ExtendedResponseProtocolOp(ResultCode.SUCCESS_INT_VALUE, null, null, null,
                    StartTLSExtendedRequest.STARTTLS_REQUEST_OID, null)).encode().encode());
            while (socket.getInputStream().read() >= 0) {
                // What it says of TLS is not answered.
            }
        } catch (IOException | LDAPException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void aFileThatHoldsNoCertificateIsSaid() throws Exception {
        certificate("localhost");
        serve("localhost", false);
        Path none = Files.writeString(folder.resolve("none.pem"), "none");
        assertThatThrownBy(() -> directory("localhost", false, none).scan()).isInstanceOf(DirectoryException.class)
                .hasMessageContaining("none.pem").hasMessageContaining("PEM");
        assertThatThrownBy(() -> directory("localhost", false, folder.resolve("gone.pem")).scan()).isInstanceOf(DirectoryException.class)
                .hasMessageContaining("cannot be read");
    }

    @Test
    void settingsThatMakeNoSenseAreRefused() {
        URI plain = URI.create("ldap://localhost");
        URI secure = URI.create("ldaps://localhost");
        assertThatThrownBy(() -> new DirectorySettings(secure, SUFFIX, READER, "x", 1, Duration.ofSeconds(1), true, null))
                .isInstanceOf(IllegalArgumentException.class).hasMessageContaining("StartTLS");
        assertThatThrownBy(() -> new DirectorySettings(plain, SUFFIX, READER, "x", 1, Duration.ofSeconds(1), false, folder))
                .isInstanceOf(IllegalArgumentException.class).hasMessageContaining("without TLS");
    }
}
