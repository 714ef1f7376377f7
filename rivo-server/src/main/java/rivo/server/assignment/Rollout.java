package rivo.server.assignment;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * How the waves of an assignment go on. (Section 6 of the delivery rules.)
 *
 * @param stopped whether nothing further opens, by hand or by rule; what is open stays open
 * @param opens when the next wave opens by itself; null where waves open by hand alone
 * @param stops when they stop by themselves; null where only somebody stops them
 * @param lastOpened when the last of the open waves was opened; kept by the server, whatever is sent
 */
@JsonInclude(JsonInclude.Include.NON_DEFAULT)
public record Rollout(boolean stopped, @Nullable Opens opens, @Nullable Stops stops, @Nullable Instant lastOpened) {

    public static final Rollout BY_HAND = new Rollout(false, null, null, null);

    public Rollout {
        opens = Opens.NOTHING.equals(opens) ? null : opens;
    }

    /**
     * What has to hold before the next wave opens by itself; all of what is given.
     *
     * @param notBefore an instant before which none does
     * @param after how long the last one has to have been open, an ISO 8601 period such as {@code P1D}
     * @param inPlace how many in 100 of those of the last wave that have called in since it opened have to be in place, 1 to 100
     * @param atLeast how many have to be in place at least; 1 where nothing is said
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Opens(@Nullable Instant notBefore, @Nullable String after, @Nullable Integer inPlace, @Nullable Integer atLeast) {

        static final Opens NOTHING = new Opens(null, null, null, null);
    }

    /**
     * When they stop.
     *
     * @param failed when more than so many in 100 of those that tried have failed, 0 to 99
     * @param atLeast and so many of them; 1 where nothing is said
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Stops(int failed, @Nullable Integer atLeast) {
    }

    public Rollout withStopped(boolean nowStopped) {
        return new Rollout(nowStopped, opens, stops, lastOpened);
    }

    Rollout openedAt(@Nullable Instant at) {
        return new Rollout(stopped, opens, stops, at);
    }
}
