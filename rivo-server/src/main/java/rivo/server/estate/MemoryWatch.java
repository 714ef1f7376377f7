package rivo.server.estate;

import com.sun.management.GarbageCollectorMXBean;
import com.sun.management.GcInfo;
import jakarta.annotation.PreDestroy;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Has changes refused while the heap is nearly full, before an {@link OutOfMemoryError} comes to whatever thread happens to ask next: the
 * one that takes connections cannot be replaced.
 *
 * <p><b>How.</b> Ten times a second it looks how much of the heap was in use when the latest collection of any kind had ended (all pools at
 * that one instant, {@link GcInfo#getMemoryUsageAfterGc}), and how much is in use now. Where the one is above 85 % of the most that the heap
 * may have, or the other above 90 %, it asks for a full collection, since a partial one leaves garbage behind, and between two the whole heap
 * can be filled with what is no garbage; if that leaves more than 85 %, changes are refused, until one leaves no more than 75 %. (Above
 * that a collector may fail to find room in one piece.) Collections that it asks for take at most a twentieth of the time. Where it may
 * not ask for one yet, and the last full one, whoever asked for it, left more than 80 %, changes are refused, too: on a slow machine it
 * waits for seconds, in which a heap can fill up.
 *
 * <p>Should a thread of the container die of an error all the same, nobody would get through any more while the process looks alive. Then
 * the process ends: nothing that was acknowledged is lost, and whoever watches over it starts it again.
 */
@Component
class MemoryWatch {

    static final int ENDED_FOR_MEMORY = 3;
    private static final Logger LOG = LoggerFactory.getLogger(MemoryWatch.class);
    private static final long EVERY_MILLIS = 100;
    private static final long COLLECTIONS_APART_NANOS = 1_000_000_000;
    private static final long PART_OF_THE_TIME = 20;
    private static final double TOO_FULL = 0.85;
    /** Garbage included. */
    private static final double ALMOST_ALL_IN_USE = 0.90;
    private static final double NEARLY = 0.80;
    private static final double ROOM_AGAIN = 0.75;
    /** Those of Tomcat's threads that nothing replaces. */
    private static final Pattern IRREPLACEABLE = Pattern.compile("https?-.*-(Acceptor|Poller).*");

    private final ChangeWriter writer;
    private final List<GarbageCollectorMXBean> collectors = ManagementFactory.getPlatformMXBeans(GarbageCollectorMXBean.class);
    private final Set<String> heapPools = ManagementFactory.getMemoryPoolMXBeans().stream()
            .filter(pool -> pool.getType() == MemoryType.HEAP).map(MemoryPoolMXBean::getName).collect(Collectors.toSet());
    private final Thread thread = new Thread(this::watch, "memory-watch");
    private final Thread.UncaughtExceptionHandler before = Thread.getDefaultUncaughtExceptionHandler();
    private long nextCollection = System.nanoTime();
    /** The one that answers when a full collection is asked for; null before the first. */
    private @Nullable GarbageCollectorMXBean fully;
    private boolean isShort;

    MemoryWatch(ChangeWriter writer) {
        this.writer = writer;
        thread.setDaemon(true);
        thread.start();
        Thread.setDefaultUncaughtExceptionHandler(this::died);
    }

    private void watch() {
        try {
            while (true) {
                Thread.sleep(EVERY_MILLIS);
                double left = leftBy(latest());
                if (left <= limit() && inUse() <= ALMOST_ALL_IN_USE) {
                    look(left);
                } else if (System.nanoTime() - nextCollection >= 0) {
                    collect();
                    look(leftBy(fully));
                } else if (leftBy(fully) > NEARLY) {
                    isShort = true;
                    writer.memoryIsShort(true);
                }
            }
        } catch (InterruptedException e) {
            LOG.debug("no longer watching the memory");
        } catch (OutOfMemoryError e) {
            writer.memoryRanOut();
        }
    }

    private void collect() {
        long start = System.nanoTime();
        System.gc();
        long end = System.nanoTime();
        fully = latest();
        nextCollection = end + Math.max(COLLECTIONS_APART_NANOS, PART_OF_THE_TIME * (end - start));
    }

    private double limit() {
        return isShort ? ROOM_AGAIN : TOO_FULL;
    }

    /** @param full the part of the heap that a full collection could not free, or more than that, from 0 to 1 */
    void look(double full) {
        isShort = full > limit();
        writer.memoryIsShort(isShort);
    }

    private static double inUse() {
        Runtime heap = Runtime.getRuntime();
        return (double) (heap.totalMemory() - heap.freeMemory()) / heap.maxMemory();
    }

    private double leftBy(@Nullable GarbageCollectorMXBean collector) {
        GcInfo collection = collector == null ? null : collector.getLastGcInfo();
        return collection == null ? 0 : (double) heapAfter(collection) / Runtime.getRuntime().maxMemory();
    }

    /** Null before the first collection. */
    private @Nullable GarbageCollectorMXBean latest() {
        return collectors.stream().filter(collector -> collector.getLastGcInfo() != null)
                .max(Comparator.comparing(collector -> collector.getLastGcInfo().getEndTime())).orElse(null);
    }

    private long heapAfter(GcInfo collection) {
        return collection.getMemoryUsageAfterGc().entrySet().stream().filter(pool -> heapPools.contains(pool.getKey()))
                .mapToLong(pool -> pool.getValue().getUsed()).sum();
    }

    private void died(Thread of, Throwable e) {
        LOG.error("The thread {} ended", of.getName(), e);
        if (e instanceof OutOfMemoryError) {
            writer.memoryRanOut();
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
