package rivo.server.directory;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Who is in which group, nested groups included. Asked seldom, so it reads H2. */
@Component
public class GroupMembership {

    private final JdbcClient db;

    GroupMembership(JdbcClient db) {
        this.db = db;
    }

    /** Whether the member is in the group of this name, directly or through other groups; cycles are legal. */
    public boolean holds(String groupName, String memberId) {
        Set<String> seen = new HashSet<>();
        List<String> open = List.of(memberId);
        while (!open.isEmpty()) {
            List<String> next = open.stream().flatMap(id -> groupsOf(id).stream()).filter(seen::add).toList();
            open = next;
        }
        return db.sql("select id from directory_groups where lower(name) = lower(?)").params(groupName)
                .query(String.class).list().stream().anyMatch(seen::contains);
    }

    private List<String> groupsOf(String member) {
        return db.sql("select group_id from group_members where member = ?").params(member).query(String.class)
                .list();
    }
}
