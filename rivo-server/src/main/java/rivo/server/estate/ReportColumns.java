package rivo.server.estate;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Facts;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.estate.Version;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * What devices have reported, as the columns of {@code device_reports} hold it. A start reads them for every device, so they are read token by
 * token, without records of their own in between, and what is equal is found by its text ({@link SharedEntries}). A column that is null has nothing in it. Safe for any number of threads.
 */
final class ReportColumns {

    private final Map<Installed, Installed> software = new ConcurrentHashMap<>();
    private final Map<PresentText, Present> present = new ConcurrentHashMap<>();

    private record PresentText(String title, @Nullable String version, @Nullable String by) {
    }

    Facts facts(@Nullable String json) {
        if (json == null) {
            return Facts.NONE;
        }
        Map<String, String> facts = new HashMap<>();
        try (JsonParser parser = Json.parser(json)) {
            parser.nextToken();
            for (String name = parser.nextName(); name != null; name = parser.nextName()) {
                facts.put(name, Objects.requireNonNull(parser.nextStringValue()));
            }
        }
        return Facts.of(facts);
    }

    List<Installed> installed(@Nullable String json) {
        return list(json, values -> {
            Installed read = new Installed(values[0], values[1], values[2]);
            return software.computeIfAbsent(read, SharedEntries::one);
        }, "name", "publisher", "version");
    }

    List<Present> present(@Nullable String json) {
        return list(json, values -> {
            PresentText text = new PresentText(Objects.requireNonNull(values[0]), values[1], values[3]);
            return values[2] == null ? present.computeIfAbsent(text, key -> SharedEntries.one(present(key, null))) : present(text, values[2]);
        }, "title", "version", "user", "by");
    }

    private static Present present(PresentText text, @Nullable String user) {
        return new Present(text.title(), text.version() == null ? null : Version.of(text.version()), user, text.by());
    }

    /** @param make from the values of these names; null where one is missing or null */
    private static <T> List<T> list(@Nullable String json, Function<@Nullable String[], T> make, String... names) {
        if (json == null) {
            return List.of();
        }
        List<T> list = new ArrayList<>();
        try (JsonParser parser = Json.parser(json)) {
            parser.nextToken();
            while (parser.nextToken() == JsonToken.START_OBJECT) {
                @Nullable String[] values = new String[names.length];
                for (String name = parser.nextName(); name != null; name = parser.nextName()) {
                    int at = Arrays.asList(names).indexOf(name);
                    String value = parser.nextStringValue();
                    if (at >= 0) {
                        values[at] = value;
                    }
                    parser.skipChildren();
                }
                list.add(make.apply(values));
            }
        }
        return list;
    }
}
