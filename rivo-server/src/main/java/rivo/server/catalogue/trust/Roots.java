package rivo.server.catalogue.trust;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.formats.installer.TrustedRoots;
import rivo.server.catalogue.content.Contents;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** The roots and keys that this organisation trusts. Safe for any number of threads. */
@Component
public class Roots {

    /** By name. */
    public static final SnapshotPart<List<TrustedRoot>> PART = new SnapshotPart<>() {
        @Override
        public List<TrustedRoot> read(JdbcClient db) {
            return sorted(db.sql("select * from trusted_roots").query((row, n) -> new TrustedRoot(row.getString("id"), TrustedRoot.Kind.valueOf(row.getString("kind")),
                    row.getString("name"), row.getString("content"), row.getObject("until_at") == null ? null : Rows.instant(row, "until_at"), row.getString("who"),
                    Rows.instant(row, "at"))).list());
        }
    };

    private static final int LONGEST = 1 << 20;
    private static final int MOST = 500;

    private final ChangeWriter writer;
    private final LiveEvents events;

    Roots(ChangeWriter writer, LiveEvents events) {
        this.writer = writer;
        this.events = events;
    }

    /** The certificates among them. */
    static TrustedRoots roots(Snapshot snapshot) {
        List<X509Certificate> all = new ArrayList<>();
        snapshot.get(PART).stream().filter(root -> root.kind() == TrustedRoot.Kind.CERTIFICATE)
                .forEach(root -> all.addAll(TrustedRoots.certificates(Base64.getDecoder().decode(root.content()))));
        return new TrustedRoots(all);
    }

    /** The OpenPGP keys among them. */
    public static List<byte[]> keys(Snapshot snapshot) {
        return snapshot.get(PART).stream().filter(root -> root.kind() == TrustedRoot.Kind.OPENPGP_KEY).map(root -> Base64.getDecoder().decode(root.content())).toList();
    }

    /**
     * Trusts what is given from now on.
     *
     * @param given certificates (PEM or DER) or an OpenPGP key (armoured or not)
     * @return those that are new
     * @throws ApiException when it is neither
     */
    public List<TrustedRoot> add(String who, byte[] given) {
        return writer.take(context -> {
            List<TrustedRoot> all = new ArrayList<>(context.get(PART));
            List<TrustedRoot> added = read(given, who, context.now()).stream().filter(one -> all.stream().noneMatch(known -> known.id().equals(one.id()))).toList();
            if (all.size() + added.size() > MOST) {
                throw ApiException.conflict("too-many", "At most " + MOST + " roots and keys can be trusted; delete those that are not needed.");
            }
            all.addAll(added);
            context.becomes(PART, sorted(all));
            added.forEach(one -> {
                context.db().sql("insert into trusted_roots (id, kind, name, content, until_at, who, at) values (?, ?, ?, ?, ?, ?, ?)")
                        .params(one.id(), one.kind().name(), one.name(), one.content(), one.until() == null ? null : Rows.at(one.until()), who, Rows.at(context.now())).update();
                context.journal(who, "root-trusted", "root:" + one.id(), null, null, one.name());
            });
            told(context);
            return added;
        });
    }

    /** @throws ApiException when there is none of this id */
    public void delete(String who, String id) {
        writer.take(context -> {
            List<TrustedRoot> all = new ArrayList<>(context.get(PART));
            TrustedRoot gone = all.stream().filter(one -> one.id().equals(id)).findFirst()
                    .orElseThrow(() -> ApiException.notFound("unknown-root", "There is no trusted root of this id; somebody may have deleted it."));
            all.remove(gone);
            context.becomes(PART, List.copyOf(all));
            context.db().sql("delete from trusted_roots where id = ?").params(id).update();
            context.journal(who, "root-deleted", "root:" + id, null, gone.name(), null);
            told(context);
            return id;
        });
    }

    private void told(ChangeContext context) {
        context.afterwards(() -> events.changed(List.of(Topics.TITLES)));
    }

    private static List<TrustedRoot> sorted(List<TrustedRoot> all) {
        return all.stream().sorted(Comparator.comparing(TrustedRoot::name).thenComparing(TrustedRoot::id)).toList();
    }

    private static List<TrustedRoot> read(byte[] given, String who, Instant now) {
        if (given.length > LONGEST) {
            throw ApiException.refused(HttpStatus.CONTENT_TOO_LARGE, "too-large", "A certificate or key has at most 1 MiB.");
        }
        List<TrustedRoot> read = new ArrayList<>();
        try {
            for (X509Certificate one : TrustedRoots.certificates(given)) {
                read.add(new TrustedRoot(hash(one.getEncoded()), TrustedRoot.Kind.CERTIFICATE, shown(TrustedRoots.name(one)), Base64.getEncoder().encodeToString(one.getEncoded()),
                        one.getNotAfter().toInstant(), who, now));
            }
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("a certificate that was read can be written", e);
        }
        String owners = read.isEmpty() ? TrustedRoots.keyOwners(given) : "";
        if (!owners.isEmpty()) {
            read.add(new TrustedRoot(hash(given), TrustedRoot.Kind.OPENPGP_KEY, shown(owners), Base64.getEncoder().encodeToString(given), null, who, now));
        }
        if (read.isEmpty()) {
            String words = new String(given, 0, Math.min(30, given.length), StandardCharsets.ISO_8859_1);
            throw ApiException.refused(HttpStatus.UNPROCESSABLE_CONTENT, "no-certificate", words.contains("PRIVATE KEY")
                    ? "This is a private key. Keep it to yourself, and give the certificate."
                    : "This is no certificate (PEM or DER) and no OpenPGP key. Export the root's certificate, and give that.");
        }
        return read;
    }

    private static String shown(String name) {
        return name.length() > 200 ? name.substring(0, 200) : name;
    }

    private static String hash(byte[] bytes) {
        return HexFormat.of().formatHex(Contents.sha256().digest(bytes));
    }
}
