package rivo.server.fleet;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import java.util.Locale;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerExceptionResolver;
import rivo.server.web.ApiException;

/**
 * Stands before everything below {@code /device}, right behind the front door, since no other filter has anything to do there: refuses
 * addresses that are written in another way than the one plain way, reads the body once and no farther than it may be, and signs the answer
 * where it is known to whom it goes. It lets nobody in: who may is decided where the route has been chosen, by {@link CallerResolver}; only
 * who proves to be a device is answered before: one that has been told everything by {@link NothingNew}, one that reports by
 * {@link ReportsAtTheGate}.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
class DeviceGate extends OncePerRequestFilter {

    private static final String PREFIX = "/device";
    private static final String FIRST_VERSION = "/device/v1/";
    private static final String CONTENT = "/device/v1/content/";
    private static final Pattern PLAIN = Pattern.compile("/device/v[0-9](/[a-z0-9]+)+");
    private static final int LARGEST_BODY = 1 << 20;

    private final Clock clock;
    private final HandlerExceptionResolver problems;
    private final NothingNew nothingNew;
    private final ReportsAtTheGate reports;

    DeviceGate(Clock clock, @Qualifier("handlerExceptionResolver") HandlerExceptionResolver problems, NothingNew nothingNew,
            ReportsAtTheGate reports) {
        this.clock = clock;
        this.problems = problems;
        this.nothingNew = nothingNew;
        this.reports = reports;
    }

    /** Both as it was written and as it will be routed: neither alone says what will happen. */
    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !isBelow(request.getRequestURI()) && !isBelow(request.getServletPath());
    }

    private static boolean isBelow(@Nullable String path) {
        return path != null && path.toLowerCase(Locale.ROOT).startsWith(PREFIX);
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        DeviceRequest read;
        try {
            checkAddress(request);
            read = DeviceRequest.read(request, LARGEST_BODY);
        } catch (ApiException e) {
            problems.resolveException(request, response, null, e);
            return;
        }
        DeviceAnswer answer = new DeviceAnswer(read, response, clock);
        if (!nothingNew.answers(read, answer) && !takesReport(read, answer)) {
            chain.doFilter(read, answer);
        }
        answer.finish();
    }

    private boolean takesReport(DeviceRequest request, HttpServletResponse answer) throws IOException {
        try {
            return reports.answers(request, answer);
        } catch (RuntimeException e) {
            if (problems.resolveException(request, answer, null, e) == null) {
                throw e;
            }
            return true;
        }
    }

    private static void checkAddress(HttpServletRequest request) {
        String path = request.getRequestURI();
        if (path.startsWith(FIRST_VERSION) && !path.startsWith(CONTENT)) {
            throw ApiException.refused(HttpStatus.GONE, "old-protocol", "Version 1 of the device protocol has ended. Enrol the "
                    + "device anew with version 2, by a token from its page.");
        }
        if (!PLAIN.matcher(path).matches() || request.getQueryString() != null) {
            throw ApiException.refused(HttpStatus.BAD_REQUEST, "bad-address", "An address of the device protocol has small "
                    + "letters, digits and single slashes only, nothing encoded and no query; write it as the documentation does.");
        }
    }
}
