package rivo.server.fleet;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.Enrolment;
import rivo.server.estate.Journey;
import rivo.server.estate.Road;
import rivo.server.estate.Rows;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/**
 * Which devices have a key of their own, and the one-time tokens by which they get one. Only the hash of a token is
 * kept. Keys are held in memory too, so that a call-in never reads H2.
 */
@Component
public class Enrolments {

    private static final int KEY_BYTES = 32;
    private static final int TOKEN_BYTES = 24;
    private static final int SHORTEST_NONCE = 16;
    private static final int LONGEST_NONCE = 200;

    /** A token just made; it is never shown again. */
    public record NewToken(String device, String token, Instant validUntil) {
    }

    private record Token(String device, Instant validUntil, @Nullable String nonce) {
    }

    private final Road road;
    private final LiveEvents events;
    private final SecureRandom random = new SecureRandom();
    private final Map<String, byte[]> keys = new ConcurrentHashMap<>();

    Enrolments(Road road, LiveEvents events, JdbcClient db) {
        this.road = road;
        this.events = events;
        db.sql("select device, device_key from enrolments").query((row, n) -> keys.put(row.getString("device"),
                Base64.getDecoder().decode(row.getString("device_key")))).list();
    }

    /** The key of an enrolled device. */
    Optional<byte[]> key(String device) {
        return Optional.ofNullable(keys.get(device));
    }

    public boolean isEnrolled(String device) {
        return keys.containsKey(device);
    }

    public int enrolled() {
        return keys.size();
    }

    /**
     * Makes a one-time token for each device, by device id. A token made before for a device stays valid.
     *
     * @throws ApiException when a device does not exist
     */
    public Map<String, NewToken> newTokens(String who, Collection<String> devices, Duration valid) {
        return road.take(journey -> {
            Instant until = journey.now().plus(valid);
            Map<String, NewToken> tokens = new LinkedHashMap<>();
            List<Object[]> rows = new ArrayList<>();
            for (String device : devices) {
                known(journey, device);
                NewToken token = new NewToken(device, randomText(TOKEN_BYTES), until);
                tokens.put(device, token);
                rows.add(new Object[] {hash(token.token()), device, Rows.at(until)});
            }
            journey.batch("insert into tokens (hash, device, valid_until) values (?, ?, ?)", rows);
            journey.journal(who, "tokens-made", devices.size() == 1 ? "device:" + devices.iterator().next() : "devices",
                    null, null, Map.of("devices", devices.size(), "validUntil", until.toString()));
            return tokens;
        });
    }

    private static void known(Journey journey, String device) {
        if (journey.estate().devices().find(device) == null) {
            throw Fleet.unknown(device);
        }
    }

    /**
     * Gives a device a key of its own. The same token with the same nonce gets the same key again while the token is
     * valid; with another nonce it is refused.
     */
    Enrolled enrol(Enrolment asked) {
        checkNonce(asked.nonce());
        return road.take(journey -> {
            Token token = token(journey.db(), asked.token());
            if (token == null || token.validUntil().isBefore(journey.now())
                    || token.nonce() != null && !token.nonce().equals(hash(asked.nonce()))) {
                throw ApiException.refused(HttpStatus.UNAUTHORIZED, "bad-token",
                        "The token is wrong, used, or no longer valid. Ask for a new one on the device's page.");
            }
            Device device = journey.estate().devices().find(token.device());
            if (device == null) {
                throw Fleet.gone();
            }
            byte[] held = keys.get(device.id());
            byte[] key = token.nonce() != null && held != null ? held : newKey(journey, asked, device);
            return new Enrolled(device.id(), device.name(), Base64.getEncoder().encodeToString(key));
        });
    }

    private static void checkNonce(@Nullable String nonce) {
        if (nonce == null || nonce.length() < SHORTEST_NONCE || nonce.length() > LONGEST_NONCE) {
            throw ApiException.refused(HttpStatus.BAD_REQUEST, "bad-nonce", "The nonce has " + SHORTEST_NONCE + " to "
                    + LONGEST_NONCE + " characters, chosen at random by the device.");
        }
    }

    private static @Nullable Token token(JdbcClient db, @Nullable String token) {
        return db.sql("select * from tokens where hash = ?").params(hash(token == null ? "" : token))
                .query((row, n) -> new Token(row.getString("device"), Rows.instant(row, "valid_until"),
                        row.getString("nonce")))
                .optional().orElse(null);
    }

    private byte[] newKey(Journey journey, Enrolment asked, Device device) {
        byte[] key = new byte[KEY_BYTES];
        random.nextBytes(key);
        journey.db().sql("merge into enrolments (device, device_key, at) values (?, ?, ?)")
                .params(device.id(), Base64.getEncoder().encodeToString(key), Rows.at(journey.now())).update();
        journey.db().sql("update tokens set nonce = ? where hash = ?").params(hash(asked.nonce()),
                hash(asked.token())).update();
        // A token used before would get the new key by its old nonce.
        journey.db().sql("delete from tokens where device = ? and nonce is not null and hash <> ?")
                .params(device.id(), hash(asked.token())).update();
        journey.db().sql("update device_reports set last_number = 0 where device = ?").params(device.id()).update();
        journey.journal("device " + device.name(), "enrolled", "device:" + device.id(), null, null, null);
        journey.afterwards(() -> {
            keys.put(device.id(), key);
            events.changed(Topics.device(device.id()));
            events.changed(Topics.FLEET);
        });
        return key;
    }

    private String randomText(int bytes) {
        byte[] random = new byte[bytes];
        this.random.nextBytes(random);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(random);
    }

    private static String hash(String text) {
        try {
            return HexFormat.of().formatHex(
                    MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
