package rivo.server.document;

import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** All documents of one kind, in the order in which they were first put in. Immutable. */
public final class Documents<D extends Document> {

    private final Map<String, Kept<D>> byId;

    private Documents(Map<String, Kept<D>> byId) {
        this.byId = Collections.unmodifiableMap(byId);
    }

    public static <D extends Document> Documents<D> of(Collection<Kept<D>> all) {
        Map<String, Kept<D>> byId = new LinkedHashMap<>();
        all.forEach(kept -> byId.put(kept.document().id(), kept));
        return new Documents<>(byId);
    }

    /** With who changed each. */
    public Collection<Kept<D>> kept() {
        return byId.values();
    }

    public Stream<D> stream() {
        return byId.values().stream().map(Kept::document);
    }

    public int size() {
        return byId.size();
    }

    /** Null where there is no such document. */
    public @Nullable Kept<D> kept(String id) {
        return byId.get(id);
    }

    /** Null where there is no such document. */
    public @Nullable D find(String id) {
        Kept<D> kept = byId.get(id);
        return kept == null ? null : kept.document();
    }

    /** 0 where there is no such document. */
    public long revision(String id) {
        Kept<D> kept = byId.get(id);
        return kept == null ? 0 : kept.revision();
    }

    /** These with some put in or replaced and some taken out; costs a copy. */
    Documents<D> with(Collection<Kept<D>> put, Collection<String> without) {
        Map<String, Kept<D>> next = new LinkedHashMap<>(byId);
        put.forEach(kept -> next.put(kept.document().id(), kept));
        next.keySet().removeAll(without);
        return new Documents<>(next);
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Documents<?> documents && documents.byId.equals(byId);
    }

    @Override
    public int hashCode() {
        return byId.hashCode();
    }
}
