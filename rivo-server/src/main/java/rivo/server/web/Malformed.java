package rivo.server.web;

import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.HttpMediaTypeNotAcceptableException;
import org.springframework.web.HttpMediaTypeNotSupportedException;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.exc.StreamReadException;

/** What is wrong with a request, in a sentence that names the place and no class of ours. */
public final class Malformed {

    private static final int LONGEST_PATH = 200;

    private Malformed() {
    }

    static String code(Exception e) {
        if (e instanceof MissingServletRequestParameterException || e instanceof MethodArgumentTypeMismatchException) {
            return "bad-parameter";
        }
        if (e instanceof HttpRequestMethodNotSupportedException) {
            return "wrong-method";
        }
        if (e instanceof HttpMediaTypeNotSupportedException || e instanceof HttpMediaTypeNotAcceptableException) {
            return "wrong-type";
        }
        return e instanceof HttpMessageNotReadableException ? "malformed" : "unknown-address";
    }

    static String sentence(Exception e) {
        if (e instanceof MissingServletRequestParameterException missing) {
            return "The parameter " + missing.getParameterName() + " is missing; give it.";
        }
        if (e instanceof MethodArgumentTypeMismatchException wrong) {
            Class<?> type = wrong.getRequiredType();
            boolean number = type != null && (type.isPrimitive() && type != boolean.class || Number.class.isAssignableFrom(type));
            return "The parameter " + wrong.getName() + " is " + (number ? "a whole number" : "of another kind")
                    + "; compare it with the documentation.";
        }
        if (e instanceof HttpRequestMethodNotSupportedException) {
            return "This address takes another method; compare it with the documentation.";
        }
        if (e instanceof HttpMediaTypeNotSupportedException) {
            return "The body is of a type that this address does not take; send application/json.";
        }
        if (e instanceof HttpMediaTypeNotAcceptableException) {
            return "The answer cannot be given in a type that the request accepts; accept application/json.";
        }
        return e instanceof HttpMessageNotReadableException unreadable ? body(unreadable)
                : "There is nothing at this address; compare it with the documentation.";
    }

    private static String body(HttpMessageNotReadableException e) {
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof StreamReadException broken) {
                return "The body is no JSON: it breaks at line " + broken.getLocation().getLineNr() + ", column "
                        + broken.getLocation().getColumnNr() + ".";
            }
            if (cause instanceof JacksonException wrong && !wrong.getPath().isEmpty()) {
                return "The body is not what this address takes: " + path(wrong)
                        + " is of another kind, or missing; compare it with the documentation.";
            }
        }
        return "The body is missing, or not what this address takes; compare it with the documentation.";
    }

    /** Where in a JSON text something is that does not belong there, such as {@code waves[2].share}; empty where that is not known. */
    public static String path(JacksonException e) {
        StringBuilder path = new StringBuilder();
        for (JacksonException.Reference reference : e.getPath()) {
            String name = reference.getPropertyName();
            path.append(name == null ? "[" + reference.getIndex() + "]" : (path.isEmpty() ? "" : ".") + name);
        }
        return path.length() > LONGEST_PATH ? path.substring(0, LONGEST_PATH) + "…" : path.toString();
    }
}
