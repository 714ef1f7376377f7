package rivo.server.fleet;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Clock;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.server.ServerSettings;
import rivo.server.estate.ChangesRefusedException;
import rivo.server.fleet.Caller.CallingDevice;
import rivo.server.web.ApiException;

/**
 * Answers, before any handler is looked for, the requests that nearly all are: a device that calls in and has been told already what it is
 * told. It does so only where all of it is certain, a device's own signature above all; whatever else it may be is left to the handlers,
 * which say what is wrong with it. Safe for any number of threads.
 */
@Component
class NothingNew {

    private static final String WORK = "/device/v2/work";
    private static final Duration SHORTEST = Duration.ofSeconds(1);
    private static final Duration LONGEST = Duration.ofDays(7);
    private static final int LONGEST_NUMBER = 9;

    private final ProvenDevices devices;
    private final Enrolments enrolments;
    private final Fleet fleet;
    private final ToldWork toldWork;
    private final Clock clock;
    private final Duration usualNext;
    private final String untilNext;

    NothingNew(ProvenDevices devices, Enrolments enrolments, Fleet fleet, ToldWork toldWork, Clock clock, ServerSettings settings) {
        this.devices = devices;
        this.enrolments = enrolments;
        this.fleet = fleet;
        this.toldWork = toldWork;
        this.clock = clock;
        this.usualNext = settings.callInEvery();
        this.untilNext = CacheControl.maxAge(usualNext).cachePrivate().getHeaderValue();
    }

    /** Whether it has been answered. */
    boolean answers(HttpServletRequest request, HttpServletResponse response) {
        String held = request.getHeader("If-None-Match");
        String next = request.getHeader("Rivo-Next-Call-In");
        if (held == null || !WORK.equals(request.getRequestURI()) || !"GET".equals(request.getMethod()) || next != null && !isNumber(next)) {
            return false;
        }
        CallingDevice caller;
        try {
            caller = devices.of(request);
        } catch (ApiException | ChangesRefusedException e) {
            return false;
        }
        Device device = caller.snapshot().estate().devices().find(caller.id());
        if (device == null || !held.equals(toldWork.etag(caller.snapshot(), device, enrolments.newServerKey(caller.snapshot(), device.id())))) {
            return false;
        }
        calledIn(device.id(), next == null ? null : Long.valueOf(next));
        response.setStatus(HttpServletResponse.SC_NOT_MODIFIED);
        response.setHeader("ETag", held);
        response.setHeader("Cache-Control", untilNext);
        return true;
    }

    private static boolean isNumber(String text) {
        return !text.isEmpty() && text.length() <= LONGEST_NUMBER && text.chars().allMatch(c -> c >= '0' && c <= '9');
    }

    /** @param nextIn the seconds until the device means to call in again; null for the usual time */
    void calledIn(String device, @Nullable Long nextIn) {
        Duration next = nextIn == null ? usualNext : Duration.ofSeconds(Math.max(0, Math.min(nextIn, LONGEST.toSeconds())));
        fleet.calledIn(device, clock.instant(), next.compareTo(SHORTEST) < 0 ? SHORTEST : next);
    }
}
