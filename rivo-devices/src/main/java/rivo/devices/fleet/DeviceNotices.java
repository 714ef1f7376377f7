package rivo.devices.fleet;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Courtesy.Interruption;
import rivo.devices.protocol.Courtesy.Notice;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.NoticeAnswer;
import rivo.devices.protocol.NoticeKind;
import rivo.devices.protocol.NoticeState;
import rivo.devices.protocol.QuietHours;
import rivo.devices.protocol.ReportAnswer;
import rivo.devices.protocol.Report.Told;
import rivo.devices.protocol.Way;
import rivo.devices.protocol.Work;

/**
 * What one device tells and asks its people (sections 4 and 5 of the delivery rules), and what they answer. Each thing is shown once; in quiet
 * hours, and while nobody is there, what does not count down is held back. Used by one thread.
 */
final class DeviceNotices {

    private static final String LANGUAGE = "en";

    private final NoticeLog log;
    private final SimulatedPerson person;
    private final Duration quarter;
    private final List<Told> unreported = new ArrayList<>();
    private NoticeBook book;
    private List<String> there = List.of();
    private Map<String, Job> jobs = Map.of();
    private List<Work.Person> people = List.of();
    private @Nullable QuietHours quiet;

    /** @param quarter what a quarter of an hour takes here */
    DeviceNotices(NoticeBook book, NoticeLog log, SimulatedPerson person, Duration quarter) {
        this.book = book;
        this.log = log;
        this.person = person;
        this.quarter = quarter;
    }

    NoticeBook book() {
        return book;
    }

    /** What has changed and has not reached the server yet, the newest last. */
    List<Told> unreported() {
        return List.copyOf(unreported);
    }

    /** These have reached it. */
    void reported(List<Told> told) {
        unreported.subList(0, told.size()).clear();
    }

    /** @param people the ids of those who are signed in */
    void isThere(List<String> people) {
        there = List.copyOf(people);
    }

    /** What is not to be done any more is not told of, nor asked for. */
    void isToDo(Work work, Instant now) {
        quiet = work.quietHours();
        people = Objects.requireNonNullElse(work.people(), List.of());
        jobs = work.jobs().stream().collect(Collectors.toMap(DeviceJobs::key, job -> job, (one, other) -> one));
        keepOnly(jobs.keySet(), now);
        heard(Objects.requireNonNullElse(work.answers(), List.of()), now);
    }

    /** The one that a job waits for; null without one. */
    @Nullable Ask askOf(String job) {
        return book.asks().stream().filter(ask -> ask.jobs().contains(job)).findFirst().orElse(null);
    }

    /** Tells that a job is going to begin, as long before as it says; of several times that have passed, the nearest. */
    void coming(Job job, @Nullable Instant begins, Instant now) {
        String key = DeviceJobs.key(job);
        for (Notice notice : begins == null ? List.<Notice>of() : job.courtesy().notices()) {
            Integer before = notice.beforeSeconds();
            boolean isDue = notice.kind() == NoticeKind.COMING && before != null && !now.isBefore(begins.minusSeconds(before));
            boolean isNearest = isDue && job.courtesy().notices().stream().noneMatch(other -> other.kind() == NoticeKind.COMING && other.beforeSeconds() != null
                    && other.beforeSeconds() < before && !now.isBefore(begins.minusSeconds(other.beforeSeconds())));
            if (isDue && isFirst(key + " coming " + before) && isNearest) {
                withdrawHeld(held -> held.job().equals(key) && held.kind() == NoticeKind.COMING, now);
                tell(job, notice, begins, now);
            }
        }
    }

    /** Tells something of a job, where its courtesy says so. */
    void tell(Job job, NoticeKind kind, Instant now) {
        Notice notice = job.courtesy().notice(kind);
        String key = DeviceJobs.key(job);
        withdrawHeld(held -> held.job().equals(key), now);
        if (notice != null && isFirst(key + " " + kind.word())) {
            tell(job, notice, null, now);
        }
    }

    /** Whether this has not been told of a job before. */
    private boolean isFirst(String what) {
        boolean first = !book.told().contains(what);
        book = book.told(what);
        return first;
    }

    private void tell(Job job, Notice notice, @Nullable Instant time, Instant now) {
        book = book.withNext();
        NoticeBook.Held held = new NoticeBook.Held(String.valueOf(book.last()), notice.kind(), DeviceJobs.key(job), job.title(), job.person(),
                words(notice.words(), time));
        String to = reader(held.person());
        if (to != null && !isQuiet(now)) {
            show(held, to, now);
        } else {
            book = book.withHeld(append(book.held(), held));
            unreported.add(told(held, held.person(), NoticeState.HELD, null, now));
        }
    }

    private void show(NoticeBook.Held held, String to, Instant now) {
        log.shown(held.kind(), account(to), held.words());
        unreported.add(told(held, to, NoticeState.SHOWN, null, now));
    }

    private static Told told(NoticeBook.Held held, @Nullable String to, NoticeState state, @Nullable NoticeAnswer answer, Instant now) {
        return new Told(held.id(), held.kind(), List.of(held.title()), to, state, now, null, null, null, answer);
    }

    private static <T> List<T> append(List<T> list, T one) {
        List<T> next = new ArrayList<>(list);
        next.add(one);
        return next;
    }

    private static String words(Map<String, String> words, @Nullable Instant time) {
        String text = Notice.in(words, LANGUAGE);
        return time == null ? text : text.replace("{time}", AskedJob.words(time));
    }

    /** Who is shown what is for one of them, or for whoever is there; null where nobody is. */
    private @Nullable String reader(@Nullable String only) {
        return only == null ? there.stream().findFirst().orElse(null) : there.contains(only) ? only : null;
    }

    private boolean isQuiet(Instant now) {
        return quiet != null && quiet.include(LocalTime.ofInstant(now, ZoneId.systemDefault()));
    }

    private String account(String person) {
        return people.stream().filter(one -> one.id().equals(person)).map(Work.Person::account).findFirst().orElse(person);
    }

    private void withdrawHeld(Predicate<NoticeBook.Held> which, Instant now) {
        book.held().stream().filter(which).forEach(held -> unreported.add(told(held, null, NoticeState.OVER, null, now)));
        book = book.withHeld(book.held().stream().filter(which.negate()).toList());
    }

    /**
     * Asks for what a job needs. One that needs the same as another shares what is asked.
     *
     * @param by how it comes about; what nobody is asked for only waits
     */
    void ask(Job job, NoticeKind kind, Interruption by, Instant now) {
        String key = DeviceJobs.key(job);
        if (kind != NoticeKind.CLOSE) {
            book = book.unfinished(key, kind);
        }
        if (!by.way().speaks()) {
            return;
        }
        Ask known = book.asks().stream().filter(one -> one.kind() == kind && (kind != NoticeKind.CLOSE || one.jobs().contains(key))).findFirst().orElse(null);
        if (known == null) {
            book = book.withNext();
            known = Ask.of(String.valueOf(book.last()), kind, key, job.title(), by, quarter, now);
        }
        Ask ask = known.and(key, job.title());
        ask = by.way() == Way.NOW ? ask.countingDown(now) : ask;
        book = book.with(ask);
        if (ask.countsDown() || ask.person() != null) {
            String to = there.stream().findFirst().orElse(null);
            keep(to == null ? ask : ask.shownTo(to, now), null, null, now);
        }
    }

    private void show(Ask ask, String to, Instant now) {
        Job job = ask.jobs().stream().map(jobs::get).filter(Objects::nonNull).findFirst().orElse(null);
        Notice notice = job == null ? null : job.courtesy().notice(ask.kind());
        Map<String, String> said = notice == null ? Map.of() : ask.countsDown() && notice.lastWords() != null ? notice.lastWords() : notice.words();
        log.shown(ask.kind(), account(to), words(said, ask.countsDown() ? ask.ends() : ask.last()));
        keep(ask, null, null, now);
    }

    private void keep(Ask ask, @Nullable String by, @Nullable NoticeAnswer answer, Instant now) {
        book = book.with(ask);
        unreported.add(ask.told(ask.state(now), by == null ? ask.person() : by, answer, now));
    }

    /** What people have said on their shelf. Whoever answers what is no longer asked changes nothing. */
    private void heard(List<Work.Answered> answers, Instant now) {
        for (Work.Answered one : answers) {
            Ask ask = book.asks().stream().filter(each -> each.id().equals(one.notice())).findFirst().orElse(null);
            if (ask != null) {
                answer(ask, one.answer(), one.until(), one.person(), now);
            } else if (one.answer() == NoticeAnswer.READ) {
                book.held().stream().filter(held -> held.id().equals(one.notice()))
                        .forEach(held -> unreported.add(told(held, one.person(), NoticeState.DONE, NoticeAnswer.READ, now)));
                book = book.withHeld(book.held().stream().filter(held -> !held.id().equals(one.notice())).toList());
            } else {
                unreported.add(new Told(one.notice(), NoticeKind.RESTART, List.of(), null, NoticeState.OVER, now, null, null, null, null));
            }
        }
    }

    private void answer(Ask ask, NoticeAnswer answer, @Nullable Instant until, String by, Instant now) {
        Instant to = answer == NoticeAnswer.AT_SIGN_OUT ? ask.last() : Objects.requireNonNullElse(until, ask.last());
        if (answer == NoticeAnswer.NOW) {
            keep(ask.shownTo(by, now).granted(now), by, answer, now);
        } else if (answer.putsOff() && ask.mayBePutOff(to)) {
            keep(ask.putOff(to, answer == NoticeAnswer.AT_SIGN_OUT), by, answer, now);
        } else {
            // It is told again how it stands.
            keep(ask, null, null, now);
        }
    }

    /** What the server does not let count is not put off. */
    void refused(List<ReportAnswer.RefusedAnswer> refused, Instant now) {
        for (ReportAnswer.RefusedAnswer one : refused) {
            book.asks().stream().filter(ask -> ask.id().equals(one.notice())).toList().forEach(ask -> keep(ask.countingDown(now), null, null, now));
        }
    }

    /**
     * Shows what has been held back, asks, and hears what people say.
     *
     * @param signedOut the ids of those who were signed in at the last look and are not any more
     * @return what may be done now
     */
    List<Ask> look(List<String> signedOut, Instant now) {
        for (NoticeBook.Held held : book.held()) {
            String to = reader(held.person());
            if (to != null && !isQuiet(now)) {
                book = book.withHeld(book.held().stream().filter(one -> one != held).toList());
                show(held, to, now);
            }
        }
        List<Ask> granted = new ArrayList<>();
        for (Ask ask : book.asks()) {
            if (there.isEmpty() || ask.hasRunOut(now) || ask.atSignOut() && ask.person() != null && signedOut.contains(ask.person())) {
                granted.add(ask);
            } else {
                look(ask, there.get(0), now);
            }
        }
        return granted;
    }

    private void look(Ask ask, String to, Instant now) {
        Ask next = ask.at(now);
        if (next.countsDown() && !ask.countsDown()) {
            show(next.shownTo(to, now), to, now);
        } else if (next.isAsking(now) && !isQuiet(now) && (next.person() == null || next.until() != null)) {
            show(next.shownTo(to, now).askedAgain(), to, now);
        } else {
            SimulatedPerson.Says says = person.says(next, now);
            if (says != null) {
                answer(next, says.answer(), says.until(), to, now);
            }
        }
    }

    /** What was asked for has happened, or nothing comes of it. */
    void ended(Ask ask, NoticeState how, Instant now) {
        book = book.without(ask);
        unreported.add(ask.told(how, ask.person(), null, now));
    }

    /** These have happened: nobody is asked for them any more. Gives the jobs of which all is done now. */
    Set<String> happened(Instant now, NoticeKind... happened) {
        Set<NoticeKind> kinds = Set.of(happened);
        book.asks().stream().filter(ask -> kinds.contains(ask.kind())).toList().forEach(ask -> ended(ask, NoticeState.DONE, now));
        Set<String> jobs = book.unfinished().entrySet().stream().filter(one -> kinds.contains(one.getValue())).map(Map.Entry::getKey).collect(Collectors.toSet());
        forgetUnfinished(jobs::contains);
        return jobs;
    }

    private void forgetUnfinished(Predicate<String> which) {
        Map<String, NoticeKind> left = new HashMap<>(book.unfinished());
        left.keySet().removeIf(which);
        book = book.withUnfinished(left);
    }

    private void keepOnly(Set<String> wanted, Instant now) {
        if (!wanted.containsAll(book.unfinished().keySet())) {
            forgetUnfinished(job -> !wanted.contains(job));
        }
        for (Ask ask : book.asks()) {
            if (ask.jobs().stream().noneMatch(wanted::contains)) {
                ended(ask, NoticeState.OVER, now);
            }
        }
        withdrawHeld(held -> !wanted.contains(held.job()) && (held.kind() == NoticeKind.COMING || held.kind() == NoticeKind.START), now);
        Set<String> told = new HashSet<>(book.told());
        if (told.removeIf(what -> wanted.stream().noneMatch(job -> what.startsWith(job + " ")))) {
            book = book.withTold(told);
        }
    }

    /** Whether it is to be looked at again soon. */
    boolean isAsking() {
        return !book.asks().isEmpty();
    }
}
