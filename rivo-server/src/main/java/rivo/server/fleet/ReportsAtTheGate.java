package rivo.server.fleet;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import rivo.devices.protocol.Report;
import rivo.server.fleet.Caller.CallingDevice;
import rivo.server.web.ApiException;
import rivo.server.web.ReadValues;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.ObjectReader;
import tools.jackson.databind.json.JsonMapper;

/**
 * Takes reports before any handler is looked for, which spares half of what one costs the thread that answers. It does so only with those that are written as the
 * protocol's page says, and signed by an enrolled device; all others are left to the handler, which says what is wrong with them. What both
 * do with one is the same. Safe for any number of threads.
 */
@Component
class ReportsAtTheGate {

    private static final String REPORTS = "/device/v2/reports";

    private final ProvenDevices devices;
    private final ReportLimits limits;
    private final Reports reports;
    private final JsonMapper json;
    private final ObjectReader reader;

    ReportsAtTheGate(ProvenDevices devices, ReportLimits limits, Reports reports, JsonMapper json) {
        this.devices = devices;
        this.limits = limits;
        this.reports = reports;
        this.json = json;
        this.reader = json.readerFor(Report.class);
    }

    /**
     * Whether it has been answered.
     *
     * @throws RuntimeException why a report that is written as it should be is not taken: what the handler would throw
     */
    boolean answers(DeviceRequest request, HttpServletResponse response) throws IOException {
        if (!REPORTS.equals(request.getRequestURI()) || !"POST".equals(request.getMethod()) || request.getHeader("Accept") != null
                || !MediaType.APPLICATION_JSON_VALUE.equals(request.getContentType())) {
            return false;
        }
        CallingDevice caller = caller(request);
        Report report = caller == null ? null : report(request);
        if (caller == null || report == null) {
            return false;
        }
        limits.take(caller.id(), request.length());
        byte[] answer = json.writeValueAsBytes(reports.take(caller.id(), report));
        response.setContentType(MediaType.APPLICATION_JSON_VALUE);
        response.getOutputStream().write(answer);
        return true;
    }

    private @Nullable CallingDevice caller(HttpServletRequest request) {
        try {
            return devices.of(request);
        } catch (ApiException e) {
            return null;
        }
    }

    private @Nullable Report report(DeviceRequest request) {
        try {
            Report report = reader.readValue(request.body());
            return report == null || !ReadValues.problems(report).isEmpty() ? null : report;
        } catch (JacksonException e) {
            return null;
        }
    }
}
