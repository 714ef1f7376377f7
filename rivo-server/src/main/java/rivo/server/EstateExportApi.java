package rivo.server;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import rivo.formats.estate.EstateWriter;
import rivo.server.estate.CurrentSnapshot;

/** Everything that outcomes are worked out from, as an estate file: for trying changes elsewhere, and for {@code ./rivo explain}. */
@RestController
class EstateExportApi {

    private final CurrentSnapshot current;

    EstateExportApi(CurrentSnapshot current) {
        this.current = current;
    }

    /** The estate as it is published, {@code rivo-estate/1}, compressed (gzip, RFC 1952). */
    @GetMapping("/api/estate")
    void export(HttpServletResponse response) throws IOException {
        response.setContentType("application/gzip");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, ContentDisposition.attachment().filename("estate.json.gz").build().toString());
        EstateWriter.write(current.now().estate(), response.getOutputStream(), true);
    }
}
