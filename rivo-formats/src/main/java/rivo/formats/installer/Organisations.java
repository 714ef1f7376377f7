package rivo.formats.installer;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Names of organisations, as makers and certificates write them. Pure functions. */
public final class Organisations {

    private static final Set<String> LEGAL_FORMS = Set.of("inc", "incorporated", "ltd", "limited", "gmbh", "mbh", "llc", "llp", "lp", "corp", "corporation", "co", "company",
            "plc", "ag", "sa", "sas", "sarl", "srl", "spa", "bv", "nv", "ab", "as", "asa", "oy", "oyj", "kg", "kgaa", "ohg", "ug", "ev", "eg", "se", "kk", "pty", "pte",
            "sro", "aps", "doo", "kft", "zrt", "zoo", "sp", "and");

    private Organisations() {
    }

    /**
     * Whether two names are of one organisation: the same words in the same order, but for capitals, punctuation and the legal form at the end. A name that merely
     * begins like another is of another.
     */
    public static boolean same(@Nullable String one, @Nullable String other) {
        List<String> a = words(one);
        return !a.isEmpty() && a.equals(words(other));
    }

    private static List<String> words(@Nullable String name) {
        String plain = name == null ? "" : name.toLowerCase(Locale.ROOT).replace(".", "").replace("&", " and ").replaceAll("[^\\p{L}\\p{N}]+", " ").strip();
        List<String> words = new ArrayList<>(plain.isEmpty() ? List.of() : Arrays.asList(plain.split(" ")));
        // A name of nothing but a legal form keeps its first word.
        while (words.size() > 1 && LEGAL_FORMS.contains(words.get(words.size() - 1))) {
            words.remove(words.size() - 1);
        }
        return words;
    }
}
