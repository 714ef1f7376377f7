package rivo.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.io.EOFException;
import java.io.IOException;
import java.net.SocketTimeoutException;
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
import org.springframework.web.context.request.async.AsyncRequestTimeoutException;
import org.springframework.web.servlet.NoHandlerFoundException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.directory.DirectoryException;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.ChangesRefusedException;
import rivo.server.log.RefusalLog;

/** The one place where what went wrong becomes an answer: problem documents (RFC 9457) with a code and a sentence. */
@RestControllerAdvice
class Problems extends ResponseEntityExceptionHandler {

    private static final Logger LOG = LoggerFactory.getLogger(Problems.class);

    private final RefusalLog refusals;
    private final FrontEnd frontEnd;
    private final ChangeWriter writer;

    Problems(RefusalLog refusals, FrontEnd frontEnd, ChangeWriter writer) {
        this.writer = writer;
        this.refusals = refusals;
        this.frontEnd = frontEnd;
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> api(ApiException e, HttpServletRequest request) {
        if (e.logged()) {
            refusals.refused(e.code(), said(request) + ": " + e.getMessage());
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
            refusals.refused(problems.get(0).code(), said(request) + ": " + e.getMessage());
        }
        return ResponseEntity.unprocessableContent().body(detail);
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> directory(DirectoryException e) {
        return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                .body(problem(HttpStatus.SERVICE_UNAVAILABLE, "directory-away", e.getMessage()));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> closed(ChangesRefusedException e) {
        return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                .body(problem(HttpStatus.SERVICE_UNAVAILABLE, "no-changes-now", e.getMessage()));
    }

    /** A body that stalled or broke off, or somebody who did not wait for the answer. Nobody is there to read what is said. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> brokenOff(IOException e, HttpServletRequest request) {
        if (e instanceof BoundedRequest.TooLarge) {
            return ResponseEntity.status(HttpStatus.CONTENT_TOO_LARGE).body(problem(HttpStatus.CONTENT_TOO_LARGE, "too-large",
                    "A body has at most " + (FrontDoor.LARGEST_BODY >> 20) + " MiB here; send less at a time."));
        }
        if (isGone(e)) {
            return ResponseEntity.status(HttpStatus.REQUEST_TIMEOUT).header(HttpHeaders.CONNECTION, "close")
                    .body(problem(HttpStatus.REQUEST_TIMEOUT, "broken-off", "The rest of the request did not come; send it again."));
        }
        LOG.error("{} failed", said(request), e);
        return ResponseEntity.internalServerError().body(problem(HttpStatus.INTERNAL_SERVER_ERROR, "disk",
                "Rivo could not read or write a file; nothing was changed. Look whether its disk is full, and into its log."));
    }

    /** The memory is full: whatever else goes on, nothing is changed any more until somebody has looked. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> error(Error e, HttpServletRequest request) {
        LOG.error("{} failed", said(request), e);
        if (e instanceof OutOfMemoryError) {
            writer.memoryRanOut();
            return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE).body(problem(HttpStatus.SERVICE_UNAVAILABLE, "no-changes-now",
                    "Rivo's memory ran out; nothing was changed. Start it again with more (--memory)."));
        }
        return fault();
    }

    private static boolean isGone(Throwable e) {
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof SocketTimeoutException || cause instanceof EOFException
                    || cause.getClass().getSimpleName().equals("ClientAbortException")) {
                return true;
            }
        }
        return false;
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> bug(RuntimeException e, HttpServletRequest request) {
        if (isGone(e)) {
            return ResponseEntity.badRequest().build();
        }
        LOG.error("{} failed", said(request), e);
        return fault();
    }

    private static ResponseEntity<ProblemDetail> fault() {
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
        HttpServletRequest asked = ((ServletWebRequest) request).getRequest();
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof BoundedRequest.TooLarge) {
                return ResponseEntity.status(HttpStatus.CONTENT_TOO_LARGE).body(problem(HttpStatus.CONTENT_TOO_LARGE, "too-large",
                        "A body has at most " + (FrontDoor.LARGEST_BODY >> 20) + " MiB here; send less at a time."));
            }
        }
        refusals.refused("malformed", said(asked));
        return ResponseEntity.badRequest().body(problem(HttpStatus.BAD_REQUEST, "malformed", Malformed.sentence(e)));
    }

    /** A stream of events that the end of the server ends. */
    @Override
    protected @Nullable ResponseEntity<Object> handleAsyncRequestTimeoutException(AsyncRequestTimeoutException e, HttpHeaders headers,
            HttpStatusCode status, WebRequest request) {
        return null;
    }

    /** All that Spring refuses by itself: an unknown address, a wrong method, a parameter of another kind. */
    @Override
    protected @Nullable ResponseEntity<Object> handleExceptionInternal(Exception e, @Nullable Object body, HttpHeaders headers,
            HttpStatusCode status, WebRequest request) {
        HttpServletRequest asked = ((ServletWebRequest) request).getRequest();
        if (status.is5xxServerError()) {
            LOG.error("{} failed", said(asked), e);
        }
        ResponseEntity<Object> answer = super.handleExceptionInternal(e, body, headers, status, request);
        HttpStatus known = HttpStatus.resolve(status.value());
        return answer == null ? null : ResponseEntity.status(status).headers(headers)
                .body(problem(known == null ? HttpStatus.BAD_REQUEST : known, Malformed.code(e), Malformed.sentence(e)));
    }

    /** Without the query, which may hold anything, and without anything that could be used to sign in. */
    private static String said(HttpServletRequest request) {
        return request.getMethod() + " " + request.getRequestURI() + " from " + request.getRemoteAddr();
    }

    private static ProblemDetail problem(HttpStatus status, String code, @Nullable String sentence) {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(status, sentence == null ? "" : sentence);
        detail.setProperty("code", code);
        return detail;
    }
}
