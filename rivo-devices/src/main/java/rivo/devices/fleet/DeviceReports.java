package rivo.devices.fleet;

import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.ReportAnswer;

/** What a simulated device reports. What the server could not take is said again, with the next report. Of one thread at a time. */
final class DeviceReports {

    private final KeptState kept;
    private final ServerConnection server;
    private final DeviceNotices notices;
    private @Nullable List<Report.Found> presentReported;

    DeviceReports(KeptState kept, ServerConnection server, DeviceNotices notices) {
        this.kept = kept;
        this.server = server;
        this.notices = notices;
    }

    /** @param facts with which it says what is installed, too; null for neither */
    void sayWhoIsSignedIn(@Nullable Map<String, String> facts, List<String> signedIn) throws IOException, InterruptedException {
        send(new Report(0, facts, facts == null ? null : software(), null, List.of(), List.of(), signedIn), kept.state().unheard());
    }

    /** Where that is something else than was said last. */
    void sayWhatIsPresent(List<Report.Found> present) throws IOException, InterruptedException {
        if (!present.equals(presentReported)) {
            say(present);
        }
    }

    /** Says how jobs stand, and what was fetched. */
    void say(List<Progress> progress, List<Report.Fetched> fetched) throws IOException, InterruptedException {
        kept.becomes(kept.state().with(kept.state().unheard().and(progress, fetched)));
        say(null);
    }

    /** Says what has not been heard, be it new or said before. @param present what is there now; null to say nothing of it */
    void say(@Nullable List<Report.Found> present) throws IOException, InterruptedException {
        keepNotices();
        List<Report.Told> told = notices.unreported();
        Unheard unheard = kept.state().unheard();
        try {
            send(report(unheard, present, told), Unheard.NOTHING);
        } catch (ServerConnection.RefusedByServer e) {
            if (e.isForGood()) {
                // All of it would be refused as often as it is said.
                sayEach(unheard, present);
            }
            throw e;
        } finally {
            if (!kept.state().unheard().isNothing()) {
                kept.keep(kept.state());
            }
        }
        notices.reported(told);
        if (present != null) {
            presentReported = present;
        }
    }

    /** Says each by itself, and drops what is refused for good even then. */
    private void sayEach(Unheard unheard, @Nullable List<Report.Found> present) throws IOException, InterruptedException {
        List<Unheard> each = unheard.each();
        for (Unheard one : each) {
            Unheard left = kept.state().unheard().without(one);
            try {
                if (each.size() > 1) {
                    send(report(one, present, List.of()), left);
                }
            } catch (ServerConnection.RefusedByServer e) {
                if (!e.isForGood()) {
                    throw e;
                }
            }
            kept.keep(kept.state().with(left));
        }
    }

    private Report report(Unheard unheard, @Nullable List<Report.Found> present, List<Report.Told> told) {
        return new Report(0, null, present == null ? null : software(), present, unheard.progress(), unheard.fetched(), null, told.isEmpty() ? null : told);
    }

    /** Under the next number. @param left what is still unheard once it is taken */
    private void send(Report report, Unheard left) throws IOException, InterruptedException {
        ReportAnswer answer = server.report(kept.state(), numbered(report));
        if (!answer.taken()) {
            // The server knows later reports than this device remembers: say it again under the next number.
            kept.keep(kept.state().withReports(answer.last()));
            answer = server.report(kept.state(), numbered(report));
        }
        kept.keep(kept.state().withReports(answer.last()).with(answer.taken() ? left : kept.state().unheard()));
        notices.refused(Objects.requireNonNullElse(answer.refused(), List.of()), Instant.now());
    }

    private Report numbered(Report report) {
        return new Report(kept.state().reports() + 1, report.facts(), report.software(), report.present(), report.progress(), report.fetched(),
                report.signedIn(), report.notices());
    }

    private List<Report.Software> software() {
        return new Evidence(kept.state().software()).software();
    }

    void keepNotices() {
        if (!notices.book().equals(kept.state().notices())) {
            kept.keep(kept.state().with(notices.book()));
        }
    }
}
