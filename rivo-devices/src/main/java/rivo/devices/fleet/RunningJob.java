package rivo.devices.fleet;

import java.io.IOException;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rivo.devices.fleet.Luck.Mishap;
import rivo.devices.protocol.ExitCode;
import rivo.devices.protocol.ExitMeaning;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.NoticeKind;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.StepKind;
import rivo.devices.protocol.WaitReason;
import rivo.devices.protocol.UninstallCommand;
import rivo.devices.protocol.UninstallCommand.Registered;
import rivo.devices.protocol.Work;

/**
 * One try at a job, a step at a time. Content is really fetched and its hash really checked; only the installer is
 * played. Used by one thread at a time.
 */
final class RunningJob {

    /** What installers mean by a failure that nothing explains. */
    private static final int FATAL = 1603;
    /** What the server answers where it has no such content. */
    private static final int NOT_FOUND = 404;

    private final Job job;
    private final Mishap mishap;
    private final Programs programs;
    private int step;
    /** What has been fetched, by what it should be: its SHA-256; an earlier try may have. The bytes themselves are not held: hundreds of devices may be at it. */
    private final Map<String, String> found;
    private int againMinutes;
    private @Nullable Integer exitCode;
    private @Nullable NoticeKind needs;
    private boolean closed;
    private boolean installerFailed;
    private boolean lacking;
    private final List<Work.Mirror> mirrors;
    private final List<Report.Fetched> fetched = new ArrayList<>();

    /** What runs on the device besides. */
    interface Programs {
        boolean areRunning(Job.Step close);
    }

    RunningJob(Job job, List<Work.Mirror> mirrors, Mishap mishap, Map<String, String> found, Programs programs) {
        this.programs = programs;
        this.found = found;
        this.job = job;
        this.mirrors = mirrors;
        this.mishap = mishap;
    }

    /** What has been fetched since this was last asked. */
    List<Report.Fetched> takeFetched() {
        List<Report.Fetched> taken = List.copyOf(fetched);
        fetched.clear();
        return taken;
    }

    Job job() {
        return job;
    }

    /** What it waits for that people are asked for: a restart or a sign-out, when all else is done, or that programs are closed; null for nothing. */
    @Nullable NoticeKind needs() {
        return needs;
    }

    /** The programs that it waited for are not running any more. */
    void closed() {
        closed = true;
        needs = null;
    }

    /** After how many minutes the installer is to be run again, which was busy; 0 where it was not. */
    int againMinutes() {
        return againMinutes;
    }

    /** How it stands where nothing more is tried. */
    Progress failed(String message) {
        return progress(JobState.FAILED, step + 1, message);
    }

    /** After it has waited. */
    Progress resumed() {
        return running(job.steps().get(step).text());
    }

    Progress started() {
        return running(job.steps().get(0).text());
    }

    private Progress running(String message) {
        Progress running = progress(JobState.RUNNING, step + 1, message);
        long there = job.contents().stream().filter(this::isThere).mapToLong(Job.Content::size).sum();
        return job.steps().get(step).kind() == StepKind.FETCH
                ? running.fetching(there, job.contents().stream().mapToLong(Job.Content::size).sum()) : running;
    }

    private boolean isThere(Job.Content content) {
        return content.sha256().equals(found.get(content.sha256()));
    }

    /** Carries out the next step and says how the job stands then. */
    Progress next(ServerConnection server, DeviceState device) throws InterruptedException {
        Job.Step current = job.steps().get(step);
        if (current.kind() == StepKind.WAIT && current.skipped() == null && current.stops() != null) {
            return progress(JobState.WAITING, step + 1, "waits: " + current.stops()).waiting(WaitReason.TRY, null);
        }
        if (current.kind() == StepKind.CLOSE && current.skipped() == null && !closed && programs.areRunning(current)) {
            needs = NoticeKind.CLOSE;
            return waits("waits until " + current.command() + " is closed", WaitReason.ANSWER);
        }
        String failure = current.skipped() == null ? carryOut(current, server, device) : null;
        Integer leads = failure == null ? current.thenTo() : current.failsTo();
        if (againMinutes > 0) {
            return progress(JobState.WAITING, step + 1, Objects.requireNonNull(failure));
        }
        if (lacking) {
            return progress(JobState.WAITING, step + 1, "waits for content that neither a mirror nor the server has").waiting(WaitReason.CONTENT, null);
        }
        if (failure != null && leads == null && !current.goesOn()) {
            return progress(JobState.FAILED, step + 1, failure);
        }
        step = current.skipped() != null || leads == null ? step + 1 : leads - 1;
        if (step < job.steps().size()) {
            Job.Step next = job.steps().get(step);
            String text = next.skipped() == null ? next.text() : "skipped: " + next.skipped();
            return running(failure == null ? text : failure + "; goes on with: " + text);
        }
        if (needs != null) {
            step--;
            return needs == NoticeKind.RESTART ? waits("waits for a restart, which the installer asked for", WaitReason.RESTART)
                    : waits("waits for a sign-out, which the installer asked for", WaitReason.SIGN_OUT);
        }
        return done(job, exitCode);
    }

    private Progress waits(String message, WaitReason reason) {
        return progress(JobState.WAITING, step + 1, message).waiting(reason, null);
    }

    /** How a job stands of which all is done. */
    static Progress done(Job job, @Nullable Integer exitCode) {
        return new Progress(job.title(), job.person(), job.action(), job.version(), JobState.DONE, job.steps().size(), job.steps().size(), 100, "done", exitCode,
                Instant.now());
    }

    /** Null when it went well, else what went wrong. */
    private @Nullable String carryOut(Job.Step current, ServerConnection server, DeviceState device)
            throws InterruptedException {
        if (current.stops() != null) {
            return current.stops();
        }
        return switch (current.kind()) {
            case FETCH -> fetch(server, device);
            case VERIFY -> verify();
            case RUN, SCRIPT -> {
                String noCommand = noUninstaller(current, device);
                yield noCommand == null ? run(current) : noCommand;
            }
            case COPY, WAIT, CHECK, CLOSE -> null;
            case LOOK -> mishap == Mishap.RAN_BUT_NOT_THERE ? "the installer ran, but the title is not there"
                    : installerFailed ? "the installer failed, and the title is not there" : null;
        };
    }

    /** Why there is no command that the step's uninstaller could stand for; null where there is one, or it names none. */
    private @Nullable String noUninstaller(Job.Step current, DeviceState device) {
        try {
            // What people have registered in their own profiles is nothing that the system may run.
            Stream<Map<String, String>> profiles = job.person() == null ? Stream.of() : device.profiles().values().stream();
            List<Registered> programs = Stream.concat(Stream.of(device.software()), profiles)
                    .flatMap(things -> new Evidence(things).uninstallers().stream()).toList();
            UninstallCommand.filled(current.command(), programs);
            return null;
        } catch (UninstallCommand.NoneException e) {
            return e.getMessage();
        }
    }

    private @Nullable String fetch(ServerConnection server, DeviceState device) throws InterruptedException {
        if (mishap == Mishap.FETCH_BREAKS_OFF) {
            return "the connection broke off while fetching; it is fetched again";
        }
        ContentFetch fetch = new ContentFetch(server, device, mirrors);
        try {
            for (Job.Content content : job.contents().stream().filter(one -> !isThere(one)).toList()) {
                found.put(content.sha256(), sha256(fetch.fetch(content)));
            }
            return null;
        } catch (IOException e) {
            lacking = e instanceof ServerConnection.RefusedByServer refused && refused.status() == NOT_FOUND;
            return "the content could not be fetched: " + fetch.troubles();
        } finally {
            fetched.addAll(fetch.fetched());
        }
    }

    private @Nullable String verify() {
        for (Job.Content content : job.contents()) {
            String is = found.get(content.sha256());
            if (!content.sha256().equals(is)) {
                return "the content is not what it should be: SHA-256 is " + is + ", not " + content.sha256();
            }
        }
        return null;
    }

    static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    private @Nullable String run(Job.Step current) {
        int busy = current.code(ExitMeaning.AGAIN);
        int restart = current.code(ExitMeaning.RESTART);
        int signOut = current.code(ExitMeaning.SIGN_OUT);
        int code = switch (mishap) {
            case INSTALLER_FAILS -> FATAL;
            case ANOTHER_INSTALLER_RUNS -> busy != 0 ? busy : current.code(ExitMeaning.DONE);
            case NEEDS_RESTART -> restart != 0 ? restart : signOut != 0 ? signOut : current.code(ExitMeaning.DONE);
            case NONE, FETCH_BREAKS_OFF, RAN_BUT_NOT_THERE -> current.code(ExitMeaning.DONE);
        };
        exitCode = code;
        switch (current.meaning(code)) {
            case RESTART -> needs = NoticeKind.RESTART;
            case SIGN_OUT -> needs = needs == null ? NoticeKind.SIGN_OUT : needs;
            case AGAIN -> {
                againMinutes = Math.max(1, current.exitCodes().stream().filter(one -> one.code() == code).mapToInt(ExitCode::againMinutes).findFirst().orElse(1));
                return "another installer was running (exit code " + code + "); it is tried again";
            }
            case FAILED -> {
                installerFailed = true;
                return "the installer failed with exit code " + code + (code == FATAL ? ": fatal error" : ", which is not known to its step");
            }
            case DONE -> {
            }
        }
        return null;
    }

    private Progress progress(JobState state, int at, String message) {
        int steps = job.steps().size();
        int percent = state == JobState.DONE ? 100 : Math.min(99, 100 * step / steps);
        return new Progress(job.title(), job.person(), job.action(), job.version(), state, at, steps, percent, message, exitCode,
                Instant.now());
    }
}
