package rivo.server.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Facts;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.estate.Version;
import rivo.server.estate.EstateRecords.PresentRecord;

class ReportColumnsTest {

    private final ReportColumns columns = new ReportColumns();

    @Test
    void whatIsWrittenIsRead() {
        Map<String, String> facts = Map.of("os.version", "10.0", "a \"name\" in quotes", "line\nbreak \u00e9", "empty", "");
        List<Installed> software = List.of(new Installed("Tidegauge", null, "4.2"), new Installed(null, null, null), new Installed("", "Heron", ""));
        List<Present> present = List.of(new Present("tidegauge", Version.of("4.2.0-rc1"), "u7", "a1"), Present.of("mapkit", null));
        assertThat(columns.facts(Json.write(facts))).isEqualTo(Facts.of(facts));
        assertThat(columns.installed(Json.write(software))).isEqualTo(software);
        List<Present> read = columns.present(Json.write(present.stream().map(PresentRecord::of).toList()));
        assertThat(read).isEqualTo(present).extracting(one -> String.valueOf(one.version())).containsExactly("4.2.0-rc1", "null");
    }

    @Test
    void whatIsEqualIsOneObjectWhoeverReportsIt() {
        String both = "[{\"title\":\"tidegauge\",\"version\":\"4.2\",\"by\":\"a1\"}]";
        assertThat(columns.present(both).get(0)).isSameAs(columns.present(both).get(0)).isEqualTo(new Present("tidegauge", Version.of("4.2"), null, "a1"));
        assertThat(columns.present(both.replace("a1", "a2")).get(0).by()).isEqualTo("a2");
        assertThat(columns.present(both.replace("\"by\"", "\"user\"")).get(0)).isEqualTo(new Present("tidegauge", Version.of("4.2"), "a1", null));
        String software = "[{\"name\":\"Tidegauge\",\"version\":\"4.2\"}]";
        assertThat(columns.installed(software).get(0)).isSameAs(columns.installed(software).get(0))
                .isSameAs(SharedEntries.one(new Installed("Tidegauge", null, "4.2")));
        assertThat(SharedEntries.one(new Present("tidegauge", Version.of("4.2"), null, "a1"))).isSameAs(columns.present(both).get(0));
        assertThat(columns.installed(software.replace("4.2", "4.3")).get(0).version()).isEqualTo("4.3");
    }

    @Test
    void nothingIsReadFromWhatIsEmptyOrNotThere() {
        assertThat(columns.facts(null)).isEqualTo(Facts.NONE).isEqualTo(columns.facts("{}"));
        assertThat(columns.installed(null)).isEmpty();
        assertThat(columns.present("[]")).isEmpty();
    }

    @Test
    void whatALaterVersionWritesBesidesIsPassedOver() {
        assertThat(columns.installed("[{\"more\":{\"name\":\"no\"},\"name\":\"Tidegauge\",\"list\":[1,{}]},{\"version\":\"2\"}]"))
                .containsExactly(new Installed("Tidegauge", null, null), new Installed(null, null, "2"));
    }
}
