package rivo.server.window;

import java.security.Principal;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

/** Maintenance windows: the list, and changing one. */
@RestController
@RequestMapping("/api/windows")
class WindowsApi {

    /** @param devices how many it holds for */
    record WindowLine(WindowDocument window, int devices) {
    }

    private final MaintenanceWindows windows;
    private final CurrentSnapshot current;

    WindowsApi(MaintenanceWindows windows, CurrentSnapshot current) {
        this.windows = windows;
        this.current = current;
    }

    @GetMapping
    List<WindowLine> windows() {
        Snapshot now = current.now();
        return MaintenanceWindows.all(now).stream().map(w -> new WindowLine(w, MaintenanceWindows.devices(now.resolver(), w).size())).toList();
    }

    /** Refused with everything that is wrong with it. */
    @PutMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void put(@PathVariable String id, @RequestBody WindowDocument window, Principal who) {
        if (!id.equals(window.id())) {
            throw ApiException.conflict("other-id", "The window in the body is not the one in the address.");
        }
        windows.put(who.getName(), window);
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@PathVariable String id, Principal who) {
        windows.delete(who.getName(), id);
    }
}
