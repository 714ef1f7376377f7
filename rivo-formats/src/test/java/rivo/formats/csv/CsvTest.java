package rivo.formats.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Release;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.rehearse.Rehearsal;
import rivo.core.resolve.Resolver;

class CsvTest {

    private static Estate estate(Intent intent, String... devices) {
        return Estate.of(EstateParts.none(Instant.EPOCH).withOus(List.of(new Ou("root", "root", "dc=x", null, false)))
                .withDevices(java.util.Arrays.stream(devices).map(d -> Device.of(d, d, null, List.of())).toList())
                .withTitles(List.of(Title.of("t,\"1\"", "T", List.of(Release.of(Version.of("1.0"),
                        List.of(new Variant("v", null)))))))
                .withAssignments(List.of(Assignment.of("a", 1, Subject.title("t,\"1\""), intent,
                        List.of(Target.ALL_DEVICES)))));
    }

    private static String effective(Estate estate) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Resolver resolver = Resolver.of(estate);
        long rows = EffectiveCsv.write(resolver.audiences(), resolver.all().values(), out);
        assertThat(rows).isEqualTo(out.toString(StandardCharsets.UTF_8).lines().count() - 1);
        return out.toString(StandardCharsets.UTF_8);
    }

    @Test
    void fieldsAreQuotedWhereTheyMustBe() throws IOException {
        String csv = effective(estate(Intent.REQUIRED, "d,1", "d\"2", "d 3"));
        try (CSVParser parser = CSVParser.parse(csv, CSVFormat.RFC4180)) {
            assertThat(parser.getRecords().stream().skip(1).map(r -> r.get(0) + "|" + r.get(2))).containsExactly(
                    "d 3|t,\"1\"", "d\"2|t,\"1\"", "d,1|t,\"1\"");
        }
        assertThat(csv).contains("\"d,1\",,\"t,\"\"1\"\"\",required,1.0,v,a,assigned,\n").contains("d 3,,");
    }

    @Test
    void rowsGoByCodePoints() throws IOException {
        assertThat(effective(estate(Intent.REQUIRED, "\uFF5E", "\uD83D\uDE00", "b", "B")).lines().skip(1)
                .map(l -> l.substring(0, l.indexOf(',')))).containsExactly("B", "b", "\uFF5E", "\uD83D\uDE00");
    }

    @Test
    void nothingIsAHeader() throws IOException {
        assertThat(effective(estate(Intent.REQUIRED))).isEqualTo("device,user,title,outcome,release,variant,assignment,"
                + "reason,by\n");
    }

    @Test
    void differencesShowBothSides() throws IOException {
        Resolver before = Resolver.of(estate(Intent.REQUIRED, "d1", "d2"));
        Resolver after = Resolver.of(estate(Intent.UNINSTALL, "d2", "d3"));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        DifferenceCsv.write(before.audiences(), after.audiences(), Rehearsal.of(before, after), out);
        try (CSVParser parser = CSVParser.parse(out.toString(StandardCharsets.UTF_8), CSVFormat.RFC4180)) {
            List<CSVRecord> rows = parser.getRecords();
            assertThat(rows.stream().skip(1).map(r -> r.get(0) + " " + r.get(3) + " " + r.get(4) + ">" + r.get(10)))
                    .containsExactly("d1 loses required>", "d2 removed required>uninstall", "d3 removed >uninstall");
            assertThat(rows).allSatisfy(r -> assertThat(r.size()).isEqualTo(16));
        }
    }
}
