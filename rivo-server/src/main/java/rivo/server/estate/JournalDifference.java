package rivo.server.estate;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/**
 * What is different between two JSON values, each part under its path: the names on the way to it, each after a slash as in a JSON Pointer
 * (RFC 6901). In a list of things that have an id or a version, these stand for their places. Of one thread.
 */
final class JournalDifference {

    /** By which the things in a list are told apart. */
    private static final List<String> KEYS = List.of("id", "version", "sha256");

    private final Map<String, JsonNode> before = new LinkedHashMap<>();
    private final Map<String, JsonNode> after = new LinkedHashMap<>();

    private JournalDifference() {
    }

    static JournalDifference between(JsonNode before, JsonNode after) {
        JournalDifference difference = new JournalDifference();
        difference.look("", before, after);
        return difference;
    }

    /** What is not so any more, by path. */
    Map<String, JsonNode> before() {
        return before;
    }

    /** What is so instead, by path. */
    Map<String, JsonNode> after() {
        return after;
    }

    private void look(String path, @Nullable JsonNode was, @Nullable JsonNode is) {
        if (was != null && was.equals(is)) {
            return;
        }
        Map<String, JsonNode> old = was == null ? null : parts(was);
        Map<String, JsonNode> now = is == null ? null : parts(is);
        if (old != null && now != null) {
            Set<String> names = new LinkedHashSet<>(old.keySet());
            names.addAll(now.keySet());
            names.forEach(name -> look(path + "/" + name.replace("~", "~0").replace("/", "~1"), old.get(name), now.get(name)));
            return;
        }
        if (was != null) {
            before.put(path, was);
        }
        if (is != null) {
            after.put(path, is);
        }
    }

    /** By their names; null for what has no named parts. */
    private static @Nullable Map<String, JsonNode> parts(JsonNode node) {
        Map<String, JsonNode> parts = new LinkedHashMap<>();
        if (node.isObject()) {
            node.properties().forEach(property -> parts.put(property.getKey(), property.getValue()));
            return parts;
        }
        if (!node.isArray()) {
            return null;
        }
        for (JsonNode element : node) {
            String name = KEYS.stream().filter(element::has).findFirst().map(key -> element.path(key).asString("")).orElse("");
            if (name.isEmpty() || parts.put(name, element) != null) {
                return null;
            }
        }
        return parts;
    }
}
