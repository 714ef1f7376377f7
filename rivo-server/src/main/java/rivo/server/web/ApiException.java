package rivo.server.web;

import java.util.Optional;
import org.springframework.http.HttpStatus;

/** What was asked cannot be done, and why, and what to do. Nothing has been changed. */
public final class ApiException extends RuntimeException {

    private final HttpStatus status;
    private final String code;
    private final boolean logged;
    private final long retryAfterSeconds;

    private ApiException(HttpStatus status, String code, String sentence, boolean logged, long retryAfterSeconds) {
        super(sentence);
        this.status = status;
        this.code = code;
        this.logged = logged;
        this.retryAfterSeconds = retryAfterSeconds;
    }

    public static ApiException notFound(String code, String sentence) {
        return new ApiException(HttpStatus.NOT_FOUND, code, sentence, false, 0);
    }

    public static ApiException conflict(String code, String sentence) {
        return new ApiException(HttpStatus.CONFLICT, code, sentence, false, 0);
    }

    public static ApiException tooMany(String code, String sentence, long retryAfterSeconds) {
        return new ApiException(HttpStatus.TOO_MANY_REQUESTS, code, sentence, true, Math.max(1, retryAfterSeconds));
    }

    /** The server is busy; whoever asked may ask again soon. */
    public static ApiException busy(String code, String sentence) {
        return new ApiException(HttpStatus.SERVICE_UNAVAILABLE, code, sentence, true, 1);
    }

    /** A refusal that an operator wants to read of in the log. */
    public static ApiException refused(HttpStatus status, String code, String sentence) {
        return new ApiException(status, code, sentence, true, 0);
    }

    HttpStatus status() {
        return status;
    }

    /** A short, stable word for programs. */
    public String code() {
        return code;
    }

    boolean logged() {
        return logged;
    }

    Optional<Long> retryAfterSeconds() {
        return retryAfterSeconds > 0 ? Optional.of(retryAfterSeconds) : Optional.empty();
    }
}
