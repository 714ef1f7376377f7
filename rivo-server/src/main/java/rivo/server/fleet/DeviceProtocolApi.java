package rivo.server.fleet;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.Duration;
import java.util.Objects;
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
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Device;
import rivo.core.estate.RefusedException;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.Enrolment;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.devices.protocol.ShelfAct;
import rivo.devices.protocol.ShelfLink;
import rivo.devices.protocol.Signature;
import rivo.devices.protocol.Work;
import rivo.server.ServerSettings;
import rivo.server.audience.Accounts;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.SignIns;
import rivo.server.fleet.Caller.CallingDevice;
import rivo.server.fleet.Caller.CallingMirror;
import rivo.server.fleet.Caller.Enrolling;
import rivo.server.mirror.Traffic;
import rivo.server.people.ShelfLinks;
import rivo.server.web.ApiException;
import tools.jackson.databind.json.JsonMapper;

/** The device protocol, version 2. Each handler takes whoever calls as its first parameter, which {@link CallerResolver} proves. */
@Hidden
@RestController
@RequestMapping("/device")
class DeviceProtocolApi {

    private final Enrolments enrolments;
    private final Reports reports;
    private final ReportLimits limits;
    private final NamedContents named;
    private final Contents contents;
    private final Traffic traffic;
    private final ServerSettings settings;
    private final WorkJson json;
    private final ShelfLinks shelfLinks;
    private final Accounts accounts;
    private final AgentShelf shelves;
    private final ToldWork toldWork;
    private final NothingNew nothingNew;

    DeviceProtocolApi(Enrolments enrolments, Reports reports, ReportLimits limits, NamedContents named, Contents contents, Traffic traffic,
            ServerSettings settings, JsonMapper json, ShelfLinks shelfLinks, Accounts accounts, AgentShelf shelves, ToldWork toldWork, NothingNew nothingNew) {
        this.toldWork = toldWork;
        this.nothingNew = nothingNew;
        this.shelves = shelves;
        this.shelfLinks = shelfLinks;
        this.accounts = accounts;
        this.enrolments = enrolments;
        this.reports = reports;
        this.limits = limits;
        this.named = named;
        this.contents = contents;
        this.traffic = traffic;
        this.settings = settings;
        this.json = new WorkJson(json);
    }

    @PostMapping("/v2/enrolments")
    @ResponseStatus(HttpStatus.CREATED)
    Enrolled enrol(Enrolling caller, @RequestBody Enrolment asked, HttpServletRequest request) {
        Enrolments.NewlyEnrolled known = enrolments.enrol(caller.request(), asked.publicKey());
        DeviceAnswer.signFor(request, known.keyId(), known.key(), caller.request());
        return known.answer();
    }

    /** @param nextIn the seconds until the device means to call in again; it may call sooner than it is told */
    @GetMapping("/v2/work")
    ResponseEntity<byte[]> callIn(CallingDevice caller,
            @RequestHeader(name = "If-None-Match", required = false) @Nullable String held,
            @RequestHeader(name = "Rivo-Next-Call-In", required = false) @Nullable Long nextIn, HttpServletRequest request) {
        Device device = device(caller);
        nothingNew.calledIn(device.id(), nextIn);
        String serverKey = enrolments.newServerKey(caller.snapshot(), device.id());
        CacheControl untilNext = CacheControl.maxAge(settings.callInEvery()).cachePrivate();
        String known = toldWork.etag(caller.snapshot(), device, serverKey);
        if (known != null && known.equals(held)) {
            return ResponseEntity.status(HttpStatus.NOT_MODIFIED).eTag(known).cacheControl(untilNext).build();
        }
        Work told = WorkOfDevice.of(caller.snapshot(), device);
        named.told(device.id(), told);
        byte[] body = json.of(told.withServerKey(serverKey));
        String digest = Signature.digest(body);
        String etag = etag(digest);
        toldWork.told(caller.snapshot(), device, serverKey, told, etag);
        if (etag.equals(held)) {
            return ResponseEntity.status(HttpStatus.NOT_MODIFIED).eTag(etag).cacheControl(untilNext).build();
        }
        DeviceAnswer.hasDigest(request, digest);
        return ResponseEntity.ok().eTag(etag).cacheControl(untilNext).contentType(MediaType.APPLICATION_JSON)
                .body(body);
    }

    private static Device device(CallingDevice caller) {
        Device device = caller.snapshot().estate().devices().find(caller.id());
        if (device == null) {
            throw Fleet.gone();
        }
        return device;
    }

    /** Of 132 bits of the digest, in the characters of base64url (RFC 4648, section 5). */
    private static String etag(String digest) {
        int from = digest.indexOf(':') + 1;
        return '"' + digest.substring(from, from + 22).replace('+', '-').replace('/', '_') + '"';
    }

    @PostMapping("/v2/reports")
    ReportAnswer report(CallingDevice caller, @RequestBody Report report, HttpServletRequest request) {
        limits.take(caller.id(), DeviceRequest.of(request).length());
        return reports.take(caller.id(), report);
    }

    /**
     * @param account of somebody who is signed in on the device
     * @param title at which the shelf opens; null for the whole
     */
    record ShelfLinkAsked(@Nullable String account, @Nullable String title) {
    }

    /** Makes a link by which a person who is signed in on the device comes to their shelf of it. */
    @PostMapping("/v2/links")
    ShelfLink shelfLink(CallingDevice caller, @RequestBody ShelfLinkAsked asked, HttpServletRequest request) {
        limits.take(caller.id(), DeviceRequest.of(request).length());
        String at = asked.title() == null ? "" : "?take=" + Titles.title(caller.snapshot(), asked.title()).id();
        return new ShelfLink("/shelf" + at + "#in=" + shelfLinks.make(signedIn(caller, asked.account()), caller.id()), ShelfLinks.VALID.toSeconds());
    }

    /** The id of whoever is signed in there with this account. */
    private String signedIn(CallingDevice caller, @Nullable String account) {
        Device device = device(caller);
        SignIns signIns = caller.snapshot().get(SignIns.PART).get(device.id());
        return new SignedInPeople(caller.snapshot().estate(), device, accounts).named(Objects.requireNonNullElse(account, "")).stream()
                .filter(one -> signIns != null && signIns.isSignedIn(one)).findFirst().orElseThrow(() -> ApiException.refused(HttpStatus.FORBIDDEN,
                        "not-signed-in", "Nobody with that account is signed in on this device, as it last reported. Report who is signed in first."));
    }

    /** @param account of somebody who is signed in on the device */
    record ShelfAsked(@Nullable String account) {
    }

    /** Gives the shelf of somebody who is signed in on the device, to an agent that shows it itself. */
    @PostMapping("/v2/shelf")
    Object shelf(CallingDevice caller, @RequestBody ShelfAsked asked, HttpServletRequest request) {
        limits.take(caller.id(), DeviceRequest.of(request).length());
        return shelves.of(caller.snapshot(), signedIn(caller, asked.account()), caller.id());
    }

    /** Does what they do on it. */
    @PostMapping("/v2/requests")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void act(CallingDevice caller, @RequestBody ShelfAct act, HttpServletRequest request) {
        limits.take(caller.id(), DeviceRequest.of(request).length());
        if (act.action() == null || act.title() == null) {
            throw new RefusedException("missing", "action", "Say what is done, take, give-back or sooner, and with which title.");
        }
        shelves.act(signedIn(caller, act.account()), caller.id(), act);
    }

    /** Takes ranges (RFC 9110, section 14). A device gets what its own work names; a mirror whatever it knows the hash of. */
    @GetMapping({"/v2/content/{sha256}", "/v1/content/{sha256}"})
    ResponseEntity<Resource> content(Caller caller, @PathVariable String sha256,
            @RequestHeader(name = "Range", required = false) @Nullable String range, HttpServletRequest request) {
        if (caller instanceof CallingDevice own && !isOfItsWork(own, sha256)) {
            throw Contents.none(sha256);
        }
        FileSystemResource file = new FileSystemResource(contents.file(sha256));
        if (caller instanceof CallingMirror mirror) {
            traffic.served(mirror.id(), sha256, asked(range, file));
        }
        DeviceAnswer.isContent(request);
        return ResponseEntity.ok().cacheControl(CacheControl.maxAge(Duration.ofDays(365)).immutable())
                .eTag('"' + sha256 + '"').contentType(MediaType.APPLICATION_OCTET_STREAM)
                .body(file);
    }

    private boolean isOfItsWork(CallingDevice caller, String sha256) {
        Device device = device(caller);
        return named.has(device.id(), sha256, () -> WorkOfDevice.of(caller.snapshot(), device));
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
