package rivo.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockHttpServletResponse;

class CsvDownloadTest {

    private static String written(String... fields) throws IOException {
        MockHttpServletResponse response = new MockHttpServletResponse();
        try (CsvDownload csv = CsvDownload.begin(response, "x.csv", "name")) {
            csv.row(fields);
        }
        return response.getContentAsString();
    }

    @Test
    void fieldsAreQuotedAsTheStandardSays() throws IOException {
        assertThat(written("a, b", "say \"so\"", "two\nlines", "")).isEqualTo("name\r\n\"a, b\",\"say \"\"so\"\"\",\"two\nlines\",\r\n");
    }

    /** Names come from a directory, in which others write. */
    @Test
    void noFieldIsAFormulaToASpreadsheet() throws IOException {
        assertThat(written("=cmd()", "+1", "-1", "@x", "a=b")).isEqualTo("name\r\n'=cmd(),'+1,'-1,'@x,a=b\r\n");
    }
}
