package rivo.server.document;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Estate;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;

/**
 * One kind of document: its word, its type, and what its documents mean for the estate. A kind is a constant of its feature, and the part
 * of the snapshot that holds all its documents. Stateless; safe for any number of threads.
 */
public abstract class DocumentKind<D extends Document> implements SnapshotPart<Documents<D>> {

    private final String word;
    private final Class<D> type;

    /** @param word in records, in the API and in the journal: {@code assignment}, {@code kit} */
    protected DocumentKind(String word, Class<D> type) {
        this.word = word;
        this.type = type;
    }

    public final String word() {
        return word;
    }

    public final Class<D> type() {
        return type;
    }

    /**
     * The estate with some of these documents put in or replaced and some taken out: the one mapping of the kind to core values.
     *
     * @throws rivo.core.estate.RefusedException with everything that is wrong with them, or names them still
     */
    protected abstract Estate estate(Estate before, List<D> put, Set<String> retired);

    /**
     * What becomes of a document that is retired; null where nothing of it stays.
     *
     * @throws rivo.core.estate.RefusedException where it cannot be retired
     */
    public @Nullable D retired(D document) {
        return null;
    }

    /** The snapshot as it would be with these documents. Nothing is written. */
    public final Snapshot with(Snapshot before, List<Kept<D>> put, Set<String> retired) {
        Estate estate = estate(before.estate(), put.stream().map(Kept::document).toList(), retired);
        return before.with(estate).with(this, before.get(this).with(put, retired));
    }

    /** Writes documents and puts them and the estate that they make into the snapshot. */
    public final void put(ChangeContext context, List<Kept<D>> put) {
        context.becomes(with(context.snapshot(), put, Set.of()));
        write(context, put, Set.of());
    }

    /** Takes one out. */
    public final void remove(ChangeContext context, String id) {
        context.becomes(with(context.snapshot(), List.of(), Set.of(id)));
        write(context, List.of(), Set.of(id));
    }

    /** Writes documents and puts them into the snapshot, whose estate has them already. */
    public final void become(ChangeContext context, List<Kept<D>> put, Set<String> retired) {
        context.becomes(this, context.get(this).with(put, retired));
        write(context, put, retired);
    }

    private void write(ChangeContext context, List<Kept<D>> put, Set<String> retired) {
        List<Object[]> gone = new ArrayList<>();
        retired.forEach(id -> gone.add(new Object[] {word, id}));
        context.batch("delete from documents where kind = ? and id = ?", gone);
        List<Object[]> known = new ArrayList<>();
        List<Object[]> added = new ArrayList<>();
        for (Kept<D> kept : put) {
            (kept.revision() > 1 ? known : added).add(new Object[] {kept.revision(), Json.write(kept.document()), kept.changedBy(),
                Rows.at(kept.changedAt()), kept.change(), word, kept.document().id()});
        }
        context.batch("update documents set revision = ?, json = ?, changed_by = ?, changed_at = ?, change_number = ? "
                + "where kind = ? and id = ?", known);
        context.batch("insert into documents (revision, json, changed_by, changed_at, change_number, kind, id) values (?, ?, ?, ?, ?, ?, ?)",
                added);
    }

    @Override
    public final Documents<D> read(JdbcClient db) {
        List<Kept<D>> all = new ArrayList<>();
        db.sql("select * from documents where kind = ? order by place").params(word).query(row -> {
            all.add(new Kept<>(Json.readWhole(row.getString("json"), type), row.getLong("revision"), row.getString("changed_by"),
                    Rows.instant(row, "changed_at"), row.getObject("change_number", Long.class)));
        });
        return Documents.of(all);
    }

    /** @throws tools.jackson.core.JacksonException when it is no document of this kind */
    public final D parse(String json) {
        return Json.readWhole(json, type);
    }

    @Override
    public final String toString() {
        return word;
    }
}
