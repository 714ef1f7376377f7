package rivo.devices.fleet;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.WaitReason;

/** How a job stands that waits for what people are asked for, in the words of a report. Pure functions. */
final class AskedJob {

    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);
    /** In 100, of a job of which all is done but a restart. */
    private static final int ALMOST = 99;

    private AskedJob() {
    }

    /** By the device's own clock. */
    static String words(Instant at) {
        return LocalDateTime.ofInstant(at, ZoneId.systemDefault()).format(WHEN);
    }

    /** @param names of people, by their ids */
    static String words(Ask ask, Function<@Nullable String, String> names, Instant now) {
        String what = switch (ask.kind()) {
            case RESTART -> "waits for a restart";
            case SIGN_OUT -> "waits for a sign-out";
            default -> "waits until programs are closed";
        };
        return what + switch (ask.state(now)) {
            case SHOWN -> ", which " + names.apply(ask.person()) + " is asked for";
            case PUT_OFF -> ", put off by " + names.apply(ask.person()) + (ask.atSignOut() ? " until they sign out"
                    : " until " + words(Objects.requireNonNull(ask.until()))) + " (" + ask.putOff() + " of " + ask.times() + ")";
            case COUNTING_DOWN -> ", which comes " + words(Objects.requireNonNull(ask.ends()));
            default -> "";
        };
    }

    static Progress progress(Job job, Ask ask, Function<@Nullable String, String> names, Instant now) {
        WaitReason reason = switch (ask.kind()) {
            case RESTART -> WaitReason.RESTART;
            case SIGN_OUT -> WaitReason.SIGN_OUT;
            default -> WaitReason.ANSWER;
        };
        int steps = job.steps().size();
        return new Progress(job.title(), job.person(), job.action(), job.version(), JobState.WAITING, steps, steps, ALMOST, words(ask, names, now), null, now)
                .waiting(reason, ask.ends() != null ? ask.ends() : Objects.requireNonNullElse(ask.until(), ask.last()));
    }
}
