package rivo.server.estate;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Facts;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * What devices have reported, as the columns of {@code device_reports} hold it. A start reads them for every device, so they are read token by
 * token, without records of their own in between. A column that is null has nothing in it. Safe for any number of threads.
 */
final class ReportColumns {

    private ReportColumns() {
    }

    static Facts facts(@Nullable String json) {
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

    static List<Installed> installed(@Nullable String json) {
        return list(json, values -> SharedEntries.installed(values[0], values[1], values[2]), "name", "publisher", "version");
    }

    static List<Present> present(@Nullable String json) {
        return list(json, values -> SharedEntries.present(Objects.requireNonNull(values[0]), values[1], values[2], values[3]),
                "title", "version", "user", "by");
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
