package rivo.server.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javax.sql.DataSource;
import org.h2.jdbcx.JdbcDataSource;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.JdbcTransactionManager;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.transaction.PlatformTransactionManager;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Ou;
import rivo.server.storage.Database;

class ChangeWriterTest {

    @TempDir
    private Path data;
    private DataSource source;
    private JdbcClient db;
    private CurrentSnapshot current;
    private ChangeWriter writer;

    private static Estate estate(String root) {
        return Estate.of(EstateParts.none(java.time.Instant.EPOCH).withOus(List.of(new Ou("root", root, "", null, false))));
    }

    @BeforeEach
    void open() {
        source = source(data.resolve("rivo"));
        db = JdbcClient.create(source);
        db.sql("create table things (name varchar(100) primary key)").update();
        db.sql("create table journal (number bigint generated always as identity primary key, at timestamp with time "
                + "zone, who varchar(100), kind varchar(100), subject varchar(100), why varchar(100), "
                + "before_value clob, after_value clob)").update();
        current = new CurrentSnapshot(asOf -> Snapshot.of(estate("before"), Map.of()), Clock.systemUTC());
        writer = new ChangeWriter(db, new JdbcTemplate(source), new JdbcTransactionManager(source), current, Clock.systemUTC());
    }

    private static DataSource source(Path file) {
        JdbcDataSource source = new JdbcDataSource();
        source.setURL(Database.url(file.getParent()).replace("/rivo;", "/" + file.getFileName() + ";") + ";DB_CLOSE_DELAY=-1");
        return source;
    }

    @AfterEach
    void close() throws InterruptedException {
        writer.stop();
        db.sql("shutdown").update();
    }

    private static int insert(ChangeContext context, String name) {
        return context.db().sql("insert into things (name) values (?)").params(name).update();
    }

    private List<String> things() {
        return db.sql("select name from things order by name").query(String.class).list();
    }

    @Test
    void aChangeIsInTheDatabaseTheJournalAndMemory() {
        List<String> told = new ArrayList<>();
        writer.take(context -> {
            context.journal("imara.voss", "added", "thing:a", "because", null, "a");
            context.becomes(estate("after"));
            context.afterwards(() -> told.add(current.now().estate().ous().root().name()));
            return insert(context, "a");
        });
        assertThat(things()).containsExactly("a");
        assertThat(db.sql("select who || ' ' || after_value from journal").query(String.class).list())
                .containsExactly("imara.voss \"a\"");
        assertThat(current.now().estate().ous().root().name()).isEqualTo("after");
        assertThat(told).as("told after the estate is in place").containsExactly("after");
    }

    @Test
    void aCommandThatFailsTakesNothingWithIt() {
        assertThatThrownBy(() -> writer.take(context -> {
            insert(context, "bad");
            context.becomes(estate("bad"));
            throw new IllegalStateException("no");
        })).isInstanceOf(IllegalStateException.class).hasMessage("no");
        writer.take(context -> insert(context, "good"));
        assertThat(things()).containsExactly("good");
        assertThat(current.now().estate().ous().root().name()).isEqualTo("before");
    }

    /** Lines of a table, as few statements as there are transactions. */
    private final class Lines implements Gathered<String> {

        private final Set<String> written = ConcurrentHashMap.newKeySet();

        @Override
        public void write(List<String> brought) {
            new JdbcTemplate(source).batchUpdate("insert into lines (name) values (?)", brought.stream().map(one -> new Object[] {one}).toList());
        }

        @Override
        public void isWritten(List<String> brought) {
            written.addAll(brought);
        }
    }

    @Test
    void whatIsBroughtTogetherIsThereWithTheAnswerInItsOrderAndNothingOfWhatFails() {
        db.sql("create table lines (number bigint generated always as identity primary key, name varchar(100))").update();
        Lines lines = new Lines();
        List<CompletableFuture<Integer>> asked = new ArrayList<>();
        for (int i = 0; i < 300; i++) {
            int n = i;
            asked.add(CompletableFuture.supplyAsync(() -> writer.take(context -> {
                context.gather(lines, n + " first");
                context.gather(lines, n + " second");
                if (n % 3 == 0) {
                    throw new IllegalStateException("no");
                }
                return n;
            })).handle((found, failure) -> {
                List<String> own = db.sql("select name from lines where name like ? order by number").params(n + " %").query(String.class).list();
                assertThat(own).isEqualTo(n % 3 == 0 ? List.of() : List.of(n + " first", n + " second"));
                assertThat(lines.written.contains(n + " second")).as("said to be on disk before the answer").isEqualTo(n % 3 != 0);
                return n;
            }));
        }
        asked.forEach(CompletableFuture::join);
        assertThat(db.sql("select count(*) from lines").query(Integer.class).single()).isEqualTo(400);
    }

    /** Disk and memory would disagree. */
    @Test
    void whatIsBroughtAndCannotBeWrittenStopsTheWriterWithNothingOfThoseThatCameWithIt() {
        db.sql("create table lines (name varchar(100))").update();
        Lines lines = new Lines();
        assertThatThrownBy(() -> writer.take(context -> {
            context.gather(lines, "long".repeat(100));
            return insert(context, "with it");
        })).isInstanceOf(ChangesRefusedException.class).hasMessageContaining("start Rivo again");
        assertThat(things()).isEmpty();
        assertThat(lines.written).isEmpty();
        assertThatThrownBy(() -> writer.take(context -> insert(context, "later"))).isInstanceOf(ChangesRefusedException.class);
    }

    /** As the server's threads are when it stops. */
    @Test
    void whoeverIsInterruptedWhileTheyWaitIsToldToLook() throws Exception {
        CountDownLatch runs = new CountDownLatch(1);
        CountDownLatch go = new CountDownLatch(1);
        CompletableFuture<Boolean> stillInterrupted = new CompletableFuture<>();
        Thread waiting = new Thread(() -> {
            try {
                writer.take(context -> {
                    runs.countDown();
                    try {
                        go.await();
                    } catch (InterruptedException e) {
                        throw new IllegalStateException(e);
                    }
                    return insert(context, "slow");
                });
                stillInterrupted.completeExceptionally(new IllegalStateException("it was answered"));
            } catch (ChangesRefusedException e) {
                stillInterrupted.complete(Thread.currentThread().isInterrupted() && e.getMessage().contains("Look whether"));
            }
        });
        waiting.start();
        runs.await();
        waiting.interrupt();
        assertThat(stillInterrupted.get(10, TimeUnit.SECONDS)).isTrue();
        go.countDown();
        writer.take(context -> insert(context, "next"));
        assertThat(things()).as("the change itself goes on").containsExactly("next", "slow");
    }

    @Test
    void manyAtOnceAllGetTheirOwnAnswer() {
        List<CompletableFuture<String>> asked = new ArrayList<>();
        for (int i = 0; i < 300; i++) {
            int n = i;
            asked.add(CompletableFuture.supplyAsync(() -> {
                try {
                    return "ok " + writer.take(context -> {
                        insert(context, n % 3 == 0 ? "same" : "n" + n);
                        return n;
                    });
                } catch (RuntimeException e) {
                    return "refused";
                }
            }));
        }
        List<String> answers = asked.stream().map(CompletableFuture::join).toList();
        assertThat(answers.stream().filter("refused"::equals).count()).isEqualTo(99);
        assertThat(things()).hasSize(201);
    }

    /** The file as it would be found after a kill right after the answer. */
    @Test
    void whatWasAnsweredIsOnDisk() throws Exception {
        for (int i = 0; i < 20; i++) {
            int n = i;
            writer.take(context -> insert(context, String.format("n%02d", n)));
            Path copy = data.resolve("copy" + n);
            Files.copy(data.resolve("rivo.mv.db"), data.resolve("copy" + n + ".mv.db"));
            JdbcClient found = JdbcClient.create(source(copy));
            assertThat(found.sql("select count(*) from things").query(Integer.class).single()).isEqualTo(n + 1);
            found.sql("shutdown").update();
        }
    }

    @Test
    void aChangeThatCannotBeMadeDurableStopsTheWriterLoudly() throws InterruptedException {
        PlatformTransactionManager broken = mock(PlatformTransactionManager.class);
        doAnswer(call -> {
            throw new CannotCreateTransactionException("the disk is full");
        }).when(broken).getTransaction(any());
        ChangeWriter other = new ChangeWriter(db, new JdbcTemplate(source), broken, current, Clock.systemUTC());
        assertThatThrownBy(() -> other.take(context -> insert(context, "x"))).isInstanceOf(ChangesRefusedException.class)
                .hasMessageContaining("start Rivo again");
        assertThatThrownBy(() -> other.take(context -> insert(context, "y"))).isInstanceOf(ChangesRefusedException.class);
        assertThat(other.health().getStatus().getCode()).isEqualTo("DOWN");
        assertThat(writer.health().getStatus().getCode()).isEqualTo("UP");
        other.stop();
    }

    @Test
    void anErrorInACommandIsThatCommandsFailureAlone() {
        for (Error error : List.of(new AssertionError("wrong"), new StackOverflowError(), new NoClassDefFoundError("gone"))) {
            assertThatThrownBy(() -> writer.take(context -> {
                insert(context, "bad");
                throw error;
            })).isInstanceOf(IllegalStateException.class).hasCause(error);
            assertThat(writer.health().getStatus().getCode()).isEqualTo("UP");
        }
        writer.take(context -> insert(context, "good"));
        assertThat(things()).containsExactly("good");
    }

    @Test
    void aMemoryThatRunsOutStopsChangesLoudly() {
        assertThatThrownBy(() -> writer.take(context -> {
            throw new OutOfMemoryError("made up");
        })).isInstanceOf(ChangesRefusedException.class).hasMessageContaining("memory ran out");
        assertClosed("memory ran out");
    }

    @Test
    void aMemoryThatRanOutElsewhereStopsThemToo() {
        writer.memoryRanOut();
        assertClosed("memory ran out");
    }

    /** The rows are on disk by then, and memory does not have them: going on would build on something else than what is written. */
    @Test
    void aFaultWhileTheNextEstateIsPutInPlaceStopsChangesLoudly() throws InterruptedException {
        CurrentSnapshot broken = mock(CurrentSnapshot.class);
        when(broken.now()).thenReturn(Snapshot.of(estate("before"), Map.of()));
        doAnswer(call -> {
            throw new IllegalStateException("made up");
        }).when(broken).become(any());
        ChangeWriter other = new ChangeWriter(db, new JdbcTemplate(source), new JdbcTransactionManager(source), broken, Clock.systemUTC());
        assertThatThrownBy(() -> other.take(context -> insert(context, "x"))).isInstanceOf(ChangesRefusedException.class)
                .hasMessageContaining("start Rivo again");
        assertThat(other.health().getStatus().getCode()).isEqualTo("DOWN");
        other.stop();
    }

    @Test
    void whatFailsAfterwardsFailsNobodyElse() {
        List<String> told = new ArrayList<>();
        writer.take(context -> {
            context.afterwards(() -> {
                throw new AssertionError("made up");
            });
            context.afterwards(() -> told.add("second"));
            return insert(context, "a");
        });
        writer.take(context -> insert(context, "b"));
        assertThat(told).containsExactly("second");
        assertThat(things()).containsExactly("a", "b");
    }

    private void assertClosed(String words) {
        assertThatThrownBy(() -> writer.take(context -> insert(context, "y"))).isInstanceOf(ChangesRefusedException.class)
                .hasMessageContaining(words);
        assertThat(writer.health().getStatus().getCode()).isEqualTo("DOWN");
    }

    @Test
    void nothingIsTakenAfterTheEnd() throws InterruptedException {
        writer.stop();
        assertThatThrownBy(() -> writer.take(context -> insert(context, "x"))).isInstanceOf(ChangesRefusedException.class);
    }
}
