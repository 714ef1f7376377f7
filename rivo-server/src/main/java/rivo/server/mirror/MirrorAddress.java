package rivo.server.mirror;

import java.net.Inet6Address;
import java.net.InetAddress;
import java.net.URI;
import java.net.URISyntaxException;
import java.net.UnknownHostException;
import java.util.Optional;

/**
 * Where a mirror may be. The server asks it, so its address is also a way for whoever types it in to have the server ask something else:
 * this computer's own services, or a cloud's for its machines. Such addresses are refused unless the configuration allows them, when
 * the address is put in and again whenever it is asked, since a name may come to mean something else.
 */
final class MirrorAddress {

    private static final int LONGEST = 300;
    private static final int HIGHEST_PORT = 65_535;
    private static final String FORM = "An address is written http://mirror.quillbrook.example:8090 or https://…, with no path after it "
            + "and no name or password in it; devices read it, so a drive letter or a share does not do.";

    private MirrorAddress() {
    }

    /** What is wrong with it, in a sentence; empty when nothing is. */
    static Optional<String> problem(String address, boolean mayBeLocal) {
        try {
            URI uri = new URI(address);
            boolean formed = address.length() <= LONGEST && ("http".equals(uri.getScheme()) || "https".equals(uri.getScheme()))
                    && uri.getHost() != null && uri.getRawUserInfo() == null && uri.getRawPath().isEmpty()
                    && uri.getRawQuery() == null && uri.getRawFragment() == null;
            if (!formed) {
                return Optional.of(FORM);
            }
            if (uri.getPort() == 0 || uri.getPort() > HIGHEST_PORT) {
                return Optional.of("A port is a number from 1 to " + HIGHEST_PORT + ", not " + uri.getPort() + ".");
            }
            return mayBeLocal || !isLocal(uri.getHost()) ? Optional.empty() : Optional.of(uri.getHost()
                    + " is this computer itself, or an address that means something else on each computer; write the name under which "
                    + "devices reach the mirror. (rivo serve --allow-local-mirrors takes it all the same.)");
        } catch (URISyntaxException e) {
            return Optional.of(FORM);
        }
    }

    /** Whether any address of the host is one that only this computer or its link has. A name that nobody knows is none. */
    static boolean isLocal(String host) {
        try {
            for (InetAddress one : InetAddress.getAllByName(host)) {
                if (one.isLoopbackAddress() || one.isAnyLocalAddress() || one.isLinkLocalAddress() || one.isMulticastAddress()
                        || isCloudsOwn(one)) {
                    return true;
                }
            }
            return false;
        } catch (UnknownHostException e) {
            return false;
        }
    }

    /** fd00:ec2::/32, at which clouds answer their own machines over IPv6; over IPv4 they use link-local addresses. */
    private static boolean isCloudsOwn(InetAddress address) {
        byte[] bytes = address.getAddress();
        return address instanceof Inet6Address && (bytes[0] & 0xff) == 0xfd && bytes[1] == 0 && bytes[2] == 0x0e && (bytes[3] & 0xff) == 0xc2;
    }
}
