package rivo.directory;

import com.unboundid.ldap.sdk.DN;
import com.unboundid.ldap.sdk.LDAPException;

/** Distinguished names (RFC 4514), compared as what they mean: the same entry comes as {@code \2C} and as {@code \,}. */
public final class DistinguishedNames {

    private DistinguishedNames() {
    }

    /** Whether a text is one, of at least one part. */
    public static boolean isOne(String text) {
        return DN.isValidDN(text) && !text.isBlank();
    }

    /** Whether both are distinguished names of one entry. */
    public static boolean same(String one, String other) {
        try {
            return DN.equals(one, other);
        } catch (LDAPException e) {
            return false;
        }
    }
}
