package rivo.server.notice;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Device;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.server.audience.Names;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;

/** What people at devices were told and asked, and what they said to it, for administrators. */
@RestController
class NoticesApi {

    private static final int MOST = 100;

    /**
     * One line, the newest first.
     *
     * @param person the id of who was shown it or said so, as {@code personName} calls them; absent where nobody was
     * @param line what happened, in words
     * @param refused whether it was an answer that did not count
     */
    record NoticeLine(Instant at, String device, String deviceName, @Nullable String person, @Nullable String personName,
            @Schema(allowableValues = {"coming", "start", "done", "removed", "failed", "restart", "sign-out", "close"}) String kind,
            @Schema(allowableValues = {"held", "shown", "put-off", "counting-down", "done", "over"}) String state, List<String> titles, String line, boolean refused) {
    }

    private final CurrentSnapshot current;
    private final JdbcClient db;

    NoticesApi(CurrentSnapshot current, JdbcClient db) {
        this.current = current;
        this.db = db;
    }

    /** On a device; the last hundred of three months. */
    @GetMapping("/api/devices/{id}/notices")
    List<NoticeLine> ofDevice(@PathVariable String id) {
        return lines(Notices.ofDevice(db, id, MOST));
    }

    /** To and by a person, on all devices; likewise. */
    @GetMapping("/api/people/{id}/notices")
    List<NoticeLine> ofPerson(@PathVariable String id) {
        return lines(Notices.ofPerson(db, id, MOST));
    }

    private List<NoticeLine> lines(List<Notices.Line> lines) {
        Snapshot now = current.now();
        return lines.stream().map(line -> line(now, line)).toList();
    }

    private static NoticeLine line(Snapshot now, Notices.Line line) {
        Device device = now.estate().devices().find(line.device());
        User user = line.person() == null ? null : now.estate().users().find(line.person());
        String person = line.person() == null ? null : user == null ? "somebody who has gone" : Names.of(user);
        List<String> titles = line.titles().stream().map(id -> now.estate().title(id)).filter(Objects::nonNull).map(Title::name).toList();
        return new NoticeLine(line.at(), line.device(), device == null ? "a device that has gone" : device.name(), line.person(), person, line.kind().word(),
                line.state().word(), titles, NoticeSentence.of(line, device, person, titles), line.refused() != null);
    }
}
