package rivo.server.shelf;

import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.people.SignedIn;
import rivo.server.request.Requests;
import rivo.server.web.ApiException;

/** Everybody's own shelf. Whoever asks is known by their session; nobody is asked for by name. */
@RestController
@RequestMapping("/api/shelf")
class ShelfApi {

    private final CurrentSnapshot current;
    private final Shelves shelves;
    private final Requests requests;
    private final ShelfNotices notices;

    ShelfApi(CurrentSnapshot current, Shelves shelves, Requests requests, ShelfNotices notices) {
        this.notices = notices;
        this.current = current;
        this.shelves = shelves;
        this.requests = requests;
    }

    /** @param device one of their computers; where none is named, the one they are signed in on, or used last */
    @GetMapping
    Shelf shelf(@RequestParam @Nullable String device, @AuthenticationPrincipal SignedIn who) {
        return shelves.of(current.now(), who.id(), onItsDevice(who, device), who.device());
    }

    /** Takes an offer, or asks for it where that has to be approved; doing so again changes nothing. */
    @PutMapping("/on/{device}/{title}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void take(@PathVariable String device, @PathVariable String title, @RequestBody(required = false) Requests.@Nullable Taking taking,
            @AuthenticationPrincipal SignedIn who) {
        requests.take(who.account(), who.id(), onItsDevice(who, device), title, taking == null ? Requests.Taking.NOTHING : taking);
    }

    /** Has what is required anyway come at once, without waiting for its deadline; doing so again changes nothing. */
    @PutMapping("/sooner/{device}/{title}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void sooner(@PathVariable String device, @PathVariable String title, @AuthenticationPrincipal SignedIn who) {
        requests.sooner(who.account(), who.id(), onItsDevice(who, device), title);
    }

    /** Answers what one is asked on a computer, or says that one has read what one is told; doing so again changes nothing. */
    @PutMapping("/notices/{device}/{notice}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void answer(@PathVariable String device, @PathVariable String notice, @RequestBody ShelfNotices.Answering said, @AuthenticationPrincipal SignedIn who) {
        notices.answer(who.id(), onItsDevice(who, device), notice, said);
    }

    /** Gives back what was taken, or takes it back before it has arrived; doing so again changes nothing. */
    @DeleteMapping("/on/{device}/{title}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void giveBack(@PathVariable String device, @PathVariable String title, @AuthenticationPrincipal SignedIn who) {
        requests.giveBack(who.account(), who.id(), onItsDevice(who, device), title);
    }

    /** Whoever came by a device's link has their shelf of that one alone. */
    private static <D extends @Nullable String> D onItsDevice(SignedIn who, D device) {
        if (device != null && who.device() != null && !device.equals(who.device())) {
            throw ApiException.refused(HttpStatus.FORBIDDEN, "other-device", "You came here from another computer of yours. Sign in with your account to see the shelf "
                    + "of this one.");
        }
        return device;
    }
}
