package rivo.core.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Against a map; with ids that are told apart by their hashes only seldom, since many have the same. */
class IdIndexTest {

    private static final int ROUNDS = 300;

    /** Two letters each, of which several have the same hash ("Aa" and "BB"), and so have the texts made of them. */
    private static String id(Random random) {
        List<String> parts = List.of("Aa", "BB", "C#", "d", "QB-LAB-00", "");
        StringBuilder id = new StringBuilder();
        for (int i = random.nextInt(5); i >= 0; i--) {
            id.append(parts.get(random.nextInt(parts.size())));
        }
        return id.append(random.nextInt(3) == 0 ? random.nextInt(40) : "").toString();
    }

    @Test
    void everyIdIsFoundAndNoOther() {
        for (int round = 0; round < ROUNDS; round++) {
            Random random = new Random(round);
            Set<String> ids = new LinkedHashSet<>();
            for (int i = random.nextInt(400); i > 0; i--) {
                ids.add(id(random));
            }
            IdIndex index = new IdIndex(ids.toArray(new String[0]));
            Map<String, Integer> numbers = new HashMap<>();
            ids.forEach(id -> numbers.put(id, numbers.size()));
            List<String> asked = new ArrayList<>(ids);
            for (int i = 0; i < 100; i++) {
                asked.add(id(random));
            }
            Collections.shuffle(asked, random);
            for (String id : asked) {
                // Another text of the same letters, as from another file.
                assertThat(index.find(new String(id))).as("round %d, %s", round, id).isEqualTo(numbers.getOrDefault(id, -1));
            }
            manyAtOnce(index, numbers, asked);
        }
    }

    private static void manyAtOnce(IdIndex index, Map<String, Integer> numbers, List<String> asked) {
        String[] ids = new String[IdIndex.TOGETHER];
        int[] found = new int[IdIndex.TOGETHER];
        for (int from = 0; from < asked.size(); from += IdIndex.TOGETHER) {
            int n = Math.min(IdIndex.TOGETHER, asked.size() - from);
            for (int i = 0; i < n; i++) {
                ids[i] = asked.get(from + i);
            }
            index.find(ids, n, found);
            for (int i = 0; i < n; i++) {
                assertThat(found[i]).as(ids[i]).isEqualTo(numbers.getOrDefault(ids[i], -1));
            }
        }
    }

    /** Whoever makes up ids with one and the same hash does not make it slow: they would be compared with each other two by two. */
    @Test
    void manyOfOneHashAreFoundAsSoon() {
        List<String> ids = new ArrayList<>(List.of(""));
        while (ids.size() < 1 << 17) {
            ids = ids.stream().flatMap(id -> Stream.of(id + "Aa", id + "BB")).toList();
        }
        assertThat(ids.stream().map(String::hashCode).distinct()).hasSize(1);
        IdIndex index = new IdIndex(ids.toArray(new String[0]));
        for (int i = 0; i < ids.size(); i++) {
            assertThat(index.find(ids.get(i))).isEqualTo(i);
        }
        assertThat(index.find("C#" + ids.get(0).substring(2))).as("of the same hash, and none of them").isEqualTo(-1);
    }

    @Test
    void ofOneThatComesAgainTheFirstCounts() {
        for (int round = 0; round < ROUNDS; round++) {
            Random random = new Random(round);
            List<String> ids = Stream.generate(() -> id(random)).limit(random.nextInt(400)).toList();
            IdIndex index = IdIndex.of(ids, id -> id);
            for (int i = 0; i < ids.size(); i++) {
                assertThat(index.isAgain(i)).as("round %d, %d", round, i).isEqualTo(ids.indexOf(ids.get(i)) < i);
                assertThat(index.find(ids.get(i))).isEqualTo(ids.indexOf(ids.get(i)));
            }
            String[] asked = ids.toArray(new String[0]);
            assertThat(index.numbers(asked, id -> id)).as("round %d", round).containsExactly(ids.stream().mapToInt(ids::indexOf).toArray());
        }
    }

    /** So many of one hash that they are kept elsewhere. */
    @Test
    void whatComesAgainAmongManyOfOneHashIsTold() {
        List<String> ids = new ArrayList<>(List.of(""));
        while (ids.size() < 1 << 8) {
            ids = ids.stream().flatMap(id -> Stream.of(id + "Aa", id + "BB")).toList();
        }
        IdIndex index = IdIndex.of(Stream.concat(ids.stream(), ids.stream()).toList(), id -> id);
        for (int i = 0; i < ids.size(); i++) {
            assertThat(index.isAgain(i)).isFalse();
            assertThat(index.isAgain(ids.size() + i)).isTrue();
            assertThat(index.find(ids.get(i))).isEqualTo(i);
        }
    }

    @Test
    void thoseThatAreThereKeepTheirNumbersAmongOthers() {
        IdIndex few = IdIndex.of(List.of("QB-LAB-001", "QB-LAB-002"), id -> id);
        List<String> all = List.of("QB-LAB-002", "QB-LAB-003", "QB-LAB-004");
        IdIndex more = few.following(all, List.of("QB-LAB-002", "QB-LAB-004", "QB-LAB-003", "QB-LAB-004"), id -> id);
        assertThat(more.numbers(new String[] {"QB-LAB-001", "QB-LAB-002", "QB-LAB-003", "QB-LAB-004", "QB-LAB-005"}, id -> id))
                .containsExactly(0, 1, 3, 2, -1);
        assertThat(more.size()).isEqualTo(4);
        assertThat(few.find("QB-LAB-003")).as("the first is as it was").isEqualTo(-1);
        assertThat(more.follows(few)).isTrue();
        assertThat(few.follows(more)).isFalse();
        assertThat(more.follows(few.following(all, List.of("QB-LAB-003"), id -> id))).as("of two that follow the same").isFalse();
        assertThat(IdIndex.of(List.of("QB-LAB-001", "QB-LAB-002"), id -> id).follows(few)).as("made anew, of the same").isTrue();
        assertThat(few.following(List.of("QB-LAB-002"), List.of("QB-LAB-002"), id -> id)).as("nothing new").isSameAs(few);
    }

    /** Years of coming and going do not make it grow. */
    @Test
    void whereMostAreNotThereAnyMoreAllAreNumberedAnew() {
        IdIndex index = IdIndex.of(List.of("QB-LAB-000"), id -> id);
        for (int i = 1; i < 10_000; i++) {
            List<String> next = List.of("QB-LAB-" + i);
            IdIndex after = index.following(next, next, id -> id);
            assertThat(after.has(next.get(0))).isTrue();
            assertThat(after.follows(index)).isEqualTo(after.size() > 1);
            assertThat(after.size()).isLessThan(1_010);
            index = after;
        }
    }

    @Test
    void amongNoneNothingIsFound() {
        IdIndex none = new IdIndex(new String[0]);
        assertThat(none.find("QB-LAB-001")).isEqualTo(-1);
        int[] found = {7};
        none.find(new String[] {"QB-LAB-001"}, 0, found);
        assertThat(found).as("nothing was asked for").containsExactly(7);
    }
}
