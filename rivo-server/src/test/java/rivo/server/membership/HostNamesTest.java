package rivo.server.membership;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Ou;
import rivo.core.estate.RefusedException;
import rivo.server.membership.HostNames.HostsFound;

/** A pasted list of host names. */
class HostNamesTest {

    private static final Estate ESTATE = Estate.of(EstateParts.none(Instant.parse("2026-11-23T08:00:00Z"))
            .withOus(List.of(new Ou("root", "Quillbrook Water", "", null, false), new Ou("labs", "Laboratories", "", "root", false)))
            .withDevices(List.of(device("d1", "QB-LAB-014", Map.of("x.serial", "SN-1")), device("d2", "QB-LAB-015", Map.of()),
                    device("d3", "twin", Map.of()), device("d4", "TWIN", Map.of()), device("d5", "name", Map.of()))));

    private static Device device(String id, String name, Map<String, String> facts) {
        return new Device(id, name, "labs", List.of(), Facts.of(facts), List.of(), List.of());
    }

    private static HostsFound in(String text) {
        return HostNames.in(ESTATE, text);
    }

    private static List<String> matched(String text) {
        return in(text).matched().stream().map(one -> one.line() + " " + one.id()).toList();
    }

    @Test
    void namesDomainsAndSerialsMatchWithoutRegardToCase() {
        assertThat(matched("qb-lab-014\r\nQB-LAB-015.quillbrook.example")).containsExactly("1 d1", "2 d2");
        assertThat(matched("sn-1")).containsExactly("1 d1");
        assertThat(in("QB-LAB-014").matched().get(0).where()).isEqualTo("Laboratories");
    }

    @Test
    void theFirstColumnOfACsvCountsAndItsHeadingDoesNot() {
        assertThat(matched("Hostname;Room\nqb-lab-014;12\n\"QB-LAB-015\",\"13\"")).containsExactly("2 d1", "3 d2");
        assertThat(matched("QB-LAB-014\nhostname")).as("a heading stands first").containsExactly("1 d1");
        assertThat(in("QB-LAB-014\nhostname").unknown()).hasSize(1);
        assertThat(matched("name\nqb-lab-014")).as("a device may be called like a heading").containsExactly("1 d5", "2 d1");
    }

    @Test
    void commentsAndEmptyLinesAreLeftOut() {
        HostsFound found = in("# the benches\n\n  qb-lab-014  # by the window\n\t\n");
        assertThat(found.matched()).hasSize(1);
        assertThat(found.matched().get(0).line()).isEqualTo(3);
        assertThat(found.unknown()).isEmpty();
    }

    @Test
    void whatIsUnknownComesWithTheNearestNames() {
        HostsFound found = in("QB-LAB-O14\nmoon");
        assertThat(found.unknown()).extracting(HostNames.UnknownHost::written).containsExactly("QB-LAB-O14", "moon");
        assertThat(found.unknown().get(0).nearest()).extracting(HostNames.NearHost::id).containsExactly("d1");
        assertThat(found.unknown().get(1).nearest()).isEmpty();
    }

    @Test
    void aNameOfTwoIsDoubtfulAndADeviceNamedTwiceIsTakenOnce() {
        HostsFound found = in("twin\nqb-lab-014\nSN-1\nqb-lab-014.quillbrook.example");
        assertThat(found.doubtful()).hasSize(1);
        assertThat(found.doubtful().get(0).candidates()).extracting(HostNames.NearHost::id).containsExactlyInAnyOrder("d3", "d4");
        assertThat(found.matched()).hasSize(1);
        assertThat(found.doubles()).extracting(one -> one.line() + " as " + one.first()).containsExactly("3 as 2", "4 as 2");
    }

    @Test
    void everyLineIsInOnePartHoweverMuchRubbishThereIs() {
        List<String> lines = new ArrayList<>(IntStream.range(0, 9_998).mapToObj(i -> "rubbish\u0000" + i + " \"<script>, ;\t#").toList());
        lines.add("QB-LAB-014");
        lines.add("x".repeat(100_000));
        HostsFound found = in(String.join("\n", lines));
        assertThat(found.matched()).hasSize(1);
        assertThat(found.unknown()).hasSize(9_999);
        assertThat(found.unknown().get(9_998).written()).hasSizeLessThan(110);
    }

    @Test
    void moreLinesThanThereMayBeAreRefused() {
        String many = IntStream.range(0, HostNames.MOST_LINES + 1).mapToObj(i -> "a").collect(Collectors.joining("\n"));
        assertThatThrownBy(() -> in(many)).isInstanceOf(RefusedException.class).hasMessageContaining("Paste it in parts");
    }
}
