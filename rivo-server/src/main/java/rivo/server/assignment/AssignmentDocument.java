package rivo.server.assignment;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonUnwrapped;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Leaving;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Target;
import rivo.server.document.Document;

/**
 * An assignment as it is edited, kept and shown: the estate file's form ({@code rivo-estate/1}), with what it says of its delivery. What
 * is as usual is left out of the JSON. Made of a core value by {@link #of} and read as one by {@link #assignment}.
 *
 * @param seq its place in the order of publishing; 0 while it is not published
 * @param subject {@code title:ID} or {@code kit:ID}
 * @param include targets, written {@code KIND:ID}
 * @param within a rule that the device has to satisfy
 * @param base the id of the OU below which alone it has effect
 * @param release {@code =VERSION}; null for the newest that fits
 * @param from the instant from which it is live
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record AssignmentDocument(String id, @JsonInclude(JsonInclude.Include.ALWAYS) long seq,
        @Schema(allowableValues = {"active", "paused", "retired"}) @Nullable String state, String subject,
        @Schema(allowableValues = {"required", "available", "uninstall"}) String intent,
        @Schema(allowableValues = {"device", "user"}) String follows, List<String> include, List<String> exclude, @Nullable String within,
        @Nullable String base, @JsonInclude(JsonInclude.Include.NON_DEFAULT) boolean binding, @Nullable Integer priority,
        @Nullable String release, @Nullable Instant from, @Schema(allowableValues = {"keep", "remove"}) @Nullable String leaving,
        List<WaveDocument> waves, @JsonUnwrapped Delivery delivery) implements Document {

    public static final AssignmentKind KIND = new AssignmentKind();

    public AssignmentDocument {
        id = id == null ? "" : id;
        subject = subject == null ? "" : subject;
        intent = intent == null ? "" : intent;
        follows = follows == null ? "" : follows;
        state = AssignmentState.ACTIVE.word().equals(state) ? null : state;
        include = include == null ? List.of() : List.copyOf(include);
        exclude = exclude == null ? List.of() : List.copyOf(exclude);
        within = within == null || within.isBlank() ? null : within;
        priority = priority != null && priority == Assignment.USUAL_PRIORITY ? null : priority;
        release = "newest".equals(release) ? null : release;
        leaving = Leaving.KEEP.word().equals(leaving) ? null : leaving;
        waves = waves == null ? List.of() : List.copyOf(waves);
        delivery = delivery == null ? Delivery.AS_USUAL : delivery;
    }

    public static AssignmentDocument of(Assignment a, Delivery delivery) {
        return new AssignmentDocument(a.id(), a.seq(), a.state().word(), a.subject().toString(), a.intent().word(), a.follows().word(),
                words(a.include()), words(a.exclude()), a.within(), a.base(), a.binding(), a.priority(),
                a.pin() == null ? null : "=" + a.pin(), a.from(), a.leaving().word(), a.waves().stream().map(WaveDocument::of).toList(), delivery);
    }

    private static List<String> words(List<Target> targets) {
        return targets.stream().map(Target::toString).toList();
    }

    /**
     * The core's value.
     *
     * @throws RefusedException with everything that cannot be read, the delivery included
     */
    public Assignment assignment() {
        return new AssignmentParser(this).assignment();
    }

    /** The same at another place in the order of publishing. */
    public AssignmentDocument numbered(long newSeq) {
        return newSeq == seq ? this : with(assignment().withSeq(newSeq));
    }

    /**
     * The same, as it is published in place of another: it says when the last of its waves was opened.
     *
     * @param before what stands there; null for a new one
     * @param now when it is published
     * @throws RefusedException when its waves are stopped and it would open one all the same
     */
    public AssignmentDocument inPlaceOf(@Nullable AssignmentDocument before, Instant now) {
        int opened = firstOpened(before);
        Rollout rollout = delivery.rollout() == null ? Rollout.BY_HAND : delivery.rollout();
        Rollout known = before == null || before.delivery.rollout() == null ? Rollout.BY_HAND : before.delivery.rollout();
        if (opened >= 0 && before != null && rollout.stopped()) {
            throw new RefusedException("stopped", "assignment:" + id + ".waves[" + opened + "].open",
                    "The waves are stopped, so none is opened; let them go on first.");
        }
        boolean anyOpen = waves.stream().anyMatch(WaveDocument::open);
        // Of what was published before this was kept, the time counts from now on.
        Rollout kept = rollout.openedAt(!anyOpen ? null : opened >= 0 || known.lastOpened() == null ? now : known.lastOpened());
        return with(delivery.withRollout(kept));
    }

    /** The first wave that is open, and was not; -1 for none. */
    private int firstOpened(@Nullable AssignmentDocument before) {
        for (int i = 0; i < waves.size(); i++) {
            if (waves.get(i).open() && (before == null || i >= before.waves.size() || !before.waves.get(i).open())) {
                return i;
            }
        }
        return -1;
    }

    /** With the first wave that is closed open; null where every one is open. */
    public @Nullable AssignmentDocument withNextWave() {
        List<WaveDocument> next = new ArrayList<>(waves);
        for (int i = 0; i < next.size(); i++) {
            if (!next.get(i).open()) {
                next.set(i, new WaveDocument(next.get(i).to(), next.get(i).share(), true));
                return new AssignmentDocument(id, seq, state, subject, intent, follows, include, exclude, within, base, binding, priority, release,
                        from, leaving, next, delivery);
            }
        }
        return null;
    }

    /** With another delivery. */
    public AssignmentDocument with(Delivery other) {
        return new AssignmentDocument(id, seq, state, subject, intent, follows, include, exclude, within, base, binding, priority, release, from,
                leaving, waves, other);
    }

    /** Another assignment with the same delivery. */
    public AssignmentDocument with(Assignment other) {
        return of(other, delivery);
    }
}
