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
 * @param administrator whether they may do all that administrators may; else they have their shelf alone
 */
public record SignedIn(String session, String id, String account, String fullName, Instant since, boolean administrator) implements Principal, Serializable {

    @Override
    public String getName() {
        return account;
    }
}
