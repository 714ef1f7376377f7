package rivo.server.fleet;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import rivo.core.estate.Device;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;
import rivo.server.RivoApplication;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.storage.Database;

/**
 * How many reports a second are on disk when nobody asks by HTTP: the server in this process, and reports given to it as the device protocol's
 * handler gives them, each on a thread that waits until it is on disk. In the package of what it asks, for that is nobody else's.
 */
public final class WriterAlone {

    /** Those that come together are written together: so many at once as a large fleet has. */
    public static final int AT_ONCE = 512;
    /** Above every number that a device of the load has come to, and no leap. */
    private static final long NOT_REPORTED_YET = 500_000;

    private WriterAlone() {
    }

    /** Prints a line with the reports a second. @param arguments a data folder, the estate file it was filled from, seconds to get warm and to measure */
    public static void main(String[] arguments) throws Exception {
        Path data = Path.of(arguments[0]);
        Map<String, Object> settings = Map.of("rivo.data", data.toString(), "spring.datasource.url", Database.url(data), "rivo.estate", arguments[1],
                "rivo.trial-password", "writer alone", "spring.main.banner-mode", "off", "logging.level.root", "WARN", "server.port", 0);
        try (ConfigurableApplicationContext server = new SpringApplicationBuilder(RivoApplication.class).profiles("real").properties(settings)
                .logStartupInfo(false).run()) {
            Reports reports = server.getBean(Reports.class);
            List<String> devices = server.getBean(CurrentSnapshot.class).now().estate().devices().all().stream()
                    .map(Device::id).limit(AT_ONCE * 8L).toList();
            System.out.println("reports a second: " + perSecond(reports, devices, Integer.parseInt(arguments[2]), Integer.parseInt(arguments[3])));
        }
    }

    private static long perSecond(Reports reports, List<String> devices, int warm, int seconds) throws Exception {
        long from = System.nanoTime() + warm * 1_000_000_000L;
        long until = from + seconds * 1_000_000_000L;
        ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE);
        try {
            List<Future<Long>> counted = new ArrayList<>();
            for (int t = 0; t < AT_ONCE; t++) {
                List<String> own = devices.subList(devices.size() * t / AT_ONCE, devices.size() * (t + 1) / AT_ONCE);
                counted.add(threads.submit(() -> count(reports, own, from, until)));
            }
            long all = 0;
            for (Future<Long> one : counted) {
                all += one.get();
            }
            return all / seconds;
        } finally {
            threads.shutdownNow();
        }
    }

    /** How many of these devices' reports are on disk between two instants. */
    private static long count(Reports reports, List<String> devices, long from, long until) {
        long count = 0;
        for (long n = 0;; n++) {
            reports.take(devices.get((int) (n % devices.size())), report(NOT_REPORTED_YET + n, (int) (n % 100)));
            long now = System.nanoTime();
            if (now >= until) {
                return count;
            }
            count += now >= from ? 1 : 0;
        }
    }

    private static Report report(long number, int percent) {
        Progress progress = new Progress("t0", null, JobAction.INSTALL, "1.0", JobState.RUNNING, 1, 4, percent, "fetching", null, Instant.now(), null, null);
        return new Report(number, null, null, null, List.of(progress), null, null);
    }
}
