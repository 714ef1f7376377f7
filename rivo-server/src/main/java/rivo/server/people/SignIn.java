package rivo.server.people;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import rivo.core.estate.User;
import rivo.server.ServerSettings;
import rivo.server.directory.DirectoryFollower;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.web.ApiException;

/** Signing in: the directory checks the password, membership in the administrators' group says who may. */
@Component
class SignIn {

    private static final int LONGEST_ACCOUNT = 256;
    private static final int LONGEST_PASSWORD = 1024;

    private final DirectoryFollower follower;
    private final Administrators administrators;
    private final SignInLimit limit;
    private final CurrentSnapshot current;
    private final @Nullable String trialPassword;

    SignIn(DirectoryFollower follower, Administrators administrators, SignInLimit limit, CurrentSnapshot current, ServerSettings settings) {
        this.trialPassword = settings.directory() == null ? settings.trialPassword() : null;
        this.follower = follower;
        this.administrators = administrators;
        this.limit = limit;
        this.current = current;
    }

    /**
     * @param address where the request comes from
     * @return who it is
     * @throws ApiException when the name or password is wrong, there were too many tries, or the person may not
     * @throws rivo.directory.DirectoryException when the directory cannot be asked
     */
    User signIn(String account, String password, String address) {
        User person = known(account, password, address);
        if (!administrators.hold(person.id())) {
            throw ApiException.refused(HttpStatus.FORBIDDEN, "not-allowed", "You are not in the group "
                    + administrators.words() + ", or your account is disabled. Ask whoever looks after it. Software for yourself is at /shelf.");
        }
        return person;
    }

    /**
     * Signs in to their own shelf: whoever has an enabled account in the directory may.
     *
     * @param address where the request comes from
     * @throws ApiException when the name or password is wrong, there were too many tries, or the account is disabled
     * @throws rivo.directory.DirectoryException when the directory cannot be asked
     */
    User signInToShelf(String account, String password, String address) {
        User person = known(account, password, address);
        if (!administrators.isEnabled(person.id())) {
            throw ApiException.refused(HttpStatus.FORBIDDEN, "not-allowed", "Your account is disabled. Ask whoever looks after it.");
        }
        return person;
    }

    /** Whoever came by a device's link. @throws ApiException when they have gone or been disabled meanwhile */
    User byLink(String id) {
        User person = current.now().estate().users().find(id);
        if (person == null || !administrators.isEnabled(id)) {
            throw ApiException.refused(HttpStatus.FORBIDDEN, "not-allowed", "Your account is disabled. Ask whoever looks after it.");
        }
        return person;
    }

    private User known(String account, String password, String address) {
        if (account.length() > LONGEST_ACCOUNT || password.length() > LONGEST_PASSWORD) {
            throw wrong();
        }
        SignInLimit.Try tried = limit.begin(account, address);
        Optional<String> id = trialPassword == null ? follower.directory().signIn(account, password) : trial(trialPassword, account, password);
        if (id.isEmpty()) {
            throw wrong();
        }
        tried.wasRight();
        @Nullable User person = current.now().estate().users().find(id.get());
        if (person == null) {
            throw ApiException.refused(HttpStatus.FORBIDDEN, "not-read-yet",
                    "The directory knows you, but Rivo has not read your entry yet. Try again in a moment.");
        }
        return person;
    }

    private static Optional<String> trial(String right, String account, String password) {
        boolean same = MessageDigest.isEqual(right.getBytes(StandardCharsets.UTF_8), password.getBytes(StandardCharsets.UTF_8));
        return same && account.equals("administrator") ? Optional.of(Administrators.TRIAL) : Optional.empty();
    }

    private static ApiException wrong() {
        return ApiException.refused(HttpStatus.UNAUTHORIZED, "wrong-sign-in",
                "The name or the password is wrong. Check both and try again.");
    }
}
