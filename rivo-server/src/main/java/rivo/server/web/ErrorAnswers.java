package rivo.server.web;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What the container could not answer by itself. It says what happened and never why within the server. */
@Hidden
@RestController
class ErrorAnswers implements ErrorController {

    @RequestMapping("/error")
    void error(HttpServletRequest request, HttpServletResponse response) throws IOException {
        Object told = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
        int status = told instanceof Integer code ? code : HttpServletResponse.SC_NOT_FOUND;
        HttpStatus known = HttpStatus.resolve(status);
        boolean ours = status >= 500;
        ProblemAnswers.write(response, status, ours ? "fault" : status == 404 ? "unknown-address" : "bad-request", ours
                ? "Rivo made a mistake; nothing was changed. The log of the server says more."
                : (known == null ? "The request was refused" : known.getReasonPhrase())
                        + "; compare the request with the documentation.");
    }
}
