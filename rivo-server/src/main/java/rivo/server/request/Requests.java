package rivo.server.request;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Reason;
import rivo.core.resolve.Resolver;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.DeviceClock;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.Titles;
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

    private static final int LONGEST = 500;
    private static final Duration LONGEST_AGREED = Duration.ofDays(730);

    private final Clock clock;
    private final ChangeWriter writer;
    private final CurrentSnapshot current;
    private final LiveEvents events;
    private final Cache<List<String>, Boolean> refused = Caffeine.newBuilder().maximumSize(10_000).expireAfterWrite(Duration.ofHours(1)).build();

    Requests(ChangeWriter writer, CurrentSnapshot current, LiveEvents events, Clock clock) {
        this.clock = clock;
        this.writer = writer;
        this.current = current;
        this.events = events;
    }

    /**
     * What somebody says who takes an offer.
     *
     * @param why they want it; needed where it has to be approved
     * @param licence the SHA-256 of the licence text that they have read and accept; needed where that is asked
     * @param choices what they choose of it, by the ids of the choices; where they choose nothing, it is as it is for everybody
     */
    public record Taking(@Nullable String why, @Nullable String licence, Map<String, String> choices) {

        public static final Taking NOTHING = new Taking(null, null, Map.of());

        public Taking {
            choices = choices == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(choices));
        }
    }

    /**
     * Takes an offer, or asks for it where that has to be approved. Doing so again changes nothing.
     *
     * @param who the account, for the record
     * @param person the id of whoever takes it
     * @throws ApiException where the device is not one of theirs, or, which is on record, the title is not offered to them there
     * @throws RefusedException where they do not say what is asked of them
     */
    public void take(String who, String person, String device, String title, Taking taking) {
        Snapshot now = current.now();
        String user = unit(now, person, device, title);
        if (!isOffered(now.resolver(), device, title, user)) {
            refused(who, device, title);
        }
        writer.take(context -> {
            RequestDocument before = RequestDocument.find(context.snapshot(), device, title, user);
            if (before == null || !before.isTaken() && !before.isAsked()) {
                TitleRecord record = context.get(Titles.PART).record(title);
                check(record, taking);
                if (!taking.choices().isEmpty()) {
                    FixedChoices.choose(context, who, title, person, open(context.snapshot(), device, title, user), taking.choices());
                }
                boolean approval = record.asks().approval();
                String id = RequestDocument.id(device, title, user);
                put(context, who, approval ? "asked" : "taken", before, new RequestDocument(id, device, title, user, person, context.now(),
                        approval ? RequestDocument.ASKED : RequestDocument.TAKEN, approval ? taking.why() : null,
                        asksForLicence(record) ? taking.licence() : null, null));
            }
            return title;
        });
    }

    /**
     * Has what is required anyway come at once, without waiting for its deadline or a maintenance window. Doing so again changes nothing.
     *
     * @throws ApiException where the device is not one of theirs, or nothing is required there that has a deadline to come
     */
    public void sooner(String who, String person, String device, String title) {
        Snapshot now = current.now();
        String user = unit(now, person, device, title);
        if (deadline(now, device, title, user) == null) {
            throw ApiException.refused(HttpStatus.FORBIDDEN, "no-deadline", "This title does not wait for a deadline on this computer any more. Load the page again.");
        }
        writer.take(context -> {
            RequestDocument before = RequestDocument.find(context.snapshot(), device, title, user);
            // What has been taken does not wait anyway; what somebody else asks for is theirs.
            if (before == null || before.isGivenBack() || before.isRefused()) {
                put(context, who, "sooner", before, new RequestDocument(RequestDocument.id(device, title, user), device, title, user, person, context.now(),
                        RequestDocument.SOONER, null, null, null));
            }
            return title;
        });
    }

    /** Until when a title that is required there shall hold; null without a deadline that is still to come. */
    public @Nullable Instant deadline(Snapshot now, String deviceId, String titleId, @Nullable String user) {
        Device device = now.estate().devices().find(deviceId);
        Title title = now.estate().title(titleId);
        int unit = device == null || title == null ? -1 : now.resolver().audiences().unit(title.scope(), deviceId, user);
        Decision decision = unit < 0 || title == null ? null : now.resolver().at(title, unit);
        boolean required = decision != null && decision.outcome() == Outcome.REQUIRED && decision.reason() != Reason.REQUESTED;
        AssignmentDocument document = required && decision.winner() != null ? now.get(AssignmentDocument.KIND).find(decision.winner().id()) : null;
        Instant deadline = document == null || device == null ? null : DeviceClock.deadline(document.delivery().deadline(), device);
        return deadline == null || !deadline.isAfter(clock.instant()) ? null : deadline;
    }

    /** What people may choose of a title that is offered to them; nothing where it is not. */
    public static List<ChoiceRecord> open(Snapshot now, String device, String titleId, @Nullable String user) {
        Title title = now.estate().title(titleId);
        int unit = title == null ? -1 : now.resolver().audiences().unit(title.scope(), device, user);
        Decision decision = unit < 0 || title == null ? null : now.resolver().at(title, unit);
        ReleaseRecord release = decision == null || decision.release() == null ? null : now.get(Titles.PART).release(titleId, decision.release().version());
        return release == null || decision == null ? List.of() : FixedChoices.open(now, release, decision.winner());
    }

    /** Whether each person has to accept a licence text. */
    public static boolean asksForLicence(TitleRecord title) {
        return title.asks().licence() && !title.about().licence().isBlank();
    }

    private static void check(TitleRecord title, Taking taking) {
        List<Problem> problems = new ArrayList<>();
        String why = taking.why() == null ? "" : taking.why();
        if (title.asks().approval() && (why.isBlank() || why.length() > LONGEST)) {
            problems.add(new Problem("why", "why", "Say in 1 to " + LONGEST + " characters what you need it for; whoever agrees reads that."));
        }
        if (asksForLicence(title) && !Licences.hash(title.about().licence()).equals(taking.licence())) {
            problems.add(new Problem("licence-not-accepted", "licence", taking.licence() == null ? "Read the licence text, and accept it."
                    : "The licence text has been changed since you read it. Load the page again, read it, and accept it."));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }

    /**
     * Gives back what was taken: what Rivo installed for it is removed, and a seat is free. What was only asked for, or refused, is forgotten.
     * Doing so again changes nothing.
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
            } else if (!before.isGivenBack()) {
                RequestDocument.KIND.remove(context, before.id());
                context.journal(who, "request-withdrawn", "title:" + title, null, before, null);
                tell(context, before);
            }
            return title;
        });
    }

    /**
     * Agrees to a request, or refuses it. On record, with the words.
     *
     * @param who the account
     * @param id of the request
     * @param until to when it is agreed to; null for good
     * @throws ApiException where there is no such request, or it has been answered or withdrawn meanwhile
     * @throws RefusedException where words are missing or too long, or the end is not ahead
     */
    public void answer(String who, String id, boolean agreed, String words, @Nullable Instant until) {
        writer.take(context -> {
            RequestDocument before = context.get(RequestDocument.KIND).find(id);
            if (before == null || !before.isAsked()) {
                throw ApiException.refused(HttpStatus.CONFLICT, "not-asked", "This request has been answered or withdrawn meanwhile. Load the page again.");
            }
            check(context.now(), agreed, words, until);
            put(context, who, agreed ? "request-agreed" : "request-refused", before, before.answered(new RequestDocument.Answer(who,
                    context.now(), agreed, words.strip(), until == null ? null : until.truncatedTo(ChangeContext.ON_DISK))));
            return id;
        });
    }

    private static void check(Instant now, boolean agreed, String words, @Nullable Instant until) {
        List<Problem> problems = new ArrayList<>();
        if (words.length() > LONGEST || !agreed && words.isBlank()) {
            problems.add(new Problem("words", "words", agreed ? "Say at most " + LONGEST + " characters." : "Say in 1 to " + LONGEST
                    + " characters why not; whoever asked reads that."));
        }
        if (until != null && (!agreed || !until.isAfter(now) || until.isAfter(now.plus(LONGEST_AGREED)))) {
            problems.add(new Problem("until", "until", agreed ? "The end is ahead, by at most " + LONGEST_AGREED.toDays() + " days; or leave it out."
                    : "What is refused has no end; leave it out."));
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }

    /** Gives back what was agreed to for a time that is over. */
    @Scheduled(fixedDelayString = "PT30S")
    public void end() {
        Instant now = clock.instant();
        if (current.now().get(RequestDocument.KIND).stream().noneMatch(one -> one.hasEnded(now))) {
            return;
        }
        writer.take(context -> {
            List<RequestDocument> ended = context.get(RequestDocument.KIND).stream().filter(one -> one.hasEnded(now)).toList();
            ended.forEach(one -> put(context, "rule: agreed until", "given-back", one, one.givenBack()));
            return ended.size();
        });
    }

    private void put(ChangeContext context, String who, String kind, @Nullable RequestDocument before, RequestDocument after) {
        long revision = context.get(RequestDocument.KIND).revision(after.id());
        RequestDocument.KIND.put(context, List.of(new Kept<>(after, revision + 1, who, context.now(), null)));
        context.journal(who, kind, "title:" + after.title(), null, before, after);
        tell(context, after);
    }

    private void tell(ChangeContext context, RequestDocument about) {
        context.afterwards(() -> {
            events.changed(Topics.title(about.title()));
            events.changed(Topics.device(about.device()));
            events.changed(Topics.REQUESTS);
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
                context.journal(who, "request-not-offered", "title:" + title, "not offered on device " + device, null, null);
                return title;
            });
        }
        throw ApiException.refused(HttpStatus.FORBIDDEN, "not-offered", "This title is not offered to you on this computer any more. Load the page "
                + "again; whoever looks after your computer can offer it.");
    }
}
