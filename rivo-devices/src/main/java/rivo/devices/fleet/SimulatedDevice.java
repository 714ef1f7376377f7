package rivo.devices.fleet;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Version;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.EnrolmentToken;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
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
    private DeviceState state;
    private Work work = Work.nothing();
    private @Nullable String etag;
    private @Nullable RunningJob running;
    private boolean factsReported;
    private @Nullable List<Report.Found> presentReported;
    private final Map<String, Instant> notBefore = new HashMap<>();
    private final Map<String, String> toldWaiting = new HashMap<>();
    private @Nullable Instant callInDue;

    SimulatedDevice(Roster.Entry entry, DeviceState state, Luck luck, ServerConnection server, FleetStore store, Duration retryAfter) {
        this.retryAfter = retryAfter;
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
        boolean triesAgain = work.jobs().stream().anyMatch(job -> !isSo(job) && notBefore.containsKey(key(job))
                && state.attempts().getOrDefault(key(job), 0) < MOST_TRIES);
        return triesAgain && retryAfter.compareTo(interval) < 0 ? retryAfter : interval;
    }

    /** One turn: a call-in when it is due, and a step of the job under way. */
    void turn(Duration interval) throws IOException, InterruptedException {
        if (!state.isEnrolled()) {
            enrol();
        }
        Instant now = Instant.now();
        if (callInDue == null || !now.isBefore(callInDue)) {
            callIn(interval);
            callInDue = now.plus(interval);
        }
        if (running == null) {
            startNext();
        } else {
            advance(running);
        }
    }

    private void enrol() throws IOException, InterruptedException {
        store.keep(state);
        EnrolmentToken token = EnrolmentToken.parse(entry.token())
                .orElseThrow(() -> new IOException("there is no token to enrol with"));
        Enrolled enrolled = server.enrol(token, AgreementKey.of(state.privateKey()));
        keep(state.enrolled(enrolled.device(), token.serverPublicKey()));
    }

    private void callIn(Duration next) throws IOException, InterruptedException {
        if (!factsReported) {
            // What it shall do, and where it finds content, hangs on what it is.
            send(entry.facts(), software(), null, List.of());
            factsReported = true;
        }
        HttpResponse<byte[]> response = server.callIn(state, etag, next);
        if (response.statusCode() == 200) {
            work = server.work(response.body());
            if (work.serverKey() != null) {
                // The answer was signed by the key that it replaces.
                keep(state.enrolled(Objects.requireNonNull(state.id()), work.serverKey()));
            }
            etag = response.headers().firstValue("ETag").orElse(null);
        }
        List<Report.Found> present = present();
        if (!present.equals(presentReported)) {
            send(null, software(), present, List.of());
        }
    }

    private void startNext() throws IOException, InterruptedException {
        Instant now = Instant.now();
        for (Job job : work.jobs()) {
            String key = key(job);
            int tried = state.attempts().getOrDefault(key, 0);
            boolean dueAgain = !now.isBefore(notBefore.getOrDefault(key, Instant.MIN));
            if (!isSo(job) && tried < MOST_TRIES && dueAgain) {
                if (!mayBegin(job)) {
                    // A shorter one behind it may fit.
                    tellItWaits(job);
                    continue;
                }
                keepAttempts(key, tried + 1);
                running = new RunningJob(job, work.mirrors(), luck.mishap(key, tried + 1));
                send(null, null, null, List.of(running.started()));
                return;
            }
        }
    }

    /** Whether a window is open long enough for all of it; without windows, and from when on they do not count for it, always. */
    private boolean mayBegin(Job job) {
        LocalDateTime local = LocalDateTime.now();
        return work.windows().isEmpty() || job.isAnyTime(Instant.now()) || work.windows().stream()
                .anyMatch(w -> w.left(local).compareTo(Duration.ofSeconds(job.longestSeconds())) >= 0 && !w.left(local).isZero());
    }

    /** Says once for each job that it waits, and until when. */
    private void tellItWaits(Job job) throws IOException, InterruptedException {
        LocalDateTime local = LocalDateTime.now();
        LocalDateTime next = work.windows().stream().map(w -> w.next(local)).min(Comparator.naturalOrder()).orElse(local);
        LocalDateTime anyTime = job.anyTimeFrom() == null ? null : LocalDateTime.ofInstant(job.anyTimeFrom(), ZoneId.systemDefault());
        String message = anyTime != null && anyTime.isBefore(next) ? "waits for its deadline, " + anyTime.format(OPENS)
                : "waits for its window, which opens " + next.format(OPENS);
        if (!message.equals(toldWaiting.put(key(job), message))) {
            send(null, null, null, List.of(new Progress(job.title(), job.action(), job.version(), JobState.WAITING, 1,
                    job.steps().size(), 0, message, null, Instant.now())));
        }
    }

    private void advance(RunningJob current) throws IOException, InterruptedException {
        Progress progress = current.next(server, state);
        if (progress.state() == JobState.DONE) {
            changeSoftware(current.job());
            running = null;
            send(null, software(), present(), List.of(progress), current.takeFetched());
            return;
        }
        if (progress.state() == JobState.WAITING && !current.isRestarting()) {
            // Waiting is no failure: it is looked at again, and costs no try.
            keepAttempts(key(current.job()), state.attempts().getOrDefault(key(current.job()), 1) - 1);
        }
        if (progress.state() == JobState.FAILED || progress.state() == JobState.WAITING && !current.isRestarting()) {
            notBefore.put(key(current.job()), Instant.now().plus(retryAfter));
            running = null;
        }
        send(null, null, null, List.of(progress), current.takeFetched());
    }

    private void changeSoftware(Job job) {
        Evidence evidence = new Evidence(state.software());
        Work.Check check = check(job);
        Map<String, String> software = (job.action() == JobAction.INSTALL ? evidence.with(job, check)
                : evidence.without(job, check)).things();
        Map<String, Integer> attempts = new HashMap<>(state.attempts());
        attempts.remove(key(job));
        keep(state.withSoftware(software, attempts));
    }

    /** Whether the check shows that the job has nothing to do. Without a check a job is done once it has been done. */
    private boolean isSo(Job job) {
        Work.Check check = check(job);
        Evidence evidence = new Evidence(state.software());
        String version = check == null ? state.software().get(job.name()) : evidence.version(check);
        if (job.action() == JobAction.REMOVE) {
            return version == null;
        }
        return version != null && !version.isEmpty()
                && Version.of(version).compareTo(Version.of(Objects.requireNonNull(job.version()))) >= 0;
    }

    private Work.@Nullable Check check(Job job) {
        return work.checks().stream().filter(c -> c.title().equals(job.title())).findFirst().orElse(null);
    }

    private static String key(Job job) {
        return job.action() + " " + job.title() + " " + job.version();
    }

    private List<Report.Found> present() {
        List<Report.Found> present = new ArrayList<>();
        Evidence evidence = new Evidence(state.software());
        for (Work.Check check : work.checks()) {
            String version = evidence.version(check);
            if (version != null) {
                present.add(new Report.Found(check.title(), version.isEmpty() ? null : version));
            }
        }
        return present;
    }

    private List<Report.Software> software() {
        return new Evidence(state.software()).software();
    }

    private void send(@Nullable Map<String, String> facts, @Nullable List<Report.Software> software,
            @Nullable List<Report.Found> present, List<Progress> progress) throws IOException, InterruptedException {
        send(facts, software, present, progress, List.of());
    }

    private void send(@Nullable Map<String, String> facts, @Nullable List<Report.Software> software,
            @Nullable List<Report.Found> present, List<Progress> progress, List<Report.Fetched> fetched)
            throws IOException, InterruptedException {
        ReportAnswer answer = server.report(state,
                new Report(state.reports() + 1, facts, software, present, progress, fetched));
        keepReports(answer.last());
        if (!answer.taken()) {
            // The server knows later reports than this device remembers: say it again under the next number.
            keepReports(server.report(state, new Report(state.reports() + 1, facts, software, present, progress, fetched))
                    .last());
        }
        if (present != null) {
            presentReported = present;
        }
    }

    private void keepReports(long last) {
        keep(state.withReports(last));
    }

    private void keepAttempts(String job, int tried) {
        Map<String, Integer> attempts = new HashMap<>(state.attempts());
        attempts.put(job, tried);
        keep(state.withSoftware(state.software(), attempts));
    }

    private void keep(DeviceState newer) {
        state = newer;
        store.keep(newer);
    }
}
