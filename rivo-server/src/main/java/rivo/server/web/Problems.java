package rivo.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.ServletWebRequest;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.servlet.NoHandlerFoundException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.directory.DirectoryException;
import rivo.server.estate.RoadClosedException;

/** The one place where what went wrong becomes an answer: problem documents (RFC 9457) with a code and a sentence. */
@RestControllerAdvice
class Problems extends ResponseEntityExceptionHandler {

    private static final Logger LOG = LoggerFactory.getLogger(Problems.class);

    private final OnceLog once;
    private final FrontEnd frontEnd;

    Problems(OnceLog once, FrontEnd frontEnd) {
        this.once = once;
        this.frontEnd = frontEnd;
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> api(ApiException e, HttpServletRequest request) {
        if (e.logged()) {
            once.warn(request.getMethod() + " " + request.getRequestURI() + " from " + request.getRemoteAddr() + ": "
                    + e.code() + ": " + e.getMessage());
        }
        ResponseEntity.BodyBuilder answer = ResponseEntity.status(e.status());
        e.retryAfterSeconds().ifPresent(s -> answer.header(HttpHeaders.RETRY_AFTER, Long.toString(s)));
        return answer.body(problem(e.status(), e.code(), e.getMessage()));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> refused(RefusedException e, HttpServletRequest request) {
        List<Problem> problems = e.problems();
        ProblemDetail detail = problem(HttpStatus.UNPROCESSABLE_CONTENT, problems.get(0).code(), e.getMessage());
        detail.setProperty("problems", problems);
        if (request.getRequestURI().startsWith("/device/")) {
            once.warn(request.getMethod() + " " + request.getRequestURI() + ": " + e.getMessage());
        }
        return ResponseEntity.unprocessableContent().body(detail);
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> directory(DirectoryException e) {
        return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                .body(problem(HttpStatus.SERVICE_UNAVAILABLE, "directory-away", e.getMessage()));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> closed(RoadClosedException e) {
        return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                .body(problem(HttpStatus.SERVICE_UNAVAILABLE, "no-changes-now", e.getMessage()));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> bug(RuntimeException e, HttpServletRequest request) {
        LOG.error("{} {} failed", request.getMethod(), request.getRequestURI(), e);
        return ResponseEntity.internalServerError().body(problem(HttpStatus.INTERNAL_SERVER_ERROR, "fault",
                "Rivo made a mistake; nothing was changed. The log of the server says more."));
    }

    /** A browser that asks for a page that does not exist gets the front end, which says so. */
    @Override
    protected @Nullable ResponseEntity<Object> handleNoHandlerFoundException(NoHandlerFoundException e,
            HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        ServletWebRequest asked = (ServletWebRequest) request;
        if (FrontEnd.asksForPage(asked.getRequest()) && asked.getResponse() != null) {
            try {
                frontEnd.write(asked.getResponse(), HttpStatus.NOT_FOUND.value());
            } catch (IOException gone) {
                LOG.trace("whoever asked has gone", gone);
            }
            return null;
        }
        return super.handleNoHandlerFoundException(e, headers, status, request);
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleHttpMessageNotReadable(HttpMessageNotReadableException e,
            HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        once.warn(request.getDescription(true) + ": malformed: " + e.getMostSpecificCause().getMessage());
        return ResponseEntity.badRequest().body(problem(HttpStatus.BAD_REQUEST, "malformed",
                "The body is not what this address takes; compare it with the documentation. "
                        + firstLine(e.getMostSpecificCause().getMessage())));
    }

    private static String firstLine(@Nullable String text) {
        return text == null ? "" : text.lines().findFirst().orElse("");
    }

    private static ProblemDetail problem(HttpStatus status, String code, @Nullable String sentence) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, sentence == null ? "" : sentence);
        detail.setProperty("code", code);
        return detail;
    }
}
