package rivo.server.request;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Request;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.server.document.Document;
import rivo.server.document.DocumentKind;
import rivo.server.document.Documents;
import rivo.server.estate.Snapshot;

/**
 * Somebody took an offer for a device, or for themselves on it.
 *
 * @param id made of the three that follow
 * @param user the person in whose profile, for a title that is installed for each person; else null
 * @param by the id of the person who took it
 * @param at when
 * @param state {@code sooner} where it is required, and they do not want to wait for its deadline; {@code asked} while it waits for approval, {@code refused} once that is denied, {@code taken}, or {@code given-back} until what
 *     Rivo installed for it is gone
 * @param why they want it, in their words; null where they were not asked
 * @param licence the SHA-256 of the licence text that they accepted; null where they were not asked to
 * @param answer what was said to it; null where nobody had to agree, or has not yet
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record RequestDocument(String id, String device, String title, @Nullable String user, String by, Instant at,
        @Schema(allowableValues = {"sooner", "asked", "refused", "taken", "given-back"}) String state, @Nullable String why, @Nullable String licence,
        @Nullable Answer answer) implements Document {

    /**
     * What an administrator said to a request.
     *
     * @param by their account
     * @param words to whoever asked; may be empty where they agreed
     * @param until to when it is agreed to; null for good
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Answer(String by, Instant at, boolean agreed, String words, @Nullable Instant until) {
    }

    public static final DocumentKind<RequestDocument> KIND = new Kind();
    static final String SOONER = "sooner";
    static final String ASKED = "asked";
    static final String REFUSED = "refused";
    static final String TAKEN = "taken";
    static final String GIVEN_BACK = "given-back";

    /** Those of each device, made once for as long as no request is another. */
    private record ByDevice(Documents<RequestDocument> of, Map<String, List<RequestDocument>> devices) {
    }

    private static volatile @Nullable ByDevice latest;

    /** One of which nobody knows more than that it was made. */
    public static RequestDocument of(Request request, Instant at) {
        String person = request.user() == null ? "" : request.user();
        return new RequestDocument(id(request.device(), request.title(), request.user()), request.device(), request.title(), request.user(), person, at, TAKEN,
                null, null, null);
    }

    /** There is one request at the most for each device and title, and person where it is installed for each. */
    static String id(String device, String title, @Nullable String user) {
        return device + "|" + title + "|" + (user == null ? "" : user);
    }

    @JsonIgnore
    public boolean isTaken() {
        return TAKEN.equals(state);
    }

    @JsonIgnore
    public boolean isAsked() {
        return ASKED.equals(state);
    }

    @JsonIgnore
    public boolean isRefused() {
        return REFUSED.equals(state);
    }

    @JsonIgnore
    public boolean isGivenBack() {
        return GIVEN_BACK.equals(state);
    }

    /** Whether what is required anyway shall come before its deadline. */
    @JsonIgnore
    public boolean isSooner() {
        return SOONER.equals(state);
    }

    /** Whether it was agreed to until an instant that has come. */
    boolean hasEnded(Instant now) {
        return isTaken() && answer != null && answer.until() != null && !answer.until().isAfter(now);
    }

    RequestDocument givenBack() {
        return new RequestDocument(id, device, title, user, by, at, GIVEN_BACK, why, licence, answer);
    }

    RequestDocument answered(Answer said) {
        return new RequestDocument(id, device, title, user, by, at, said.agreed() ? TAKEN : REFUSED, why, licence, said);
    }

    /** All of one device. Safe for any number of threads. */
    public static List<RequestDocument> of(Snapshot snapshot, String device) {
        Documents<RequestDocument> all = snapshot.get(KIND);
        ByDevice known = latest;
        if (known == null || known.of() != all) {
            known = new ByDevice(all, all.stream().collect(Collectors.groupingBy(RequestDocument::device)));
            latest = known;
        }
        return known.devices().getOrDefault(device, List.of());
    }

    /** The one for this unit; null where there is none. */
    public static @Nullable RequestDocument find(Snapshot snapshot, String device, String title, @Nullable String user) {
        return snapshot.get(KIND).find(id(device, title, user));
    }

    private Request request() {
        return new Request(device, title, user);
    }

    /** The estate with the requests of these documents that can have effect there: device, title and person may have gone for a while. */
    public static Estate requested(Estate estate, Documents<RequestDocument> documents) {
        List<Request> sound = documents.stream().filter(RequestDocument::isTaken).map(RequestDocument::request)
                .filter(request -> isSound(estate, request)).toList();
        return new LinkedHashSet<>(estate.requests()).equals(new LinkedHashSet<>(sound)) ? estate : estate.withRequests(sound);
    }

    private static boolean isSound(Estate estate, Request request) {
        Title title = estate.title(request.title());
        return title != null && estate.devices().find(request.device()) != null && (title.scope() == Scope.USER) == (request.user() != null)
                && (request.user() == null || estate.users().find(request.user()) != null);
    }

    private static final class Kind extends DocumentKind<RequestDocument> {

        Kind() {
            super("request", RequestDocument.class);
        }

        @Override
        protected Estate estate(Estate before, List<RequestDocument> put, Set<String> retired) {
            Map<String, Request> next = new LinkedHashMap<>();
            before.requests().forEach(request -> next.put(RequestDocument.id(request.device(), request.title(), request.user()), request));
            retired.forEach(next::remove);
            put.forEach(document -> next.remove(document.id()));
            List<Request> all = new ArrayList<>(next.values());
            put.stream().filter(RequestDocument::isTaken).map(RequestDocument::request).filter(request -> isSound(before, request)).forEach(all::add);
            return before.withRequests(all);
        }
    }
}
