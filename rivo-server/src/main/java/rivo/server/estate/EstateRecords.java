package rivo.server.estate;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.function.Function;
import java.util.function.Predicate;
import javax.sql.DataSource;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.UncategorizedSQLException;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Group;
import rivo.core.estate.Installed;
import rivo.core.estate.Need;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Replacement;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.core.estate.Version;
import rivo.server.storage.WholeReading;

/** Reads the directory and what devices have reported from H2: all of it once at the start, and single things when it has changed. */
public class EstateRecords {

    /** Stands in as the root until the directory has been read for the first time. */
    public static final Ou NO_DIRECTORY_YET = new Ou("root", "No directory yet", "", null, false);

    /** Above so many, reading all is quicker than asking for each. */
    private static final int MANY = 1000;

    private final JdbcClient db;

    public EstateRecords(JdbcClient db) {
        this.db = db;
    }

    /**
     * All of the directory, with what devices have reported, as parts of an estate: before anybody writes, since two connections read
     * beside each other.
     *
     * @param asOf the instant that the estate is to describe: now
     * @param isFenced whether there is a fence around an OU
     */
    public static EstateParts directory(DataSource database, Instant asOf, Predicate<String> isFenced) {
        CompletableFuture<Map<String, Reported>> beside = CompletableFuture.supplyAsync(() -> whole(database, records -> records.reported(null)));
        return whole(database, records -> records.all(asOf, isFenced, beside));
    }

    private static <T> T whole(DataSource database, Function<EstateRecords, T> read) {
        try (WholeReading reading = new WholeReading(database)) {
            return read.apply(new EstateRecords(reading.client()));
        } catch (SQLException e) {
            throw new UncategorizedSQLException("reading all of the directory", null, e);
        }
    }

    private EstateParts all(Instant asOf, Predicate<String> isFenced, CompletableFuture<Map<String, Reported>> reported) {
        List<Ou> ous = ous(null, isFenced);
        List<User> users = users(null);
        List<Computer> computers = computers(null);
        Map<Target, Target> there = new HashMap<>();
        users.forEach(user -> add(there, Target.user(user.id())));
        db.sql("select id from directory_groups").query(String.class).list().forEach(group -> add(there, Target.group(group)));
        computers.forEach(computer -> add(there, Target.device(computer.id())));
        List<Group> groups = groups(null, there::get);
        return EstateParts.none(asOf).withOus(ous.isEmpty() ? List.of(NO_DIRECTORY_YET) : ous).withUsers(users)
                .withGroups(groups).withGone(gone()).withDevices(devices(computers, people(null), reported.join()));
    }

    private static void add(Map<Target, Target> there, Target target) {
        there.put(target, target);
    }

    /** @param only the ids of those that are read; null for all, which is the same of the others here */
    public List<Ou> ous(@Nullable Set<String> only, Predicate<String> isFenced) {
        return each("select id, name, dn, parent from ous where true", "id", only, row -> new Ou(row.getString("id"), row.getString("name"),
                row.getString("dn"), row.getString("parent"), isFenced.test(row.getString("id"))));
    }

    private interface OfRow<T> {
        T make(ResultSet row) throws SQLException;
    }

    /**
     * @param select ends with a condition
     * @param id the column that {@code only} names
     */
    private <T> List<T> each(String select, String id, @Nullable Set<String> only, OfRow<T> of) {
        if (only == null) {
            return db.sql(select).query((row, n) -> of.make(row)).list();
        }
        List<T> each = new ArrayList<>();
        if (only.size() > MANY) {
            db.sql(select).query((row, n) -> only.contains(row.getString(id)) && each.add(of.make(row))).list();
            return each;
        }
        only.forEach(one -> each.addAll(db.sql(select + " and " + id + " = ?").params(one).query((row, n) -> of.make(row)).list()));
        return each;
    }

    public List<User> users(@Nullable Set<String> only) {
        return each("select id, account, full_name, department, ou from users where true", "id", only, row -> {
            String department = row.getString("department");
            return new User(row.getString("id"), row.getString("account"), row.getString("full_name"),
                    row.getString("ou"), department == null ? Facts.NONE : Facts.of(Map.of("department", department)));
        });
    }

    /** Finds a member in the estate: one object for each, however many groups list it; null where it is not in it. */
    @FunctionalInterface
    public interface Members {
        @Nullable Target find(Target member);
    }

    /** Members that are not in the estate, such as disabled computers, are left out. */
    public List<Group> groups(@Nullable Set<String> only, Members there) {
        GroupLists<Target> lists = lists(only, there::find);
        return each("select id, name from directory_groups where true", "id", only, row -> new Group(row.getString("id"), row.getString("name"),
                lists.distinct(row.getString("id"))));
    }

    /**
     * Whom groups list, by the directory.
     *
     * @param make what is made of a member, once for each; null where it is left out
     */
    public <M> GroupLists<M> lists(@Nullable Set<String> only, Function<Target, @Nullable M> make) {
        GroupLists<M> lists = new GroupLists<>(make);
        each(GroupLists.SELECT, "group_id", only, row -> {
            lists.add(row);
            return true;
        });
        return lists;
    }

    private List<GoneReference> gone() {
        return db.sql("select * from gone_references").query((row, n) -> new GoneReference(Objects.requireNonNull(
                Target.parse(row.getString("kind") + ":" + row.getString("id"))), row.getString("name"), Rows.instant(row, "since"),
                Json.readList(row.getString("devices"), String.class), Json.readList(row.getString("users"), String.class))).list();
    }

    /** Keeps what is named and has gone since, and forgets what is back. */
    public static void writeGone(ChangeContext context, Estate before, Estate after) {
        List<Object[]> back = new ArrayList<>();
        before.gone().keySet().stream().filter(target -> !after.gone().containsKey(target))
                .forEach(target -> back.add(new Object[] {target.kind().word(), target.id()}));
        context.batch("delete from gone_references where kind = ? and id = ?", back);
        List<Object[]> gone = new ArrayList<>();
        after.gone().values().stream().filter(one -> !before.gone().containsKey(one.target()))
                .forEach(one -> gone.add(new Object[] {one.target().kind().word(), one.target().id(), one.name(), Rows.at(one.since()),
                    Json.write(one.devices()), Json.write(one.users())}));
        context.batch("insert into gone_references (kind, id, name, since, devices, users) values (?, ?, ?, ?, ?, ?)", gone);
    }

    /**
     * Those that are enabled.
     *
     * @param only their ids
     */
    public List<Device> devices(Set<String> only) {
        return devices(computers(only), people(only), reported(only));
    }

    private static List<Device> devices(List<Computer> computers, Map<String, List<String>> people, Map<String, Reported> reported) {
        return computers.stream().map(computer -> {
            Reported of = reported.getOrDefault(computer.id(), Reported.NOTHING);
            return new Device(computer.id(), computer.name(), computer.ou(), people.getOrDefault(computer.id(), List.of()), of.facts(),
                    of.software(), of.present());
        }).toList();
    }

    private List<Computer> computers(@Nullable Set<String> only) {
        return each("select id, name, ou from computers where enabled", "id", only, row -> new Computer(row.getString("id"),
                row.getString("name"), row.getString("ou")));
    }

    /** By device, where there are any. */
    private Map<String, List<String>> people(@Nullable Set<String> only) {
        Map<String, List<String>> people = new HashMap<>();
        each("select computer, person, place from computer_people where true", "computer", only, row -> new Owned(row.getString("computer"),
                row.getInt("place"), row.getString("person"))).stream().sorted(Comparator.comparingInt(Owned::place))
                .forEach(one -> people.computeIfAbsent(one.computer(), c -> new ArrayList<>()).add(one.person()));
        Map<String, SignIns> told = new HashMap<>();
        each("select device, people from sign_ins where true", "device", only, row -> told.put(row.getString("device"), SignIns.parse(row.getString("people"))));
        told.forEach((device, signIns) -> people.put(device, SignIns.peopleOf(people.getOrDefault(device, List.of()), signIns)));
        return people;
    }

    /** By device, where it has reported anything. Read by itself: looked up for each computer, it would be read from all over the file. */
    private Map<String, Reported> reported(@Nullable Set<String> only) {
        Parsing parsing = new Parsing();
        each("select device, facts, software, present from device_reports where true", "device", only, row -> parsing.add(new ReportRow(
                row.getString("device"), row.getString("facts"), row.getString("software"), row.getString("present"))));
        return parsing.all();
    }

    /** The ids of the people whom the directory names as the users of a device. */
    public static List<String> named(JdbcClient db, String device) {
        return db.sql("select person from computer_people where computer = ? order by place").params(device).query(String.class).list();
    }

    private record Computer(String id, String name, @Nullable String ou) {
    }

    private record Owned(String computer, int place, String person) {
    }

    private record Reported(Facts facts, List<Installed> software, List<Present> present) {

        static final Reported NOTHING = new Reported(Facts.NONE, List.of(), List.of());
    }

    private record ReportRow(String device, @Nullable String facts, @Nullable String software, @Nullable String present) {

        Reported reported() {
            return new Reported(ReportColumns.facts(facts), ReportColumns.installed(software), ReportColumns.present(present));
        }
    }

    /** What devices have reported is most of what is read: it is parsed by all processors, some thousands of devices at a time. */
    private static final class Parsing {
        private static final int AT_ONCE = 4096;

        private final Map<String, Reported> parsed = new HashMap<>();
        private final List<ReportRow> waiting = new ArrayList<>();

        boolean add(ReportRow row) {
            waiting.add(row);
            if (waiting.size() == AT_ONCE) {
                parse();
            }
            return true;
        }

        private void parse() {
            List<Reported> all = waiting.parallelStream().map(ReportRow::reported).toList();
            for (int i = 0; i < all.size(); i++) {
                parsed.put(waiting.get(i).device(), all.get(i));
            }
            waiting.clear();
        }

        Map<String, Reported> all() {
            parse();
            return parsed;
        }
    }

    /** How a present title stands in the column {@code device_reports.present}. */
    public record PresentRecord(String title, @Nullable String version, @Nullable String user, @Nullable String by) {

        public static PresentRecord of(Present present) {
            Version version = present.version();
            return new PresentRecord(present.title(), version == null ? null : version.toString(), present.user(), present.by());
        }
    }

    /**
     * Forgets what devices have reported as present and what means nothing any more, such as what somebody had who has left. The estate is to
     * forget the same. Costs a look at what is present on each device, and a row for each that is not in the estate.
     *
     * @param rows the ids of devices that come into the estate with this change
     */
    public static void forgetPresent(ChangeContext context, Predicate<Present> forgotten, Collection<String> rows) {
        List<Object[]> less = new ArrayList<>();
        context.estate().devices().all().forEach(device -> less(device.id(), device.present(), forgotten, less));
        context.db().sql("select r.device, r.present from device_reports r left join computers c on c.id = r.device and c.enabled where c.id is null")
                .query((row, n) -> less(row.getString("device"), ReportColumns.present(row.getString("present")), forgotten, less)).list();
        rows.forEach(id -> context.db().sql("select present from device_reports where device = ?").params(id)
                .query((row, n) -> less(id, ReportColumns.present(row.getString("present")), forgotten, less)).list());
        context.batch("update device_reports set present = ? where device = ?", less);
    }

    /** Whether there was something to forget. */
    private static boolean less(String device, List<Present> present, Predicate<Present> forgotten, List<Object[]> less) {
        List<Present> rest = present.stream().filter(forgotten.negate()).toList();
        return rest.size() < present.size() && less.add(new Object[] {Json.write(rest.stream().map(PresentRecord::of).toList()), device});
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

}
