package rivo.server.estate;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Installed;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Version;
import tools.jackson.core.type.TypeReference;

/** Reads the whole estate from H2: once at the start, and after a scan of the directory that changed something. */
@Component
public class EstateRecords {

    /** Stands in as the root until the directory has been read for the first time. */
    private static final Ou NO_DIRECTORY_YET = new Ou("root", "No directory yet", "", null, false);

    private final JdbcClient db;

    public EstateRecords(JdbcClient db) {
        this.db = db;
    }

    public Estate read() {
        List<Ou> ous = db.sql("select id, name, dn, parent, exists(select 1 from fences f where f.ou = ous.id) fenced "
                + "from ous").query((row, n) -> new Ou(row.getString("id"), row.getString("name"),
                        row.getString("dn"), row.getString("parent"), row.getBoolean("fenced"))).list();
        List<User> users = db.sql("select id, account, full_name, ou from users").query((row, n) -> new User(
                row.getString("id"), row.getString("account"), row.getString("full_name"), row.getString("ou")))
                .list();
        return Estate.of(ous.isEmpty() ? List.of(NO_DIRECTORY_YET) : ous, users, devices(), titles(), assignments());
    }

    private List<Device> devices() {
        Map<String, List<String>> people = grouped("select computer, person from computer_people "
                + "order by computer, place");
        return db.sql("select c.id, c.name, c.ou, r.facts, r.software, r.present from computers c "
                + "left join device_reports r on r.device = c.id where c.enabled")
                .query((row, n) -> device(row, people)).list();
    }

    private static Device device(ResultSet row, Map<String, List<String>> people) throws SQLException {
        String id = row.getString("id");
        return new Device(id, row.getString("name"), row.getString("ou"), people.getOrDefault(id, List.of()),
                facts(row.getString("facts")), installed(row.getString("software")),
                present(row.getString("present")));
    }

    private static Map<String, String> facts(@Nullable String json) {
        return json == null ? Map.of() : Json.read(json, new TypeReference<Map<String, String>>() {
        });
    }

    private static List<Installed> installed(@Nullable String json) {
        return json == null ? List.of() : Json.readList(json, Installed.class);
    }

    private static List<Present> present(@Nullable String json) {
        List<Present> present = new ArrayList<>();
        for (PresentRecord one : json == null ? List.<PresentRecord>of() : Json.readList(json, PresentRecord.class)) {
            present.add(new Present(one.title(), one.version() == null ? null : Version.of(one.version())));
        }
        return present;
    }

    /** How a present title stands in the column {@code device_reports.present}. */
    public record PresentRecord(String title, @Nullable String version) {
    }

    private Collection<Title> titles() {
        Map<String, List<String>> variants = grouped("select title || ' ' || version, id from variants "
                + "order by title, version, place");
        Map<String, List<Release>> releases = new HashMap<>();
        db.sql("select title, version, state from releases").query((row, n) -> {
            String title = row.getString("title");
            String version = row.getString("version");
            Release release = new Release(Version.of(version), ReleaseState.valueOf(row.getString("state")),
                    variants.getOrDefault(title + " " + version, List.of()));
            return releases.computeIfAbsent(title, t -> new ArrayList<>()).add(release);
        }).list();
        return db.sql("select id, name from titles order by place").query((row, n) -> new Title(row.getString("id"),
                row.getString("name"), releases.getOrDefault(row.getString("id"), List.of()))).list();
    }

    /** An OU that has gone from the directory is left out; should it come back, the assignment speaks for it again. */
    private List<Assignment> assignments() {
        Map<String, List<String>> ous = grouped("select assignment, ou from assignment_ous "
                + "where ou in (select id from ous) order by assignment, ou");
        return db.sql("select * from assignments").query((row, n) -> new Assignment(row.getString("id"),
                row.getLong("seq"), AssignmentState.valueOf(row.getString("state")), row.getString("title"),
                Intent.valueOf(row.getString("intent")), ous.getOrDefault(row.getString("id"), List.of()),
                row.getBoolean("binding"), row.getInt("priority"))).list();
    }

    /** Two columns, gathered by the first. */
    private Map<String, List<String>> grouped(String sql) {
        Map<String, List<String>> groups = new LinkedHashMap<>();
        db.sql(sql).query((row, n) -> groups.computeIfAbsent(row.getString(1), k -> new ArrayList<>())
                .add(row.getString(2))).list();
        return groups;
    }
}
