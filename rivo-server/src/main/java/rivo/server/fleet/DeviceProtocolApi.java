package rivo.server.fleet;

import io.swagger.v3.oas.annotations.Hidden;
import java.io.IOException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Duration;
import java.util.Base64;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.FileSystemResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpRange;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Device;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.Enrolment;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.server.ServerSettings;
import rivo.server.catalogue.Contents;
import rivo.server.estate.WorkingEstate;
import rivo.server.mirror.Traffic;
import tools.jackson.databind.json.JsonMapper;

/** The device protocol, version 1. Whoever comes here has been checked by {@link DeviceSignatures}. */
@Hidden
@RestController
@RequestMapping("/device/v1")
class DeviceProtocolApi {

    private static final Duration SHORTEST = Duration.ofSeconds(1);
    private static final Duration LONGEST = Duration.ofDays(7);

    private final Enrolments enrolments;
    private final Reports reports;
    private final Fleet fleet;
    private final WorkOfDevice work;
    private final Contents contents;
    private final Traffic traffic;
    private final WorkingEstate working;
    private final ServerSettings settings;
    private final Clock clock;
    private final JsonMapper json;

    DeviceProtocolApi(Enrolments enrolments, Reports reports, Fleet fleet, WorkOfDevice work, Contents contents,
            Traffic traffic, WorkingEstate working, ServerSettings settings, Clock clock, JsonMapper json) {
        this.enrolments = enrolments;
        this.reports = reports;
        this.fleet = fleet;
        this.work = work;
        this.contents = contents;
        this.traffic = traffic;
        this.working = working;
        this.settings = settings;
        this.clock = clock;
        this.json = json;
    }

    @PostMapping("/enrolments")
    @ResponseStatus(HttpStatus.CREATED)
    Enrolled enrol(@RequestBody Enrolment asked) {
        return enrolments.enrol(asked);
    }

    /** @param nextIn the seconds until the device means to call in again; it may call sooner than it is told */
    @GetMapping("/devices/{id}/work")
    ResponseEntity<byte[]> callIn(@PathVariable String id,
            @RequestHeader(name = "If-None-Match", required = false) @Nullable String held,
            @RequestHeader(name = "Rivo-Next-Call-In", required = false) @Nullable Long nextIn) {
        Resolver resolver = working.resolver();
        Device device = resolver.estate().devices().find(id);
        if (device == null) {
            throw Fleet.gone();
        }
        fleet.seen(id, clock.instant(), next(nextIn));
        byte[] body = json.writeValueAsBytes(work.of(resolver, device));
        String etag = etag(body);
        CacheControl untilNext = CacheControl.maxAge(settings.callInEvery()).cachePrivate();
        if (etag.equals(held)) {
            return ResponseEntity.status(HttpStatus.NOT_MODIFIED).eTag(etag).cacheControl(untilNext).build();
        }
        return ResponseEntity.ok().eTag(etag).cacheControl(untilNext).contentType(MediaType.APPLICATION_JSON)
                .body(body);
    }

    private Duration next(@Nullable Long told) {
        Duration next = told == null ? settings.callInEvery() : Duration.ofSeconds(Math.max(0,
                Math.min(told, LONGEST.toSeconds())));
        return next.compareTo(SHORTEST) < 0 ? SHORTEST : next;
    }

    private static String etag(byte[] body) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256").digest(body);
            return '"' + Base64.getUrlEncoder().withoutPadding().encodeToString(hash).substring(0, 22) + '"';
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    @PostMapping("/devices/{id}/reports")
    ReportAnswer report(@PathVariable String id, @RequestBody Report report) {
        return reports.take(id, report);
    }

    /** Takes ranges (RFC 9110, section 14). */
    @GetMapping("/content/{sha256}")
    ResponseEntity<Resource> content(@PathVariable String sha256,
            @RequestHeader(name = "Range", required = false) @Nullable String range,
            @RequestAttribute(name = DeviceSignatures.MIRROR, required = false) @Nullable String mirror) {
        FileSystemResource file = new FileSystemResource(contents.file(sha256));
        if (mirror != null) {
            traffic.served(mirror, sha256, asked(range, file));
        }
        return ResponseEntity.ok().cacheControl(CacheControl.maxAge(Duration.ofDays(365)).immutable())
                .eTag('"' + sha256 + '"').contentType(MediaType.APPLICATION_OCTET_STREAM)
                .body(file);
    }

    /** How many bytes a request asks for; a range that cannot be read or given asks for none. */
    private static long asked(@Nullable String range, Resource file) {
        try {
            long size = file.contentLength();
            return range == null ? size : HttpRange.parseRanges(range).stream()
                    .mapToLong(r -> Math.max(0, r.getRangeEnd(size) - r.getRangeStart(size) + 1)).sum();
        } catch (IOException | IllegalArgumentException e) {
            return 0;
        }
    }
}
