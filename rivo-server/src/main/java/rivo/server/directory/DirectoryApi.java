package rivo.server.directory;

import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.server.estate.CurrentSnapshot;

/** How following the directory goes, and reading it at once. */
@RestController
class DirectoryApi {

    private final DirectoryFollower follower;
    private final CurrentSnapshot current;

    DirectoryApi(DirectoryFollower follower, CurrentSnapshot current) {
        this.follower = follower;
        this.current = current;
    }

    @GetMapping("/api/directory")
    DirectoryState state() {
        return follower.state();
    }

    /** What assignments name and the directory does not have any more, those that left last first. */
    @GetMapping("/api/directory/gone")
    List<GoneView> gone() {
        return GoneView.of(current.now().estate());
    }

    /** @param acceptRemovals whether to go on when more than a fifth of the computers would be gone */
    @PostMapping("/api/directory/scan")
    DirectoryState scan(@RequestParam(defaultValue = "false") boolean acceptRemovals) {
        return follower.scanNow(acceptRemovals);
    }
}
