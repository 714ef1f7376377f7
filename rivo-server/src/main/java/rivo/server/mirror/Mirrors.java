package rivo.server.mirror;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
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
import rivo.core.estate.Scope;
import rivo.core.resolve.Resolver;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleException;
import rivo.devices.protocol.Work;
import rivo.server.ServerSettings;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Rows;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** The mirrors there are, and which of them a device asks. Held in memory; safe for any number of threads. */
@Component
public class Mirrors {

    private static final Pattern ID = Pattern.compile("[a-z0-9][a-z0-9-]{0,59}");
    private static final int LONGEST_NAME = 100;
    private static final int MOST = 500;
    private static final int KEY_BYTES = 32;

    private record Kept(Mirror mirror, String key) {
    }

    private final ChangeWriter writer;
    private final LiveEvents events;
    private final boolean mayBeLocal;
    private final SecureRandom random = new SecureRandom();
    private volatile Map<String, Kept> mirrors;

    Mirrors(ChangeWriter writer, LiveEvents events, ServerSettings settings, JdbcClient db) {
        this.mayBeLocal = settings.localMirrors();
        this.writer = writer;
        this.events = events;
        Map<String, Kept> read = new LinkedHashMap<>();
        db.sql("select * from mirrors order by place").query((row, n) -> read.put(row.getString("id"), new Kept(new Mirror(
                row.getString("id"), row.getString("name"), row.getString("address"), row.getString("fits")),
                row.getString("mirror_key"))) == null).list();
        this.mirrors = read;
    }

    /** In the order in which they were put in, which is the order in which devices ask them. */
    public Collection<Mirror> all() {
        return mirrors.values().stream().map(Kept::mirror).toList();
    }

    /** @throws ApiException when there is no such mirror */
    Mirror mirror(String id) {
        return kept(id).mirror();
    }

    private Kept kept(String id) {
        Kept kept = mirrors.get(id);
        if (kept == null) {
            throw ApiException.notFound("unknown-mirror", "There is no mirror " + id + "; pick one from the list.");
        }
        return kept;
    }

    /** By this the mirror proves to the server that it may have content. */
    public String key(String id) {
        return kept(id).key();
    }

    /** The mirror whose key this is; null when it is nobody's. */
    public @Nullable Mirror withKey(String key) {
        byte[] asked = key.getBytes(StandardCharsets.UTF_8);
        Mirror found = null;
        for (Kept kept : mirrors.values()) {
            found = MessageDigest.isEqual(kept.key().getBytes(StandardCharsets.UTF_8), asked) ? kept.mirror() : found;
        }
        return found;
    }

    /** Whether the server may ask it: what its name means now may be another computer than when it was put in. */
    boolean mayBeAsked(Mirror mirror) {
        return MirrorAddress.problem(mirror.address(), mayBeLocal).isEmpty();
    }

    /** Those that a device asks, the first to ask first. */
    public List<Work.Mirror> of(Resolver resolver, Device device) {
        List<Work.Mirror> near = new ArrayList<>();
        for (Kept kept : mirrors.values()) {
            if (fits(resolver, kept.mirror(), resolver.estate().devices().position(device.id()))) {
                near.add(new Work.Mirror(kept.mirror().id(), kept.mirror().address()));
            }
        }
        return near;
    }

    private static boolean fits(Resolver resolver, Mirror mirror, int device) {
        return mirror.fits() == null || resolver.audiences().satisfying(mirror.fits(), Scope.DEVICE).contains(device);
    }

    /** How many devices ask it. */
    static int devices(Resolver resolver, Mirror mirror) {
        return mirror.fits() == null ? resolver.estate().devices().size()
                : resolver.audiences().satisfying(mirror.fits(), Scope.DEVICE).size();
    }

    /** Puts a mirror in, or another in its place, which keeps its key. @throws RefusedException with all that is wrong */
    public void put(String who, Mirror mirror) {
        check(mirror);
        writer.take(context -> {
            Kept before = mirrors.get(mirror.id());
            if (before == null && mirrors.size() >= MOST) {
                throw new RefusedException("too-many", "", "There are " + MOST + " mirrors; delete one first.");
            }
            String key = context.db().sql("select mirror_key from mirrors where id = ?").params(mirror.id()).query(String.class)
                    .optional().orElse(null);
            Kept after = new Kept(mirror, key == null ? newKey() : key);
            if (key == null) {
                context.db().sql("insert into mirrors (id, name, address, fits, mirror_key, changed_by, changed_at) "
                        + "values (?, ?, ?, ?, ?, ?, ?)").params(mirror.id(), mirror.name(), mirror.address(), mirror.fits(),
                                after.key(), who, Rows.at(context.now())).update();
            } else {
                context.db().sql("update mirrors set name = ?, address = ?, fits = ?, changed_by = ?, changed_at = ? where id = ?")
                        .params(mirror.name(), mirror.address(), mirror.fits(), who, Rows.at(context.now()), mirror.id()).update();
            }
            context.journal(who, before == null ? "mirror-added" : "mirror-changed", "mirror:" + mirror.id(), null,
                    before == null ? null : before.mirror(), mirror);
            context.afterwards(() -> remember(mirror.id(), after));
            return mirror;
        });
    }

    /** Devices ask it no more, and its key is worth nothing. */
    void delete(String who, String id) {
        writer.take(context -> {
            Mirror mirror = mirror(id);
            context.db().sql("delete from mirrors where id = ?").params(id).update();
            context.db().sql("delete from mirror_traffic where mirror = ?").params(id).update();
            context.journal(who, "mirror-deleted", "mirror:" + id, null, mirror, null);
            context.afterwards(() -> remember(id, null));
            return mirror;
        });
    }

    private void remember(String id, @Nullable Kept kept) {
        Map<String, Kept> next = new LinkedHashMap<>(mirrors);
        if (kept == null) {
            next.remove(id);
        } else {
            next.put(id, kept);
        }
        mirrors = next;
        events.changed(Topics.ESTATE);
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
