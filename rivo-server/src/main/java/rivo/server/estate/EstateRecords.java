package rivo.server.estate;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Group;
import rivo.core.estate.Installed;
import rivo.core.estate.Intent;
import rivo.core.estate.Kit;
import rivo.core.estate.Need;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Replacement;
import rivo.core.estate.Scope;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Variant;
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

    /** @param asOf the instant that the estate is to describe: now */
    public Estate read(Instant asOf) {
        List<Ou> ous = db.sql("select id, name, dn, parent, exists(select 1 from fences f where f.ou = ous.id) fenced "
                + "from ous").query((row, n) -> new Ou(row.getString("id"), row.getString("name"),
                        row.getString("dn"), row.getString("parent"), row.getBoolean("fenced"))).list();
        EstateParts parts = EstateParts.none(asOf).withOus(ous.isEmpty() ? List.of(NO_DIRECTORY_YET) : ous)
                .withUsers(users()).withDevices(devices()).withTitles(titles()).withKits(kits())
                .withAssignments(assignments());
        return Estate.of(parts.withGroups(groups(parts)));
    }

    private List<User> users() {
        return db.sql("select id, account, full_name, department, ou from users").query((row, n) -> {
            String department = row.getString("department");
            return new User(row.getString("id"), row.getString("account"), row.getString("full_name"),
                    row.getString("ou"), department == null ? Facts.NONE : Facts.of(Map.of("department", department)));
        }).list();
    }

    /** Members that are not in the estate, such as disabled computers, are left out. */
    private List<Group> groups(EstateParts parts) {
        Set<Target> known = new HashSet<>();
        parts.devices().forEach(d -> known.add(Target.device(d.id())));
        parts.users().forEach(u -> known.add(Target.user(u.id())));
        Map<String, String> names = new LinkedHashMap<>();
        db.sql("select id, name from directory_groups").query((row, n) -> {
            known.add(Target.group(row.getString("id")));
            return names.put(row.getString("id"), row.getString("name"));
        }).list();
        Map<String, Set<Target>> members = new HashMap<>();
        db.sql("select group_id, kind, member from group_members order by group_id, place").query((row, n) -> {
            Target member = member(row.getString("kind"), row.getString("member"));
            return known.contains(member) && members.computeIfAbsent(row.getString("group_id"),
                    g -> new LinkedHashSet<>()).add(member);
        }).list();
        return names.entrySet().stream().map(g -> new Group(g.getKey(), g.getValue(),
                List.copyOf(members.getOrDefault(g.getKey(), Set.of())))).toList();
    }

    private static Target member(String kind, String id) {
        return switch (kind) {
            case "USER" -> Target.user(id);
            case "GROUP" -> Target.group(id);
            default -> Target.device(id);
        };
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

    private static Facts facts(@Nullable String json) {
        return json == null ? Facts.NONE : Facts.of(Json.read(json, new TypeReference<Map<String, String>>() {
        }));
    }

    private static List<Installed> installed(@Nullable String json) {
        return json == null ? List.of() : Json.readList(json, Installed.class);
    }

    private static List<Present> present(@Nullable String json) {
        List<Present> present = new ArrayList<>();
        for (PresentRecord one : json == null ? List.<PresentRecord>of() : Json.readList(json, PresentRecord.class)) {
            present.add(Present.of(one.title(), one.version() == null ? null : Version.of(one.version())));
        }
        return present;
    }

    /** How a present title stands in the column {@code device_reports.present}. */
    public record PresentRecord(String title, @Nullable String version) {
    }

    /** How a need stands in the column {@code releases.needs}. */
    public record NeedRecord(String title, @Nullable String min) {
        public Need need() {
            return new Need(title, min == null || min.isBlank() ? null : Version.of(min));
        }
    }

    /** How a replacement stands in the column {@code releases.replaces}. */
    public record ReplacementRecord(String title, boolean removeFirst) {
        public Replacement replacement() {
            return new Replacement(title, removeFirst ? Replacement.Mode.REMOVE_FIRST : Replacement.Mode.IN_PLACE);
        }
    }

    private List<Title> titles() {
        Map<String, List<Variant>> variants = new HashMap<>();
        db.sql("select title, version, id, fits from variants order by title, version, place").query((row, n) -> variants
                .computeIfAbsent(row.getString("title") + " " + row.getString("version"), k -> new ArrayList<>())
                .add(new Variant(row.getString("id"), row.getString("fits")))).list();
        Map<String, List<Release>> releases = new HashMap<>();
        db.sql("select title, version, state, needs, replaces from releases").query((row, n) -> {
            String title = row.getString("title");
            String version = row.getString("version");
            Release release = new Release(Version.of(version), ReleaseState.valueOf(row.getString("state")),
                    Json.readList(row.getString("needs"), NeedRecord.class).stream().map(NeedRecord::need).toList(),
                    Json.readList(row.getString("replaces"), ReplacementRecord.class).stream()
                            .map(ReplacementRecord::replacement).toList(),
                    variants.getOrDefault(title + " " + version, List.of()));
            return releases.computeIfAbsent(title, t -> new ArrayList<>()).add(release);
        }).list();
        return db.sql("select id, name, seats, conflicts_with from titles order by place").query((row, n) -> new Title(
                row.getString("id"), row.getString("name"), Scope.DEVICE, row.getObject("seats", Integer.class),
                Json.readList(row.getString("conflicts_with"), String.class),
                releases.getOrDefault(row.getString("id"), List.of()))).list();
    }

    private List<Kit> kits() {
        Map<String, List<String>> titles = grouped("select kit, title from kit_titles order by kit, place");
        return db.sql("select id, name from kits order by place").query((row, n) -> new Kit(row.getString("id"),
                row.getString("name"), titles.getOrDefault(row.getString("id"), List.of()))).list();
    }

    /** An OU that has gone from the directory is left out; should it come back, the assignment speaks for it again. */
    private List<Assignment> assignments() {
        Map<String, List<String>> ous = grouped("select assignment, ou from assignment_ous "
                + "where ou in (select id from ous) order by assignment, ou");
        return db.sql("select * from assignments").query((row, n) -> Assignment.of(row.getString("id"),
                row.getLong("seq"), row.getString("kit") == null ? Subject.title(row.getString("title"))
                        : Subject.kit(row.getString("kit")), Intent.valueOf(row.getString("intent")),
                ous.getOrDefault(row.getString("id"), List.of()).stream().map(Target::ou).toList())
                .withState(AssignmentState.valueOf(row.getString("state"))).withBinding(row.getBoolean("binding"))
                .withPriority(row.getInt("priority"))).list();
    }

    /** Two columns, gathered by the first. */
    private Map<String, List<String>> grouped(String sql) {
        Map<String, List<String>> groups = new LinkedHashMap<>();
        db.sql(sql).query((row, n) -> groups.computeIfAbsent(row.getString(1), k -> new ArrayList<>())
                .add(row.getString(2))).list();
        return groups;
    }
}
