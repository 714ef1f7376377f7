package rivo.devices.fleet;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.EnrolmentToken;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;
import rivo.devices.protocol.WaitReason;
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
    private static final DateTimeFormatter OPENS = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);

    private final Roster.Entry entry;
    private final Luck luck;
    private final ServerConnection server;
    private final FleetStore store;
    private final Tries tries;
    /** What has been fetched and is still there, by what it should be: its SHA-256. */
    private final Map<String, String> contents = new HashMap<>();
    private final Sessions sessions;
    private DeviceState state;
    private Work work = Work.nothing();
    private @Nullable String etag;
    private @Nullable RunningJob running;
    private @Nullable List<Report.Found> presentReported;
    private @Nullable List<String> signedInReported;
    private final Map<String, String> toldWaiting = new HashMap<>();
    private @Nullable Instant callInDue;

    SimulatedDevice(Roster.Entry entry, DeviceState state, Luck luck, ServerConnection server, FleetStore store, FleetSettings settings) {
        this.tries = new Tries(settings.retryAfter());
        this.sessions = new Sessions(luck, entry.people(), settings.sessions());
        this.entry = entry;
        this.state = state;
        this.luck = luck;
        this.server = server;
        this.store = store;
    }

    boolean isLively() {
        return entry.lively();
    }

    boolean isEnrolled() {
        return state.isEnrolled();
    }

    String name() {
        return entry.name();
    }

    /** How long until the next turn: the time of a step or a restart, until a new try, or until the next call-in. */
    Duration nextTurn(FleetSettings settings, Duration interval) {
        if (running != null) {
            return running.isRestarting() ? settings.stepTime().multipliedBy(RESTART_STEPS) : settings.stepTime();
        }
        DeviceJobs jobs = jobs();
        Instant now = Instant.now();
        // One whose time has come and that has not begun waits for something else: that is looked at with the next call-in.
        return work.jobs().stream().filter(job -> !jobs.isSo(job)).map(job -> tries.left(DeviceJobs.key(job), now))
                .filter(left -> !left.isZero() && left.compareTo(interval) < 0).min(Comparator.naturalOrder()).orElse(interval);
    }

    /** One turn: a call-in when it is due, and a step of the job under way. */
    void turn(Duration interval) throws IOException, InterruptedException {
        if (!state.isEnrolled()) {
            enrol();
        }
        Instant now = Instant.now();
        if (callInDue == null || !now.isBefore(callInDue)) {
            tellWhoIsSignedIn();
            callIn(interval);
            callInDue = now.plus(interval);
        }
        if (running == null) {
            startNext();
        } else {
            advance(running);
        }
    }

    /** Where whoever is signed in here comes to their shelf of this device, once. */
    String shelfLink() throws IOException, InterruptedException {
        List<String> signedIn = Objects.requireNonNullElse(signedInReported, List.of());
        if (signedIn.isEmpty()) {
            throw new IOException("nobody is signed in on " + name());
        }
        return server.shelfLink(state, signedIn.get(0)).path();
    }

    private DeviceJobs jobs() {
        return new DeviceJobs(work, state);
    }

    /** Before it calls in: what it shall do may hang on it. Whoever signs in has a profile from then on. */
    private void tellWhoIsSignedIn() throws IOException, InterruptedException {
        List<String> signedIn = sessions.at(Instant.now());
        if (signedIn.equals(signedInReported)) {
            return;
        }
        for (String account : signedIn) {
            if (!state.profiles().containsKey(account)) {
                keep(state.withProfile(account, Map.of()));
            }
        }
        // What it shall do, and where it finds content, hangs on what it is.
        boolean first = signedInReported == null;
        send(new Report(0, first ? entry.facts() : null, first ? software() : null, null, List.of(), List.of(), signedIn));
        signedInReported = signedIn;
    }

    private void enrol() throws IOException, InterruptedException {
        store.keep(state);
        EnrolmentToken token = EnrolmentToken.parse(entry.token())
                .orElseThrow(() -> new IOException("there is no token to enrol with"));
        Enrolled enrolled = server.enrol(token, AgreementKey.of(state.privateKey()));
        keep(state.enrolled(enrolled.device(), token.serverPublicKey()));
    }

    private void callIn(Duration next) throws IOException, InterruptedException {
        HttpResponse<byte[]> response = server.callIn(state, etag, next);
        if (response.statusCode() == 200) {
            work = server.work(response.body());
            if (work.serverKey() != null) {
                // The answer was signed by the key that it replaces.
                keep(state.enrolled(Objects.requireNonNull(state.id()), work.serverKey()));
            }
            etag = response.headers().firstValue("ETag").orElse(null);
        }
        List<Report.Found> present = jobs().present();
        if (!present.equals(presentReported)) {
            send(software(), present, List.of(), List.of());
        }
    }

    private void startNext() throws IOException, InterruptedException {
        Instant now = Instant.now();
        DeviceJobs jobs = jobs();
        for (Job job : work.jobs()) {
            String key = DeviceJobs.key(job);
            if (tries.isDue(key, now) && !jobs.isSo(job) && jobs.hasItsDevicePart(job)) {
                if (!isSignedIn(job) || !mayBegin(job)) {
                    // One behind it may be for somebody else, or shorter.
                    tellItWaits(job);
                    continue;
                }
                int tried = count(key, 1);
                running = new RunningJob(job, work.mirrors(), luck.mishap(key, tried), contents);
                toldWaiting.remove(key);
                send(null, null, List.of(running.started()), List.of());
                return;
            }
        }
    }

    /** Whether the person whose job it is is there; for the device's, always. */
    private boolean isSignedIn(Job job) {
        return job.person() == null || Objects.requireNonNullElse(signedInReported, List.of()).contains(jobs().account(job));
    }

    /** Whether a window is open long enough for all of it; without windows, and from when on they do not count for it, always. */
    private boolean mayBegin(Job job) {
        LocalDateTime local = LocalDateTime.now();
        return work.windows().isEmpty() || job.isAnyTime(Instant.now()) || work.windows().stream()
                .anyMatch(w -> w.left(local).compareTo(Duration.ofSeconds(job.longestSeconds())) >= 0 && !w.left(local).isZero());
    }

    /** Says once for each job that it waits, and for what. */
    private void tellItWaits(Job job) throws IOException, InterruptedException {
        Progress says = waits(job);
        if (!says.message().equals(toldWaiting.put(DeviceJobs.key(job), says.message()))) {
            send(null, null, List.of(says), List.of());
        }
    }

    private Progress waits(Job job) {
        if (!isSignedIn(job)) {
            return waiting(job, "waits for the next sign-in of " + nameOf(job)).waiting(WaitReason.SIGN_IN, null);
        }
        LocalDateTime local = LocalDateTime.now();
        LocalDateTime next = work.windows().stream().map(w -> w.next(local)).min(Comparator.naturalOrder()).orElse(local);
        LocalDateTime anyTime = job.anyTimeFrom() == null ? null : LocalDateTime.ofInstant(job.anyTimeFrom(), ZoneId.systemDefault());
        return anyTime != null && anyTime.isBefore(next)
                ? waiting(job, "waits for its deadline, " + anyTime.format(OPENS)).waiting(WaitReason.DEADLINE, job.anyTimeFrom())
                : waiting(job, "waits for its window, which opens " + next.format(OPENS)).waiting(WaitReason.WINDOW, next.atZone(ZoneId.systemDefault()).toInstant());
    }

    private String nameOf(Job job) {
        Work.Person person = jobs().person(job);
        return person == null ? "its person" : person.name();
    }

    private static Progress waiting(Job job, String message) {
        return new Progress(job.title(), job.person(), job.action(), job.version(), JobState.WAITING, 1, job.steps().size(), 0, message, null, Instant.now());
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
        Progress progress = current.next(server, state);
        if (progress.state() == JobState.DONE) {
            keep(jobs().after(current.job()));
            List.of(key, AGAIN + key, FAILED + key).forEach(this::forget);
            tries.forget(key);
            current.job().contents().forEach(content -> contents.remove(content.sha256()));
            running = null;
            send(software(), jobs().present(), List.of(progress), current.takeFetched());
            return;
        }
        if (progress.state() == JobState.FAILED || progress.state() == JobState.WAITING && !current.isRestarting()) {
            progress = later(current, progress, key);
            running = null;
        }
        send(null, null, List.of(progress), current.takeFetched());
    }

    /** What comes of a try that ended otherwise than well: when the next one is. */
    private Progress later(RunningJob current, Progress progress, String key) {
        Instant now = Instant.now();
        if (current.againMinutes() > 0 && count(AGAIN + key, 1) <= Tries.MOST_AGAIN) {
            return progress.waiting(WaitReason.TRY, tries.afterMinutes(key, current.againMinutes(), now));
        }
        if (current.againMinutes() > 0 || progress.state() == JobState.FAILED) {
            Progress failed = current.againMinutes() > 0 ? current.failed("another installer was still running at the last of " + Tries.MOST_AGAIN + " tries") : progress;
            forget(AGAIN + key);
            return failed.waiting(WaitReason.TRY, tries.afterFailure(key, count(FAILED + key, 1), now));
        }
        // Waiting is no failure: it is looked at again, and costs no try.
        count(key, -1);
        WaitReason reason = progress.waits() == null ? WaitReason.TRY : progress.waits().reason();
        return progress.waiting(reason, tries.afterALook(key, now));
    }

    private List<Report.Software> software() {
        return new Evidence(state.software()).software();
    }

    private void send(@Nullable List<Report.Software> software, @Nullable List<Report.Found> present, List<Progress> progress,
            List<Report.Fetched> fetched) throws IOException, InterruptedException {
        send(new Report(0, null, software, present, progress, fetched, null));
        if (present != null) {
            presentReported = present;
        }
    }

    /** Under the next number. */
    private void send(Report report) throws IOException, InterruptedException {
        ReportAnswer answer = server.report(state, numbered(report));
        keepReports(answer.last());
        if (!answer.taken()) {
            // The server knows later reports than this device remembers: say it again under the next number.
            keepReports(server.report(state, numbered(report)).last());
        }
    }

    private Report numbered(Report report) {
        return new Report(state.reports() + 1, report.facts(), report.software(), report.present(), report.progress(), report.fetched(),
                report.signedIn());
    }

    private void keepReports(long last) {
        keep(state.withReports(last));
    }

    /** Counts, over restarts too. */
    private int count(String what, int more) {
        Map<String, Integer> attempts = new HashMap<>(state.attempts());
        int count = Math.max(0, attempts.getOrDefault(what, 0) + more);
        attempts.put(what, count);
        keep(state.withAttempts(attempts));
        return count;
    }

    private void forget(String what) {
        Map<String, Integer> attempts = new HashMap<>(state.attempts());
        attempts.remove(what);
        keep(state.withAttempts(attempts));
    }

    private void keep(DeviceState newer) {
        state = newer;
        store.keep(newer);
    }
}
