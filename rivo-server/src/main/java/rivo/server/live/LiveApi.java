package rivo.server.live;

import io.swagger.v3.oas.annotations.Hidden;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.security.core.Authentication;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import rivo.server.people.SessionCheck;

/** The stream of what changes. */
@Hidden
@RestController
class LiveApi {

    private final LiveEvents events;
    private final SessionCheck sessions;

    LiveApi(LiveEvents events, SessionCheck sessions) {
        this.events = events;
        this.sessions = sessions;
    }

    /**
     * Three kinds of events: {@code begun} at once; {@code changed} with {@link LiveEvents.Changed}; {@code missed} where more has changed since
     * than is known.
     *
     * @param after the id of the last event, from whoever opens a stream anew
     * @param last the same from a browser that opens a broken stream again by itself; counts before the other
     */
    @GetMapping(path = "/api/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter listen(Authentication who, @RequestParam @Nullable String after,
            @RequestHeader(name = "Last-Event-ID", required = false) @Nullable String last) {
        String own = Topics.draft(who.getName());
        return events.listen(topic -> !Topics.isDraft(topic) || topic.equals(own), () -> sessions.isStill(who), last == null ? after : last);
    }
}
