package rivo.core.estate;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;

/**
 * What is known of one device or person: a few named texts. Names are found without regard to case.
 *
 * <p>Immutable. Names and values stand side by side in one small array, since there may be a million of these; looking
 * one up walks that array.
 */
public final class Facts {

    public static final Facts NONE = new Facts(new String[0]);

    /** Name, value, name, value, in the order of the names. */
    private final String[] pairs;

    private Facts(String[] pairs) {
        this.pairs = pairs;
    }

    public static Facts of(Map<String, String> facts) {
        if (facts.isEmpty()) {
            return NONE;
        }
        List<String> pairs = new ArrayList<>(facts.size() * 2);
        new TreeMap<>(facts).forEach((name, value) -> {
            pairs.add(name);
            pairs.add(value);
        });
        return new Facts(pairs.toArray(new String[0]));
    }

    /** The value under this name, however it is capitalised, or null. */
    public @Nullable String get(String name) {
        for (int i = 0; i < pairs.length; i += 2) {
            if (pairs[i].equals(name)) {
                return pairs[i + 1];
            }
        }
        for (int i = 0; i < pairs.length; i += 2) {
            if (pairs[i].equalsIgnoreCase(name)) {
                return pairs[i + 1];
            }
        }
        return null;
    }

    public void forEach(BiConsumer<String, String> consumer) {
        for (int i = 0; i < pairs.length; i += 2) {
            consumer.accept(pairs[i], pairs[i + 1]);
        }
    }

    /** By name, in the order of the names. */
    public Map<String, String> asMap() {
        Map<String, String> map = new TreeMap<>();
        forEach(map::put);
        return map;
    }

    public boolean isEmpty() {
        return pairs.length == 0;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Facts facts && Arrays.equals(pairs, facts.pairs);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(pairs);
    }

    @Override
    public String toString() {
        return asMap().toString();
    }
}
