package rivo.server.request;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Reason;
import rivo.core.resolve.Resolver;
import rivo.server.document.Kept;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** Taking what is offered, and giving it back. Each is on record at once. Safe for any number of threads. */
@Component
public class Requests {

    private final ChangeWriter writer;
    private final CurrentSnapshot current;
    private final LiveEvents events;
    private final Cache<List<String>, Boolean> refused = Caffeine.newBuilder().maximumSize(10_000).expireAfterWrite(Duration.ofHours(1)).build();

    Requests(ChangeWriter writer, CurrentSnapshot current, LiveEvents events) {
        this.writer = writer;
        this.current = current;
        this.events = events;
    }

    /**
     * Takes an offer. Taking it again changes nothing.
     *
     * @param who the account, for the record
     * @param person the id of whoever takes it
     * @throws ApiException where the device is not one of theirs, or, which is on record, the title is not offered to them there
     */
    public void take(String who, String person, String device, String title) {
        Snapshot now = current.now();
        String user = unit(now, person, device, title);
        if (!isOffered(now.resolver(), device, title, user)) {
            refused(who, device, title);
        }
        writer.take(context -> {
            RequestDocument before = RequestDocument.find(context.snapshot(), device, title, user);
            if (before == null || !before.isTaken()) {
                put(context, who, "taken", before, RequestDocument.taken(device, title, user, person, context.now()));
            }
            return title;
        });
    }

    /**
     * Gives back what was taken: what Rivo installed for it is removed, and a seat is free. Giving it back again changes nothing.
     *
     * @throws ApiException where this person has not taken it
     */
    public void giveBack(String who, String person, String device, String title) {
        String user = unit(current.now(), person, device, title);
        writer.take(context -> {
            RequestDocument before = RequestDocument.find(context.snapshot(), device, title, user);
            if (before == null || !before.by().equals(person)) {
                throw ApiException.refused(HttpStatus.FORBIDDEN, "not-taken", "You have not taken this title on this computer, so there is nothing to give back. "
                        + "Load the page again.");
            }
            if (before.isTaken()) {
                put(context, who, "given-back", before, before.givenBack());
            }
            return title;
        });
    }

    private void put(ChangeContext context, String who, String kind, @Nullable RequestDocument before, RequestDocument after) {
        long revision = context.get(RequestDocument.KIND).revision(after.id());
        RequestDocument.KIND.put(context, List.of(new Kept<>(after, revision + 1, who, context.now(), null)));
        context.journal(who, kind, "title:" + after.title(), null, before, after);
        context.afterwards(() -> {
            events.changed(Topics.title(after.title()));
            events.changed(Topics.device(after.device()));
        });
    }

    /** Forgets what has been given back and is gone from these units of a device. */
    public static void forget(ChangeContext context, List<RequestDocument> gone) {
        gone.forEach(one -> RequestDocument.KIND.remove(context, one.id()));
    }

    /** For whom a title would be there: null for the device. */
    private static @Nullable String unit(Snapshot now, String person, String deviceId, String titleId) {
        Device device = now.estate().devices().find(deviceId);
        Title title = now.estate().title(titleId);
        if (device == null || title == null || !device.people().contains(person)) {
            throw ApiException.refused(HttpStatus.FORBIDDEN, "not-yours", "This computer is none of yours, or the title is not there any more. "
                    + "Load the page again.");
        }
        return title.scope() == Scope.USER ? person : null;
    }

    private static boolean isOffered(Resolver resolver, String device, String title, @Nullable String user) {
        Title offered = resolver.estate().title(title);
        int unit = offered == null ? -1 : resolver.audiences().unit(offered.scope(), device, user);
        Decision decision = unit < 0 || offered == null ? null : resolver.at(offered, unit);
        return decision != null && (decision.outcome() == Outcome.AVAILABLE || decision.reason() == Reason.REQUESTED);
    }

    /** On record once an hour for each, so that nobody fills the journal. */
    private void refused(String who, String device, String title) {
        if (refused.asMap().putIfAbsent(List.of(who, device, title), true) == null) {
            writer.take(context -> {
                context.journal(who, "request-refused", "title:" + title, "not offered on device " + device, null, null);
                return title;
            });
        }
        throw ApiException.refused(HttpStatus.FORBIDDEN, "not-offered", "This title is not offered to you on this computer any more. Load the page "
                + "again; whoever looks after your computer can offer it.");
    }
}
