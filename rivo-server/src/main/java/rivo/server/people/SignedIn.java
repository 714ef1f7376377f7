package rivo.server.people;

import java.io.Serializable;
import java.security.Principal;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Somebody who has signed in.
 *
 * @param session names the session for its owner; it is not the cookie
 * @param id the person's stable id in the directory
 * @param since when they signed in
 * @param administrator whether they may do all that administrators may; else they have their shelf alone
 * @param device the id of the device whose one-time link they came by: then they have their shelf of that one alone; null for a password
 */
public record SignedIn(String session, String id, String account, String fullName, Instant since, boolean administrator, @Nullable String device)
        implements Principal, Serializable {

    @Override
    public String getName() {
        return account;
    }
}
