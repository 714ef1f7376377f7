package rivo.server.people;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.Ticker;
import io.github.bucket4j.Bandwidth;
import io.github.bucket4j.Bucket;
import io.github.bucket4j.ConsumptionProbe;
import io.github.bucket4j.TimeMeter;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import rivo.server.web.ApiException;

/**
 * Slows down guessing: every try costs a token of the account's bucket and one of the address's, before the password is looked at,
 * so that many tries at once get no more than a few in turn. Buckets fill up again by themselves: an account's gives five tries, then
 * one in twenty seconds; an address's thirty, then one in five seconds. Nobody is locked out.
 *
 * <p>A right password gives its tokens back, and from then on for ninety days that account from that address has a bucket of its own,
 * which what others do elsewhere does not touch: guessing cannot hold up who has signed in there before.
 *
 * <p>Memory is bounded: what has been untouched the longest is forgotten first, beyond fifty thousand of each. Safe for any number of
 * threads.
 */
@Component
class SignInLimit {

    private static final int REMEMBERED = 50_000;
    private static final Duration FORGOTTEN = Duration.ofHours(2);
    private static final Duration KNOWN_FOR = Duration.ofDays(90);
    private static final Bandwidth ACCOUNT = Bandwidth.builder().capacity(5).refillGreedy(3, Duration.ofMinutes(1)).build();
    private static final Bandwidth ADDRESS = Bandwidth.builder().capacity(30).refillGreedy(12, Duration.ofMinutes(1)).build();

    private record Known(String account, String address) {
    }

    private final TimeMeter time;
    private final Cache<String, Bucket> accounts;
    private final Cache<String, Bucket> addresses;
    private final Cache<Known, Bucket> known;

    SignInLimit(Clock clock) {
        this.time = new TimeMeter() {
            @Override
            public long currentTimeNanos() {
                return TimeUnit.MILLISECONDS.toNanos(clock.millis());
            }

            @Override
            public boolean isWallClockBased() {
                return true;
            }
        };
        Ticker ticker = () -> TimeUnit.MILLISECONDS.toNanos(clock.millis());
        this.accounts = Caffeine.newBuilder().maximumSize(REMEMBERED).expireAfterAccess(FORGOTTEN).ticker(ticker).build();
        this.addresses = Caffeine.newBuilder().maximumSize(REMEMBERED).expireAfterAccess(FORGOTTEN).ticker(ticker).build();
        this.known = Caffeine.newBuilder().maximumSize(REMEMBERED).expireAfterAccess(KNOWN_FOR).ticker(ticker).build();
    }

    /** A try that has been let through; to be told when it was right. */
    final class Try {
        private final Known who;
        private final List<Bucket> taken;

        private Try(Known who, Bucket... taken) {
            this.who = who;
            this.taken = List.of(taken);
        }

        void wasRight() {
            taken.forEach(bucket -> bucket.addTokens(1));
            known.get(who, w -> bucket(ACCOUNT));
        }
    }

    /**
     * Takes one try.
     *
     * @param account as it was typed; at most as long as {@link SignIn} allows
     * @param address where the request comes from
     * @throws ApiException when there were too many
     */
    Try begin(String account, String address) {
        Known who = new Known(account.toLowerCase(Locale.ROOT), address);
        Bucket own = known.getIfPresent(who);
        if (own != null) {
            take(own, "for this account");
            return new Try(who, own);
        }
        Bucket byAddress = addresses.get(address, a -> bucket(ADDRESS));
        Bucket byAccount = accounts.get(who.account(), a -> bucket(ACCOUNT));
        // The address first: one that may not try costs no account anything.
        take(byAddress, "from this address");
        take(byAccount, "for this account");
        return new Try(who, byAccount, byAddress);
    }

    private static void take(Bucket bucket, String which) {
        ConsumptionProbe probe = bucket.tryConsumeAndReturnRemaining(1);
        if (!probe.isConsumed()) {
            long seconds = Math.max(1, Duration.ofNanos(probe.getNanosToWaitForRefill()).toSeconds() + 1);
            throw ApiException.tooMany("wait", "Too many tries to sign in " + which + ". Try again in " + seconds + " s.", seconds);
        }
    }

    private Bucket bucket(Bandwidth limit) {
        return Bucket.builder().addLimit(limit).withCustomTimePrecision(time).build();
    }
}
