package rivo.server.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.SmartLifecycle;
import org.springframework.context.annotation.Profile;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.estate.Devices;
import rivo.devices.fleet.FleetSettings;
import rivo.devices.fleet.Roster;
import rivo.devices.fleet.SimulatedFleet;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.ServerSettings;
import rivo.server.directory.DirectoryFollower;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.fleet.Enrolments;

/**
 * Gets the demo going once the server is up: waits for the directory, fills the catalogue, gives each computer a token,
 * and starts the simulated fleet, which from then on speaks nothing but the device protocol.
 */
@Component
@Profile("demo")
public class DemoFleet implements SmartLifecycle {

    private static final Logger LOG = LoggerFactory.getLogger(DemoFleet.class);
    private static final long SEED = 20261123;
    private static final Duration FIRST_CALLS = Duration.ofMinutes(3);
    private static final Duration RETRY_AFTER = Duration.ofSeconds(12);
    private static final Duration TOKEN_VALID = Duration.ofDays(1);

    private final DemoSettings demo;
    private final ServerSettings settings;
    private final DemoSeed seed;
    private final DemoMirrors mirrors;
    private final CurrentSnapshot current;
    private final Enrolments enrolments;
    private final DirectoryFollower follower;
    private final CountDownLatch history = new CountDownLatch(1);
    private volatile boolean running;
    private volatile @Nullable SimulatedFleet fleet;

    DemoFleet(DemoSettings demo, ServerSettings settings, DemoSeed seed, DemoMirrors mirrors, CurrentSnapshot current, Enrolments enrolments,
            DirectoryFollower follower) {
        this.demo = demo;
        this.settings = settings;
        this.seed = seed;
        this.mirrors = mirrors;
        this.current = current;
        this.enrolments = enrolments;
        this.follower = follower;
    }

    @EventListener
    void ready(ApplicationReadyEvent event) {
        if (!current.now().estate().assignments().all().isEmpty()) {
            history.countDown();
        }
        int port = ((WebServerApplicationContext) event.getApplicationContext()).getWebServer().getPort();
        Thread thread = new Thread(() -> go(URI.create("http://127.0.0.1:" + port)), "demo");
        thread.setDaemon(true);
        thread.start();
    }

    private void go(URI server) {
        try {
            follower.scanNow(false);
            if (current.now().estate().devices().size() == 0) {
                LOG.warn("The demo has no devices, since its directory could not be read.");
                return;
            }
            seed.fill();
            history.countDown();
            mirrors.start(server);
            SimulatedFleet started = new SimulatedFleet(new FleetSettings(server, demo.folder(), SEED, demo.calls(),
                    settings.callInEvery(), FIRST_CALLS, demo.step(), RETRY_AFTER, demo.sessions(), demo.shelf()), roster());
            fleet = started;
            started.start();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            history.countDown();
        }
    }

    /** Whether the titles and first changes of the demo are there; if not, they are being made. */
    public boolean hasHistory() {
        return history.getCount() == 0;
    }

    /** Waits for them, or until it is known that they will not come. */
    public void awaitHistory() throws InterruptedException {
        history.await();
    }

    private Roster roster() throws IOException {
        DemoOrganisation organisation = new DemoOrganisation(demo.small());
        Set<String> enrolled = new HashSet<>(SimulatedFleet.enrolledIn(demo.folder()));
        Map<String, Device> devices = new HashMap<>();
        Devices all = current.now().estate().devices();
        for (int p = 0; p < all.size(); p++) {
            devices.put(all.at(p).name(), all.at(p));
        }
        List<String> tokenless = organisation.computers().stream().map(DemoOrganisation.Computer::name)
                .filter(name -> devices.containsKey(name) && !enrolled.contains(name))
                .map(name -> devices.get(name).id()).toList();
        Map<String, Enrolments.NewToken> tokens = tokenless.isEmpty() ? Map.of()
                : enrolments.newTokens("demo", tokenless, TOKEN_VALID);
        List<Roster.Entry> entries = new ArrayList<>();
        List<DemoOrganisation.Computer> computers = organisation.computers();
        int everyNth = Math.max(1, computers.size() / Math.max(1, demo.lively()));
        for (int i = 0; i < computers.size(); i++) {
            Device device = devices.get(computers.get(i).name());
            if (device != null) {
                Enrolments.NewToken token = tokens.get(device.id());
                entries.add(DemoDevice.entry(computers.get(i), token == null ? "" : token.token(),
                        i % everyNth == 0 || computers.get(i).owners().stream().anyMatch(owner -> DemoOrganisation.mayBeTried(owner.account()))));
            }
        }
        return new Roster(entries);
    }

    @Override
    public void start() {
        running = true;
    }

    /** The devices stop before the server does. */
    @Override
    public void stop() {
        running = false;
        SimulatedFleet started = fleet;
        if (started != null) {
            try {
                started.close();
            } catch (IOException e) {
                LOG.warn("The simulated fleet could not keep its state", e);
            }
        }
    }

    @Override
    public boolean isRunning() {
        return running;
    }
}
