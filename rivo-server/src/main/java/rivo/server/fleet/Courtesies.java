package rivo.server.fleet;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.devices.protocol.Courtesy;
import rivo.devices.protocol.Courtesy.Notice;
import rivo.devices.protocol.ExitMeaning;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.NoticeKind;
import rivo.devices.protocol.StepKind;
import rivo.devices.protocol.Way;
import rivo.server.assignment.Delivery;
import rivo.server.assignment.Delivery.Interruption;
import rivo.server.assignment.Delivery.Tell;
import rivo.server.estate.Snapshot;
import rivo.server.notice.NoticeWords;

/**
 * How people are treated while something is carried out, as its assignment says (section 1 of the delivery rules), in the words of the device
 * protocol. Pure functions.
 */
public final class Courtesies {

    private static final int MINUTE_SECONDS = 60;
    /** A restart that comes at once is counted down for so long. */
    private static final Duration COUNTDOWN_NOW = Duration.ofMinutes(5);

    private Courtesies() {
    }

    /** Of a job whose steps are known. @param said what its assignment says; null where nothing, so that everything is as usual */
    static Courtesy of(Job job, Delivery.@Nullable Courtesy said) {
        boolean quiet = said != null && said.quiet();
        Tell tell = said == null || said.tell() == null ? new Tell(List.of(), null, null) : said.tell();
        boolean installs = job.action() == JobAction.INSTALL;
        String does = installs ? ".install" : ".remove";
        Words words = new Words(Map.of("title", job.version() == null ? job.name() : job.name() + " " + job.version(),
                "minutes", String.valueOf(Math.max(1, (job.longestSeconds() + MINUTE_SECONDS - 1) / MINUTE_SECONDS)), "programs", programs(job)));
        List<Notice> notices = new ArrayList<>();
        if (!quiet) {
            tell.before().forEach(before -> notices.add(words.tells(NoticeKind.COMING, (int) Math.min(Integer.MAX_VALUE, Duration.parse(before).toSeconds()),
                    "coming" + does)));
            if (Boolean.TRUE.equals(tell.start())) {
                notices.add(words.tells(NoticeKind.START, null, "start" + does));
            }
            if (!Boolean.FALSE.equals(tell.done())) {
                notices.add(installs ? words.tells(NoticeKind.DONE, null, "done") : words.tells(NoticeKind.REMOVED, null, "removed"));
            }
            notices.add(words.tells(NoticeKind.FAILED, null, "failed" + does));
        }
        Courtesy.Interruption restart = restart(said);
        Courtesy.Interruption signOut = signOut(said);
        if (restart.way().speaks() && mayMean(job, ExitMeaning.RESTART)) {
            notices.add(words.asks(NoticeKind.RESTART));
        }
        if (signOut.way().speaks() && mayMean(job, ExitMeaning.SIGN_OUT)) {
            notices.add(words.asks(NoticeKind.SIGN_OUT));
        }
        if (job.steps().stream().anyMatch(step -> step.kind() == StepKind.CLOSE)) {
            notices.add(words.asks(NoticeKind.CLOSE));
        }
        return new Courtesy(notices, restart, signOut);
    }

    private record Words(Map<String, String> values) {

        Notice tells(NoticeKind kind, @Nullable Integer beforeSeconds, String key) {
            return new Notice(kind, beforeSeconds, NoticeWords.shipped().of(key, values), null);
        }

        Notice asks(NoticeKind kind) {
            return new Notice(kind, null, NoticeWords.shipped().of(kind.word(), values), NoticeWords.shipped().of(kind.word() + ".last", values));
        }
    }

    private static String programs(Job job) {
        return job.steps().stream().filter(step -> step.kind() == StepKind.CLOSE && step.command() != null).flatMap(step -> Stream.of(step.command().split(",")))
                .map(String::strip).filter(name -> !name.isEmpty()).distinct().collect(Collectors.joining(", "));
    }

    private static boolean mayMean(Job job, ExitMeaning meaning) {
        return job.steps().stream().anyMatch(step -> step.exitCodes().stream().anyMatch(code -> code.meaning() == meaning));
    }

    private static Courtesy.Interruption restart(Delivery.@Nullable Courtesy said) {
        return interruption(said == null ? null : said.restart(), Courtesy.Interruption.USUAL);
    }

    private static Courtesy.Interruption signOut(Delivery.@Nullable Courtesy said) {
        return interruption(said == null ? null : said.signOut(), Courtesy.Interruption.WAITS);
    }

    private static Courtesy.Interruption interruption(@Nullable Interruption said, Courtesy.Interruption usual) {
        if (said == null) {
            return usual;
        }
        Way way = Way.valueOf(said.way().toUpperCase(Locale.ROOT));
        Integer times = said.defer() == null ? null : said.defer().times();
        String until = said.defer() == null ? null : said.defer().until();
        return new Courtesy.Interruption(way, times == null ? usual.times() : times,
                until == null ? usual.withinSeconds() : (int) Math.min(Integer.MAX_VALUE, Duration.parse(until).toSeconds()),
                way == Way.NOW ? (int) COUNTDOWN_NOW.toSeconds() : usual.countdownSeconds());
    }

    /**
     * How often, and how long, something may be put off that a device asks for: as the assignment of the first of its titles has it now. To close
     * programs may be put off as a restart may.
     *
     * @param person whose title it is where it is installed for each; null for the device's
     */
    public static Courtesy.Interruption allowed(Snapshot snapshot, Device device, NoticeKind kind, List<String> titles, @Nullable String person) {
        Title title = titles.isEmpty() ? null : snapshot.estate().title(titles.get(0));
        Delivery delivery = title == null ? null : new JobTimes(snapshot, device).delivery(null, title.id(),
                title.scope() == Scope.USER ? Objects.requireNonNullElse(person, "") : "");
        Delivery.Courtesy said = delivery == null ? null : delivery.courtesy();
        return kind == NoticeKind.SIGN_OUT ? signOut(said) : restart(said);
    }
}
