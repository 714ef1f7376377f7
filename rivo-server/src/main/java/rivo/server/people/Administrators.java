package rivo.server.people;

import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.audience.Audiences;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Target;
import rivo.core.estate.Users;
import rivo.directory.DistinguishedNames;
import rivo.server.ServerSettings;
import rivo.server.directory.DisabledAccounts;
import rivo.server.estate.CurrentSnapshot;

/**
 * Who may: the people of one group of the directory whose accounts are enabled, directly or through other groups. Asked at each
 * request, by the snapshot; what takes a look into H2 is remembered until the directory's groups or people have been read anew. Safe for any
 * number of threads.
 */
@Component
public class Administrators {

    /** What holds as long as the estate has these very groups and people. @param group null when it is not in the directory */
    private record Looked(Map<String, Group> groups, Users users, @Nullable String group, Set<String> disabled) {
    }

    /** The one account there is without a directory, for trying Rivo out. */
    public static final String TRIAL = "rivo:administrator";

    private final @Nullable String configured;
    private final boolean trial;
    private final CurrentSnapshot current;
    private final JdbcClient db;
    private volatile @Nullable Looked looked;

    Administrators(ServerSettings settings, CurrentSnapshot current, JdbcClient db) {
        this.configured = settings.directory() == null ? null : settings.directory().administrators();
        this.trial = settings.directory() == null && settings.trialPassword() != null;
        this.current = current;
        this.db = db;
        if (configured != null && !isUnambiguous(configured)) {
            throw new IllegalStateException("The administrators' group is given as “" + configured + "”, which several groups could be "
                    + "called. Give its distinguished name, such as cn=rivo-administrators,ou=Groups,dc=quillbrook,dc=example, or its "
                    + "entryUUID or objectGUID.");
        }
    }

    private static boolean isUnambiguous(String group) {
        return DistinguishedNames.isOne(group) || group.matches("[0-9a-fA-F]{8}(-[0-9a-fA-F]{4}){3}-[0-9a-fA-F]{12}");
    }

    /** Whether the person of this id may work here, as the directory was when it was last read. */
    boolean hold(String person) {
        if (trial) {
            return person.equals(TRIAL);
        }
        Audiences audiences = current.now().resolver().audiences();
        Looked now = look(audiences.estate());
        return now.group() != null && !now.disabled().contains(person) && audiences.estate().users().find(person) != null
                && !audiences.chain(now.group(), Target.user(person)).isEmpty();
    }

    /** Whether the person of this id is in the directory and their account is enabled, as it was when it was last read. */
    boolean isEnabled(String person) {
        Estate estate = current.now().estate();
        return estate.users().find(person) != null && !look(estate).disabled().contains(person);
    }

    private Looked look(Estate estate) {
        Looked now = looked;
        if (now == null || now.groups() != estate.groups() || now.users() != estate.users()) {
            now = new Looked(estate.groups(), estate.users(), group(), DisabledAccounts.people(db));
            looked = now;
        }
        return now;
    }

    private @Nullable String group() {
        return configured == null ? null : db.sql("select id, dn from directory_groups").query((row, n) ->
                configured.equalsIgnoreCase(row.getString("id")) || DistinguishedNames.same(configured, row.getString("dn"))
                        ? row.getString("id") : "").list().stream().filter(id -> !id.isEmpty()).findFirst().orElse(null);
    }

    /** As it was configured, for saying who may. */
    String words() {
        return configured == null ? "of administrators, since no directory is set up" : configured;
    }
}
