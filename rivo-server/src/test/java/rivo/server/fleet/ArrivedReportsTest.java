package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.IntStream;
import javax.sql.DataSource;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.pcollections.HashTreePMap;
import org.springframework.jdbc.BadSqlGrammarException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import org.springframework.jdbc.support.JdbcTransactionManager;
import rivo.core.estate.Version;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.WaitReason;
import rivo.server.TestDevice;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import rivo.server.fleet.UnsettledReports.Said;
import rivo.server.storage.Database;

/** What has been reported is the same to whoever reads it, whether it has been settled into the devices' rows or not. */
class ArrivedReportsTest extends ServerTest {

    private static final Instant AT = Instant.parse("2026-11-23T08:00:00.123456789Z");

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
    }

    private static JdbcClient db() {
        return server.bean(JdbcClient.class);
    }

    private static ArrivedReports arrived() {
        return server.bean(ArrivedReports.class);
    }

    private static Progress progress(String title, int percent) {
        Progress plain = new Progress(title, percent % 5 == 0 ? "u1" : null, JobAction.INSTALL, percent % 2 == 0 ? null : "4.2.0", JobState.RUNNING, 1, 4, percent, "at " + percent + " %",
                percent % 3 == 0 ? null : percent, AT.plusSeconds(percent));
        return switch (percent % 7) {
            case 1 -> plain.waiting(WaitReason.WINDOW, AT.plusSeconds(900).plusNanos(123_456_789));
            case 2 -> plain.waiting(WaitReason.ANSWER, null);
            case 3 -> plain.fetching(percent, 3_000_000_000L);
            default -> plain;
        };
    }

    private static void take(String device, long number, List<Progress> progress) {
        server.bean(ChangeWriter.class).take(context -> {
            arrived().take(context, device, number, progress);
            return number;
        });
    }

    private static int waiting() {
        return db().sql("select count(*) from report_batches").query(Integer.class).single();
    }

    private static void settle() {
        arrived().settle();
        assertThat(waiting()).isZero();
    }

    /** As a start would find it. */
    private static void diskSaysTheSameAsMemory(String when) {
        Snapshot now = server.bean(CurrentSnapshot.class).now();
        assertThat(ArrivedReports.JOBS.read(db())).as(when).isEqualTo(now.get(ArrivedReports.JOBS));
        assertThat(ArrivedReports.LAST_NUMBERS.read(db())).as(when).isEqualTo(now.get(ArrivedReports.LAST_NUMBERS));
    }

    /** Held against the list of what was said, over more reports than are settled at once. */
    @Test
    void whoeverReadsFindsEachReportOnceAndInItsOrder() {
        long seed = System.nanoTime();
        Random random = new Random(seed);
        Map<String, List<String>> said = new HashMap<>();
        for (int n = 1; n <= 1_700; n++) {
            String device = "far-" + random.nextInt(40);
            List<Progress> progress = new ArrayList<>();
            for (int i = random.nextInt(3); i > 0; i--) {
                progress.add(progress(random.nextBoolean() ? "siltscope" : "moonware", random.nextInt(3) == 0 ? 10 : random.nextInt(100)));
            }
            take(device, n, progress);
            for (Progress one : progress) {
                List<String> lines = said.computeIfAbsent(device + " " + one.title() + " " + one.person(), k -> new ArrayList<>());
                if (lines.isEmpty() || !lines.get(0).equals(one.message())) {
                    lines.add(0, one.message());
                }
            }
            if (n % 500 == 0 || n == 1_700) {
                diskSaysTheSameAsMemory("seed " + seed + ", report " + n);
                said.forEach((key, lines) -> assertThat(lines(key)).as("seed " + seed + ", " + key).isEqualTo(lines));
            }
            if (n == 500) {
                settle();
            }
        }
        assertThat(waiting()).as("what has arrived since").isGreaterThan(1_000);
        settle();
        diskSaysTheSameAsMemory("seed " + seed + ", settled");
        said.forEach((key, lines) -> assertThat(lines(key)).as("seed " + seed + ", settled, " + key).isEqualTo(lines));
        assertThat(arrived().log("far-0", JobKey.of("siltscope", null), 2)).hasSize(2);
    }

    private static List<String> lines(String deviceAndJob) {
        String[] parts = deviceAndJob.split(" ");
        return arrived().log(parts[0], JobKey.of(parts[1], "null".equals(parts[2]) ? null : parts[2]), 10_000).stream().map(Said::message).toList();
    }

    /** Whether it has been settled meanwhile or not. */
    @Test
    void howFarAStepHasGotMakesNoLineOfItsOwn() {
        JobKey job = JobKey.of("siltscope", null);
        Instant at = AT.truncatedTo(ChronoUnit.MICROS);
        List<Said> expected = new ArrayList<>();
        for (int step = 1; step <= 4; step++) {
            for (int n = 0; n < 5; n++) {
                JobState state = step == 4 && n == 4 ? JobState.DONE : JobState.RUNNING;
                String message = step == 3 && n >= 2 ? "still at work" : "at work";
                take("steps", step * 10L + n, List.of(new Progress("siltscope", null, JobAction.INSTALL, "4.2.0", state, step, 4, n, message, null, at.plusSeconds(step * 10L + n))));
                if (n == 0 || step == 3 && n == 2 || state == JobState.DONE) {
                    expected.add(0, new Said(at.plusSeconds(step * 10L + n), JobAction.INSTALL, state, step, message));
                }
                if (n == 3) {
                    settle();
                }
                assertThat(arrived().log("steps", job, 100)).as("step %d, report %d", step, n).isEqualTo(expected);
            }
        }
        take("steps", 100, List.of(new Progress("siltscope", null, JobAction.REMOVE, "4.2.0", JobState.DONE, 4, 4, 100, "at work", null, at.plusSeconds(100))));
        expected.add(0, new Said(at.plusSeconds(100), JobAction.REMOVE, JobState.DONE, 4, "at work"));
        assertThat(arrived().log("steps", job, 100)).isEqualTo(expected);
        settle();
        assertThat(arrived().log("steps", job, 100)).isEqualTo(expected);
        assertThat(db().sql("select count(*) from job_log where device = 'steps'").query(Integer.class).single()).isEqualTo(7);
    }

    @Test
    void whatIsAtTheEndsOfTimeIsSettledToo() {
        Progress one = progress("siltscope", 1);
        take("ends", 1, List.of(new Progress(one.title(), null, one.action(), one.version(), one.state(), 1, 4, 1, "", null,
                        Instant.parse("9999-12-31T23:59:59Z")),
                new Progress("moonware", "u1", one.action(), one.version(), one.state(), 1, 4, 1, "", null, Instant.parse("0001-01-01T00:00:00Z"))
                        .waiting(WaitReason.TRY, Instant.parse("9999-12-31T23:59:59Z"))));
        settle();
        diskSaysTheSameAsMemory("settled");
    }

    private static int logged(String devices) {
        return db().sql("select count(*) from job_log where device like ?").params(devices).query(Integer.class).single();
    }

    /** More than memory may hold of them: what is too much is settled by whoever writes. */
    @Test
    void howeverLongReportsAreAllOfThemAreSettled() {
        for (int n = 1; n <= 145; n++) {
            // A character that is written as six: the longest that a batch can be.
            String filled = (n <= 2 ? "\u0001" : "m").repeat(997);
            take("long-" + n, n, IntStream.range(100, 300).mapToObj(i -> said("siltscope", filled + i)).toList());
        }
        assertThat(logged("long-%")).as("settled by the writer").isBetween(20_000, 28_999);
        diskSaysTheSameAsMemory("arrived");
        settle();
        diskSaysTheSameAsMemory("settled");
        assertThat(logged("long-%")).isEqualTo(29_000);
    }

    /** A row that has no room would stop the writer: whatever devices write, none is longer than it is taken for. */
    @Test
    void noReportIsWrittenLongerThanItIsTakenFor() {
        String[] worst = {"\u0001", "\u001f", "\"", "\u20ac", "\ud83d\ude00"};
        for (String one : worst) {
            String text = one.repeat(1000 / one.length());
            Instant end = Instant.parse("9999-12-31T23:59:59.999999Z");
            Progress widest = new Progress(text, text, JobAction.INSTALL, text, JobState.RUNNING, Integer.MAX_VALUE, Integer.MAX_VALUE, Integer.MAX_VALUE, text,
                    Integer.MIN_VALUE, end).waiting(WaitReason.WINDOW, end).fetching(Long.MAX_VALUE, Long.MAX_VALUE);
            ArrivedReport report = new ArrivedReport(text, Long.MIN_VALUE, end, Collections.nCopies(200, widest));
            for (ArrivedReport part : report.parts()) {
                assertThat(Json.bytes(part).length).as(one).isLessThan(part.bytes());
            }
            assertThat(report.parts().stream().flatMap(part -> part.progress().stream()).toList()).isEqualTo(report.progress());
        }
        ArrivedReport empty = new ArrivedReport("d", 1, AT, List.of());
        assertThat(Json.bytes(empty).length).isLessThan(empty.bytes());
    }

    /** Of a version and a message no more is taken than they may have. */
    @Test
    void manyLongReportsThatComeTogetherHaveRoom() {
        String version = "\u0001".repeat(Version.LONGEST);
        server.bean(ChangeWriter.class).take(context -> {
            for (int n = 0; n < 400; n++) {
                Progress one = new Progress("siltscope", null, JobAction.INSTALL, version, JobState.RUNNING, 1, 4, 1, "", null, AT);
                arrived().take(context, "room-" + n, 1, List.of(one, one, one));
            }
            return 0;
        });
        assertThat(waiting()).isGreaterThan(1);
        diskSaysTheSameAsMemory("arrived");
        settle();
        diskSaysTheSameAsMemory("settled");
    }

    /** As a sudden death leaves them between settling and deleting. */
    @Test
    void whatIsSettledAndStillThereIsNotTakenTwice() {
        take("twice", 1, List.of(said("siltscope", "first")));
        settle();
        long upTo = db().sql("select up_to from settled_batches").query(Long.class).single();
        ArrivedReport once = new ArrivedReport("twice", 1, AT, List.of(said("siltscope", "first"), said("siltscope", "again")));
        for (int n = 0; n < 120; n++) {
            db().sql("insert into report_batches (batch, reports) values (?, ?)").params(upTo - n, Json.bytes(List.of(once))).update();
        }
        diskSaysTheSameAsMemory("settled, and not deleted");
        assertThat(arrived().log("twice", JobKey.of("siltscope", null), 10)).extracting(Said::message).containsExactly("first");
        settle();
        diskSaysTheSameAsMemory("deleted");
        assertThat(logged("twice")).isEqualTo(1);
    }

    @Test
    void whatCouldNotBeSettledIsSettledLater() {
        JobKey job = JobKey.of("siltscope", null);
        take("later", 1, List.of(said("siltscope", "first"), said("siltscope", "second")));
        db().sql("alter table job_log rename to job_log_away").update();
        try {
            assertThatThrownBy(() -> arrived().settle()).isInstanceOf(BadSqlGrammarException.class);
        } finally {
            db().sql("alter table job_log_away rename to job_log").update();
        }
        assertThat(waiting()).isPositive();
        take("later", 2, List.of(said("siltscope", "second"), said("moonware", "other"), said("siltscope", "third")));
        diskSaysTheSameAsMemory("not settled");
        assertThat(arrived().log("later", job, 10)).extracting(Said::message).containsExactly("third", "second", "first");
        settle();
        diskSaysTheSameAsMemory("settled");
        assertThat(arrived().log("later", job, 10)).extracting(Said::message).containsExactly("third", "second", "first");
        assertThat(logged("later")).isEqualTo(4);
    }

    private static Progress said(String title, String message) {
        return new Progress(title, null, JobAction.INSTALL, "4.2.0", JobState.RUNNING, 1, 4, 1, message, null, AT);
    }

    /** Whoever reads while it is being settled finds each line once, too. */
    @Test
    void aLogThatIsReadWhileItIsSettledHasNoGap() throws Exception {
        JobKey job = JobKey.of("siltscope", null);
        AtomicBoolean ends = new AtomicBoolean();
        CompletableFuture<Integer> settled = CompletableFuture.supplyAsync(() -> {
            int times = 0;
            for (; !ends.get(); times++) {
                arrived().settle();
            }
            return times;
        });
        CompletableFuture<Integer> read = CompletableFuture.supplyAsync(() -> {
            int times = 0;
            for (; !ends.get(); times++) {
                List<String> lines = arrived().log("gap", job, 10_000).stream().map(Said::message).toList();
                int newest = lines.size();
                assertThat(lines).isEqualTo(IntStream.range(0, newest).mapToObj(i -> "line " + (newest - i)).toList());
            }
            return times;
        });
        try {
            for (int n = 1; n <= 400; n++) {
                take("gap", n, List.of(said("siltscope", "line " + n)));
            }
        } finally {
            ends.set(true);
        }
        assertThat(settled.get()).isGreaterThan(3);
        assertThat(read.get()).isGreaterThan(3);
        assertThat(arrived().log("gap", job, 10_000)).hasSize(400);
    }

    /** A data folder of the version before, stopped with reports that stood in a row each. */
    @Test
    void whatHadArrivedBeforeAnUpgradeIsTakenOver(@TempDir Path folder) {
        DataSource source = new DriverManagerDataSource(Database.url(folder) + ";DB_CLOSE_DELAY=-1");
        Flyway.configure().dataSource(source).target("20").load().migrate();
        JdbcClient old = JdbcClient.create(source);
        Progress one = new Progress("siltscope", "u\"1", JobAction.INSTALL, null, JobState.WAITING, 1, 4, 1, "it's \u00fc \\ \"here\"", null,
                AT.truncatedTo(ChronoUnit.MICROS)).waiting(WaitReason.WINDOW, AT.truncatedTo(ChronoUnit.MICROS));
        for (int n = 1; n <= 2; n++) {
            old.sql("insert into arrived_reports (device, report_number, at, progress) values (?, ?, ?, ?)")
                    .params("d\"1", n, Rows.at(AT.truncatedTo(ChronoUnit.MICROS)), n == 1 ? Json.write(List.of(one)) : "[]").update();
        }
        Flyway.configure().dataSource(source).load().migrate();
        assertThat(ArrivedReports.JOBS.read(old)).isEqualTo(HashTreePMap.singleton("d\"1", Map.of(JobKey.of(one), one)));
        assertThat(ArrivedReports.LAST_NUMBERS.read(old)).isEqualTo(HashTreePMap.singleton("d\"1", 2L));
        ArrivedReports upgraded = new ArrivedReports(old, new JdbcTemplate(source), new JdbcTransactionManager(source));
        upgraded.settle();
        assertThat(old.sql("select count(*) from report_batches").query(Integer.class).single()).isZero();
        assertThat(upgraded.log("d\"1", JobKey.of(one), 10)).containsExactly(Said.of(one));
        assertThat(old.sql("select at from report_numbers").query((row, i) -> Rows.instant(row, "at")).single()).isEqualTo(AT.truncatedTo(ChronoUnit.MICROS));
        old.sql("shutdown").update();
    }

    @Test
    void aDeviceThatEnrolsAnewCountsFromOneWhateverIsSettled() {
        TestDevice device = TestDevice.enrolled(server, "QB-LAB-001");
        assertThat(device.report("{\"number\":7}").body().path("taken").asBoolean()).isTrue();
        TestDevice anew = TestDevice.withToken(server, device.id, Duration.ofHours(1));
        assertThat(anew.enrol().status()).isEqualTo(201);
        diskSaysTheSameAsMemory("enrolled anew");
        settle();
        diskSaysTheSameAsMemory("settled");
        assertThat(anew.report("{\"number\":1}").body().path("taken").asBoolean()).isTrue();
    }
}
