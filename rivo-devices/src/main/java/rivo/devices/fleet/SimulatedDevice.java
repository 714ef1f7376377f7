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
import rivo.devices.protocol.Work;

/**
 * One device. It enrols, reports what it is, calls in, and carries its jobs out one after another, a step at each turn.
 * Used by one thread at a time; the fleet takes turns.
 */
final class SimulatedDevice {

    private static final int MOST_TRIES = 4;
    /** How many steps' time a restart takes. */
    private static final int RESTART_STEPS = 12;
    private static final DateTimeFormatter OPENS = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);

    private final Roster.Entry entry;
    private final Luck luck;
    private final ServerConnection server;
    private final FleetStore store;
    private final Duration retryAfter;
    private final Sessions sessions;
    private DeviceState state;
    private Work work = Work.nothing();
    private @Nullable String etag;
    private @Nullable RunningJob running;
    private @Nullable List<Report.Found> presentReported;
    private @Nullable List<String> signedInReported;
    private final Map<String, Instant> notBefore = new HashMap<>();
    private final Map<String, String> toldWaiting = new HashMap<>();
    private @Nullable Instant callInDue;

    SimulatedDevice(Roster.Entry entry, DeviceState state, Luck luck, ServerConnection server, FleetStore store, FleetSettings settings) {
        this.retryAfter = settings.retryAfter();
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
        boolean triesAgain = work.jobs().stream().anyMatch(job -> notBefore.containsKey(DeviceJobs.key(job)) && !jobs.isSo(job)
                && state.attempts().getOrDefault(DeviceJobs.key(job), 0) < MOST_TRIES);
        return triesAgain && retryAfter.compareTo(interval) < 0 ? retryAfter : interval;
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
            int tried = state.attempts().getOrDefault(key, 0);
            boolean dueAgain = !now.isBefore(notBefore.getOrDefault(key, Instant.MIN));
            if (tried < MOST_TRIES && dueAgain && !jobs.isSo(job) && jobs.hasItsDevicePart(job)) {
                if (!isSignedIn(job) || !mayBegin(job)) {
                    // One behind it may be for somebody else, or shorter.
                    tellItWaits(job);
                    continue;
                }
                keepAttempts(key, tried + 1);
                running = new RunningJob(job, work.mirrors(), luck.mishap(key, tried + 1));
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
        String message = isSignedIn(job) ? whenItMay(job) : "waits for the next sign-in of " + nameOf(job);
        if (!message.equals(toldWaiting.put(DeviceJobs.key(job), message))) {
            tell(job, message);
        }
    }

    private String nameOf(Job job) {
        Work.Person person = jobs().person(job);
        return person == null ? "its person" : person.name();
    }

    private String whenItMay(Job job) {
        LocalDateTime local = LocalDateTime.now();
        LocalDateTime next = work.windows().stream().map(w -> w.next(local)).min(Comparator.naturalOrder()).orElse(local);
        LocalDateTime anyTime = job.anyTimeFrom() == null ? null : LocalDateTime.ofInstant(job.anyTimeFrom(), ZoneId.systemDefault());
        return anyTime != null && anyTime.isBefore(next) ? "waits for its deadline, " + anyTime.format(OPENS)
                : "waits for its window, which opens " + next.format(OPENS);
    }

    private void tell(Job job, String message) throws IOException, InterruptedException {
        send(null, null, List.of(new Progress(job.title(), job.person(), job.action(), job.version(), JobState.WAITING, 1, job.steps().size(), 0,
                message, null, Instant.now())), List.of());
    }

    private void advance(RunningJob current) throws IOException, InterruptedException {
        String key = DeviceJobs.key(current.job());
        if (!isSignedIn(current.job())) {
            // It begins anew when they are back, and that costs no try.
            keepAttempts(key, state.attempts().getOrDefault(key, 1) - 1);
            running = null;
            tellItWaits(current.job());
            return;
        }
        Progress progress = current.next(server, state);
        if (progress.state() == JobState.DONE) {
            keep(jobs().after(current.job()));
            forgetAttempts(key);
            running = null;
            send(software(), jobs().present(), List.of(progress), current.takeFetched());
            return;
        }
        if (progress.state() == JobState.WAITING && !current.isRestarting()) {
            // Waiting is no failure: it is looked at again, and costs no try.
            keepAttempts(key, state.attempts().getOrDefault(key, 1) - 1);
        }
        if (progress.state() == JobState.FAILED || progress.state() == JobState.WAITING && !current.isRestarting()) {
            notBefore.put(key, Instant.now().plus(retryAfter));
            running = null;
        }
        send(null, null, List.of(progress), current.takeFetched());
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

    private void keepAttempts(String job, int tried) {
        Map<String, Integer> attempts = new HashMap<>(state.attempts());
        attempts.put(job, tried);
        keep(state.withAttempts(attempts));
    }

    private void forgetAttempts(String job) {
        Map<String, Integer> attempts = new HashMap<>(state.attempts());
        attempts.remove(job);
        keep(state.withAttempts(attempts));
    }

    private void keep(DeviceState newer) {
        state = newer;
        store.keep(newer);
    }
}
