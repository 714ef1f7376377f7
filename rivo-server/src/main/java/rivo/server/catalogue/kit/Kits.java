package rivo.server.catalogue.kit;

import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Subject;
import rivo.core.resolve.Resolver;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.document.Kept;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** The kits there are. Safe for any number of threads. */
@Component
public class Kits {

    private static final Pattern ID = Pattern.compile("[a-z0-9][a-z0-9.-]{0,99}");
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_DESCRIPTION = 2000;
    private static final int MOST_TITLES = 100;

    private final ChangeWriter writer;
    private final CurrentSnapshot current;
    private final LiveEvents events;

    Kits(ChangeWriter writer, CurrentSnapshot current, LiveEvents events) {
        this.writer = writer;
        this.current = current;
        this.events = events;
    }

    /** @throws ApiException when there is no such kit */
    static Kept<KitDocument> kept(Snapshot snapshot, String id) {
        Kept<KitDocument> kept = snapshot.get(KitDocument.KIND).kept(id);
        if (kept == null) {
            throw ApiException.notFound("unknown-kit", "There is no kit " + id + "; pick one from the catalogue.");
        }
        return kept;
    }

    /** @throws RefusedException with what is wrong with it by itself */
    static void check(KitDocument kit) {
        if (!ID.matcher(kit.id()).matches()) {
            throw new RefusedException("bad-id", "id", "An id has 1 to 100 small letters, digits, dots and hyphens, such as "
                    + "lab-bench.");
        }
        if (kit.name().isEmpty() || kit.name().length() > LONGEST_NAME || kit.description().length() > LONGEST_DESCRIPTION) {
            throw new RefusedException("bad-text", "name", "A kit has a name of 1 to " + LONGEST_NAME
                    + " characters and a description of at most " + LONGEST_DESCRIPTION + ".");
        }
        if (kit.titles().size() > MOST_TITLES) {
            throw new RefusedException("too-many", "titles", "A kit holds at most " + MOST_TITLES + " titles.");
        }
    }

    /**
     * Puts a kit in, or another in its place.
     *
     * @param revision of the kit that was edited; 0 for a new one
     * @param why for the journal; null where nothing changes for any device
     * @return the new revision
     * @throws ApiException when somebody has changed it since
     * @throws RefusedException with what is wrong with it
     */
    public long put(String who, long revision, KitDocument kit, @Nullable String why) {
        return writer.take(context -> {
            Kept<KitDocument> before = context.get(KitDocument.KIND).kept(kit.id());
            if (revision != (before == null ? 0 : before.revision())) {
                throw changedSince(revision, kit.name(), before);
            }
            Kept<KitDocument> after = new Kept<>(kit, revision + 1, who, context.now(), null);
            accepted(context.snapshot(), kit, before);
            KitDocument.KIND.put(context, List.of(after));
            context.journal(who, before == null ? "kit-added" : "kit-changed", "kit:" + kit.id(), why,
                    before == null ? null : before.document(), kit);
            context.afterwards(() -> tell(kit, before == null ? kit : before.document()));
            return after.revision();
        });
    }

    private void tell(KitDocument one, KitDocument other) {
        Resolver resolver = current.now().resolver();
        Set<String> concerned = new TreeSet<>();
        Stream.of(one, other).flatMap(kit -> kit.titles().stream()).filter(title -> resolver.estate().title(title) != null)
                .forEach(title -> concerned.addAll(resolver.settledWith(title)));
        events.changed(Topics.KITS);
        events.changed(Topics.titles(concerned));
    }

    /** @throws RefusedException when a title would come to the devices of the kit whose licence text nobody has accepted */
    private static void accepted(Snapshot now, KitDocument kit, @Nullable Kept<KitDocument> before) {
        Estate estate = now.estate();
        Subject subject = Subject.kit(kit.id());
        boolean live = estate.assignments().all().stream().anyMatch(a -> a.subject().equals(subject) && a.isLive(estate.asOf()));
        for (String title : live ? kit.titles() : List.<String>of()) {
            TitleRecord record = now.get(Titles.PART).find(title);
            boolean comes = before == null || !before.document().titles().contains(title);
            if (comes && record != null && Licences.isMissing(now, record)) {
                throw new RefusedException("licence-not-accepted", "titles", "The kit is assigned, and the licence text of "
                        + record.name() + " has not been accepted; read and accept it on its page first.");
            }
        }
    }

    private static ApiException changedSince(long revision, String name, @Nullable Kept<KitDocument> there) {
        return ApiException.conflict("changed-since", revision == 0 ? "There is a kit of this name already; give yours another."
                : there == null ? "There is no kit " + name + " any more. What you wrote is still here: make a new kit of it."
                        : name + " was changed by " + there.changedBy() + " since you opened it. Nothing of theirs was "
                                + "overwritten, and yours is still here: look at the newest version, then save again.");
    }

    /** @throws RefusedException when something was ever assigned by it: the history speaks of it */
    void delete(String who, String id) {
        writer.take(context -> {
            KitDocument kit = kept(context.snapshot(), id).document();
            KitDocument.KIND.remove(context, id);
            context.journal(who, "kit-deleted", "kit:" + id, null, kit, null);
            context.afterwards(() -> tell(kit, kit));
            return id;
        });
    }
}
