package rivo.server.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Facts;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.estate.Version;
import rivo.server.estate.EstateRecords.PresentRecord;

class ReportColumnsTest {

    @Test
    void whatIsWrittenIsRead() {
        Map<String, String> facts = Map.of("os.version", "10.0", "a \"name\" in quotes", "line\nbreak \u00e9", "empty", "");
        List<Installed> software = List.of(new Installed("Tidegauge", null, "4.2"), new Installed(null, null, null), new Installed("", "Heron", ""));
        List<Present> present = List.of(new Present("tidegauge", Version.of("4.2.0-rc1"), "u7", "a1"), Present.of("mapkit", null));
        assertThat(ReportColumns.facts(Json.write(facts))).isEqualTo(Facts.of(facts));
        assertThat(ReportColumns.installed(Json.write(software))).isEqualTo(software);
        List<Present> read = ReportColumns.present(Json.write(present.stream().map(PresentRecord::of).toList()));
        assertThat(read).isEqualTo(present).extracting(one -> String.valueOf(one.version())).containsExactly("4.2.0-rc1", "null");
    }

    @Test
    void whatIsWrittenAlikeIsOneObjectWhoeverReportsIt() {
        String present = "[{\"title\":\"tidegauge\",\"version\":\"4.2\",\"by\":\"a1\"}]";
        Present first = ReportColumns.present(present).get(0);
        assertThat(first).isEqualTo(new Present("tidegauge", Version.of("4.2"), null, "a1"));
        assertThat(ReportColumns.present(present).get(0)).isSameAs(first).isSameAs(SharedEntries.present("tidegauge", "4.2", null, "a1"));
        assertThat(ReportColumns.present(present.replace("a1", "a2")).get(0).by()).isEqualTo("a2");
        assertThat(ReportColumns.present(present.replace("\"by\"", "\"user\"")).get(0)).isEqualTo(new Present("tidegauge", Version.of("4.2"), "a1", null));
        assertThat(ReportColumns.present(present.replace("4.2", "4.2.0")).get(0).version()).as("as it was written, though they compare equal")
                .isEqualTo(first.version()).hasToString("4.2.0");
        String software = "[{\"name\":\"Tidegauge\",\"version\":\"4.2\"}]";
        assertThat(ReportColumns.installed(software).get(0)).isSameAs(ReportColumns.installed(software).get(0));
        assertThat(ReportColumns.installed(software.replace("4.2", "4.2.0")).get(0).version()).isEqualTo("4.2.0");
    }

    /** Each of these strings has the hash of every other: looked through one after the other, they take longer than the time that is given here. */
    @Test
    void entriesThatAreMadeUpToHaveTheSameHashAreFoundAsSoonAsOthers() {
        List<String> names = List.of("");
        for (int i = 0; i < 14; i++) {
            names = names.stream().flatMap(name -> Stream.of(name + "Aa", name + "BB")).toList();
        }
        List<String> all = names;
        assertThat(all).hasSize(1 << 14).allMatch(name -> name.hashCode() == all.get(0).hashCode());
        List<Installed> kept = new ArrayList<>();
        assertTimeoutPreemptively(Duration.ofSeconds(10), () -> all.forEach(name -> kept.add(SharedEntries.installed(name, null, "1"))));
        assertThat(kept).extracting(Installed::name).isEqualTo(all);
        assertThat(SharedEntries.installed(all.get(99), null, "1")).isSameAs(kept.get(99));
    }

    @Test
    void nothingIsReadFromWhatIsEmptyOrNotThere() {
        assertThat(ReportColumns.facts(null)).isEqualTo(Facts.NONE).isEqualTo(ReportColumns.facts("{}"));
        assertThat(ReportColumns.installed(null)).isEmpty();
        assertThat(ReportColumns.present("[]")).isEmpty();
    }

    @Test
    void whatALaterVersionWritesBesidesIsPassedOver() {
        assertThat(ReportColumns.installed("[{\"more\":{\"name\":\"no\"},\"name\":\"Tidegauge\",\"list\":[1,{}]},{\"version\":\"2\"}]"))
                .containsExactly(new Installed("Tidegauge", null, null), new Installed(null, null, "2"));
    }
}
