package rivo.server.reach;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Ou;
import rivo.core.estate.OuTree;

/** Which OUs a map shows. */
class MapPartTest {

    private final List<Ou> ous = new ArrayList<>(List.of(new Ou("root", "Root", "", null, false)));
    private final List<Device> devices = new ArrayList<>();

    private void ou(String id, String parent, int own) {
        ous.add(new Ou(id, id, "", parent, false));
        for (int i = 0; i < own; i++) {
            devices.add(Device.of("d" + devices.size(), "D" + devices.size(), id, List.of()));
        }
    }

    private Estate estate() {
        return Estate.of(EstateParts.none(Instant.parse("2026-11-23T08:00:00Z")).withOus(ous).withDevices(devices));
    }

    private static List<String> ids(MapPart part) {
        return part.ous().stream().map(ou -> part.estate().ous().at(ou).id()).toList();
    }

    @Test
    void fourLevelsAreShownFromWhereItBegins() {
        ou("a", "root", 1);
        ou("b", "a", 1);
        ou("c", "b", 1);
        ou("d", "c", 1);
        ou("e", "d", 1);
        Estate estate = estate();
        assertThat(ids(MapPart.of(estate, 0, Set.of()))).containsExactly("root", "a", "b", "c");
        assertThat(ids(MapPart.of(estate, estate.ous().position("b"), Set.of()))).containsExactly("b", "c", "d", "e");
    }

    @Test
    void whatIsLeftOutIsCountedAtItsParent() {
        for (int i = 1; i <= 30; i++) {
            ou("o" + i, "root", i);
        }
        ou("empty", "root", 0);
        MapPart part = MapPart.of(estate(), 0, Set.of());
        assertThat(ids(part)).hasSize(1 + MapPart.MOST_OF_AN_OU).contains("o30", "o7").doesNotContain("o6", "empty");
        assertThat(part.rest(0)).isEqualTo(new MapPart.Rest(7, 1 + 2 + 3 + 4 + 5 + 6));
    }

    @Test
    void oneThatIsOpenedIsShownWhole() {
        for (int i = 1; i <= 30; i++) {
            ou("o" + i, "root", i);
        }
        ou("empty", "root", 0);
        MapPart part = MapPart.of(estate(), 0, Set.of(0));
        assertThat(ids(part)).hasSize(32);
        assertThat(part.rest(0)).isEqualTo(new MapPart.Rest(0, 0));
    }

    /** Of a directory of 5,000 OUs no more is shown than can be read, and the largest of it. */
    @Test
    void thereIsABudgetOverall() {
        for (int i = 0; i < 20; i++) {
            ou("s" + i, "root", 0);
            for (int j = 0; j < 20; j++) {
                ou("s" + i + "." + j, "s" + i, 0);
                for (int k = 0; k < 12; k++) {
                    ou("s" + i + "." + j + "." + k, "s" + i + "." + j, 1 + (i + j + k) % 5);
                }
            }
        }
        Estate estate = estate();
        assertThat(estate.ous().size()).isGreaterThan(5000);
        MapPart part = MapPart.of(estate, 0, Set.of());
        assertThat(part.ous()).hasSize(1 + MapPart.MOST);
        int smallest = part.ous().stream().mapToInt(ou -> size(estate, ou)).min().orElseThrow();
        List<Integer> offered = part.ous().stream().flatMap(ou -> MapPart.below(estate.ous(), ou).stream())
                .filter(ou -> estate.ous().depth(ou) < MapPart.LEVELS && !part.ous().contains(ou)).toList();
        assertThat(offered).isNotEmpty().allSatisfy(ou -> assertThat(size(estate, ou)).isLessThanOrEqualTo(smallest));
    }

    private static int size(Estate estate, int ou) {
        return estate.devices().to(ou) - estate.devices().from(ou);
    }

    /** Whatever the directory and wherever it begins: parents before children, none twice, and every device counted once. */
    @RepeatedTest(40)
    void everyMapStandsForAllOfItsDevices(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        int n = 2 + random.nextInt(400);
        for (int i = 1; i < n; i++) {
            ou("o" + i, i == 1 || random.nextInt(4) == 0 ? "root" : "o" + (1 + random.nextInt(i - 1)), random.nextInt(3) == 0 ? 0 : random.nextInt(6));
        }
        Estate estate = estate();
        OuTree tree = estate.ous();
        int top = random.nextInt(tree.size());
        Set<Integer> opened = random.nextBoolean() ? Set.of()
                : IntStream.range(0, tree.size()).filter(ou -> random.nextInt(3) == 0).boxed().collect(Collectors.toSet());
        MapPart part = MapPart.of(estate, top, opened);
        assertThat(part.ous()).isSorted().doesNotHaveDuplicates().startsWith(top);
        Set<Integer> shown = new TreeSet<>(part.ous());
        for (int ou : part.ous()) {
            assertThat(ou == top || shown.contains(tree.parent(ou))).isTrue();
            assertThat(tree.depth(ou) - tree.depth(top)).isBetween(0, MapPart.LEVELS - 1);
            List<Integer> below = MapPart.below(tree, ou);
            assertThat(below).allMatch(child -> tree.parent(child) == ou);
            MapPart.Rest rest = part.rest(ou);
            int drawn = below.stream().filter(shown::contains).mapToInt(child -> size(estate, child)).sum();
            int own = estate.devices().ownTo(ou) - estate.devices().from(ou);
            assertThat(own + drawn + rest.devices()).isEqualTo(size(estate, ou));
            assertThat(rest.ous()).isEqualTo((int) below.stream().filter(child -> !shown.contains(child)).count());
            if (opened.contains(ou) && tree.depth(ou) - tree.depth(top) < MapPart.LEVELS - 1) {
                assertThat(rest.ous()).isZero();
            }
        }
    }
}
