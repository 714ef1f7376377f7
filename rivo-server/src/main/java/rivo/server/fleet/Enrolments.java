package rivo.server.fleet;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.devices.protocol.AgreementKey;
import rivo.devices.protocol.Enrolled;
import rivo.devices.protocol.EnrolmentToken;
import rivo.devices.protocol.KeyId;
import rivo.devices.protocol.MessageKey;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.notice.Notices;
import rivo.server.web.ApiException;

/**
 * Which devices are known by which public key, and the one-time tokens by which they get known. Of a token, too, only the public
 * key is kept. The keys that devices sign with are derived when they are first needed. Safe for any number of threads.
 */
@Component
public class Enrolments {

    private static final Logger LOG = LoggerFactory.getLogger(Enrolments.class);

    /** A token just made; it is never shown again. */
    public record NewToken(String device, String token, Instant validUntil) {
    }

    /** @param usedBy the public key of the device that has used it; null while nobody has */
    private record Token(String device, Instant validUntil, @Nullable String usedBy) {
    }

    /** @param serverTag which of the server's keys it last signed with */
    record Known(String publicKey, String serverTag) {
    }

    /** The known devices, by their ids. */
    static final SnapshotPart<PMap<String, Known>> PART = new SnapshotPart<>() {
        @Override
        public PMap<String, Known> read(JdbcClient db) {
            Map<String, Known> read = new HashMap<>();
            db.sql("select device, public_key, server_tag from enrolments").query(row -> {
                read.put(row.getString("device"), new Known(row.getString("public_key"), row.getString("server_tag")));
            });
            return HashTreePMap.from(read);
        }
    };

    private final ChangeWriter writer;
    private final LiveEvents events;
    private final ServerKeys serverKeys;
    private final CurrentSnapshot current;
    private final ArrivedReports arrivedReports;
    /** By the device's public key and the server's tag: what they give never changes. */
    private final Map<KeyId, MessageKey> derived = new ConcurrentHashMap<>();

    Enrolments(ChangeWriter writer, LiveEvents events, ServerKeys serverKeys, CurrentSnapshot current, ArrivedReports arrivedReports) {
        this.arrivedReports = arrivedReports;
        this.writer = writer;
        this.events = events;
        this.serverKeys = serverKeys;
        this.current = current;
        long behind = withEarlierKey();
        if (behind > 0) {
            LOG.info("{} devices have not called in since the server's key was changed; keep the earlier key's file until they have",
                    behind);
        }
    }

    /** How many devices still sign by a key of the server that is no longer current. */
    public long withEarlierKey() {
        return current.now().get(PART).values().stream().filter(known -> !known.serverTag().equals(serverKeys.currentTag())).count();
    }

    /** A device that may call, and by what it signs. */
    record Signer(Known known, MessageKey key) {
    }

    /** Whom a message may be from that is signed with the key of this id; null when the device is not known, or the server has no such key. */
    @Nullable Signer signer(Snapshot snapshot, KeyId id) {
        Known known = snapshot.get(PART).get(id.name());
        AgreementKey own = known == null ? null : serverKeys.tagged(id.serverTag());
        return known == null || own == null ? null : new Signer(known, derived(own, known.publicKey(), id.serverTag()));
    }

    private MessageKey derived(AgreementKey own, String publicKey, String serverTag) {
        return derived.computeIfAbsent(new KeyId(publicKey, serverTag), i -> MessageKey.ofServer(own, publicKey));
    }

    /** The server's current public key, for a device that signs by an earlier one; null for the others. */
    @Nullable String newServerKey(Snapshot snapshot, String device) {
        Known known = snapshot.get(PART).get(device);
        return known == null || known.serverTag().equals(serverKeys.currentTag()) ? null : serverKeys.current().publicKey();
    }

    /**
     * Notes once that a device signs by another key of the server than before; gives the snapshot in which that is known.
     *
     * @param known how the snapshot has it
     */
    Snapshot signedWith(Snapshot snapshot, Known known, KeyId id) {
        if (known.serverTag().equals(id.serverTag()) || !id.serverTag().equals(serverKeys.currentTag())) {
            return snapshot;
        }
        writer.take(context -> {
            context.db().sql("update enrolments set server_tag = ? where device = ? and public_key = ?")
                    .params(id.serverTag(), id.name(), known.publicKey()).update();
            PMap<String, Known> devices = context.get(PART);
            if (known.equals(devices.get(id.name()))) {
                context.becomes(PART, devices.plus(id.name(), new Known(known.publicKey(), id.serverTag())));
            }
            return id;
        });
        return current.now();
    }

    static boolean isEnrolled(Snapshot snapshot, String device) {
        return snapshot.get(PART).containsKey(device);
    }

    static int enrolled(Snapshot snapshot) {
        return snapshot.get(PART).size();
    }

    /**
     * Makes a one-time token for each device, by device id. A token made before for a device stays valid.
     *
     * @throws ApiException when a device does not exist
     */
    public Map<String, NewToken> newTokens(String who, Collection<String> wanted, Duration valid) {
        String serverKey = serverKeys.current().publicKey();
        Map<String, EnrolmentToken> made = new LinkedHashMap<>();
        wanted.forEach(device -> made.put(device, EnrolmentToken.random(serverKey)));
        return writer.take(context -> {
            Instant until = context.now().plus(valid);
            Map<String, NewToken> tokens = new LinkedHashMap<>();
            List<Object[]> rows = new ArrayList<>();
            made.forEach((device, token) -> {
                if (context.estate().devices().find(device) == null) {
                    throw Fleet.unknown(device);
                }
                tokens.put(device, new NewToken(device, token.text(), until));
                rows.add(new Object[] {token.key().publicKey(), device, Rows.at(until)});
            });
            context.batch("insert into tokens (public_key, device, valid_until) values (?, ?, ?)", rows);
            context.journal(who, "tokens-made", made.size() == 1 ? "device:" + made.keySet().iterator().next() : "devices",
                    null, null, Map.of("devices", made.size(), "validUntil", until.toString()));
            return tokens;
        });
    }

    /** A device that has become known, and by what its answer is signed. */
    record NewlyEnrolled(Enrolled answer, KeyId keyId, MessageKey key) {
    }

    /**
     * Makes a device known by its public key. The same token with the same key gets the same answer again while the token is valid;
     * with another key it is refused.
     *
     * @throws ApiException when the request does not prove that whoever asks has the token and the private key
     */
    NewlyEnrolled enrol(SignedRequest request, @Nullable String publicKey) {
        AgreementKey own = serverKeys.tagged(request.keyId().serverTag());
        if (own == null || !isBy(request, own, publicKey)) {
            throw badToken();
        }
        String device = String.valueOf(publicKey);
        Enrolled enrolled = writer.take(context -> {
            Token token = token(context.db(), request.keyId().name());
            if (token == null || token.validUntil().isBefore(context.now())
                    || token.usedBy() != null && !token.usedBy().equals(device)) {
                throw badToken();
            }
            Device known = context.estate().devices().find(token.device());
            if (known == null) {
                throw Fleet.gone();
            }
            if (token.usedBy() == null) {
                enrol(context, known, device, request.keyId());
            } else if (!isKnownBy(context.snapshot(), known.id(), device)) {
                throw badToken();
            }
            return new Enrolled(known.id(), known.name());
        });
        String tag = request.keyId().serverTag();
        return new NewlyEnrolled(enrolled, new KeyId(enrolled.device(), tag), derived(own, device, tag));
    }

    private static ApiException badToken() {
        return ApiException.refused(HttpStatus.UNAUTHORIZED, "bad-token",
                "The token is wrong, used, or no longer valid. Ask for a new one on the device's page.");
    }

    /** Both keys come from outside, and one that can be no key proves nothing. */
    private static boolean isBy(SignedRequest request, AgreementKey own, @Nullable String publicKey) {
        String token = request.keyId().name();
        if (publicKey == null || !AgreementKey.isKey(publicKey) || !AgreementKey.isKey(token)) {
            return false;
        }
        try {
            return request.isBy(MessageKey.ofEnrolment(own, publicKey, token));
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    private static @Nullable Token token(JdbcClient db, String publicKey) {
        return db.sql("select device, valid_until, used_by from tokens where public_key = ?").params(publicKey)
                .query((row, n) -> new Token(row.getString("device"), Rows.instant(row, "valid_until"),
                        row.getString("used_by")))
                .optional().orElse(null);
    }

    /** Not when the device has enrolled anew or was revoked since. */
    private static boolean isKnownBy(Snapshot snapshot, String device, String publicKey) {
        Known known = snapshot.get(PART).get(device);
        return known != null && known.publicKey().equals(publicKey);
    }

    private void enrol(ChangeContext context, Device device, String publicKey, KeyId token) {
        context.db().sql("merge into enrolments (device, public_key, server_tag, at) values (?, ?, ?, ?)")
                .params(device.id(), publicKey, token.serverTag(), Rows.at(context.now())).update();
        context.db().sql("update tokens set used_by = ? where public_key = ?").params(publicKey, token.name()).update();
        // A token used before would answer for a key that counts no more.
        context.db().sql("delete from tokens where device = ? and used_by is not null and public_key <> ?")
                .params(device.id(), token.name()).update();
        arrivedReports.countAnew(context, device.id());
        Notices.forget(context, device.id());
        context.journal("device " + device.name(), "enrolled", "device:" + device.id(), null, null, null);
        become(context, device.id(), new Known(publicKey, token.serverTag()));
    }

    /**
     * Ends what a device signs with, and every token made for it: whoever has its key has nothing any more. It can enrol anew by a
     * new token.
     *
     * @throws ApiException when the device is not enrolled
     */
    void revoke(String who, String device) {
        writer.take(context -> {
            int rows = context.db().sql("delete from enrolments where device = ?").params(device).update();
            if (rows == 0) {
                throw ApiException.conflict("not-enrolled", "This device is not enrolled; there is nothing to revoke.");
            }
            context.db().sql("delete from tokens where device = ?").params(device).update();
            context.journal(who, "enrolment-revoked", "device:" + device, null, null, null);
            become(context, device, null);
            return device;
        });
    }

    private void become(ChangeContext context, String device, @Nullable Known known) {
        PMap<String, Known> devices = context.get(PART);
        context.becomes(PART, known == null ? devices.minus(device) : devices.plus(device, known));
        context.afterwards(() -> forgetAndTell(device, devices.get(device), known));
    }

    private void forgetAndTell(String device, @Nullable Known before, @Nullable Known known) {
        if (before != null && (known == null || !before.publicKey().equals(known.publicKey()))) {
            derived.keySet().removeIf(id -> id.name().equals(before.publicKey()));
        }
        events.changed(Topics.device(device));
    }
}
