package rivo.formats.csv;

import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import rivo.core.audience.Audiences;
import rivo.core.audience.UnitRanks;
import rivo.core.estate.CodePointOrder;
import rivo.core.estate.Scope;
import rivo.core.resolve.DecidedUnits;
import rivo.core.resolve.Decision;
import rivo.core.resolve.TitleOutcomes;

/**
 * The effective assignments of an estate as CSV (section 9 of the resolution rules; RFC 4180 with LF line ends): a row
 * for each unit and title that has an outcome, sorted by device, user and title in code-point order.
 *
 * <p><b>How.</b> Outcomes come by title, rows go by device. A chunk of devices at a time, a table of units by titles is
 * filled with the number of each unit's decision, and then written row by row. The end of a row is the same for all that
 * share a decision, and so is made once.
 */
public final class EffectiveCsv {

    private static final String[] HEADER = {"device", "user", "title", "outcome", "release", "variant", "assignment",
        "reason", "by"};
    private static final int BUFFER = 1 << 20;
    /** How many cells a table may have; 4 bytes each. */
    private static final int MOST_CELLS = 1 << 24;

    private final Audiences audiences;
    private final OutputStream out;
    private final Table devices;
    private final Table people;
    private final byte[] buffer = new byte[BUFFER];
    private int filled;
    private long rows;

    private EffectiveCsv(Audiences audiences, Collection<TitleOutcomes> outcomes, OutputStream out) {
        this.audiences = audiences;
        this.out = out;
        this.devices = new Table(Scope.DEVICE, outcomes);
        this.people = new Table(Scope.USER, outcomes);
    }

    /**
     * Writes the rows of these titles, each of which is given once; the stream is flushed and left open.
     *
     * @return how many rows, the header aside
     */
    public static long write(Audiences audiences, Collection<TitleOutcomes> outcomes, OutputStream out)
            throws IOException {
        EffectiveCsv csv = new EffectiveCsv(audiences, outcomes, out);
        csv.write();
        return csv.rows;
    }

    private void write() throws IOException {
        put(CsvText.fields(HEADER));
        put(new byte[] {'\n'});
        UnitRanks order = audiences.ranks(Scope.DEVICE);
        int n = audiences.size(Scope.DEVICE);
        int chunk = Math.max(1, MOST_CELLS / Math.max(1, devices.columns() + people.columns()));
        int person = 0;
        for (int from = 0; from < n; from += chunk) {
            int to = Math.min(n, from + chunk);
            int persons = 0;
            for (int rank = from; rank < to; rank++) {
                int device = order.unitAt(rank);
                persons += audiences.units().to(device) - audiences.units().from(device);
            }
            devices.fill(from, to);
            people.fill(person, person + persons);
            for (int rank = from; rank < to; rank++) {
                int device = order.unitAt(rank);
                String id = audiences.estate().devices().at(device).id();
                devices.write(rank, id, "");
                for (int unit = audiences.units().from(device); unit < audiences.units().to(device); unit++) {
                    people.write(person++, id, audiences.user(unit, Scope.USER));
                }
            }
        }
        out.write(buffer, 0, filled);
        out.flush();
    }

    private void put(byte[] bytes) throws IOException {
        if (bytes.length > buffer.length - filled) {
            out.write(buffer, 0, filled);
            filled = 0;
            if (bytes.length > buffer.length) {
                out.write(bytes);
                return;
            }
        }
        System.arraycopy(bytes, 0, buffer, filled, bytes.length);
        filled += bytes.length;
    }

    /** The units of one scope by the titles of that scope. */
    private final class Table {

        private final List<TitleOutcomes> titles;
        private final List<byte[]> ends = new ArrayList<>();
        private final Scope scope;
        private int[] cells = new int[0];
        private int first;

        Table(Scope scope, Collection<TitleOutcomes> outcomes) {
            this.scope = scope;
            this.titles = outcomes.stream().filter(t -> t.title().scope() == scope && !t.parts().isEmpty())
                    .sorted(Comparator.comparing(t -> t.title().id(), CodePointOrder.INSTANCE)).toList();
            for (TitleOutcomes title : titles) {
                title.parts().forEach(part -> ends.add(end(title.title().id(), part.decision())));
            }
        }

        int columns() {
            return titles.size();
        }

        /** For the units from this rank, included, to that, excluded. */
        void fill(int from, int to) {
            first = from;
            if (titles.isEmpty()) {
                return;
            }
            cells = new int[Math.multiplyExact(to - from, titles.size())];
            UnitRanks ranks = audiences.ranks(scope);
            int end = 0;
            for (int t = 0; t < titles.size(); t++) {
                int column = t;
                for (DecidedUnits part : titles.get(t).parts()) {
                    int number = ++end;
                    part.units().forEach(unit -> {
                        int rank = ranks.rankOf(unit);
                        if (rank >= from && rank < to) {
                            cells[(rank - from) * titles.size() + column] = number;
                        }
                    });
                }
            }
        }

        void write(int rank, String device, String user) throws IOException {
            if (titles.isEmpty()) {
                return;
            }
            byte[] start = CsvText.fields(device, user, "");
            int row = (rank - first) * titles.size();
            for (int t = 0; t < titles.size(); t++) {
                int number = cells[row + t];
                if (number > 0) {
                    put(start);
                    put(ends.get(number - 1));
                    rows++;
                }
            }
        }
    }

    private static byte[] end(String title, Decision decision) {
        byte[] start = CsvText.fields(title, "");
        byte[] cells = CsvText.fields(DifferenceCsv.decision(decision));
        byte[] line = java.util.Arrays.copyOf(start, start.length + cells.length + 1);
        System.arraycopy(cells, 0, line, start.length, cells.length);
        line[line.length - 1] = '\n';
        return line;
    }
}
