package rivo.server.fleet;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Title;
import rivo.devices.protocol.Courtesy;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.NoticeState;
import rivo.server.estate.Snapshot;
import rivo.server.notice.NoticeWords;
import rivo.server.notice.OpenNotice;

/** The open notices of one device in the words in which it shows them, for the shelf. Used by one thread. */
public final class NoticeTexts {

    private final Snapshot snapshot;
    private final Device device;
    private @Nullable List<Job> jobs;

    public NoticeTexts(Snapshot snapshot, Device device) {
        this.snapshot = snapshot;
        this.device = device;
    }

    /** By language, with {@code {time}} left open; null where it is of nothing that is still to be done. Costs, once, the work of the device. */
    public @Nullable Map<String, String> of(OpenNotice notice) {
        String titles = notice.titles().stream().map(title -> snapshot.estate().title(title)).filter(Objects::nonNull).map(Title::name).collect(Collectors.joining(", "));
        boolean isLast = notice.state() == NoticeState.COUNTING_DOWN;
        return switch (notice.kind()) {
            case RESTART, SIGN_OUT -> NoticeWords.shipped().of(notice.kind().word() + (isLast ? ".last" : ""), Map.of("title", titles));
            case DONE, REMOVED -> NoticeWords.shipped().of(notice.kind().word(), Map.of("title", titles));
            case CLOSE, COMING, START, FAILED -> ofJob(notice, isLast);
        };
    }

    private @Nullable Map<String, String> ofJob(OpenNotice notice, boolean isLast) {
        Courtesy.Notice told = jobs().stream().filter(job -> notice.titles().contains(job.title())).map(job -> job.courtesy().notice(notice.kind()))
                .filter(Objects::nonNull).findFirst().orElse(null);
        return told == null ? null : isLast && told.lastWords() != null ? told.lastWords() : told.words();
    }

    private List<Job> jobs() {
        List<Job> known = jobs;
        if (known == null) {
            known = WorkOfDevice.of(snapshot, device).jobs();
            jobs = known;
        }
        return known;
    }
}
