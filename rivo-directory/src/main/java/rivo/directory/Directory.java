package rivo.directory;

import com.unboundid.asn1.ASN1OctetString;
import com.unboundid.ldap.sdk.DN;
import com.unboundid.ldap.sdk.ExtendedResult;
import com.unboundid.ldap.sdk.Filter;
import com.unboundid.ldap.sdk.LDAPConnection;
import com.unboundid.ldap.sdk.LDAPConnectionOptions;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.ResultCode;
import com.unboundid.ldap.sdk.SearchRequest;
import com.unboundid.ldap.sdk.SearchResult;
import com.unboundid.ldap.sdk.SearchResultEntry;
import com.unboundid.ldap.sdk.SearchScope;
import com.unboundid.ldap.sdk.controls.SimplePagedResultsControl;
import com.unboundid.ldap.sdk.extensions.StartTLSExtendedRequest;
import com.unboundid.util.ssl.HostNameSSLSocketVerifier;
import java.security.cert.CertificateException;
import java.util.List;
import java.util.Optional;
import javax.net.SocketFactory;
import javax.net.ssl.SSLException;
import org.jspecify.annotations.Nullable;

/**
 * An LDAP directory (RFC 4511), read by paged full scans (RFC 2696) and asked whether somebody may sign in.
 *
 * <p>Safe for any number of threads: each call opens its own connection and closes it. Every wait is bounded by the
 * patience of the settings.
 */
public final class Directory {

    private static final String EVERYTHING = "(|(objectClass=organizationalUnit)(objectClass=domain)"
            + "(objectClass=organization)(objectClass=inetOrgPerson)(objectClass=user)(objectClass=computer)"
            + "(objectClass=device)(objectClass=groupOfNames)(objectClass=groupOfUniqueNames)(objectClass=group))";
    private static final String[] ATTRIBUTES = {"objectClass", "entryUUID", "objectGUID", "cn", "ou", "o", "uid",
        "description", "sAMAccountName", "displayName", "mail", "department", "departmentNumber", "owner", "managedBy", "member",
        "uniqueMember", "userAccountControl"};

    private final DirectorySettings settings;

    public Directory(DirectorySettings settings) {
        this.settings = settings;
    }

    public DirectorySettings settings() {
        return settings;
    }

    /**
     * Reads everything below the suffix.
     *
     * @throws DirectoryException when the directory is away, hangs, refuses the account, or breaks off on the way
     */
    public DirectoryPicture scan() {
        try (LDAPConnection connection = connect()) {
            connection.bind(settings.bindDn(), settings.password());
            PictureBuilder builder = new PictureBuilder(new DN(settings.baseDn()));
            ASN1OctetString cookie = null;
            do {
                cookie = page(connection, builder, cookie);
            } while (cookie != null);
            return builder.build();
        } catch (LDAPException e) {
            throw explain(e);
        }
    }

    private @Nullable ASN1OctetString page(LDAPConnection connection, PictureBuilder builder,
            @Nullable ASN1OctetString cookie) throws LDAPException {
        SearchRequest request = new SearchRequest(settings.baseDn(), SearchScope.SUB, EVERYTHING, ATTRIBUTES);
        request.addControl(new SimplePagedResultsControl(settings.pageSize(), cookie, true));
        request.setResponseTimeoutMillis(settings.patience().toMillis());
        SearchResult result = connection.search(request);
        for (SearchResultEntry entry : result.getSearchEntries()) {
            builder.add(entry);
        }
        SimplePagedResultsControl response = SimplePagedResultsControl.get(result);
        return response != null && response.moreResultsToReturn() ? response.getCookie() : null;
    }

    /**
     * Whether the directory takes this account name with this password.
     *
     * @return the stable id of the person; empty when the name or the password is wrong, or the name is not unique
     * @throws DirectoryException when the directory cannot be asked
     */
    public Optional<String> signIn(String account, String password) {
        if (account.isBlank() || password.isEmpty()) {
            // An empty password would be an anonymous bind (RFC 4513, section 5.1.2), which always succeeds.
            return Optional.empty();
        }
        try (LDAPConnection connection = connect()) {
            connection.bind(settings.bindDn(), settings.password());
            Filter who = Filter.createANDFilter(
                    Filter.createORFilter(Filter.createEqualityFilter("objectClass", "inetOrgPerson"),
                            Filter.createEqualityFilter("objectClass", "user")),
                    Filter.createORFilter(Filter.createEqualityFilter("uid", account),
                            Filter.createEqualityFilter("sAMAccountName", account)));
            List<SearchResultEntry> found = connection
                    .search(settings.baseDn(), SearchScope.SUB, who, "entryUUID", "objectGUID").getSearchEntries();
            return found.size() == 1 ? bind(connection, found.get(0), password) : Optional.empty();
        } catch (LDAPException e) {
            throw explain(e);
        }
    }

    private static Optional<String> bind(LDAPConnection connection, SearchResultEntry person, String password)
            throws LDAPException {
        try {
            connection.bind(person.getDN(), password);
            return Optional.ofNullable(StableId.of(person));
        } catch (LDAPException e) {
            if (e.getResultCode() == ResultCode.INVALID_CREDENTIALS) {
                return Optional.empty();
            }
            throw e;
        }
    }

    private LDAPConnection connect() throws LDAPException {
        LDAPConnectionOptions options = new LDAPConnectionOptions();
        int patience = (int) settings.patience().toMillis();
        options.setConnectTimeoutMillis(patience);
        options.setResponseTimeoutMillis(patience);
        options.setFollowReferrals(false);
        // One request at a time, read by the thread that asks. With the library's own thread for reading, that thread may close a connection
        // whose certificate it refuses while this one still looks at it (StartTLS), and what was wrong with the certificate is lost.
        options.setUseSynchronousMode(true);
        // RFC 6125, by way of RFC 4513, section 3.1.3: the certificate has to be for the very name that was configured.
        options.setSSLSocketVerifier(new HostNameSSLSocketVerifier(true));
        boolean tlsFirst = settings.secure() && !settings.startTls();
        LDAPConnection connection = new LDAPConnection(tlsFirst ? DirectoryTrust.of(settings).getSocketFactory()
                : SocketFactory.getDefault(), options, settings.url().getHost(), settings.port());
        if (settings.startTls()) {
            startTls(connection);
        }
        return connection;
    }

    private void startTls(LDAPConnection connection) throws LDAPException {
        try {
            ExtendedResult answer = connection.processExtendedOperation(new StartTLSExtendedRequest(DirectoryTrust.of(settings)));
            if (answer.getResultCode() != ResultCode.SUCCESS) {
                throw new DirectoryException("The directory at " + settings.url()
                        + " does not support StartTLS; use an ldaps:// address, or set its TLS up.");
            }
        } catch (LDAPException | DirectoryException e) {
            connection.close();
            throw e;
        }
    }

    private DirectoryException explain(LDAPException e) {
        ResultCode code = e.getResultCode();
        if (isAboutTls(e)) {
            return new DirectoryException("The directory at " + settings.url() + " presents no certificate that may be trusted for "
                    + settings.url().getHost() + ": " + rootMessage(e) + " Nothing was sent to it. Use the name that its certificate is "
                    + "for, or give the certificate of its authority (--directory-ca).", e);
        }
        if (code == ResultCode.CONNECT_ERROR || code == ResultCode.SERVER_DOWN || code == ResultCode.UNAVAILABLE) {
            return new DirectoryException("The directory at " + settings.url()
                    + " does not answer; check that it runs and can be reached from here.", e);
        }
        if (code == ResultCode.TIMEOUT || code == ResultCode.TIME_LIMIT_EXCEEDED) {
            return new DirectoryException("The directory at " + settings.url() + " took longer than "
                    + settings.patience().toSeconds() + " s to answer; check its load, or allow more time.", e);
        }
        if (code == ResultCode.INVALID_CREDENTIALS || code == ResultCode.INSUFFICIENT_ACCESS_RIGHTS) {
            return new DirectoryException("The directory refuses the account " + settings.bindDn()
                    + "; check its password and that it may read " + settings.baseDn() + ".", e);
        }
        return new DirectoryException("The directory ended the request with " + code.getName() + ": "
                + e.getDiagnosticMessage() + "; look into its log.", e);
    }

    private static boolean isAboutTls(Throwable e) {
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof SSLException || cause instanceof CertificateException) {
                return true;
            }
        }
        return e.getMessage() != null && e.getMessage().contains("certificate");
    }

    private static String rootMessage(Throwable e) {
        Throwable root = e;
        while (root.getCause() != null) {
            root = root.getCause();
        }
        String message = String.valueOf(root.getMessage()).replaceAll("\\s+", " ");
        return message.endsWith(".") ? message : message + ".";
    }
}
