package rivo.server.mirror;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.resolve.Resolver;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleException;
import rivo.devices.protocol.Work;
import rivo.server.ServerSettings;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** The mirrors there are, and which of them a device asks. Safe for any number of threads. */
@Component
public class Mirrors {

    private static final Pattern ID = Pattern.compile("[a-z0-9][a-z0-9-]{0,59}");
    private static final int LONGEST_NAME = 100;
    private static final int MOST = 500;
    private static final int KEY_BYTES = 32;

    /** @param key by this the mirror proves to the server that it may have content */
    public record Kept(Mirror mirror, String key) {
    }

    /** By id, in the order in which they were put in, which is the order in which devices ask them. */
    public static final SnapshotPart<Map<String, Kept>> PART = new SnapshotPart<>() {
        @Override
        public Map<String, Kept> read(JdbcClient db) {
            Map<String, Kept> read = new LinkedHashMap<>();
            db.sql("select * from mirrors order by place").query(row -> {
                read.put(row.getString("id"), new Kept(new Mirror(row.getString("id"), row.getString("name"), row.getString("address"),
                        row.getString("fits")), row.getString("mirror_key")));
            });
            return Collections.unmodifiableMap(read);
        }
    };

    private final ChangeWriter writer;
    private final LiveEvents events;
    private final boolean mayBeLocal;
    private final SecureRandom random = new SecureRandom();
    private final CurrentSnapshot current;

    Mirrors(ChangeWriter writer, LiveEvents events, ServerSettings settings, CurrentSnapshot current) {
        this.mayBeLocal = settings.localMirrors();
        this.writer = writer;
        this.events = events;
        this.current = current;
    }

    /** Those of this moment, in the order in which devices ask them. */
    public Collection<Mirror> all() {
        return all(current.now());
    }

    static List<Mirror> all(Snapshot snapshot) {
        return snapshot.get(PART).values().stream().map(Kept::mirror).toList();
    }

    /** @throws ApiException when there is no such mirror */
    Mirror mirror(String id) {
        return kept(current.now(), id).mirror();
    }

    private static Kept kept(Snapshot snapshot, String id) {
        Kept kept = snapshot.get(PART).get(id);
        if (kept == null) {
            throw ApiException.notFound("unknown-mirror", "There is no mirror " + id + "; pick one from the list.");
        }
        return kept;
    }

    /** By this the mirror proves to the server that it may have content. */
    public String key(String id) {
        return kept(current.now(), id).key();
    }

    /** The mirror whose key this is; null when it is nobody's. */
    public static @Nullable Mirror withKey(Snapshot snapshot, String key) {
        byte[] asked = key.getBytes(StandardCharsets.UTF_8);
        Mirror found = null;
        for (Kept kept : snapshot.get(PART).values()) {
            found = MessageDigest.isEqual(kept.key().getBytes(StandardCharsets.UTF_8), asked) ? kept.mirror() : found;
        }
        return found;
    }

    /** Whether the server may ask it: what its name means now may be another computer than when it was put in. */
    boolean mayBeAsked(Mirror mirror) {
        return MirrorAddress.problem(mirror.address(), mayBeLocal).isEmpty();
    }

    /** Those that a device asks, the first to ask first. */
    public static List<Work.Mirror> of(Snapshot snapshot, Device device) {
        List<Work.Mirror> near = new ArrayList<>();
        int position = snapshot.estate().devices().position(device.id());
        for (Mirror mirror : all(snapshot)) {
            if (fits(snapshot.resolver(), mirror, position)) {
                near.add(new Work.Mirror(mirror.id(), mirror.address()));
            }
        }
        return near;
    }

    private static boolean fits(Resolver resolver, Mirror mirror, int device) {
        return resolver.audiences().devicesWhere(mirror.fits()).contains(device);
    }

    /** How many devices ask it. */
    static int devices(Resolver resolver, Mirror mirror) {
        return resolver.audiences().devicesWhere(mirror.fits()).size();
    }

    /** Puts a mirror in, or another in its place, which keeps its key. @throws RefusedException with all that is wrong */
    public void put(String who, Mirror mirror) {
        check(mirror);
        writer.take(context -> {
            Map<String, Kept> mirrors = context.get(PART);
            Kept before = mirrors.get(mirror.id());
            if (before == null && mirrors.size() >= MOST) {
                throw new RefusedException("too-many", "", "There are " + MOST + " mirrors; delete one first.");
            }
            Kept after = new Kept(mirror, before == null ? newKey() : before.key());
            if (before == null) {
                context.db().sql("insert into mirrors (id, name, address, fits, mirror_key, changed_by, changed_at) "
                        + "values (?, ?, ?, ?, ?, ?, ?)").params(mirror.id(), mirror.name(), mirror.address(), mirror.fits(),
                                after.key(), who, Rows.at(context.now())).update();
            } else {
                context.db().sql("update mirrors set name = ?, address = ?, fits = ?, changed_by = ?, changed_at = ? where id = ?")
                        .params(mirror.name(), mirror.address(), mirror.fits(), who, Rows.at(context.now()), mirror.id()).update();
            }
            context.journal(who, before == null ? "mirror-added" : "mirror-changed", "mirror:" + mirror.id(), null,
                    before == null ? null : before.mirror(), mirror);
            become(context, mirror.id(), after);
            return mirror;
        });
    }

    /** Devices ask it no more, and its key is worth nothing. */
    void delete(String who, String id) {
        writer.take(context -> {
            Mirror mirror = kept(context.snapshot(), id).mirror();
            context.db().sql("delete from mirrors where id = ?").params(id).update();
            context.db().sql("delete from mirror_traffic where mirror = ?").params(id).update();
            context.journal(who, "mirror-deleted", "mirror:" + id, null, mirror, null);
            become(context, id, null);
            return mirror;
        });
    }

    private void become(ChangeContext context, String id, @Nullable Kept kept) {
        Map<String, Kept> next = new LinkedHashMap<>(context.get(PART));
        if (kept == null) {
            next.remove(id);
        } else {
            next.put(id, kept);
        }
        context.becomes(PART, Collections.unmodifiableMap(next));
        context.afterwards(() -> events.changed(Topics.MIRRORS));
    }

    private String newKey() {
        byte[] key = new byte[KEY_BYTES];
        random.nextBytes(key);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(key);
    }

    private void check(Mirror mirror) {
        List<Problem> problems = new ArrayList<>();
        if (!ID.matcher(mirror.id()).matches()) {
            problems.add(new Problem("bad-id", "id", "An id has 1 to 60 small letters, digits and hyphens, such as hartsmere."));
        }
        if (mirror.name().isEmpty() || mirror.name().length() > LONGEST_NAME
                || mirror.name().chars().anyMatch(Character::isISOControl)) {
            problems.add(new Problem("bad-text", "name", "A mirror has a name of 1 to " + LONGEST_NAME + " characters."));
        }
        MirrorAddress.problem(mirror.address(), mayBeLocal)
                .ifPresent(sentence -> problems.add(new Problem("bad-address", "address", sentence)));
        if (mirror.fits() != null) {
            try {
                Rule.parse(mirror.fits());
            } catch (RuleException e) {
                problems.add(new Problem("bad-rule", "fits", String.valueOf(e.getMessage())));
            }
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }
}
