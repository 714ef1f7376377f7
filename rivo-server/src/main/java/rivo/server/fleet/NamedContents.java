package rivo.server.fleet;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import rivo.devices.protocol.Work;

/**
 * The hashes of the content that a device's work named lately: a device fetches a file in many parts, and its work need not be computed
 * for each of them. What is not remembered, or was named longer ago than an hour, is computed anew. Safe for any number of threads.
 */
@Component
class NamedContents {

    private static final int REMEMBERED = 10_000;
    private static final Duration FORGOTTEN = Duration.ofHours(1);

    private final Cache<String, Set<String>> byDevice = Caffeine.newBuilder().maximumSize(REMEMBERED).expireAfterWrite(FORGOTTEN).build();

    /** What the device is told now counts in place of what it was told before. */
    void told(String device, Work work) {
        byDevice.put(device, hashes(work));
    }

    /** Whether the device's work names this content. A hash that is not among those remembered may have come since: then it is computed. */
    boolean has(String device, String sha256, Supplier<Work> work) {
        Set<String> remembered = byDevice.getIfPresent(device);
        if (remembered == null || !remembered.contains(sha256)) {
            remembered = hashes(work.get());
            byDevice.put(device, remembered);
        }
        return remembered.contains(sha256);
    }

    private static Set<String> hashes(Work work) {
        return work.jobs().stream().flatMap(job -> job.contents().stream()).map(content -> content.sha256())
                .collect(Collectors.toUnmodifiableSet());
    }
}
