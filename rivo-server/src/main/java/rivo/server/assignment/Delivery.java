package rivo.server.assignment;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * What an assignment says besides whom it reaches: when, how politely, and with which choices. (Section 1 of the delivery rules.)
 *
 * @param deadline null for none
 * @param windows {@code wait} where null
 * @param courtesy null where everything is as usual
 * @param choices what it fixes of the title's choices, by their ids; in the order of the ids
 * @param note the organisation's own, such as the number of a ticket
 * @param menu whether an offer stands in the device's own menu, too, where it opens the shelf at that title
 * @param rollout how its waves go on; null where each opens by hand and none has been opened
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record Delivery(@Nullable Deadline deadline,
        @Schema(allowableValues = {"wait", "deadline-wins", "ignore"}) @Nullable String windows, @Nullable Courtesy courtesy,
        Map<String, String> choices, @Nullable String note, @JsonInclude(JsonInclude.Include.NON_DEFAULT) boolean menu, @Nullable Rollout rollout) {

    public static final Delivery AS_USUAL = new Delivery(null, null, null, Map.of(), null, false, null);

    public Delivery {
        windows = "wait".equals(windows) ? null : windows;
        choices = choices == null || choices.isEmpty() ? Map.of() : Collections.unmodifiableMap(new TreeMap<>(choices));
        note = note == null || note.isBlank() ? null : note;
        rollout = Rollout.BY_HAND.equals(rollout) ? null : rollout;
    }

    public Delivery withChoices(Map<String, String> newChoices) {
        return new Delivery(deadline, windows, courtesy, newChoices, note, menu, rollout);
    }

    public Delivery withRollout(@Nullable Rollout newRollout) {
        return new Delivery(deadline, windows, courtesy, choices, note, menu, newRollout);
    }

    /**
     * By when it shall have happened; one of the two is given.
     *
     * @param at one instant for all
     * @param local by each device's own time zone, such as {@code 2026-12-04T18:00}
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Deadline(@Nullable Instant at, @Nullable String local) {
    }

    /**
     * How people are treated meanwhile.
     *
     * @param quiet whether only what asks or counts down is shown
     */
    @JsonInclude(JsonInclude.Include.NON_DEFAULT)
    public record Courtesy(@Nullable Tell tell, boolean quiet, @Nullable Interruption restart, @Nullable Interruption signOut) {
    }

    /**
     * When people are told.
     *
     * @param before how long before it begins, each an ISO 8601 period such as {@code PT1H}
     */
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    public record Tell(List<String> before, @Nullable Boolean start, @Nullable Boolean done) {
        public Tell {
            before = before == null ? List.of() : List.copyOf(before);
        }
    }

    /** How a restart or a sign-out comes about. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Interruption(@Schema(allowableValues = {"none", "ask", "night", "now", "wait"}) String way, @Nullable Deferral defer) {
    }

    /**
     * How often, and for how long in all, a person may put it off.
     *
     * @param until an ISO 8601 period
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Deferral(@Nullable Integer times, @Nullable String until) {
    }
}
