package rivo.server.catalogue.title;

import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Something about a release that an assignment or a person may fix; steps refer to it as {@code {choice:ID}}.
 *
 * <p>A value is written as text: the chosen ones of a list with commas between them, {@code on} or {@code off}, words, or
 * a whole number.
 *
 * @param text its name, in the reader's words
 * @param usual the value where nobody fixes one
 * @param allowed what may be chosen; of a switch, how {@code on} and {@code off} read, if they do
 * @param least the lowest number, inclusive; null for any
 * @param most the highest number, inclusive; null for any
 */
public record ChoiceRecord(String id, String text, ChoiceKind kind, String usual, List<Allowed> allowed,
        @Nullable Long least, @Nullable Long most) {

    static final String ON = "on";
    static final String OFF = "off";
    private static final int LONGEST = 200;
    private static final Pattern ID = Pattern.compile("[a-z0-9][a-z0-9-]{0,39}");

    public ChoiceRecord {
        Objects.requireNonNull(kind, "a choice needs a kind");
        id = id == null ? "" : id;
        text = text == null ? "" : text;
        usual = usual == null ? "" : usual;
        allowed = allowed == null ? List.of() : List.copyOf(allowed);
    }

    /**
     * One value.
     *
     * @param text its name, in the reader's words; empty for the value itself
     * @param reads what steps get for it; empty for the value itself
     * @param bytes what it costs to fetch, besides its file
     * @param file the name of the content that only those fetch who have chosen it; empty for none
     */
    public record Allowed(String value, String text, String reads, long bytes, String file) {
        public Allowed {
            value = value == null ? "" : value;
            text = text == null ? "" : text;
            reads = reads == null ? "" : reads;
            file = file == null ? "" : file;
        }

        public String words() {
            return text.isEmpty() ? value : text;
        }
    }

    /** What may be chosen: of a switch, on and off. */
    public List<Allowed> valuesToChoose() {
        return kind != ChoiceKind.SWITCH ? allowed : Stream.of(ON, OFF).map(one -> allowed.stream().filter(a -> a.value().equals(one)).findFirst()
                .orElse(new Allowed(one, "", "", 0, ""))).toList();
    }

    public String words() {
        return text.isEmpty() ? id : text;
    }

    /** The values that are chosen, one by one. */
    Set<String> chosen(String value) {
        return kind.isMany() ? Arrays.stream(value.split(",")).map(String::strip).filter(v -> !v.isEmpty())
                .collect(Collectors.toCollection(LinkedHashSet::new)) : Set.of(value);
    }

    /** Why this may not be chosen, as a sentence; null when it may. */
    public @Nullable String problem(String value) {
        return switch (kind) {
            case PARTS, LANGUAGES, CHANNEL -> listed(value);
            case SWITCH -> ON.equals(value) || OFF.equals(value) ? null : words() + " is on or off, not “" + value + "”.";
            case TEXT -> value.length() <= LONGEST && StepsOnDevice.isHarmless(value) ? null : words() + " takes at most "
                    + LONGEST + " letters, digits, spaces and . _ : , @ + / -, because commands read the rest otherwise.";
            case NUMBER -> number(value);
        };
    }

    private @Nullable String listed(String value) {
        for (String one : chosen(value)) {
            if (find(one) == null) {
                return "“" + one + "” is not one of the " + words().toLowerCase(Locale.ROOT) + " to choose from: " + allowed.stream()
                        .map(Allowed::value).collect(Collectors.joining(", ")) + ".";
            }
        }
        return null;
    }

    private @Nullable String number(String value) {
        long number;
        try {
            number = Long.parseLong(value);
        } catch (NumberFormatException e) {
            return words() + " is a whole number, not “" + value + "”.";
        }
        boolean within = (least == null || number >= least) && (most == null || number <= most);
        return within ? null : words() + " is " + (least == null ? "at most " + most : most == null ? "at least " + least
                : "from " + least + " to " + most) + ", not " + value + ".";
    }

    /** For another release, whose files are not known yet. */
    public ChoiceRecord withoutFiles() {
        return new ChoiceRecord(id, text, kind, usual, allowed.stream().map(a -> new Allowed(a.value(), a.text(), a.reads(),
                a.bytes(), "")).toList(), least, most);
    }

    @Nullable Allowed find(String value) {
        return allowed.stream().filter(a -> a.value().equals(value)).findFirst().orElse(null);
    }

    /** What steps get for a value. */
    String reads(String value) {
        return chosen(value).stream().map(one -> {
            Allowed found = find(one);
            return found == null || found.reads().isEmpty() ? one : found.reads();
        }).collect(Collectors.joining(","));
    }

    /** What is to be said of a choice that makes no sense by itself. */
    List<String> problems() {
        List<String> problems = new java.util.ArrayList<>();
        if (!ID.matcher(id).matches()) {
            problems.add("The id of a choice has 1 to 40 small letters, digits and hyphens, such as languages.");
        }
        if (text.length() > LONGEST || allowed.stream().anyMatch(a -> a.text().length() > LONGEST || a.reads().length() > LONGEST)) {
            problems.add("The names in a choice, and what steps get for its values, have at most " + LONGEST + " characters.");
        }
        if (kind.isListed() && allowed.isEmpty()) {
            problems.add(words() + " needs values to choose from.");
        }
        for (Allowed one : allowed) {
            if (one.value().isBlank() || one.value().contains(",") || !StepsOnDevice.isHarmless(one.value())
                    || one.bytes() < 0 || one.value().length() > LONGEST) {
                problems.add("A value of " + words() + " has 1 to " + LONGEST
                        + " letters, digits, spaces and . _ : @ + / -, and a size that is not below 0.");
            }
        }
        if (allowed.stream().map(Allowed::value).distinct().count() < allowed.size()) {
            problems.add("A value of " + words() + " is there twice; take one out.");
        }
        if (least != null && most != null && least > most) {
            problems.add("The lowest number of " + words() + " is above its highest.");
        }
        String usually = problem(usual);
        if (usually != null && problems.isEmpty()) {
            problems.add("Usually: " + usually);
        }
        return problems;
    }
}
