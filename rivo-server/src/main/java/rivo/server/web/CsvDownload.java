package rivo.server.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.Closeable;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;

/**
 * A list that is downloaded as CSV (RFC 4180), row by row. A field that a spreadsheet would take for a formula is given an apostrophe, since
 * names come from a directory, which others write. Of one thread.
 */
public final class CsvDownload implements Closeable {

    private static final String FORMULA = "=+-@\t\r";

    private final CSVPrinter printer;

    private CsvDownload(CSVPrinter printer) {
        this.printer = printer;
    }

    /** Begins the answer with the names of the columns. */
    public static CsvDownload begin(HttpServletResponse response, String fileName, String... columns) throws IOException {
        response.setContentType("text/csv;charset=UTF-8");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename(fileName).build().toString());
        Writer writer = new OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8);
        CsvDownload download = new CsvDownload(new CSVPrinter(writer, CSVFormat.RFC4180));
        download.row(columns);
        return download;
    }

    public void row(String... fields) throws IOException {
        for (String field : fields) {
            printer.print(plain(field));
        }
        printer.println();
    }

    private static String plain(String field) {
        return !field.isEmpty() && FORMULA.indexOf(field.charAt(0)) >= 0 ? "'" + field : field;
    }

    @Override
    public void close() throws IOException {
        printer.close();
    }
}
