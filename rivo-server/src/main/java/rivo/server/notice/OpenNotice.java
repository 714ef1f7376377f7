package rivo.server.notice;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.RefusedException;
import rivo.devices.protocol.Courtesy.Interruption;
import rivo.devices.protocol.NoticeAnswer;
import rivo.devices.protocol.NoticeKind;
import rivo.devices.protocol.NoticeState;
import rivo.devices.protocol.Report;

/**
 * A notice of a device from which something may still come: it asks, has been put off, counts down, or is held back. Immutable.
 *
 * @param notice as the device has numbered it
 * @param person the id of who has been shown it; null while nobody has
 * @param since when it was first told of
 * @param until when one that is put off is asked again, or a countdown ends; null otherwise
 * @param left how often the device says it may still be put off; null of what does not ask
 * @param last when it counts down at the latest; null likewise
 * @param putOff how often it has been put off
 * @param said what somebody has answered on their shelf, which the device has not told of yet; null for nothing
 */
public record OpenNotice(String notice, NoticeKind kind, List<String> titles, @Nullable String person, NoticeState state, Instant since,
        @Nullable Instant until, @Nullable Integer left, @Nullable Instant last, int putOff, @Nullable Said said) {

    /** How far the clock of a device may be off that puts something off to the last moment. */
    private static final Duration SLACK = Duration.ofMinutes(1);

    /** @param person the id of who said so */
    public record Said(NoticeAnswer answer, @Nullable Instant until, String person) {
    }

    public OpenNotice {
        titles = List.copyOf(titles);
    }

    /** How it stands once the device has told of it. @param before null where it is told of for the first time */
    static OpenNotice told(@Nullable OpenNotice before, Report.Told told, @Nullable String person, Instant now) {
        int putOff = (before == null ? 0 : before.putOff) + (told.answer() != null && told.answer().putsOff() ? 1 : 0);
        return new OpenNotice(told.notice(), told.kind(), told.titles(), person == null && before != null ? before.person : person, told.state(),
                before == null ? now : before.since, told.until(), told.left(), told.last(), putOff, null);
    }

    OpenNotice said(Said answer) {
        return new OpenNotice(notice, kind, titles, person, state, since, until, left, last, putOff, answer);
    }

    /**
     * Whether an answer counts.
     *
     * @param allowed how often and how long it may be put off
     * @throws RefusedException where it does not
     */
    void check(NoticeAnswer answer, @Nullable Instant to, Interruption allowed, Instant now) {
        if (answer == NoticeAnswer.READ) {
            if (kind.asks()) {
                throw new RefusedException("asks", "answer", "This notice asks for an answer; say now, later or at-sign-out.");
            }
        } else if (!kind.asks()) {
            throw new RefusedException("asks-nothing", "answer", "This notice asks for nothing; say read.");
        } else if (answer.putsOff()) {
            putOff(answer, to, allowed, now);
        }
    }

    private void putOff(NoticeAnswer answer, @Nullable Instant to, Interruption allowed, Instant now) {
        if (state == NoticeState.COUNTING_DOWN) {
            throw new RefusedException("counts-down", "answer", "It counts down already and cannot be put off any more. Save your work.");
        }
        if (putOff >= allowed.times()) {
            throw new RefusedException("put-off-too-often", "answer", "It has been put off " + putOff + " times, as often as it may be.");
        }
        if (answer == NoticeAnswer.LATER) {
            Instant latest = Objects.requireNonNullElse(last, since.plusSeconds(allowed.withinSeconds()));
            Instant bound = latest.isBefore(since.plusSeconds(allowed.withinSeconds())) ? latest : since.plusSeconds(allowed.withinSeconds());
            if (to == null || !to.isAfter(now)) {
                throw new RefusedException("bad-time", "until", "Say until when it is to wait: a time to come.");
            }
            if (to.isAfter(bound.plus(SLACK))) {
                throw new RefusedException("put-off-too-long", "until", "It may wait until " + bound + " at the latest; choose an earlier time.");
            }
        }
    }
}
