package rivo.server.catalogue.proposal;

import jakarta.annotation.PreDestroy;
import java.util.Set;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import rivo.server.web.ApiException;

/**
 * Reading what has been uploaded: two at a time, a few waiting, and each upload once at a time, so that whoever drops many files in takes
 * neither the processors nor the memory from others. Safe for any number of threads.
 */
@Component
class Readings {

    private static final int AT_ONCE = 2;
    private static final int MOST_WAITING = 16;

    private final Set<String> underWay = ConcurrentHashMap.newKeySet();
    private final ThreadPoolExecutor pool = new ThreadPoolExecutor(AT_ONCE, AT_ONCE, 1, TimeUnit.MINUTES,
            new ArrayBlockingQueue<>(MOST_WAITING), work -> {
                Thread thread = new Thread(work, "reading");
                thread.setDaemon(true);
                return thread;
            });

    /**
     * Reads and waits for it.
     *
     * @throws ApiException when this upload is being read already, or too many wait
     */
    <T> T read(String upload, Callable<T> reading) throws Exception {
        if (!underWay.add(upload)) {
            throw busyWith();
        }
        try {
            Future<T> result = pool.submit(reading);
            return result.get();
        } catch (RejectedExecutionException e) {
            throw ApiException.busy("busy", "Many files are being read; nothing was changed. Try again in a moment.");
        } catch (ExecutionException e) {
            if (e.getCause() instanceof Exception own) {
                throw own;
            }
            throw e;
        } finally {
            underWay.remove(upload);
        }
    }

    /** @throws ApiException when this upload is being read */
    void checkIdle(String upload) {
        if (underWay.contains(upload)) {
            throw busyWith();
        }
    }

    private static ApiException busyWith() {
        return ApiException.conflict("being-read", "This file is being read; wait until that is done.");
    }

    @PreDestroy
    void stop() {
        pool.shutdownNow();
    }
}
