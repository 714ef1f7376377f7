package rivo.server.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.Set;
import javax.sql.DataSource;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import rivo.core.estate.Target;
import rivo.server.storage.Database;

/** Whom groups list, written and read. */
class GroupListsTest {

    @TempDir
    private Path data;
    private DataSource source;
    private JdbcClient db;

    @BeforeEach
    void open() {
        source = new DriverManagerDataSource(Database.url(data) + ";DB_CLOSE_DELAY=-1");
        db = JdbcClient.create(source);
    }

    @AfterEach
    void close() {
        db.sql("shutdown").update();
    }

    private void upTo(String version) {
        Flyway.configure().dataSource(source).target(version).load().migrate();
    }

    private static List<Target> many(int devices) {
        List<Target> members = new ArrayList<>();
        for (int i = devices; i > 0; i--) {
            members.add(Target.device("d" + i));
        }
        return members;
    }

    @Test
    void manyMembersStandInTheirOrderWhicheverRowComesFirst() {
        upTo("latest");
        List<Target> members = many(2_500);
        members.addAll(1_700, List.of(Target.user("d7"), Target.group("it's \u00fc \"quoted\" \\ 1:2"), Target.device("d7")));
        List<Object[]> rows = new ArrayList<>(GroupLists.rows("one", members));
        assertThat(rows).as("a thousand to a row").hasSize(3);
        Collections.reverse(rows);
        rows.addAll(GroupLists.rows("full", many(1_000)));
        rows.addAll(GroupLists.rows("empty", List.of()));
        new JdbcTemplate(source).batchUpdate(GroupLists.INSERT, rows);

        List<Target> made = new ArrayList<>();
        GroupLists<Target> all = new EstateRecords(db).lists(null, member -> made.add(member) ? member : null);
        assertThat(made).as("each once, however many groups list it").doesNotHaveDuplicates();
        assertThat(all.of("one")).isEqualTo(members);
        assertThat(all.of("full")).isEqualTo(many(1_000));
        assertThat(all.of("empty")).isEmpty();
        assertThat(all.of("unknown")).isEmpty();

        GroupLists<String> some = new EstateRecords(db).lists(Set.of("one"), member -> member.kind() == Target.Kind.DEVICE ? null : member.id());
        assertThat(some.of("one")).containsExactly("d7", "it's \u00fc \"quoted\" \\ 1:2");
        assertThat(some.of("full")).isEmpty();

        new JdbcTemplate(source).update(GroupLists.DELETE, "one");
        assertThat(new EstateRecords(db).lists(null, member -> member).of("one")).isEmpty();
    }

    /** A data folder of the version before, in which each member had a row. */
    @Test
    void whatGroupsListedBeforeAnUpgradeTheyListAfterIt() {
        upTo("21");
        List<Target> members = many(2_001);
        members.addAll(1_000, List.of(Target.user("u\"1"), Target.group("g\\1")));
        List<Object[]> rows = new ArrayList<>();
        members.forEach(member -> rows.add(new Object[] {"one", rows.size(), member.kind().name(), member.id()}));
        Collections.shuffle(rows, new Random(7));
        rows.add(new Object[] {"other", 0, "DEVICE", "d5"});
        rows.add(new Object[] {"other", 1, "USER", "d6"});
        rows.add(new Object[] {"other", 2, "DEVICE", "d5"});
        new JdbcTemplate(source).batchUpdate("insert into group_members (group_id, place, kind, member) values (?, ?, ?, ?)", rows);
        for (int i = 1; i <= 6; i++) {
            db.sql("insert into computers (id, dn, name, ou, enabled) values (?, '', ?, null, ?)").params("d" + i, "QB-" + i, i < 5).update();
        }
        upTo("latest");
        GroupLists<Target> lists = new EstateRecords(db).lists(null, member -> member);
        assertThat(lists.of("one")).isEqualTo(members);
        assertThat(lists.of("other")).containsExactly(Target.device("d5"), Target.user("d6"), Target.device("d5"));
        for (int i = 0; i < 2; i++) {
            assertThat(lists.distinct("other")).as("whatever was asked before").containsExactly(Target.device("d5"), Target.user("d6"));
            assertThat(lists.distinct("one")).isEqualTo(members);
        }
        assertThat(db.sql("select group_id || ' ' || computer from disabled_members").query(String.class).list())
                .containsExactlyInAnyOrder("one d5", "one d6", "other d5");
    }
}
