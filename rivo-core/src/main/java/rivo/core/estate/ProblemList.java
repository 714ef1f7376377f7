package rivo.core.estate;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/** Collects what is wrong; the checks write into it. Of one thread. */
public final class ProblemList {

    /** The longest id, in characters. */
    public static final int LONGEST_ID = 200;

    private final List<Problem> problems = new ArrayList<>();

    /** @param sentence what is wrong and what to do, one sentence */
    public void add(String code, String place, String sentence) {
        problems.add(new Problem(code, place, sentence));
    }

    public List<Problem> all() {
        return List.copyOf(problems);
    }

    /** Says so when an id is not declared. */
    void known(Predicate<String> declared, String what, @Nullable String id, String place) {
        if (id != null && !declared.test(id)) {
            add("unknown-" + what.replace(' ', '-'), place, "There is no " + what + " \"" + id
                    + "\"; name one that is declared.");
        }
    }

    /** The same, where the place is only put together when it is needed. */
    void known(Predicate<String> declared, String what, @Nullable String id, String place, String within) {
        if (id != null && !declared.test(id)) {
            known(declared, what, id, place + within);
        }
    }

    /** Whether that has the form of an id. */
    static boolean isId(String id) {
        return !id.isEmpty() && id.length() <= LONGEST_ID && id.indexOf(';') < 0 && id.chars().noneMatch(Character::isISOControl);
    }

    /** Checks the form of an id, and that it has not been used before. */
    void id(boolean again, String what, String id, String place) {
        if (!isId(id)) {
            add("bad-id", place, "An id has 1 to " + LONGEST_ID + " characters without ';' and control characters; "
                    + "give this " + what + " another.");
        } else if (again) {
            add(what.replace(' ', '-') + "-twice", place, "The id \"" + id + "\" is used twice; give one " + what
                    + " another id.");
        }
    }

    /** Says so for every entry that stands in the list before. */
    void once(List<?> entries, String place) {
        if (entries.size() < 2) {
            return;
        }
        Set<Object> seen = new HashSet<>();
        for (int i = 0; i < entries.size(); i++) {
            if (!seen.add(entries.get(i))) {
                add("listed-twice", place + "[" + i + "]", "\"" + entries.get(i) + "\" is listed twice; list it once.");
            }
        }
    }
}
