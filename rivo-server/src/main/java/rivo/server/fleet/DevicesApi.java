package rivo.server.fleet;

import java.security.Principal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Ou;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.Page;

/** The devices: the list, and one device. */
@RestController
class DevicesApi {

    private static final Duration TOKEN_VALID = Duration.ofDays(7);
    private static final int MOST_ROWS = 500;

    /** @param total how many match; {@code rows} holds the asked part of them, in OU order */
    record DeviceRows(int total, List<DeviceRow> rows) {
    }

    /** How many devices there are of each state. */
    record FleetCounts(int devices, int enrolled, int underWay, int failed, int waiting, int idle, int notSeenLately, int never) {
    }

    /** @param id of an OU of the path */
    record PathPart(String id, String name) {
    }

    /**
     * @param path from the root to its OU
     * @param nextDue when it said it would call in next; absent when it never called
     */
    record DeviceView(String id, String name, List<PathPart> path, List<String> people, Map<String, String> facts,
            boolean enrolled, @Nullable Instant lastSeen, @Nullable Instant nextDue,
            List<DeviceStanding.DeviceTitle> lines) {
    }

    private final CurrentSnapshot current;
    private final Fleet fleet;
    private final Enrolments enrolments;
    private final TitleOnDevice titleOnDevice;
    private final Clock clock;

    DevicesApi(CurrentSnapshot current, Fleet fleet, Enrolments enrolments, TitleOnDevice titleOnDevice, Clock clock) {
        this.current = current;
        this.fleet = fleet;
        this.enrolments = enrolments;
        this.titleOnDevice = titleOnDevice;
        this.clock = clock;
    }

    @GetMapping("/api/devices")
    DeviceRows devices(@RequestParam @Nullable String q, @RequestParam @Nullable String ou,
            @RequestParam @Nullable String title, @RequestParam @Nullable String outcome,
            @RequestParam @Nullable String state, @RequestParam(defaultValue = "0") int offset,
            @RequestParam(defaultValue = "100") int limit) {
        Page page = Page.of(offset, limit, MOST_ROWS);
        Snapshot now = current.now();
        Instant instant = clock.instant();
        Estate estate = now.estate();
        int[] positions = new DeviceFilter(q, ou, title, outcome, state).positions(now, fleet, instant);
        List<DeviceRow> rows = Arrays.stream(positions).skip(page.offset()).limit(page.limit()).mapToObj(p -> {
                    Device device = estate.devices().at(p);
                    return DeviceRow.of(estate, device, fleet.of(now, device.id()), instant);
                }).toList();
        return new DeviceRows(positions.length, rows);
    }

    @GetMapping("/api/fleet")
    FleetCounts counts() {
        Snapshot now = current.now();
        Estate estate = now.estate();
        Instant instant = clock.instant();
        Map<String, Integer> states = new TreeMap<>();
        for (int p = 0; p < estate.devices().size(); p++) {
            states.merge(DeviceRow.state(fleet.of(now, estate.devices().at(p).id()), instant), 1, Integer::sum);
        }
        return new FleetCounts(estate.devices().size(), Enrolments.enrolled(now), states.getOrDefault("under-way", 0),
                states.getOrDefault("failed", 0), states.getOrDefault("waiting", 0), states.getOrDefault("idle", 0),
                states.getOrDefault("not-seen-lately", 0), states.getOrDefault("never", 0));
    }

    @GetMapping("/api/devices/{id}")
    DeviceView device(@PathVariable String id) {
        Snapshot now = current.now();
        Estate estate = now.estate();
        Device device = Fleet.device(now, id);
        DeviceActivity doing = fleet.of(now, id);
        List<PathPart> path = new ArrayList<>();
        for (Ou ou : estate.ous().path(estate.ous().position(device.ou()))) {
            path.add(new PathPart(ou.id(), ou.name()));
        }
        return new DeviceView(id, device.name(), path, DeviceRow.people(estate, device),
                device.facts().asMap(), Enrolments.isEnrolled(now, id), doing.lastSeen(), doing.nextDue(),
                new DeviceStanding(now.resolver(), device, doing).lines());
    }

    /** Why this device receives what it receives of this title, and what it is doing about it. */
    @GetMapping("/api/devices/{id}/titles/{title}")
    TitleOnDevice.DeviceTitleWhy title(@PathVariable String id, @PathVariable String title) {
        Snapshot now = current.now();
        return titleOnDevice.of(now, Fleet.device(now, id), title);
    }

    /** Makes a one-time token with which this device can enrol. It is shown this once. */
    @PostMapping("/api/devices/{id}/token")
    Enrolments.NewToken token(@PathVariable String id, Principal who) {
        return Objects.requireNonNull(enrolments.newTokens(who.getName(), List.of(id), TOKEN_VALID).get(id));
    }

    /** Ends what the device signs with: from now on nobody speaks for it until it enrols anew. */
    @DeleteMapping("/api/devices/{id}/enrolment")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void revoke(@PathVariable String id, Principal who) {
        enrolments.revoke(who.getName(), Fleet.device(current.now(), id).id());
    }
}
