package rivo.server.fleet;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.bucket4j.Bandwidth;
import io.github.bucket4j.Bucket;
import io.github.bucket4j.ConsumptionProbe;
import java.time.Duration;
import org.springframework.stereotype.Component;
import rivo.server.ServerSettings;
import rivo.server.web.ApiException;

/**
 * How much one device may report: so many reports a minute, and so many bytes a day. Counted in memory, for as many devices as have
 * reported within the last day; a restart begins anew. Safe for any number of threads.
 */
@Component
class ReportLimits {

    private static final Duration DAY = Duration.ofDays(1);

    private record Buckets(Bucket reports, Bucket bytes) {
    }

    private final Cache<String, Buckets> devices = Caffeine.newBuilder().expireAfterAccess(DAY).build();
    private final int aMinute;
    private final long bytesADay;

    ReportLimits(ServerSettings settings) {
        this.aMinute = settings.reports().aMinute();
        this.bytesADay = (long) settings.reports().mebibytesADay() << 20;
    }

    /** @throws ApiException when the device has reported as much as it may; it says when to come again */
    void take(String device, int bytes) {
        Buckets own = devices.get(device, d -> new Buckets(bucket(aMinute, Duration.ofMinutes(1)), bucket(bytesADay, DAY)));
        take(own.reports(), 1, aMinute + " reports a minute");
        take(own.bytes(), Math.max(1, bytes), (bytesADay >> 20) + " MiB of reports a day");
    }

    private static void take(Bucket bucket, long tokens, String limit) {
        ConsumptionProbe probe = bucket.tryConsumeAndReturnRemaining(tokens);
        if (!probe.isConsumed()) {
            long seconds = Duration.ofNanos(probe.getNanosToWaitForRefill()).toSeconds() + 1;
            throw ApiException.tooMany("too-many-reports", "A device may send " + limit + ". Send what is left in one report, in "
                    + seconds + " s.", seconds);
        }
    }

    private static Bucket bucket(long capacity, Duration refilledIn) {
        return Bucket.builder().addLimit(Bandwidth.builder().capacity(capacity).refillGreedy(capacity, refilledIn).build()).build();
    }
}
