package rivo.server.fleet;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.security.Principal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
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
import rivo.core.estate.RefusedException;
import rivo.core.estate.Title;
import rivo.server.audience.Names;
import rivo.server.audience.PathPart;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.SignIns;
import rivo.server.estate.Snapshot;
import rivo.server.web.CsvDownload;
import rivo.server.web.Page;

/** The devices: the list, and one device. */
@RestController
class DevicesApi {

    private static final Duration TOKEN_VALID = Duration.ofDays(7);
    private static final int MOST_ROWS = 500;

    /**
     * @param total how many match; {@code rows} holds the asked part of them, in OU order
     * @param people how many people on them have the outcome that is asked for, of a title for each person; absent otherwise
     */
    record DeviceRows(int total, @Nullable Integer people, List<DeviceRow> rows) {
    }

    /**
     * @param path from the root to its OU
     * @param people who use it
     * @param tellsSignIns whether it tells who signs in; one that does not gets nothing for people
     * @param nextDue when it said it would call in next; absent when it never called
     */
    record DeviceView(String id, String name, List<PathPart> path, List<PersonHere> people, boolean tellsSignIns,
            Map<String, String> facts, boolean enrolled, @Nullable Instant lastSeen, @Nullable Instant nextDue,
            List<DeviceStanding.DeviceTitle> lines) {
    }

    /** @param signedIn whether they are signed in now; lastSignIn since when, or when they last signed out; absent when they never have */
    record PersonHere(String id, String name, boolean signedIn, @Nullable Instant lastSignIn) {
    }

    private final CurrentSnapshot current;
    private final Fleet fleet;
    private final Enrolments enrolments;
    private final TitleOnDevice titleOnDevice;
    private final Clock clock;
    private final FleetCounter counts;
    private final TitleStates states;

    DevicesApi(CurrentSnapshot current, Fleet fleet, Enrolments enrolments, TitleOnDevice titleOnDevice, FleetCounter counts, TitleStates states, Clock clock) {
        this.states = states;
        this.current = current;
        this.fleet = fleet;
        this.enrolments = enrolments;
        this.titleOnDevice = titleOnDevice;
        this.counts = counts;
        this.clock = clock;
    }

    @GetMapping("/api/devices")
    DeviceRows devices(@RequestParam @Nullable String q, @RequestParam @Nullable String ou,
            @RequestParam @Nullable String title, @RequestParam @Nullable String outcome,
            @RequestParam @Nullable String state, @RequestParam @Nullable String stands, @RequestParam @Nullable String order,
            @RequestParam(defaultValue = "0") int offset,
            @RequestParam(defaultValue = "100") int limit) {
        Page page = Page.of(offset, limit, MOST_ROWS);
        Snapshot now = current.now();
        Instant instant = clock.instant();
        Estate estate = now.estate();
        DeviceFilter filter = new DeviceFilter(q, ou, title, outcome, state, stands, order);
        int[] positions = filter.positions(now, fleet, states, instant);
        List<DeviceRow> rows = Arrays.stream(positions).skip(page.offset()).limit(page.limit()).mapToObj(p -> {
                    Device device = estate.devices().at(p);
                    return DeviceRow.of(estate, device, fleet.of(now, device.id()), instant);
                }).toList();
        return new DeviceRows(positions.length, filter.people(now.resolver(), positions), rows);
    }

    /** The same list whole, as CSV (RFC 4180) for a spreadsheet. */
    @GetMapping("/api/devices/csv")
    void csv(@RequestParam @Nullable String q, @RequestParam @Nullable String ou, @RequestParam @Nullable String title,
            @RequestParam @Nullable String outcome, @RequestParam @Nullable String state, @RequestParam @Nullable String stands,
            @RequestParam @Nullable String order, HttpServletResponse response) throws IOException {
        Snapshot now = current.now();
        Instant instant = clock.instant();
        Estate estate = now.estate();
        int[] positions = new DeviceFilter(q, ou, title, outcome, state, stands, order).positions(now, fleet, states, instant);
        try (CsvDownload csv = CsvDownload.begin(response, "devices.csv", "device", "ou", "people", "state", "doing", "last seen")) {
            for (int p : positions) {
                Device device = estate.devices().at(p);
                DeviceRow row = DeviceRow.of(estate, device, fleet.of(now, device.id()), instant);
                csv.row(row.name(), row.ou(), String.join("; ", row.people()), row.state(), row.line(),
                        row.lastSeen() == null ? "" : row.lastSeen().toString());
            }
        }
    }

    /** The rows of these devices as they are now, for a list that is on a screen; those that have gone are left out. */
    @GetMapping("/api/devices/rows")
    List<DeviceRow> rows(@RequestParam List<String> id) {
        if (id.size() > MOST_ROWS) {
            throw new RefusedException("too-many", "id", "At most " + MOST_ROWS + " devices are asked for together; ask for the others after them.");
        }
        Snapshot now = current.now();
        Instant instant = clock.instant();
        Estate estate = now.estate();
        return id.stream().distinct().map(one -> estate.devices().find(one)).filter(Objects::nonNull)
                .map(device -> DeviceRow.of(estate, device, fleet.of(now, device.id()), instant)).toList();
    }

    /** How the units of a title stand. @param ou in it and below; without one, everywhere */
    @GetMapping("/api/titles/{id}/states")
    TitleStates.StateCounts states(@PathVariable String id, @RequestParam @Nullable String ou) {
        Snapshot now = current.now();
        Title title = Titles.title(now, id);
        int within = ou == null ? 0 : DeviceFilter.position(now.estate(), ou);
        return states.count(now, title, now.estate().devices().from(within), now.estate().devices().to(within));
    }

    @GetMapping("/api/fleet")
    FleetCounter.FleetCounts counts() {
        return counts.get();
    }

    @GetMapping("/api/devices/{id}")
    DeviceView device(@PathVariable String id) {
        Snapshot now = current.now();
        Estate estate = now.estate();
        Device device = Fleet.device(now, id);
        DeviceActivity doing = fleet.of(now, id);
        List<PathPart> path = PathPart.to(estate.ous(), estate.ous().position(device.ou()));
        SignIns signIns = now.get(SignIns.PART).get(id);
        return new DeviceView(id, device.name(), path, people(estate, device, signIns), signIns != null,
                device.facts().asMap(), Enrolments.isEnrolled(now, id), doing.lastSeen(), doing.nextDue(),
                fleet.standing(now, device));
    }

    private static List<PersonHere> people(Estate estate, Device device, @Nullable SignIns signIns) {
        return device.people().stream().map(person -> estate.users().find(person)).filter(Objects::nonNull).map(user -> {
            SignIns.SignIn signIn = signIns == null ? null : signIns.find(user.id());
            return new PersonHere(user.id(), Names.of(user), signIn != null && signIn.now(), signIn == null ? null : signIn.last());
        }).toList();
    }

    /** Why this device, or one of its people there, receives what it receives of this title, and what it is doing about it. */
    @GetMapping("/api/devices/{id}/titles/{title}")
    TitleOnDevice.DeviceTitleWhy title(@PathVariable String id, @PathVariable String title, @RequestParam @Nullable String person) {
        Snapshot now = current.now();
        return titleOnDevice.of(now, Fleet.device(now, id), title, person);
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
