package rivo.formats.csv;

import java.nio.charset.StandardCharsets;

/** Pieces of CSV rows (RFC 4180, section 2), as bytes: a piece is made once and written many times. */
final class CsvText {

    private CsvText() {
    }

    /** The fields with commas between them, as UTF-8. */
    static byte[] fields(String... fields) {
        StringBuilder row = new StringBuilder();
        for (int i = 0; i < fields.length; i++) {
            row.append(i == 0 ? "" : ",").append(quoted(fields[i]));
        }
        return row.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static String quoted(String field) {
        boolean plain = field.chars().noneMatch(c -> c == ',' || c == '"' || c == '\n' || c == '\r');
        return plain ? field : '"' + field.replace("\"", "\"\"") + '"';
    }
}
