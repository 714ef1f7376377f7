package rivo.core.estate;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;

/**
 * What is known of one device or person: a few named texts. Names are found without regard to case.
 *
 * <p>Immutable. There may be a million of these, which mostly tell the same things: so values stand side by side in one
 * small array, and those of equal names share the array of their names. Looking a name up walks that array.
 */
public final class Facts {

    public static final Facts NONE = new Facts(new String[0], new String[0]);

    /** Arrays of names, by what they hold; so many are kept to be shared, whatever devices come up with. */
    private static final Map<List<String>, String[]> SHARED = new ConcurrentHashMap<>();
    private static final int MOST_SHARED = 4096;

    /** Ascending. */
    private final String[] names;
    private final String[] values;

    private Facts(String[] names, String[] values) {
        this.names = names;
        this.values = values;
    }

    public static Facts of(Map<String, String> facts) {
        if (facts.isEmpty()) {
            return NONE;
        }
        List<String> names = new ArrayList<>(facts.keySet());
        names.sort(null);
        String[] values = new String[names.size()];
        Arrays.setAll(values, i -> Objects.requireNonNull(facts.get(names.get(i))));
        return new Facts(shared(names), values);
    }

    private static String[] shared(List<String> names) {
        String[] known = SHARED.get(names);
        if (known == null) {
            known = names.toArray(new String[0]);
            if (SHARED.size() < MOST_SHARED) {
                SHARED.put(List.of(known), known);
            }
        }
        return known;
    }

    /** The value under this name, however it is capitalised, or null. */
    public @Nullable String get(String name) {
        for (int i = 0; i < names.length; i++) {
            if (names[i].equals(name)) {
                return values[i];
            }
        }
        for (int i = 0; i < names.length; i++) {
            if (names[i].equalsIgnoreCase(name)) {
                return values[i];
            }
        }
        return null;
    }

    /** Whether the two are known to have the same names, in the same places: a look at one reference. */
    public boolean sharesNamesWith(Facts other) {
        return names == other.names;
    }

    public int size() {
        return values.length;
    }

    /** The name at this place, from 0 on; names are in ascending order. */
    public String name(int place) {
        return names[place];
    }

    /** The value of the name at this place. */
    public String value(int place) {
        return values[place];
    }

    public void forEach(BiConsumer<String, String> consumer) {
        for (int i = 0; i < names.length; i++) {
            consumer.accept(names[i], values[i]);
        }
    }

    /** By name, in the order of the names. */
    public Map<String, String> asMap() {
        Map<String, String> map = new TreeMap<>();
        forEach(map::put);
        return map;
    }

    public boolean isEmpty() {
        return values.length == 0;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Facts facts && Arrays.equals(names, facts.names)
                && Arrays.equals(values, facts.values);
    }

    @Override
    public int hashCode() {
        return 31 * Arrays.hashCode(names) + Arrays.hashCode(values);
    }

    @Override
    public String toString() {
        return asMap().toString();
    }
}
