package rivo.server.catalogue.title;

import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.resolve.Resolver;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.EstateRecords;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;

/** The titles there are, and changing one. Safe for any number of threads. */
@Component
public class Catalogue {

    private final ChangeWriter writer;
    private final CurrentSnapshot current;
    private final LiveEvents events;

    Catalogue(ChangeWriter writer, CurrentSnapshot current, LiveEvents events) {
        this.writer = writer;
        this.current = current;
        this.events = events;
    }

    /** All titles, as they are now. */
    public Titles now() {
        return current.now().get(Titles.PART);
    }

    /** Puts a title in, or another in its place, whatever stands there. */
    public void put(String who, TitleRecord record) {
        put(who, null, record, null);
    }

    /**
     * Puts a title in, or another in its place.
     *
     * @param revision of the title that was edited; 0 for one that is new; null for whatever stands there
     * @return the new revision
     * @throws ApiException when somebody has changed it since
     * @throws rivo.core.estate.RefusedException with everything that is wrong with it
     */
    public long put(String who, @Nullable Long revision, TitleRecord record, @Nullable String why) {
        Resolver were = current.now().resolver();
        return writer.take(context -> {
            Titles titles = context.get(Titles.PART);
            KeptTitle before = titles.findKept(record.id());
            long there = before == null ? 0 : before.revision();
            if (revision != null && revision != there) {
                throw changedSince(record.id(), revision, before);
            }
            ChangedFiles.check(context.snapshot(), before == null ? null : before.record(), record);
            KeptTitle after = new KeptTitle(record, there + 1, who, context.now());
            context.becomes(TitleRecordChecks.check(context.estate(), record));
            context.becomes(Titles.PART, titles.with(after));
            new TitleRows(context.db()).replace(after, before != null);
            if (before != null && before.record().installedFor() != record.installedFor()) {
                EstateRecords.forgetPresent(context, present -> present.title().equals(record.id()), List.of());
            }
            context.journal(who, before == null ? "title-added" : "title-changed", "title:" + record.id(), why,
                    before == null ? null : before.record(), record);
            context.afterwards(() -> events.changed(Topics.titles(concerned(were, record.id()))));
            return after.revision();
        });
    }

    /** Whatever may have come to something else: what was settled together with it, and what is now. */
    private Set<String> concerned(Resolver before, String title) {
        Set<String> concerned = new TreeSet<>(current.now().resolver().settledWith(title));
        if (before.estate().title(title) != null) {
            concerned.addAll(before.settledWith(title));
        }
        return concerned;
    }

    private static ApiException changedSince(String id, long revision, @Nullable KeptTitle there) {
        if (there != null && revision == 0) {
            return ApiException.conflict("title-exists", "There is a title of this name already, " + there.record().name()
                    + ". Add a release to it, or give yours another name.");
        }
        return there == null
                ? ApiException.conflict("title-gone", "There is no title " + id + " any more. Your version is still here: "
                        + "put it in under another id.")
                : ApiException.conflict("changed-since", there.record().name() + " was changed by " + there.changedBy()
                        + " since you opened it. Nothing of theirs was overwritten, and yours is still here: look at the "
                        + "newest version, then save again.");
    }
}
