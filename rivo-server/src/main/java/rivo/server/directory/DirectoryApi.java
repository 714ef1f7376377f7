package rivo.server.directory;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** How following the directory goes, and reading it at once. */
@RestController
class DirectoryApi {

    private final DirectoryFollower follower;

    DirectoryApi(DirectoryFollower follower) {
        this.follower = follower;
    }

    @GetMapping("/api/directory")
    DirectoryState state() {
        return follower.state();
    }

    /** @param acceptRemovals whether to go on when more than a fifth of the computers would be gone */
    @PostMapping("/api/directory/scan")
    DirectoryState scan(@RequestParam(defaultValue = "false") boolean acceptRemovals) {
        return follower.scanNow(acceptRemovals);
    }
}
