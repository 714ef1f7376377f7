package rivo.server.live;

import io.swagger.v3.oas.annotations.Hidden;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.security.core.Authentication;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import rivo.server.people.SessionCheck;

/** The stream of changed topics. */
@Hidden
@RestController
class LiveApi {

    private final LiveEvents events;
    private final SessionCheck sessions;

    LiveApi(LiveEvents events, SessionCheck sessions) {
        this.events = events;
        this.sessions = sessions;
    }

    /** @param device a device to hear of besides */
    @GetMapping(path = "/api/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter listen(Authentication who, @RequestParam @Nullable String device) {
        List<String> topics = new ArrayList<>(List.of(Topics.ESTATE, Topics.FLEET, Topics.DIRECTORY,
                Topics.draft(who.getName())));
        if (device != null) {
            topics.add(Topics.device(device));
        }
        return events.listen(topics, () -> sessions.isStill(who));
    }
}
