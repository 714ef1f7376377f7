package rivo.server.search;

import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;

/** Finds what is called so: each word that was typed has to stand in the name. Nothing typed finds everything. Immutable. */
public final class NameFinder {

    private static final int MOST_OF_A_KIND = 8;

    private final String[] words;

    public NameFinder(String typed) {
        words = typed.strip().toLowerCase(Locale.ROOT).split("\\s+");
    }

    public boolean matches(String name) {
        String text = name.toLowerCase(Locale.ROOT);
        for (String word : words) {
            if (!text.contains(word)) {
                return false;
            }
        }
        return true;
    }

    /**
     * Adds what was found while there are few of its kind.
     *
     * @param before how many of its kind were found before
     * @return 1 when the name matches, else 0
     */
    public <T> int take(List<? super T> found, int before, String name, Supplier<T> one) {
        if (!matches(name)) {
            return 0;
        }
        if (before < MOST_OF_A_KIND) {
            found.add(one.get());
        }
        return 1;
    }
}
