package rivo.server.wave;

import java.time.Clock;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

/** How far the waves of a published assignment have come. */
@RestController
@RequestMapping("/api/assignments/{id}/waves")
class WavesApi {

    /**
     * @param lanes one for each wave, in their order; empty without waves
     * @param next what comes next, and when
     */
    record WavesView(List<Lane> lanes, NextWave next) {
    }

    private final CurrentSnapshot current;
    private final WaveProgress progress;
    private final Clock clock;

    WavesApi(CurrentSnapshot current, WaveProgress progress, Clock clock) {
        this.current = current;
        this.progress = progress;
        this.clock = clock;
    }

    @GetMapping
    WavesView waves(@PathVariable String id) {
        Snapshot snapshot = current.now();
        AssignmentDocument document = snapshot.get(AssignmentDocument.KIND).find(id);
        if (document == null) {
            throw ApiException.notFound("unknown-assignment", "There is no assignment " + id + " that is published; look at the list.");
        }
        List<Lane> lanes = progress.of(snapshot, document);
        return new WavesView(lanes, NextWave.of(document, lanes, clock.instant()));
    }
}
