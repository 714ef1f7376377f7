package rivo.directory.demo;

import com.unboundid.ldap.listener.InMemoryDirectoryServer;
import com.unboundid.ldap.listener.InMemoryDirectoryServerConfig;
import com.unboundid.ldap.listener.InMemoryListenerConfig;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.OperationType;
import com.unboundid.ldap.sdk.schema.Schema;
import com.unboundid.ldif.LDIFException;
import com.unboundid.ldif.LDIFReader;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Objects;
import java.util.Set;
import rivo.directory.DirectoryException;

/** A small LDAP server in this process, on a loopback port, filled from an LDIF file. */
public final class EmbeddedDirectory implements AutoCloseable {

    private final InMemoryDirectoryServer server;

    private EmbeddedDirectory(InMemoryDirectoryServer server) {
        this.server = server;
    }

    /**
     * Loads the file and starts to listen.
     *
     * @param port 0 for any free one
     * @throws DirectoryException when a line does not parse (it names the line), the schema does not allow an entry, or
     *     the port is taken
     */
    public static EmbeddedDirectory start(Path ldif, int port) {
        try {
            InMemoryDirectoryServerConfig config = new InMemoryDirectoryServerConfig(DemoOrganisation.BASE_DN);
            config.setListenerConfigs(InMemoryListenerConfig.createLDAPConfig("loopback",
                    InetAddress.getLoopbackAddress(), port, null));
            config.setSchema(Schema.mergeSchemas(Schema.getDefaultStandardSchema(), ownSchema()));
            config.setAuthenticationRequiredOperationTypes(
                    Set.of(OperationType.SEARCH, OperationType.COMPARE, OperationType.ADD, OperationType.MODIFY,
                            OperationType.MODIFY_DN, OperationType.DELETE));
            config.setEqualityIndexAttributes("uid");
            InMemoryDirectoryServer server = new InMemoryDirectoryServer(config);
            load(server, ldif);
            server.startListening();
            return new EmbeddedDirectory(server);
        } catch (LDAPException e) {
            throw new DirectoryException("The embedded directory could not start from " + ldif + ": "
                    + e.getMessage() + " Mend the file, or start with --fresh.", e);
        }
    }

    private static void load(InMemoryDirectoryServer server, Path ldif) throws LDAPException {
        try {
            server.importFromLDIF(true, ldif.toFile());
        } catch (LDAPException e) {
            nameBadLine(ldif);
            throw e;
        }
    }

    /** Reads the file record by record, so that a bad line is named by its number. */
    private static void nameBadLine(Path ldif) {
        try (LDIFReader check = new LDIFReader(Files.newInputStream(ldif))) {
            while (check.readEntry() != null) {
                // Only its syntax matters here.
            }
        } catch (LDIFException e) {
            throw new DirectoryException(ldif + ", line " + e.getLineNumber() + ": " + e.getMessage()
                    + " Mend the line, or start with --fresh.", e);
        } catch (IOException e) {
            throw new DirectoryException(ldif + " cannot be read; check that it is there, or start with --fresh.", e);
        }
    }

    private static Schema ownSchema() throws LDAPException {
        try (InputStream in = Objects.requireNonNull(
                EmbeddedDirectory.class.getResourceAsStream("/rivo/directory/demo/schema.ldif"))) {
            return Schema.getSchema(in);
        } catch (IOException | LDIFException e) {
            throw new IllegalStateException("the demo schema does not parse", e);
        }
    }

    public URI url() {
        return URI.create("ldap://127.0.0.1:" + server.getListenPort());
    }

    /** The server itself, for changing what it holds. */
    public InMemoryDirectoryServer server() {
        return server;
    }

    @Override
    public void close() {
        server.shutDown(true);
    }
}
