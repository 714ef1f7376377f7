package rivo.devices.fleet;

import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * All simulated devices, taking turns on a few threads. {@link #close()} stops them all within seconds; what they had
 * kept is there at the next start.
 *
 * <p>A device that cannot reach the server tries again after its interval; one that is refused is logged once and
 * stops.
 */
public final class SimulatedFleet implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(SimulatedFleet.class);
    private static final int THREADS = 6;

    private final FleetSettings settings;
    private final FleetStore store;
    private final NoticeLog.Writer notices;
    private final List<SimulatedDevice> devices = new ArrayList<>();
    private final ScheduledThreadPoolExecutor turns;

    /** @throws IOException when the folder cannot be used */
    public SimulatedFleet(FleetSettings settings, Roster roster) throws IOException {
        this.settings = settings;
        this.store = new FleetStore(settings.folder());
        this.notices = new NoticeLog.Writer(settings.folder());
        ServerConnection server = new ServerConnection(settings.server());
        Map<String, DeviceState> states = store.states();
        for (Roster.Entry entry : roster.entries()) {
            DeviceState kept = states.containsKey(entry.name()) ? states.get(entry.name())
                    : DeviceState.fresh(entry.name(), entry.software(), entry.profiles());
            devices.add(new SimulatedDevice(entry, kept, new Luck(settings.seed(), entry.name(), entry.triedOut()), server, store, NoticeLog.of(notices, entry.name()), settings));
        }
        AtomicInteger threads = new AtomicInteger();
        turns = new ScheduledThreadPoolExecutor(THREADS, work -> {
            Thread thread = new Thread(work, "fleet-" + threads.incrementAndGet());
            thread.setDaemon(true);
            return thread;
        });
        turns.setRemoveOnCancelPolicy(true);
        turns.setExecuteExistingDelayedTasksAfterShutdownPolicy(false);
    }

    /** The names of the devices in this folder that have a key already. */
    public static List<String> enrolledIn(java.nio.file.Path folder) throws IOException {
        try (FleetStore store = new FleetStore(folder)) {
            return store.states().values().stream().filter(DeviceState::isEnrolled).map(DeviceState::name).toList();
        }
    }

    public void start() {
        int ordinary = 0;
        long ordinaryOnes = devices.stream().filter(d -> !d.isLively()).count();
        int lively = 0;
        for (SimulatedDevice device : devices) {
            long delay = device.isLively() ? (lively++ * 7L) % settings.livelyInterval().toMillis()
                    : settings.firstCalls().toMillis() * ordinary++ / Math.max(1, ordinaryOnes)
                            + settings.livelyInterval().toMillis();
            later(device, Duration.ofMillis(delay));
        }
    }

    private void later(SimulatedDevice device, Duration delay) {
        try {
            turns.schedule(() -> turn(device), delay.toMillis(), TimeUnit.MILLISECONDS);
        } catch (RejectedExecutionException e) {
            // Closed in the meantime.
            LOG.trace("no more turns", e);
        }
    }

    private void turn(SimulatedDevice device) {
        Duration interval = device.isLively() ? settings.livelyInterval() : settings.ordinaryInterval();
        Duration delay = interval;
        try {
            device.turn(interval);
            delay = device.nextTurn(settings, interval);
        } catch (ServerConnection.RefusedByServer e) {
            if (stops(device, e)) {
                LOG.warn("{} stops: {}", device.name(), e.getMessage());
                return;
            }
            LOG.debug("{} is put off", device.name(), e);
        } catch (IOException e) {
            LOG.debug("{} does not reach the server", device.name(), e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return;
        } catch (RuntimeException e) {
            LOG.warn("{} does not understand the server and tries again", device.name(), e);
        }
        later(device, delay);
    }

    /** Only what the server has signed can stop a device; but a token that is not taken is worth no second try. */
    private static boolean stops(SimulatedDevice device, ServerConnection.RefusedByServer e) {
        // A report that names somebody who has just gone is put right after the next call-in.
        boolean refused = e.status() >= 400 && e.status() < 500 && e.status() != 429 && e.status() != 422;
        return refused && (e.isSigned() || !device.isEnrolled());
    }

    /**
     * Opens the shelf of whoever is signed in on a device, as its agent does for them: asks for a one-time link.
     *
     * @return where their browser goes
     * @throws IOException where nobody is signed in there, or the server gives no link
     */
    public URI openShelf(String deviceName) throws IOException, InterruptedException {
        return openShelf(deviceName, null);
    }

    /**
     * The same from an entry of the device's menu.
     *
     * @param title of the entry; null for the whole shelf
     * @throws IOException where there is no such entry, too
     */
    public URI openShelf(String deviceName, @Nullable String title) throws IOException, InterruptedException {
        SimulatedDevice device = devices.stream().filter(one -> one.name().equals(deviceName)).findFirst()
                .orElseThrow(() -> new IOException("there is no device " + deviceName));
        try {
            return turns.submit(() -> settings.server().resolve(device.shelfLink(title))).get();
        } catch (ExecutionException e) {
            throw new IOException("the shelf cannot be opened: " + e.getCause().getMessage(), e.getCause());
        }
    }

    @Override
    public void close() throws IOException {
        turns.shutdownNow();
        try {
            turns.awaitTermination(5, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        notices.close();
        store.close();
    }
}
