package rivo.server.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.http.MediaType;
import tools.jackson.databind.json.JsonMapper;

/** Problem documents (RFC 9457) where no controller has been reached: in filters, and for what the firewall refuses. */
final class ProblemAnswers {

    private static final JsonMapper JSON = new JsonMapper();

    private ProblemAnswers() {
    }

    static void write(HttpServletResponse response, int status, String code, String sentence) throws IOException {
        if (response.isCommitted()) {
            return;
        }
        Map<String, Object> problem = new LinkedHashMap<>();
        problem.put("status", status);
        problem.put("code", code);
        problem.put("detail", sentence);
        response.setStatus(status);
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.setHeader("Cache-Control", "no-store");
        response.getOutputStream().write(JSON.writeValueAsString(problem).getBytes(StandardCharsets.UTF_8));
    }
}
