package rivo.server.directory;

import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Whose accounts the directory says are disabled. People stay in the estate with one; computers leave it. */
public final class DisabledAccounts {

    private DisabledAccounts() {
    }

    /** The ids of the people. */
    public static Set<String> people(JdbcClient db) {
        return new HashSet<>(db.sql("select id from users where enabled = false").query(String.class).list());
    }

    /** How many such computers each group lists itself, and each OU has in itself, by the id of the group or OU. */
    public static Map<String, Integer> computers(JdbcClient db) {
        Map<String, Integer> counts = new HashMap<>();
        db.sql("select group_id as holder, count(*) as n from disabled_members group by group_id "
                + "union all select ou, count(*) from computers where enabled = false and ou is not null group by ou")
                .query(row -> {
                    counts.merge(row.getString("holder"), row.getInt("n"), Integer::sum);
                });
        return counts;
    }
}
