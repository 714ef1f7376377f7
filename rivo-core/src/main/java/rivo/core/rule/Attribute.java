package rivo.core.rule;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * An attribute that rules may name.
 *
 * @param name as a {@link Subject} knows it: in lower case
 */
record Attribute(String name, Type type) {

    /** What the values are, which says which operators and literals an attribute takes. */
    enum Type {
        TEXT, VERSION, NUMBER, INSTANT, DN, COLLECTION, COMPLEX
    }

    private static final String OWN = "x.";
    private static final Map<String, Type> OF_DEVICE = Map.ofEntries(Map.entry("name", Type.TEXT),
            Map.entry("os.family", Type.TEXT), Map.entry("os.edition", Type.TEXT), Map.entry("arch", Type.TEXT),
            Map.entry("manufacturer", Type.TEXT), Map.entry("model", Type.TEXT), Map.entry("chassis", Type.TEXT),
            Map.entry("language", Type.TEXT), Map.entry("site", Type.TEXT), Map.entry("joined", Type.TEXT),
            Map.entry("os.version", Type.VERSION), Map.entry("ramGiB", Type.NUMBER),
            Map.entry("diskFreeGiB", Type.NUMBER), Map.entry("lastSeen", Type.INSTANT),
            Map.entry("enrolled", Type.INSTANT), Map.entry("ou", Type.DN), Map.entry("group", Type.TEXT),
            Map.entry("collection", Type.COLLECTION), Map.entry("software", Type.COMPLEX),
            Map.entry("present", Type.COMPLEX), Map.entry("people", Type.COMPLEX));
    /** The names of {@link #OF_DEVICE} as they are written, by themselves in lower case. */
    private static final Map<String, String> WRITTEN = OF_DEVICE.keySet().stream()
            .collect(Collectors.toUnmodifiableMap(name -> name.toLowerCase(Locale.ROOT), name -> name));
    private static final Map<String, Map<String, Type>> OF_ELEMENT = Map.of(
            "software", Map.of("name", Type.TEXT, "publisher", Type.TEXT, "version", Type.VERSION),
            "present", Map.of("title", Type.TEXT, "version", Type.VERSION),
            "people", Map.of("name", Type.TEXT, "department", Type.TEXT, "group", Type.TEXT, "ou", Type.DN));

    /** The attribute of a device, or, with {@code complex}, of its elements; null when there is none of that name. */
    static @Nullable Attribute of(@Nullable String complex, String written) {
        // The very same text for the same name: the values of a subject are kept by it.
        String name = written.toLowerCase(Locale.ROOT).intern();
        if (complex == null) {
            if (name.startsWith(OWN) && name.length() > OWN.length()) {
                return new Attribute(name, Type.TEXT);
            }
            Type type = OF_DEVICE.get(written(name));
            return type == null ? null : new Attribute(name, type);
        }
        Type type = OF_ELEMENT.getOrDefault(complex, Map.of()).get(name);
        if (type == null && "people".equals(complex) && !name.contains(".")) {
            // Any other fact of a user.
            return new Attribute(name, Type.TEXT);
        }
        return type == null ? null : new Attribute(name, type);
    }

    /** The name in lower case as people write it. */
    static String written(String name) {
        return WRITTEN.getOrDefault(name, name);
    }

    /** Every attribute that is known by name, complex ones by their parts: {@code software.name}. In alphabetical order. */
    static List<RuleAttribute> all() {
        List<RuleAttribute> all = new ArrayList<>();
        OF_DEVICE.forEach((name, type) -> {
            if (type == Type.COMPLEX) {
                OF_ELEMENT.getOrDefault(name, Map.of()).forEach((part, of) -> all.add(new RuleAttribute(name + "." + part, of.name().toLowerCase(Locale.ROOT))));
            } else {
                all.add(new RuleAttribute(name, type.name().toLowerCase(Locale.ROOT)));
            }
        });
        all.sort(Comparator.comparing(RuleAttribute::name));
        return List.copyOf(all);
    }

    /** Whether it is the groups, which the directory says and no device reports. */
    boolean isGroup() {
        return name.equals("group");
    }

    /** The known name that begins so, else that is nearest to what was written; null when none is near. */
    static @Nullable String nearest(@Nullable String complex, String written) {
        Map<Integer, List<String>> byDistance = new TreeMap<>();
        Map<String, Type> known = complex == null ? OF_DEVICE : OF_ELEMENT.getOrDefault(complex, Map.of());
        String name = written.toLowerCase(Locale.ROOT);
        String begun = known.keySet().stream().filter(candidate -> name.length() > 1 && candidate.toLowerCase(Locale.ROOT).startsWith(name))
                .min(Comparator.comparingInt(String::length).thenComparing(Comparator.naturalOrder())).orElse(null);
        if (begun != null) {
            return begun;
        }
        known.keySet().stream().sorted().forEach(candidate -> byDistance
                .computeIfAbsent(distance(name, candidate.toLowerCase(Locale.ROOT)), d -> new ArrayList<>()).add(candidate));
        return byDistance.entrySet().stream().filter(e -> e.getKey() <= 1 + name.length() / 3)
                .map(e -> e.getValue().get(0)).findFirst().orElse(null);
    }

    /** How many letters have to be put in, taken out or changed. */
    private static int distance(String a, String b) {
        int[] row = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) {
            row[j] = j;
        }
        for (int i = 1; i <= a.length(); i++) {
            int diagonal = row[0];
            row[0] = i;
            for (int j = 1; j <= b.length(); j++) {
                int changed = diagonal + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
                diagonal = row[j];
                row[j] = Math.min(changed, Math.min(row[j], row[j - 1]) + 1);
            }
        }
        return row[b.length()];
    }
}
