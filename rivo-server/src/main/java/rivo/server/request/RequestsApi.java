package rivo.server.request;

import io.swagger.v3.oas.annotations.media.Schema;
import java.security.Principal;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.server.audience.Names;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.Page;

/** What people have asked for and taken from their shelves, for administrators. */
@RestController
@RequestMapping("/api/requests")
class RequestsApi {

    private static final int MOST = 500;

    /** @param total how many there are; {@code rows} holds the asked part of them, those that wait for an answer first, then the newest */
    record RequestRows(int total, List<RequestRow> rows) {
    }

    /**
     * One request.
     *
     * @param by the id of who asked, as {@code byName} calls them
     * @param forPerson whether it is for them alone, and not for the device
     * @param why they want it; absent where they were not asked
     * @param answer what was said to it; absent where nobody had to agree, or has not yet
     */
    record RequestRow(String id, String device, String deviceName, String title, String titleName, String by, String byName, boolean forPerson,
            Instant at, @Schema(allowableValues = {"sooner", "asked", "refused", "taken", "given-back"}) String state, @Nullable String why,
            RequestDocument.@Nullable Answer answer) {
    }

    /**
     * @param id of the request
     * @param words to whoever asked; needed where it is refused
     * @param until to when it is agreed to; absent for good
     */
    record AnswerBody(String id, boolean agreed, @Nullable String words, @Nullable Instant until) {
    }

    private final CurrentSnapshot current;
    private final Requests requests;

    RequestsApi(CurrentSnapshot current, Requests requests) {
        this.current = current;
        this.requests = requests;
    }

    /** Every part that is given has to hold. @param person who asked */
    @GetMapping
    RequestRows requests(@RequestParam @Nullable String state, @RequestParam @Nullable String title, @RequestParam @Nullable String device,
            @RequestParam @Nullable String person, @RequestParam(defaultValue = "0") int offset, @RequestParam(defaultValue = "100") int limit) {
        Page page = Page.of(offset, limit, MOST);
        Snapshot now = current.now();
        Predicate<RequestDocument> asked = one -> (state == null || state.equals(one.state())) && (title == null || title.equals(one.title()))
                && (device == null || device.equals(one.device())) && (person == null || person.equals(one.by()));
        List<RequestDocument> all = now.get(RequestDocument.KIND).stream().filter(asked).sorted(Comparator.comparing((RequestDocument one) -> !one.isAsked())
                .thenComparing(RequestDocument::at, Comparator.reverseOrder()).thenComparing(RequestDocument::id)).toList();
        return new RequestRows(all.size(), page.of(all).stream().map(one -> row(now.estate(), one)).toList());
    }

    private static RequestRow row(Estate estate, RequestDocument one) {
        Device device = estate.devices().find(one.device());
        Title title = estate.title(one.title());
        boolean known = estate.users().find(one.by()) != null;
        return new RequestRow(one.id(), one.device(), device == null ? "a device that has gone" : device.name(), one.title(),
                title == null ? one.title() : title.name(), one.by(), known ? Names.of(estate, Target.user(one.by())) : "somebody who has gone",
                one.user() != null, one.at(), one.state(), one.why(), one.answer());
    }

    /** Agrees to a request, for good or for a time, or refuses it. */
    @PostMapping("/answer")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void answer(@RequestBody AnswerBody body, Principal who) {
        requests.answer(who.getName(), Objects.requireNonNullElse(body.id(), ""), body.agreed(), Objects.requireNonNullElse(body.words(), ""), body.until());
    }
}
