package rivo.server.wave;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.core.estate.Assignment;
import rivo.core.estate.RefusedException;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Rollout;
import rivo.server.change.Publishing;
import rivo.server.document.Kept;
import rivo.server.estate.ChangesRefusedException;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;

/**
 * Opens and stops waves as their rules say (section 6 of the delivery rules): each time a change of its own, on record with the figures that
 * made it. Used by the scheduler's thread.
 */
@Component
public class WaveRules {

    private static final Logger LOG = LoggerFactory.getLogger(WaveRules.class);

    private final CurrentSnapshot current;
    private final WaveProgress progress;
    private final Publishing publishing;
    private final Clock clock;

    WaveRules(CurrentSnapshot current, WaveProgress progress, Publishing publishing, Clock clock) {
        this.current = current;
        this.progress = progress;
        this.publishing = publishing;
        this.clock = clock;
    }

    /** Looks at every assignment whose waves have a rule. */
    @Scheduled(fixedDelayString = "PT10S")
    public void look() {
        Snapshot snapshot = current.now();
        for (Kept<AssignmentDocument> kept : snapshot.get(AssignmentDocument.KIND).kept()) {
            Rollout rollout = kept.document().delivery().rollout();
            boolean mayAct = rollout != null && !rollout.stopped() && (rollout.opens() != null || rollout.stops() != null);
            if (mayAct && kept.document().assignment().isLive(snapshot.estate().asOf())) {
                look(snapshot, kept, rollout);
            }
        }
    }

    private void look(Snapshot snapshot, Kept<AssignmentDocument> kept, Rollout rollout) {
        Instant now = clock.instant();
        AssignmentDocument document = kept.document();
        if (document.waves().stream().allMatch(wave -> wave.open()) && rollout.stops() == null) {
            return;
        }
        List<Lane> lanes = progress.of(snapshot, document);
        NextWave next = lanes.isEmpty() ? null : NextWave.of(document, lanes, now);
        AssignmentDocument becomes = next == null ? null : switch (next.kind()) {
            case OPENS -> document.withNextWave();
            case STOPS -> document.with(document.delivery().withRollout(rollout.withStopped(true)));
            case ALL_OPEN, BY_HAND, STOPPED, WAITS -> null;
        };
        if (next == null || becomes == null) {
            return;
        }
        Assignment assignment = document.assignment();
        String reason = (next.kind() == NextWave.Kind.STOPS ? "Waves of " + assignment.subject() + " stopped: " : "") + next.sentence();
        try {
            publishing.byRule(becomes, kept.revision(), reason);
        } catch (RefusedException | ChangesRefusedException e) {
            // Somebody has changed it meanwhile, or nothing can be written now: it is looked at again.
            LOG.warn("A rule could not act on the waves of {}: {}", assignment.id(), e.getMessage());
        }
    }
}
