package rivo.devices.fleet;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Courtesy.Interruption;
import rivo.devices.protocol.NoticeAnswer;
import rivo.devices.protocol.NoticeKind;
import rivo.devices.protocol.NoticeState;
import rivo.devices.protocol.Report;

/**
 * Something that a device asks of whoever is signed in, and how that stands: it may be put off a few times, then counts down. Immutable.
 *
 * @param id by which the device tells it from all else that it has told and asked
 * @param jobs those that wait for it, as {@link DeviceJobs} names them
 * @param titles theirs
 * @param times how often it may be put off in all
 * @param last when it counts down at the latest
 * @param countdown how long
 * @param since when it was first asked
 * @param putOff how often it has been put off
 * @param until when it is asked again; null where it has not been put off
 * @param atSignOut whether it is to happen when they sign out
 * @param ends when its countdown ends; null before that
 * @param person the id of who has been shown it; null while nobody has
 */
record Ask(String id, NoticeKind kind, List<String> jobs, List<String> titles, int times, Instant last, Duration countdown, Instant since, int putOff,
        @Nullable Instant until, boolean atSignOut, @Nullable Instant ends, @Nullable String person) {

    Ask {
        jobs = List.copyOf(jobs);
        titles = List.copyOf(titles);
    }

    /** One that nobody has been shown. @param quarter what a quarter of an hour takes here */
    static Ask of(String id, NoticeKind kind, String job, String title, Interruption by, Duration quarter, Instant now) {
        return new Ask(id, kind, List.of(job), List.of(title), by.times(), now.plus(scaled(by.withinSeconds(), quarter)), scaled(by.countdownSeconds(), quarter), now,
                0, null, false, null, null);
    }

    private static Duration scaled(int seconds, Duration quarter) {
        return Duration.ofNanos((long) (quarter.toNanos() * (seconds / (double) Duration.ofMinutes(15).toSeconds())));
    }

    /** Another job needs the same; what is asked stays as it is. */
    Ask and(String job, String title) {
        List<String> newJobs = jobs.contains(job) ? jobs : append(jobs, job);
        return new Ask(id, kind, newJobs, titles.contains(title) ? titles : append(titles, title), times, last, countdown, since, putOff, until, atSignOut, ends,
                person);
    }

    private static List<String> append(List<String> list, String one) {
        List<String> next = new ArrayList<>(list);
        next.add(one);
        return next;
    }

    /** How long it may be put off counts from when it is first shown. */
    Ask shownTo(String newPerson, Instant now) {
        Instant first = person == null ? now : since;
        return new Ask(id, kind, jobs, titles, times, first.plus(Duration.between(since, last)), countdown, first, putOff, until, atSignOut, ends, newPerson);
    }

    boolean countsDown() {
        return ends != null;
    }

    /** Whether it waits for somebody's answer now. */
    boolean isAsking(Instant now) {
        return ends == null && (until == null || !now.isBefore(until));
    }

    /** Whether it is put off by this answer; else that changes nothing. */
    boolean mayBePutOff(Instant to) {
        return ends == null && putOff < times && !to.isAfter(last);
    }

    Ask putOff(Instant to, boolean toSignOut) {
        return new Ask(id, kind, jobs, titles, times, last, countdown, since, putOff + 1, to, toSignOut, null, person);
    }

    /** It may happen. */
    Ask granted(Instant now) {
        return new Ask(id, kind, jobs, titles, times, last, countdown, since, putOff, null, false, now, person);
    }

    /** What it was put off to has come. */
    Ask askedAgain() {
        return new Ask(id, kind, jobs, titles, times, last, countdown, since, putOff, null, false, ends, person);
    }

    /** The server does not take that it is put off: it is asked no more. */
    Ask refused(Instant now) {
        return new Ask(id, kind, jobs, titles, times, last, countdown, since, putOff, null, false, now.plus(countdown), person);
    }

    /** Counting down, where that is all that is left. Nobody's time runs out before they have been asked. */
    Ask at(Instant now) {
        boolean isLate = person != null && !now.isBefore(last);
        return ends != null || !isLate && !(isAsking(now) && putOff >= times) ? this : refused(now);
    }

    Ask countingDown(Instant now) {
        return ends == null ? refused(now) : this;
    }

    boolean hasRunOut(Instant now) {
        return ends != null && !now.isBefore(ends);
    }

    NoticeState state(Instant now) {
        return ends != null ? NoticeState.COUNTING_DOWN : person == null ? NoticeState.HELD : isAsking(now) ? NoticeState.SHOWN : NoticeState.PUT_OFF;
    }

    Report.Told told(NoticeState state, @Nullable String by, @Nullable NoticeAnswer answer, Instant now) {
        Instant told = state == NoticeState.COUNTING_DOWN ? ends : state == NoticeState.PUT_OFF ? until : null;
        return new Report.Told(id, kind, titles, by, state, now, told, Math.max(0, times - putOff), last, answer);
    }
}
