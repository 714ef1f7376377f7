package rivo.directory;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;

/**
 * What is new, changed and gone between what is held and what was found, by stable id: a renamed or moved entry is a
 * changed one.
 *
 * @param changed as found
 * @param gone as held
 */
public record Differences<T extends DirectoryPicture.Identified>(List<T> added, List<T> changed, List<T> gone) {

    public Differences {
        added = List.copyOf(added);
        changed = List.copyOf(changed);
        gone = List.copyOf(gone);
    }

    public static <T extends DirectoryPicture.Identified> Differences<T> between(Collection<T> held,
            Collection<T> found) {
        Map<String, T> before = new HashMap<>(held.size() * 2);
        held.forEach(entry -> before.put(entry.id(), entry));
        List<T> added = new ArrayList<>();
        List<T> changed = new ArrayList<>();
        Set<String> seen = new HashSet<>(found.size() * 2);
        for (T entry : found) {
            seen.add(entry.id());
            T old = before.get(entry.id());
            if (old == null) {
                added.add(entry);
            } else if (!old.equals(entry)) {
                changed.add(entry);
            }
        }
        return new Differences<>(added, changed, held.stream().filter(e -> !seen.contains(e.id())).toList());
    }

    /** What is new or changed, as found. */
    public List<T> put() {
        List<T> put = new ArrayList<>(added);
        put.addAll(changed);
        return put;
    }

    /** The ids of what was held and is no longer so. */
    public List<String> outdated() {
        return Stream.concat(gone.stream(), changed.stream()).map(DirectoryPicture.Identified::id).toList();
    }

    public boolean isEmpty() {
        return added.isEmpty() && changed.isEmpty() && gone.isEmpty();
    }

    public int size() {
        return added.size() + changed.size() + gone.size();
    }
}
