package rivo.formats.csv;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.estate.Assignment;
import rivo.core.estate.CodePointOrder;
import rivo.core.rehearse.Difference;
import rivo.core.rehearse.Rehearsal;
import rivo.core.rehearse.TitleDifference;
import rivo.core.resolve.Decision;

/**
 * What a rehearsal found as CSV (RFC 4180 with LF line ends): a row for each unit and title whose outcome differs, sorted
 * by device, user and title in code-point order. After the effect come the cells of the effective CSV twice: as it was
 * and as it will be, empty where there is no outcome.
 */
public final class DifferenceCsv {

    private static final String[] HEADER = {"device", "user", "title", "effect", "outcome before", "release before",
        "variant before", "assignment before", "reason before", "by before", "outcome after", "release after",
        "variant after", "assignment after", "reason after", "by after"};
    private static final byte[] NOTHING = ",,,,,".getBytes(StandardCharsets.UTF_8);

    private record Row(String device, String user, String title, Difference difference) {
    }

    private DifferenceCsv() {
    }

    /**
     * Writes the rows; the stream is flushed and left open. Costs memory for all of them.
     *
     * @return how many rows, the header aside
     */
    public static long write(Audiences before, Audiences after, Rehearsal rehearsal, OutputStream out)
            throws IOException {
        List<Row> rows = new ArrayList<>();
        for (TitleDifference title : rehearsal.titles()) {
            title.differences().forEach(difference -> add(rows, after, title, difference));
            title.gone().forEach(difference -> add(rows, before, title, difference));
        }
        rows.sort(Comparator.comparing(Row::device, CodePointOrder.INSTANCE)
                .thenComparing(Row::user, CodePointOrder.INSTANCE).thenComparing(Row::title, CodePointOrder.INSTANCE));
        OutputStream buffered = new BufferedOutputStream(out);
        buffered.write(CsvText.fields(HEADER));
        buffered.write('\n');
        for (Row row : rows) {
            buffered.write(CsvText.fields(row.device(), row.user(), row.title(), row.difference().effect().word(), ""));
            buffered.write(cells(row.difference().before()));
            buffered.write(',');
            buffered.write(cells(row.difference().after()));
            buffered.write('\n');
        }
        buffered.flush();
        return rows.size();
    }

    private static void add(List<Row> rows, Audiences audiences, TitleDifference title, Difference difference) {
        audiences.each(difference.units()).forEach(unit -> rows.add(new Row(unit.device().id(), unit.user(), title.title().id(), difference)));
    }

    private static byte[] cells(@Nullable Decision decision) {
        return decision == null ? NOTHING : CsvText.fields(decision(decision));
    }

    /** The cells of a decision from the outcome on. */
    static String[] decision(Decision decision) {
        return new String[] {decision.outcome().word(),
            decision.release() == null ? "" : decision.release().version().toString(),
            Objects.requireNonNullElse(decision.variant(), ""),
            decision.deciding().stream().map(Assignment::id).collect(Collectors.joining(";")),
            decision.reason() == null ? "" : decision.reason().word(), Objects.requireNonNullElse(decision.by(), "")};
    }
}
