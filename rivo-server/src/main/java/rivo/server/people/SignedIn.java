package rivo.server.people;

import java.io.Serializable;
import java.security.Principal;
import java.time.Instant;

/**
 * Somebody who has signed in.
 *
 * @param session names the session for its owner; it is not the cookie
 * @param id the person's stable id in the directory
 * @param since when they signed in
 */
record SignedIn(String session, String id, String account, String fullName, Instant since) implements Principal, Serializable {

    @Override
    public String getName() {
        return account;
    }
}
