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
