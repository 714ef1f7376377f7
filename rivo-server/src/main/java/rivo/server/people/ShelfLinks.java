package rivo.server.people;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.HexFormat;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import rivo.server.catalogue.content.Contents;
import rivo.server.web.ApiException;

/**
 * One-time links by which a device signs its person in to their shelf of that device. Held in memory alone, by the SHA-256 of their tokens: a
 * restart ends them. Safe for any number of threads.
 */
@Component
public class ShelfLinks {

    /** How long a link works. */
    public static final Duration VALID = Duration.ofMinutes(2);
    private static final int BYTES = 32;
    private static final int MOST = 100_000;

    /** For whom, and on which device. */
    record Link(String person, String device, Instant until) {
    }

    private final SecureRandom random = new SecureRandom();
    private final Cache<String, Link> open = Caffeine.newBuilder().maximumSize(MOST).expireAfterWrite(VALID.multipliedBy(2)).build();
    private final Clock clock;

    ShelfLinks(Clock clock) {
        this.clock = clock;
    }

    /** Makes a token for this person, by id, on this device; those made before go on working. */
    public String make(String person, String device) {
        byte[] bytes = new byte[BYTES];
        random.nextBytes(bytes);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        open.put(hash(token), new Link(person, device, clock.instant().plus(VALID)));
        return token;
    }

    /** @throws ApiException for one that nobody made, that has been used, or that is too old */
    Link use(String token) {
        Link link = token == null ? null : open.asMap().remove(hash(token));
        if (link == null || !clock.instant().isBefore(link.until())) {
            throw ApiException.refused(HttpStatus.FORBIDDEN, "bad-link", "This link has been used, or is older than " + VALID.toMinutes()
                    + " minutes. Open the shelf on your computer once more, or sign in with your account.");
        }
        return link;
    }

    private static String hash(String token) {
        return HexFormat.of().formatHex(Contents.sha256().digest(token.getBytes(StandardCharsets.UTF_8)));
    }
}
