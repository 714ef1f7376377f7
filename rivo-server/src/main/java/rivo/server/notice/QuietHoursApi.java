package rivo.server.notice;

import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.server.document.Kept;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;

/** The organisation's quiet hours. */
@RestController
@RequestMapping("/api/quiet-hours")
class QuietHoursApi {

    /** @param from the time of day, {@code HH:MM}; absent where there are no quiet hours, as is {@code to} */
    record QuietHoursView(@Nullable String from, @Nullable String to) {
    }

    private final ChangeWriter writer;
    private final CurrentSnapshot current;
    private final LiveEvents events;

    QuietHoursApi(ChangeWriter writer, CurrentSnapshot current, LiveEvents events) {
        this.writer = writer;
        this.current = current;
        this.events = events;
    }

    @GetMapping
    QuietHoursView quietHours() {
        QuietHoursDocument hours = QuietHoursDocument.find(current.now());
        return hours == null ? new QuietHoursView(null, null) : new QuietHoursView(hours.from(), hours.to());
    }

    @PutMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void put(@RequestBody QuietHoursView body, Principal who) {
        QuietHoursDocument hours = QuietHoursDocument.of(body.from(), body.to());
        writer.take(context -> {
            QuietHoursDocument before = QuietHoursDocument.find(context.snapshot());
            if (!hours.equals(before)) {
                long revision = context.get(QuietHoursDocument.KIND).revision(hours.id()) + 1;
                QuietHoursDocument.KIND.put(context, List.of(new Kept<>(hours, revision, who.getName(), context.now(), null)));
                changed(context, who, before, hours);
            }
            return hours;
        });
    }

    /** Takes them out; doing so again changes nothing. */
    @DeleteMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(Principal who) {
        writer.take(context -> {
            QuietHoursDocument before = QuietHoursDocument.find(context.snapshot());
            if (before != null) {
                QuietHoursDocument.KIND.remove(context, before.id());
                changed(context, who, before, null);
            }
            return who;
        });
    }

    private void changed(ChangeContext context, Principal who, @Nullable QuietHoursDocument before, @Nullable QuietHoursDocument after) {
        context.journal(who.getName(), "quiet-hours-changed", "quiet-hours:" + QuietHoursDocument.ID, null, before, after);
        context.afterwards(() -> events.changed(Topics.WINDOWS));
    }
}
