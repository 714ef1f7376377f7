package rivo.formats;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Title;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.TitleOutcomes;

/**
 * The effective assignments of an estate as CSV (section 9 of the resolution rules; RFC 4180 with LF line ends): a row
 * for each unit and title that has an outcome, sorted by device, user and title in code-point order.
 */
public final class EffectiveCsv {

    private static final String[] HEADER = {"device", "user", "title", "outcome", "release", "variant", "assignment",
        "reason", "by"};
    private static final CSVFormat FORMAT = CSVFormat.RFC4180.builder().setRecordSeparator('\n').get();

    private record Row(String device, String title, Decision decision) {
    }

    private EffectiveCsv() {
    }

    /** Writes the rows of these titles; costs memory for all of them. */
    public static void write(Estate estate, Collection<Title> titles, Appendable out) throws IOException {
        List<Row> rows = new ArrayList<>();
        Resolver resolver = new Resolver(estate);
        for (Title title : titles) {
            for (TitleOutcomes.Share share : resolver.title(title).shares()) {
                share.devices().forEach(position -> {
                    Device device = estate.devices().at(position);
                    rows.add(new Row(device.id(), title.id(), share.decision()));
                });
            }
        }
        rows.sort(Comparator.comparing(Row::device, CodePoints.ORDER).thenComparing(Row::title, CodePoints.ORDER));
        CSVPrinter printer = new CSVPrinter(out, FORMAT);
        printer.printRecord((Object[]) HEADER);
        for (Row row : rows) {
            print(printer, row);
        }
        printer.flush();
    }

    private static void print(CSVPrinter printer, Row row) throws IOException {
        Decision decision = row.decision();
        boolean acts = decision.outcome() == Outcome.REQUIRED || decision.outcome() == Outcome.UNINSTALL;
        printer.printRecord(row.device(), "", row.title(), decision.outcome().word(),
                decision.release() == null ? "" : decision.release().version(),
                decision.variant() == null ? "" : decision.variant(),
                decision.deciding().stream().map(Assignment::id).collect(Collectors.joining(";")),
                acts ? "assigned" : "", "");
    }
}
