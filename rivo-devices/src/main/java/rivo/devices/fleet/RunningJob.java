package rivo.devices.fleet;

import java.io.IOException;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.HexFormat;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.devices.fleet.Luck.Mishap;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.StepKind;

/**
 * One try at a job, a step at a time. Content is really fetched and its hash really checked; only the installer is
 * played. Used by one thread at a time.
 */
final class RunningJob {

    /** Exit codes that installers use for these ends. */
    private static final int RESTART_NEEDED = 3010;
    private static final int BUSY = 1618;
    private static final int FATAL = 1603;

    private final Job job;
    private final Mishap mishap;
    private int step;
    private byte @Nullable [] content;
    private @Nullable Integer exitCode;
    private boolean restarting;

    RunningJob(Job job, Mishap mishap) {
        this.job = job;
        this.mishap = mishap;
    }

    Job job() {
        return job;
    }

    /** Whether all that is left is the restart that the installer asked for. */
    boolean isRestarting() {
        return restarting;
    }

    Progress started() {
        return progress(JobState.RUNNING, step + 1, job.steps().get(0).text());
    }

    /** Carries out the next step and says how the job stands then. */
    Progress next(ServerConnection server, DeviceState device) throws InterruptedException {
        if (restarting) {
            restarting = false;
            return done();
        }
        Job.Step current = job.steps().get(step);
        String failure = carryOut(current.kind(), server, device);
        if (failure != null) {
            return progress(JobState.FAILED, step + 1, failure);
        }
        step++;
        if (step < job.steps().size()) {
            return progress(JobState.RUNNING, step + 1, job.steps().get(step).text());
        }
        if (mishap == Mishap.NEEDS_RESTART) {
            restarting = true;
            return progress(JobState.WAITING, step, "waits for a restart, which the installer asked for");
        }
        return done();
    }

    private Progress done() {
        return progress(JobState.DONE, job.steps().size(), "done");
    }

    /** Null when it went well, else what went wrong. */
    private @Nullable String carryOut(StepKind kind, ServerConnection server, DeviceState device)
            throws InterruptedException {
        return switch (kind) {
            case FETCH -> fetch(server, device);
            case VERIFY -> verify();
            case RUN -> run();
            case LOOK -> mishap == Mishap.RAN_BUT_NOT_THERE ? "the installer ran, but the title is not there" : null;
        };
    }

    private @Nullable String fetch(ServerConnection server, DeviceState device) throws InterruptedException {
        if (mishap == Mishap.FETCH_BREAKS_OFF) {
            return "the connection broke off while fetching; it is fetched again";
        }
        try {
            content = server.fetch(device, Objects.requireNonNull(job.content()).sha256());
            return null;
        } catch (IOException e) {
            return "the content could not be fetched: " + e.getMessage();
        }
    }

    private @Nullable String verify() {
        String wanted = Objects.requireNonNull(job.content()).sha256();
        String found = sha256(Objects.requireNonNull(content));
        return wanted.equals(found) ? null
                : "the content is not what it should be: SHA-256 is " + found + ", not " + wanted;
    }

    static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    private @Nullable String run() {
        exitCode = switch (mishap) {
            case INSTALLER_FAILS -> FATAL;
            case ANOTHER_INSTALLER_RUNS -> BUSY;
            case NEEDS_RESTART -> RESTART_NEEDED;
            case NONE, FETCH_BREAKS_OFF, RAN_BUT_NOT_THERE -> 0;
        };
        return switch (mishap) {
            case INSTALLER_FAILS -> "the installer failed with exit code " + FATAL + ": fatal error";
            case ANOTHER_INSTALLER_RUNS -> "another installer was running (exit code " + BUSY + "); it is tried again";
            case NONE, FETCH_BREAKS_OFF, NEEDS_RESTART, RAN_BUT_NOT_THERE -> null;
        };
    }

    private Progress progress(JobState state, int at, String message) {
        int steps = job.steps().size();
        int percent = state == JobState.DONE ? 100 : Math.min(99, 100 * step / steps);
        return new Progress(job.title(), job.action(), job.version(), state, at, steps, percent, message, exitCode,
                Instant.now());
    }
}
