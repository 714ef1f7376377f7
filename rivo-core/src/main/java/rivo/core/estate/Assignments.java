package rivo.core.estate;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** All assignments, the retired ones included: by id, and for each title those that speak for it. Immutable. */
public final class Assignments {

    private final Map<String, Assignment> byId;
    private final Map<String, List<Assignment>> byTitle;

    private Assignments(Map<String, Assignment> byId, Map<String, List<Assignment>> byTitle) {
        this.byId = byId;
        this.byTitle = byTitle;
    }

    static Assignments of(Collection<Assignment> assignments, Map<String, Kit> kits) {
        Map<String, Assignment> byId = new LinkedHashMap<>();
        Map<String, List<Assignment>> byTitle = new HashMap<>();
        assignments.stream().sorted(Comparator.comparingLong(Assignment::seq)).forEach(a -> {
            byId.put(a.id(), a);
            titles(a.subject(), kits).forEach(t -> byTitle.computeIfAbsent(t, k -> new ArrayList<>()).add(a));
        });
        byTitle.replaceAll((title, speaking) -> List.copyOf(speaking));
        return new Assignments(byId, byTitle);
    }

    private static Collection<String> titles(Subject subject, Map<String, Kit> kits) {
        if (!subject.kit()) {
            return List.of(subject.id());
        }
        Kit kit = kits.get(subject.id());
        return kit == null ? List.of() : new java.util.LinkedHashSet<>(kit.titles());
    }

    /** The oldest first. */
    public List<Assignment> all() {
        return List.copyOf(byId.values());
    }

    public @Nullable Assignment find(String id) {
        return byId.get(id);
    }

    /** Those that speak for a title, itself or through a kit, the oldest first; none for an unknown title. */
    public List<Assignment> of(String title) {
        return byTitle.getOrDefault(title, List.of());
    }

    /** One more than the highest {@code seq} there is. */
    public long nextSeq() {
        return byId.values().stream().mapToLong(Assignment::seq).max().orElse(0) + 1;
    }
}
