package rivo.server.catalogue.content;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.server.ServerSettings;
import rivo.server.web.ApiException;

/** Content in its folder: once by its hash, whole or not at all, and gone when nobody has used it for long. */
class ContentsTest {

    private static final Instant NOW = Instant.parse("2026-11-23T08:00:00Z");
    private static final Duration WEEK = Duration.ofDays(7);

    @TempDir
    private Path data;
    private Contents contents;

    @BeforeEach
    void open() throws IOException {
        contents = new Contents(ServerSettings.at(data));
    }

    private Contents.Content keep(String text) throws IOException {
        return contents.keep(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)), "a.bin");
    }

    private long files() throws IOException {
        try (var list = Files.list(data.resolve("content"))) {
            return list.count();
        }
    }

    @Test
    void theSameContentIsKeptOnce() throws IOException {
        assertThat(keep("one")).isEqualTo(keep("one"));
        assertThat(files()).isEqualTo(1);
    }

    @Test
    void whatAKillCutOffIsGoneAfterTheNextStart() throws IOException {
        Files.writeString(data.resolve("content").resolve("incoming7.part"), "half");
        open();
        assertThat(files()).isZero();
    }

    @Test
    void contentThatWasDamagedOnTheDiskIsNotGiven() throws IOException {
        String hash = keep("one").sha256();
        Files.writeString(data.resolve("content").resolve(hash), "two");
        open();
        assertThatThrownBy(() -> contents.file(hash)).isInstanceOf(ApiException.class).hasMessageContaining("is damaged on the server");
    }

    @Test
    void whatNobodyHasUsedForAWeekIsDeleted() throws IOException {
        Contents.Content used = keep("used");
        keep("unused");
        assertThat(contents.forgetUnused(Set.of(used.sha256()), NOW, WEEK)).isZero();
        open();
        assertThat(contents.forgetUnused(Set.of(used.sha256()), NOW.plus(WEEK), WEEK)).as("not yet").isZero();
        assertThat(contents.forgetUnused(Set.of(used.sha256()), NOW.plus(WEEK).plusSeconds(1), WEEK)).isEqualTo(1);
        assertThat(contents.has(used)).isTrue();
        assertThat(files()).isEqualTo(1);
    }

    @Test
    void whatIsUsedAgainStays() throws IOException {
        Contents.Content content = keep("again");
        contents.forgetUnused(Set.of(), NOW, WEEK);
        contents.forgetUnused(Set.of(content.sha256()), NOW.plus(WEEK), WEEK);
        assertThat(contents.forgetUnused(Set.of(), NOW.plus(WEEK.multipliedBy(2)), WEEK)).as("its week begins anew").isZero();
        keep("again");
        assertThat(contents.forgetUnused(Set.of(), NOW.plus(WEEK.multipliedBy(4)), WEEK)).as("it came in again").isZero();
    }

    @Test
    void aMarkThatAKillCutOffCountsFromNow() throws IOException {
        String hash = keep("marked").sha256();
        Files.writeString(data.resolve("content").resolve(hash + ".unused"), "");
        assertThat(contents.forgetUnused(Set.of(), NOW, WEEK)).isZero();
        assertThat(contents.forgetUnused(Set.of(), NOW.plus(WEEK).plusSeconds(1), WEEK)).isEqualTo(1);
    }

    /** After a restart many devices ask for the same large file, which is hashed by the first and not by each. */
    @Test
    void oneFileIsHashedOnceHoweverManyAsk() throws Exception {
        byte[] large = new byte[64 << 20];
        String hash = contents.keep(new ByteArrayInputStream(large), "large.bin").sha256();
        open();
        ExecutorService threads = Executors.newFixedThreadPool(6);
        List<Future<String>> asked = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            asked.add(threads.submit(() -> {
                try {
                    return contents.file(hash).getFileName().toString();
                } catch (ApiException e) {
                    return e.code();
                }
            }));
        }
        List<String> answers = new ArrayList<>();
        for (Future<String> one : asked) {
            answers.add(one.get());
        }
        threads.shutdown();
        assertThat(answers).contains(hash).allMatch(a -> a.equals(hash) || a.equals("being-checked"));
        assertThat(answers.stream().filter("being-checked"::equals).count()).as("who comes meanwhile comes again").isPositive();
        assertThat(contents.file(hash)).exists();
    }

    @Test
    void whatAKillCutOffIsDeletedAtTheNextStart(@TempDir Path other) throws IOException {
        Path part = Files.createDirectories(other.resolve("content")).resolve("incoming1.part");
        Files.writeString(part, "half");
        new Contents(ServerSettings.at(other));
        assertThat(part).doesNotExist();
    }
}
