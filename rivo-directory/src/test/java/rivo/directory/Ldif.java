package rivo.directory;

import com.unboundid.ldap.listener.InMemoryDirectoryServer;
import com.unboundid.ldap.listener.InMemoryDirectoryServerConfig;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldif.LDIFException;
import java.net.URI;
import java.time.Duration;
import java.util.UUID;

/** A small directory for tests, entry by entry. */
final class Ldif implements AutoCloseable {

    static final String BASE = "dc=quillbrook,dc=example";
    static final String READER = "cn=reader";

    private final InMemoryDirectoryServer server;

    Ldif() throws LDAPException {
        InMemoryDirectoryServerConfig config = new InMemoryDirectoryServerConfig(BASE);
        config.setSchema(null);
        config.addAdditionalBindCredentials(READER, "secret");
        server = new InMemoryDirectoryServer(config);
        server.startListening();
        entry(BASE, "root", "objectClass: domain");
    }

    /** An id made from a word. */
    static String id(String word) {
        return UUID.nameUUIDFromBytes(word.getBytes(java.nio.charset.StandardCharsets.UTF_8)).toString();
    }

    Ldif entry(String dn, String idWord, String... lines) throws LDAPException {
        String[] all = new String[lines.length + 2];
        all[0] = "dn: " + dn;
        all[1] = "entryUUID: " + id(idWord);
        System.arraycopy(lines, 0, all, 2, lines.length);
        add(all);
        return this;
    }

    void add(String... lines) throws LDAPException {
        try {
            server.add(lines);
        } catch (LDIFException e) {
            throw new IllegalArgumentException(e);
        }
    }

    InMemoryDirectoryServer server() {
        return server;
    }

    Directory directory() {
        return directory("secret", 2);
    }

    Directory directory(String password, int pageSize) {
        return new Directory(new DirectorySettings(URI.create("ldap://127.0.0.1:" + server.getListenPort()), BASE,
                READER, password, pageSize, Duration.ofSeconds(2)));
    }

    @Override
    public void close() {
        server.shutDown(true);
    }
}
