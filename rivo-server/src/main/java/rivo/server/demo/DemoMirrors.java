package rivo.server.demo;

import java.io.IOException;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import org.springframework.context.annotation.Profile;
import org.springframework.stereotype.Component;
import rivo.devices.fleet.SimulatedMirror;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.mirror.Copies;
import rivo.server.mirror.Mirror;
import rivo.server.mirror.Mirrors;

/** The demo's mirrors: stand-ins at two sites, which begin with nothing at each start and are given everything. */
@Component
@Profile("demo")
class DemoMirrors implements AutoCloseable {

    private final Mirrors mirrors;
    private final Copies copies;
    private final List<SimulatedMirror> running = new ArrayList<>();

    DemoMirrors(Mirrors mirrors, Copies copies) {
        this.mirrors = mirrors;
        this.copies = copies;
    }

    /** Starts a stand-in for each that nobody has deleted or moved elsewhere, and tells where it is now. */
    void start(URI server) throws IOException {
        if (mirrors.all().isEmpty()) {
            put("hartsmere", "Hartsmere", "http://127.0.0.1:1");
            put("coldwell", "Coldwell", "http://127.0.0.1:1");
        }
        for (Mirror mirror : mirrors.all()) {
            if (mirror.address().startsWith("http://127.0.0.1:")) {
                SimulatedMirror stand = new SimulatedMirror(server, mirrors.key(mirror.id()), 0);
                running.add(stand);
                mirrors.put(DemoOrganisation.ADMINISTRATOR, new Mirror(mirror.id(), mirror.name(), stand.address(), mirror.fits()));
                copies.copyAll(mirror.id());
            }
        }
    }

    private void put(String id, String site, String address) {
        mirrors.put(DemoOrganisation.ADMINISTRATOR, new Mirror(id, site, address, "site eq \"" + site + "\""));
    }

    @Override
    public void close() {
        running.forEach(SimulatedMirror::close);
    }
}
