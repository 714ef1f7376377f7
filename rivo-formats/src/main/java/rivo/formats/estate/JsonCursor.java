package rivo.formats.estate;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Version;
import tools.jackson.core.JsonToken;

/**
 * Walks through a JSON document, knows where it stands, and collects what is wrong instead of stopping. Equal texts come
 * out as the same object. Of one thread.
 *
 * <p>It stands on the first token of the value that is read; after reading it stands on its last one.
 */
final class JsonCursor {

    private static final int FEW_KEYS = 32;

    private final JsonTokens json;
    private final List<Object> path = new ArrayList<>();
    private final Map<String, Problem> problems = new LinkedHashMap<>();
    private final Set<String> instants = new HashSet<>();
    private final List<String[]> seenAtDepth = new ArrayList<>();
    private int depth;
    private final Map<String, Version> versions = new HashMap<>();
    private final Map<String, String> ids = new HashMap<>();

    JsonCursor(JsonTokens json) {
        this.json = json;
    }

    /** Reads the value under a key; says false, without reading, when the key is unknown. */
    interface KeyReader {
        boolean read(String key);
    }

    /** The problems so far, by place. */
    Map<String, Problem> problems() {
        return problems;
    }

    /** Where it stands, such as {@code assignments[3].include[0]}. */
    String place() {
        StringBuilder place = new StringBuilder();
        for (Object step : path) {
            if (step instanceof Integer index) {
                place.append('[').append(index).append(']');
            } else {
                place.append(place.isEmpty() ? "" : ".").append(step);
            }
        }
        return place.toString();
    }

    void problem(String code, String sentence) {
        problemAt(place(), code, sentence);
    }

    private void problemAt(String place, String code, String sentence) {
        problems.putIfAbsent(place, new Problem(code, place, sentence));
    }

    /** Says so when a key that must be given was not. */
    void need(@Nullable Object value, String key) {
        if (value == null) {
            String here = place();
            problemAt(here.isEmpty() ? key : here + "." + key, "missing", "\"" + key + "\" is missing; give it.");
        }
    }

    /** Reads an object, key by key; anything else is a problem. */
    void object(KeyReader reader) {
        if (json.current() != JsonToken.START_OBJECT) {
            wrong("an object in braces");
            return;
        }
        String[] seen = seen();
        int n = 0;
        Set<String> many = null;
        depth++;
        while (json.next() != JsonToken.END_OBJECT) {
            String key = json.text();
            path.add(key);
            if (many == null ? isAmong(seen, n, key) : !many.add(key)) {
                problem("key-twice", "\"" + key + "\" is given twice; give it once.");
            }
            if (n < FEW_KEYS) {
                seen[n++] = key;
            } else if (many == null) {
                many = new HashSet<>(Arrays.asList(seen));
                many.add(key);
            }
            json.next();
            if (!reader.read(key)) {
                problem("unknown-key", "There is no key \"" + key + "\" here; remove it, or correct its spelling.");
                json.skipChildren();
            }
            path.remove(path.size() - 1);
        }
        depth--;
    }

    /** Room for the first keys of an object at this depth: an object ends before the next of its depth begins. */
    private String[] seen() {
        while (seenAtDepth.size() <= depth) {
            seenAtDepth.add(new String[FEW_KEYS]);
        }
        return seenAtDepth.get(depth);
    }

    private static boolean isAmong(String[] seen, int n, String key) {
        for (int i = 0; i < n; i++) {
            if (seen[i].equals(key)) {
                return true;
            }
        }
        return false;
    }

    /** Reads a list, entry by entry; anything else is a problem. */
    void list(Runnable entry) {
        if (json.current() != JsonToken.START_ARRAY) {
            wrong("a list in brackets");
            return;
        }
        for (int i = 0; json.next() != JsonToken.END_ARRAY; i++) {
            path.add(i);
            entry.run();
            path.remove(path.size() - 1);
        }
    }

    <T> List<T> listOf(Supplier<T> entry) {
        List<T> all = new ArrayList<>();
        list(() -> all.add(entry.get()));
        return all;
    }

    private void wrong(String expected) {
        problem("wrong-type", "Expected " + expected + ", found " + shown() + ".");
        json.skipChildren();
    }

    private String shown() {
        return switch (json.current()) {
            case START_OBJECT -> "an object";
            case START_ARRAY -> "a list";
            case VALUE_NULL -> "null";
            case VALUE_TRUE, VALUE_FALSE -> "true or false";
            case VALUE_STRING -> "a text";
            default -> "a number";
        };
    }

    boolean isNull() {
        return json.current() == JsonToken.VALUE_NULL;
    }

    /** A text that need not be there: null stands for nothing. */
    @Nullable String optionalText() {
        return isNull() ? null : text();
    }

    /** A text; when it is none, a problem and null. */
    @Nullable String text() {
        if (json.current() != JsonToken.VALUE_STRING) {
            wrong("a text in double quotes");
            return null;
        }
        return json.text();
    }

    /** A text; when it is none, a problem and the empty text. */
    String textOrEmpty() {
        String text = text();
        return text == null ? "" : text;
    }

    /** An id as the one object that the estate has for it, which part of a text is not: whoever is looked for by that is found sooner. */
    String oneId(String id) {
        String known = ids.putIfAbsent(id, id);
        return known == null ? id : known;
    }

    boolean truth() {
        if (json.current() != JsonToken.VALUE_TRUE && json.current() != JsonToken.VALUE_FALSE) {
            wrong("true or false");
            return false;
        }
        return json.current() == JsonToken.VALUE_TRUE;
    }

    /** A whole number within bounds, both included; else a problem and the lowest. */
    long whole(long lowest, long highest) {
        if (json.current() == JsonToken.VALUE_NUMBER_INT) {
            java.math.BigInteger number = new java.math.BigInteger(json.text());
            if (number.bitLength() < Long.SIZE && number.longValue() >= lowest && number.longValue() <= highest) {
                return number.longValue();
            }
            problem("out-of-bounds", "Expected a whole number from " + lowest + " to " + highest + ", found "
                    + (number.bitLength() < Long.SIZE ? number.toString() : "one far outside") + ".");
            return lowest;
        }
        wrong("a whole number");
        return lowest;
    }

    /** A number, as it is written; when it is none, a problem and null. */
    @Nullable String number() {
        if (json.current() != JsonToken.VALUE_NUMBER_INT && json.current() != JsonToken.VALUE_NUMBER_FLOAT) {
            wrong("a number");
            return null;
        }
        return json.text();
    }

    @Nullable BigDecimal decimal() {
        String number = number();
        return number == null ? null : new BigDecimal(number);
    }

    /** The text of an instant. */
    @Nullable String instantText() {
        String text = text();
        if (text == null || !instants.contains(text) && instant(text) == null) {
            return null;
        }
        instants.add(text);
        return text;
    }

    @Nullable Instant instant() {
        String text = text();
        return text == null ? null : instant(text);
    }

    private @Nullable Instant instant(String text) {
        try {
            return OffsetDateTime.parse(text).toInstant();
        } catch (DateTimeException e) {
            problem("bad-instant", "\"" + text + "\" is no instant; write one as RFC 3339 has it, such as "
                    + "2026-11-23T08:00:00Z.");
            return null;
        }
    }

    /** A version; when it is none, a problem and null. */
    @Nullable Version version() {
        String text = text();
        return text == null ? null : version(text);
    }

    @Nullable Version version(String text) {
        Version known = versions.get(text);
        if (known == null) {
            try {
                known = Version.of(text);
                versions.put(text, known);
            } catch (RefusedException e) {
                problem("bad-version", String.valueOf(e.getMessage()));
            }
        }
        return known;
    }

    /** One of a few words; when it is none of them, a problem and null. */
    <T> @Nullable T word(Map<String, T> words) {
        String text = text();
        T found = text == null ? null : words.get(text);
        if (text != null && found == null) {
            problem("unknown-word", "\"" + text + "\" is none of " + words.keySet().stream().sorted()
                    .collect(Collectors.joining(", ")) + ".");
        }
        return found;
    }
}
