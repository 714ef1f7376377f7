package rivo.server.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ErrorReportValve;
import org.jspecify.annotations.Nullable;

/** What Tomcat itself refuses, before any filter: a problem document as everywhere else, in place of its page. */
final class ContainerErrors extends ErrorReportValve {

    @Override
    protected void report(Request request, Response response, @Nullable Throwable fault) {
        int status = response.getStatus();
        if (status < HttpServletResponse.SC_BAD_REQUEST || response.getContentWritten() > 0 || !response.setErrorReported()) {
            return;
        }
        try {
            ProblemAnswers.write(response.getResponse(), status, status >= 500 ? "fault" : "bad-request", status >= 500
                    ? "Rivo made a mistake; nothing was changed. The log of the server says more."
                    : "The request is not written as HTTP says; compare it with the documentation.");
            response.finishResponse();
        } catch (IOException e) {
            // Whoever asked has gone.
            container.getLogger().debug("not said", e);
        }
    }
}
