package rivo.devices.fleet;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.Courtesy.Interruption;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.EnrolmentToken;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.NoticeKind;
import rivo.devices.protocol.NoticeState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.devices.protocol.ShelfAct;
import rivo.devices.protocol.WaitReason;
import rivo.devices.protocol.Way;
import rivo.devices.protocol.Work;

/**
 * One device. It enrols, reports what it is, calls in, and carries its jobs out one after another, a step at each turn.
 * Used by one thread at a time; the fleet takes turns.
 */
final class SimulatedDevice {

    /** How many steps' time a restart takes. */
    private static final int RESTART_STEPS = 12;
    /** What is counted of a job besides its tries. */
    private static final String AGAIN = "again ";
    private static final String FAILED = "failed ";
    /** Of a thousand steps that close programs, so many find one open; and of as many sign-outs, so many switch the computer off. */
    private static final int OPEN_PROGRAMS = 400;
    private static final int RESTARTS_OF_THEIR_OWN = 250;

    private final Roster.Entry entry;
    private final Luck luck;
    private final ServerConnection server;
    private final KeptState kept;
    private final DeviceReports reports;
    private final Tries tries;
    /** What has been fetched and is still there, by what it should be: its SHA-256. */
    private final Map<String, String> contents = new HashMap<>();
    private final Sessions sessions;
    private Work work = Work.nothing();
    private @Nullable String etag;
    private @Nullable RunningJob running;
    private @Nullable List<String> signedInReported;
    private final Map<String, String> toldWaiting = new HashMap<>();
    private final DeviceNotices notices;
    /** Begun, and waiting until programs are closed. */
    private final Map<String, RunningJob> parked = new HashMap<>();
    /** Jobs for which programs were closed before they had come so far again. */
    private final Set<String> closedFor = new HashSet<>();
    private final Duration restartTime;
    private final int shelfUse;
    /** How what is asked stood when it was last said. */
    private Map<String, String> stood = Map.of();
    private @Nullable Instant callInDue;
    /** Until when it restarts; null while it does not. */
    private @Nullable Instant restartEnds;
    /** Until when somebody who was signed out stays away. */
    private Instant signedOutUntil = Instant.EPOCH;

    SimulatedDevice(Roster.Entry entry, DeviceState state, Luck luck, ServerConnection server, FleetStore store, NoticeLog log, FleetSettings settings) {
        this.tries = new Tries(settings.retryAfter());
        this.notices = new DeviceNotices(state.notices(), log, new SimulatedPerson(luck, !entry.triedOut(), settings.retryAfter()), settings.retryAfter());
        this.shelfUse = entry.triedOut() ? 0 : settings.shelf();
        this.restartTime = settings.stepTime().multipliedBy(RESTART_STEPS);
        this.sessions = new Sessions(luck, entry.people(), entry.triedOut() ? Duration.ZERO : settings.sessions());
        this.entry = entry;
        this.kept = new KeptState(state, store);
        this.reports = new DeviceReports(kept, server, notices);
        this.luck = luck;
        this.server = server;
    }

    boolean isLively() {
        return entry.lively();
    }

    boolean isEnrolled() {
        return state().isEnrolled();
    }

    String name() {
        return entry.name();
    }

    /** How long until the next turn: the time of a step or a restart, until a new try, or until the next call-in. */
    Duration nextTurn(FleetSettings settings, Duration interval) {
        if (restartEnds != null) {
            return restartTime;
        }
        if (running != null || notices.isAsking()) {
            return settings.stepTime();
        }
        DeviceJobs jobs = jobs();
        Instant now = Instant.now();
        // One whose time has come and that has not begun waits for something else: that is looked at with the next call-in.
        return work.jobs().stream().filter(job -> !jobs.isSo(job)).map(job -> tries.left(DeviceJobs.key(job), now))
                .filter(left -> !left.isZero() && left.compareTo(interval) < 0).min(Comparator.naturalOrder()).orElse(interval);
    }

    /** One turn: a call-in when it is due, and a step of the job under way. */
    void turn(Duration interval) throws IOException, InterruptedException {
        if (!state().isEnrolled()) {
            enrol();
        }
        Instant now = Instant.now();
        if (restartEnds != null) {
            if (now.isBefore(restartEnds)) {
                return;
            }
            restarted();
        }
        List<String> before = signedInIds();
        if (callInDue == null || !now.isBefore(callInDue)) {
            tellWhoIsSignedIn();
            callIn(interval);
            callInDue = now.plus(interval);
        }
        mindPeople(before, now);
        if (restartEnds != null) {
            return;
        }
        if (running == null) {
            startNext();
        } else {
            advance(running);
        }
        if (!state().unheard().isNothing()) {
            reports.say(jobs().present());
        }
    }

    /** Where whoever is signed in here comes to their shelf of this device, once. */
    String shelfLink(@Nullable String title) throws IOException, InterruptedException {
        List<String> signedIn = Objects.requireNonNullElse(signedInReported, List.of());
        if (title != null && Objects.requireNonNullElse(work.menu(), List.<Work.Entry>of()).stream().noneMatch(entry -> entry.title().equals(title))) {
            throw new IOException("the menu of " + name() + " has no entry " + title);
        }
        if (signedIn.isEmpty()) {
            throw new IOException("nobody is signed in on " + name());
        }
        return server.shelfLink(state(), signedIn.get(0), title).path();
    }

    private DeviceJobs jobs() {
        return new DeviceJobs(work, state());
    }

    /** Before it calls in: what it shall do may hang on it. Whoever signs in has a profile from then on. */
    private void tellWhoIsSignedIn() throws IOException, InterruptedException {
        List<String> signedIn = Instant.now().isBefore(signedOutUntil) ? List.of() : sessions.at(Instant.now());
        if (signedIn.equals(signedInReported)) {
            return;
        }
        for (String account : signedIn) {
            if (!state().profiles().containsKey(account)) {
                kept.keep(state().withProfile(account, Map.of()));
            }
        }
        // What it shall do, and where it finds content, hangs on what it is.
        boolean first = signedInReported == null;
        reports.sayWhoIsSignedIn(first ? entry.facts() : null, signedIn);
        signedInReported = signedIn;
        if (!first && !signedIn.isEmpty()) {
            useShelf(signedIn.get(0));
        }
    }

    /** Whoever has signed in may look at their shelf, which the agent shows. */
    private void useShelf(String account) throws IOException, InterruptedException {
        String time = "time " + state().reports();
        if (luck.perMille("shelf " + time) < shelfUse) {
            ShelfAct act = SimulatedPerson.does(luck, server.shelf(state(), account), account, time);
            if (act != null) {
                server.act(state(), act);
            }
        }
    }

    private void enrol() throws IOException, InterruptedException {
        kept.keep(state());
        EnrolmentToken token = EnrolmentToken.parse(entry.token())
                .orElseThrow(() -> new IOException("there is no token to enrol with"));
        Enrolled enrolled = server.enrol(token, AgreementKey.of(state().privateKey()));
        kept.keep(state().enrolled(enrolled.device(), token.serverPublicKey()));
    }

    private void callIn(Duration next) throws IOException, InterruptedException {
        HttpResponse<byte[]> response = server.callIn(state(), etag, next);
        if (response.statusCode() == 200) {
            work = server.work(response.body());
            if (work.serverKey() != null) {
                // The answer was signed by the key that it replaces.
                kept.keep(state().enrolled(Objects.requireNonNull(state().id()), work.serverKey()));
            }
            etag = response.headers().firstValue("ETag").orElse(null);
            parked.keySet().retainAll(work.jobs().stream().map(DeviceJobs::key).toList());
            notices.isToDo(work, Instant.now());
        }
        if (response.statusCode() == 200 && running != null) {
            tellWhatIsNext(running.job());
        }
        reports.sayWhatIsPresent(jobs().present());
    }

    /** Says of what could begin that it has heard of it, where another job is under way. */
    private void tellWhatIsNext(Job current) throws IOException, InterruptedException {
        String currentKey = DeviceJobs.key(current);
        List<Progress> next = new ArrayList<>();
        for (Job job : work.jobs()) {
            JobBeginning beginning = new JobBeginning(work, job);
            boolean isNew = !DeviceJobs.key(job).equals(currentKey) && isDue(job) && isSignedIn(job) && beginning.isNow();
            if (isNew && toldWaiting.putIfAbsent(DeviceJobs.key(job), "next") == null) {
                next.add(beginning.waitsAfter(current.name()));
            }
        }
        if (!next.isEmpty()) {
            reports.say(next, List.of());
        }
    }

    /** Whether there is something to do of a job now that does not wait for people. */
    private boolean isDue(Job job) {
        String key = DeviceJobs.key(job);
        DeviceJobs jobs = jobs();
        return !state().notices().unfinished().containsKey(key) && !parked.containsKey(key) && tries.isDue(key, Instant.now()) && !jobs.isSo(job) && jobs.hasItsDevicePart(job);
    }

    private void startNext() throws IOException, InterruptedException {
        Instant now = Instant.now();
        RunningJob resumed = parked.values().stream().filter(one -> one.needs() == null).findFirst().orElse(null);
        if (resumed != null) {
            parked.values().remove(resumed);
            running = resumed;
            reports.say(List.of(resumed.resumed()), List.of());
            return;
        }
        for (Job job : work.jobs()) {
            String key = DeviceJobs.key(job);
            if (isDue(job)) {
                JobBeginning beginning = new JobBeginning(work, job);
                if (!isSignedIn(job) || !beginning.isNow()) {
                    // One behind it may be for somebody else, or shorter.
                    notices.coming(job, beginning.next(), now);
                    tellItWaits(job);
                    continue;
                }
                int tried = count(key, 1);
                running = new RunningJob(job, work.mirrors(), luck.mishap(key, tried), contents, step -> areRunning(key, step));
                toldWaiting.remove(key);
                notices.tell(job, NoticeKind.START, now);
                reports.say(List.of(running.started()), List.of());
                return;
            }
        }
    }

    /** Whether the person whose job it is is there; for the device's, always. */
    private boolean isSignedIn(Job job) {
        return job.person() == null || Objects.requireNonNullElse(signedInReported, List.of()).contains(jobs().account(job));
    }

    /** Whether programs are open that a step names: now and then, while somebody is there. */
    private boolean areRunning(String job, Job.Step close) {
        return !closedFor.remove(job) && !signedInIds().isEmpty() && luck.perMille("open " + close.command() + " for " + job) < OPEN_PROGRAMS;
    }

    /** Says once for each job that it waits, and for what. */
    private void tellItWaits(Job job) throws IOException, InterruptedException {
        JobBeginning beginning = new JobBeginning(work, job);
        Progress says = isSignedIn(job) ? beginning.waits() : beginning.waitsFor(nameOf(job.person()));
        if (!says.message().equals(toldWaiting.put(DeviceJobs.key(job), says.message()))) {
            reports.say(List.of(says), List.of());
        }
    }

    private String nameOf(@Nullable String person) {
        return jobs().people().stream().filter(one -> one.id().equals(person)).map(Work.Person::name).findFirst().orElse("its person");
    }

    private void advance(RunningJob current) throws IOException, InterruptedException {
        String key = DeviceJobs.key(current.job());
        if (!isSignedIn(current.job())) {
            // It begins anew when they are back, and that costs no try.
            count(key, -1);
            running = null;
            tellItWaits(current.job());
            return;
        }
        Progress progress = current.next(server, state());
        if (progress.state() == JobState.DONE) {
            running = null;
            finish(current.job(), progress, current.takeFetched());
            return;
        }
        NoticeKind needs = current.needs();
        Instant now = Instant.now();
        if (needs != null) {
            running = null;
            if (needs == NoticeKind.CLOSE) {
                parked.put(key, current);
            }
            notices.ask(current.job(), needs, needs == NoticeKind.RESTART ? current.job().courtesy().restart() : needs == NoticeKind.SIGN_OUT ? current.job().courtesy().signOut()
                    : toClose(current.job()), now);
            reports.keepNotices();
        } else if (progress.state() == JobState.FAILED || progress.state() == JobState.WAITING) {
            progress = later(current, progress, key);
            running = null;
            if (progress.state() == JobState.FAILED) {
                notices.tell(current.job(), NoticeKind.FAILED, now);
            }
        }
        reports.say(List.of(progress), current.takeFetched());
    }

    /** Whoever is there is asked to close programs, whatever else they are asked for; it may be put off as a restart may. */
    private static Interruption toClose(Job job) {
        Interruption restart = job.courtesy().restart();
        return new Interruption(Way.ASK, restart.times(), restart.withinSeconds(), restart.countdownSeconds());
    }

    private void finish(Job job, Progress done, List<Report.Fetched> fetched) throws IOException, InterruptedException {
        String key = DeviceJobs.key(job);
        // Together, so that nothing is put on and never said, whatever comes in between.
        kept.keep(jobs().after(job).with(state().unheard().and(List.of(done), fetched)));
        List.of(key, AGAIN + key, FAILED + key).forEach(this::forget);
        tries.forget(key);
        job.contents().forEach(content -> contents.remove(content.sha256()));
        notices.tell(job, job.action() == JobAction.INSTALL ? NoticeKind.DONE : NoticeKind.REMOVED, Instant.now());
        reports.say(jobs().present());
    }

    /** The ids of those who are signed in. */
    private List<String> signedInIds() {
        List<String> accounts = Objects.requireNonNullElse(signedInReported, List.of());
        return jobs().people().stream().filter(person -> accounts.contains(person.account())).map(Work.Person::id).toList();
    }

    /** Tells and asks what there is to tell and ask, and does what people have agreed to, or what has come to its end. */
    private void mindPeople(List<String> before, Instant now) throws IOException, InterruptedException {
        List<String> there = signedInIds();
        List<String> signedOut = before.stream().filter(person -> !there.contains(person)).toList();
        notices.isThere(there);
        for (Ask granted : notices.look(signedOut, now)) {
            if (running == null || granted.kind() == NoticeKind.CLOSE) {
                grant(granted, now);
            }
        }
        if (!signedOut.isEmpty() && restartEnds == null) {
            // Some switch their computer off when they go.
            boolean restarts = running == null && luck.perMille("restart after " + state().reports()) < RESTARTS_OF_THEIR_OWN;
            happened(now, restarts ? new NoticeKind[] {NoticeKind.RESTART, NoticeKind.SIGN_OUT} : new NoticeKind[] {NoticeKind.SIGN_OUT});
        }
        List<Progress> changed = waitingForPeople(now);
        reports.keepNotices();
        if (!changed.isEmpty() || !notices.unreported().isEmpty()) {
            reports.say(changed, List.of());
        }
    }

    private void grant(Ask ask, Instant now) throws IOException, InterruptedException {
        notices.ended(ask, NoticeState.DONE, now);
        switch (ask.kind()) {
            case RESTART -> restartEnds = now.plus(restartTime);
            case SIGN_OUT -> {
                signedOutUntil = now.plus(restartTime);
                callInDue = null;
                happened(now, NoticeKind.SIGN_OUT);
            }
            default -> ask.jobs().forEach(job -> {
                RunningJob waits = parked.get(job);
                if (waits == null) {
                    closedFor.add(job);
                } else {
                    waits.closed();
                }
            });
        }
    }

    /** It is up again: what only waited for that is done, for a sign-out too. */
    private void restarted() throws IOException, InterruptedException {
        restartEnds = null;
        callInDue = null;
        happened(Instant.now(), NoticeKind.RESTART, NoticeKind.SIGN_OUT);
    }

    /** Ends whatever only waited for that. */
    private void happened(Instant now, NoticeKind... kinds) throws IOException, InterruptedException {
        Set<String> keys = notices.happened(now, kinds);
        for (Job job : work.jobs()) {
            if (keys.contains(DeviceJobs.key(job))) {
                finish(job, RunningJob.done(job, null), List.of());
            }
        }
    }

    /** How what is asked stands, by the job that waits for it, in words. */
    private Map<String, String> standing(Instant now) {
        Map<String, String> standing = new HashMap<>();
        notices.book().asks().forEach(ask -> ask.jobs().forEach(job -> standing.put(job, AskedJob.words(ask, this::nameOf, now))));
        return standing;
    }

    /** What is to be said anew of jobs that wait for people. */
    private List<Progress> waitingForPeople(Instant now) {
        Map<String, String> before = stood;
        stood = standing(now);
        return work.jobs().stream().filter(job -> !Objects.equals(stood.get(DeviceJobs.key(job)), before.get(DeviceJobs.key(job)))).map(job -> {
            Ask ask = notices.askOf(DeviceJobs.key(job));
            return ask == null ? null : AskedJob.progress(job, ask, this::nameOf, now);
        }).filter(Objects::nonNull).toList();
    }

    /** What comes of a try that ended otherwise than well: when the next one is, counted from its end. */
    private Progress later(RunningJob current, Progress progress, String key) {
        Instant ended = progress.at();
        if (current.againMinutes() > 0 && count(AGAIN + key, 1) <= Tries.MOST_AGAIN) {
            return progress.waiting(WaitReason.TRY, tries.afterMinutes(key, current.againMinutes(), ended));
        }
        if (current.againMinutes() > 0 || progress.state() == JobState.FAILED) {
            Progress failed = current.againMinutes() > 0 ? current.failed("another installer was still running at the last of " + Tries.MOST_AGAIN + " tries") : progress;
            forget(AGAIN + key);
            return failed.waiting(WaitReason.TRY, tries.afterFailure(key, count(FAILED + key, 1), ended));
        }
        // Waiting is no failure: it is looked at again, and costs no try.
        count(key, -1);
        WaitReason reason = progress.waits() == null ? WaitReason.TRY : progress.waits().reason();
        return progress.waiting(reason, tries.afterALook(key, ended));
    }

    /** Counts, over restarts too. */
    private int count(String what, int more) {
        Map<String, Integer> attempts = new HashMap<>(state().attempts());
        int count = Math.max(0, attempts.getOrDefault(what, 0) + more);
        attempts.put(what, count);
        kept.keep(state().withAttempts(attempts));
        return count;
    }

    private void forget(String what) {
        Map<String, Integer> attempts = new HashMap<>(state().attempts());
        attempts.remove(what);
        kept.keep(state().withAttempts(attempts));
    }

    private DeviceState state() {
        return kept.state();
    }
}
