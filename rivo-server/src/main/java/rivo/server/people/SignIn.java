package rivo.server.people;

import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.server.ServerSettings;
import rivo.server.directory.DirectoryFollower;
import rivo.server.directory.GroupMembership;
import rivo.server.web.ApiException;

/** Signing in: the directory checks the password, membership in the administrators' group says who may. */
@Component
class SignIn {

    private final DirectoryFollower follower;
    private final GroupMembership groups;
    private final ServerSettings settings;
    private final SignInLimit limit;
    private final JdbcClient db;

    SignIn(DirectoryFollower follower, GroupMembership groups, ServerSettings settings, SignInLimit limit,
            JdbcClient db) {
        this.follower = follower;
        this.groups = groups;
        this.settings = settings;
        this.limit = limit;
        this.db = db;
    }

    /**
     * @return who it is
     * @throws ApiException when the name or password is wrong, or the person may not
     * @throws rivo.directory.DirectoryException when the directory cannot be asked
     */
    Person signIn(String account, String password) {
        limit.check(account);
        Optional<String> id = follower.directory().signIn(account, password);
        if (id.isEmpty()) {
            limit.wrong(account);
            throw ApiException.refused(HttpStatus.UNAUTHORIZED, "wrong-sign-in",
                    "The name or the password is wrong. Check both and try again.");
        }
        Person person = person(id.get()).orElseThrow(() -> ApiException.refused(HttpStatus.FORBIDDEN, "not-read-yet",
                "The directory knows you, but Rivo has not read your entry yet. Try again in a moment."));
        if (!person.enabled() || settings.directory() == null
                || !groups.holds(settings.directory().administrators(), id.get())) {
            throw ApiException.refused(HttpStatus.FORBIDDEN, "not-allowed", "You are not in the group "
                    + (settings.directory() == null ? "of administrators" : settings.directory().administrators())
                    + ". Ask whoever looks after it.");
        }
        limit.right(account);
        return person;
    }

    /** Somebody who may sign in. */
    record Person(String id, String account, String fullName, boolean enabled) {
    }

    private Optional<Person> person(String id) {
        return db.sql("select id, account, full_name, enabled from users where id = ?").params(id)
                .query((row, n) -> new Person(row.getString("id"), row.getString("account"),
                        row.getString("full_name"), row.getBoolean("enabled")))
                .optional();
    }
}
