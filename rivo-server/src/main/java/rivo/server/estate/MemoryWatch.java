package rivo.server.estate;

import jakarta.annotation.PreDestroy;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.lang.management.MemoryUsage;
import java.util.List;
import java.util.regex.Pattern;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Has changes refused while the heap is nearly full, before an {@link OutOfMemoryError} comes to whatever thread happens to ask next: the
 * one that takes connections cannot be replaced.
 *
 * <p><b>How.</b> What counts is what the collector could not free: the use of every pool of the heap after its last collection
 * ({@link MemoryPoolMXBean#getCollectionUsage}), all together, against the most that the heap may have. Above nine parts in ten changes
 * are refused; below eight they are taken again. It looks twice a second, and costs nothing to speak of.
 *
 * <p>Should a thread of the container die of an error all the same, nobody would get through any more while the process looks alive. Then
 * the process ends: nothing that was acknowledged is lost, and whoever watches over it starts it again.
 */
@Component
class MemoryWatch {

    static final int ENDED_FOR_MEMORY = 3;
    private static final Logger LOG = LoggerFactory.getLogger(MemoryWatch.class);
    private static final long EVERY_MILLIS = 500;
    private static final double TOO_FULL = 0.9;
    private static final double ROOM_AGAIN = 0.8;
    /** Those of Tomcat's threads that nothing replaces. */
    private static final Pattern IRREPLACEABLE = Pattern.compile("https?-.*-(Acceptor|Poller).*");

    private final Road road;
    private final List<MemoryPoolMXBean> pools = ManagementFactory.getMemoryPoolMXBeans().stream()
            .filter(pool -> pool.getType() == MemoryType.HEAP && pool.getCollectionUsage() != null).toList();
    private final Thread thread = new Thread(this::watch, "memory-watch");
    private final Thread.UncaughtExceptionHandler before = Thread.getDefaultUncaughtExceptionHandler();
    private boolean isShort;

    MemoryWatch(Road road) {
        this.road = road;
        thread.setDaemon(true);
        thread.start();
        Thread.setDefaultUncaughtExceptionHandler(this::died);
    }

    private void watch() {
        try {
            while (true) {
                Thread.sleep(EVERY_MILLIS);
                look(heldAfterCollections() / Runtime.getRuntime().maxMemory());
            }
        } catch (InterruptedException e) {
            LOG.debug("no longer watching the memory");
        } catch (OutOfMemoryError e) {
            road.memoryRanOut();
        }
    }

    /** @param full the part of the heap that is held, from 0 to 1 */
    void look(double full) {
        isShort = full > (isShort ? ROOM_AGAIN : TOO_FULL);
        road.memoryIsShort(isShort);
    }

    private double heldAfterCollections() {
        double sum = 0;
        for (MemoryPoolMXBean pool : pools) {
            MemoryUsage usage = pool.getCollectionUsage();
            sum += usage == null ? 0 : usage.getUsed();
        }
        return sum;
    }

    private void died(Thread of, Throwable e) {
        LOG.error("The thread {} ended", of.getName(), e);
        if (e instanceof OutOfMemoryError) {
            road.memoryRanOut();
        }
        if (e instanceof Error && IRREPLACEABLE.matcher(of.getName()).matches()) {
            LOG.error("Nobody can reach the server any more; it ends. Start it again, with more memory (--memory) if that was short.");
            Runtime.getRuntime().halt(ENDED_FOR_MEMORY);
        }
    }

    @PreDestroy
    void stop() {
        thread.interrupt();
        Thread.setDefaultUncaughtExceptionHandler(before);
    }
}
