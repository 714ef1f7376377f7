package rivo.server.estate;

import java.util.List;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** JSON inside records. Safe for any number of threads. */
public final class Json {

    private static final JsonMapper MAPPER = new JsonMapper();

    private Json() {
    }

    public static String write(Object value) {
        return MAPPER.writeValueAsString(value);
    }

    public static <T> T read(String json, TypeReference<T> type) {
        return MAPPER.readValue(json, type);
    }

    public static <T> List<T> readList(String json, Class<T> element) {
        return MAPPER.readValue(json, MAPPER.getTypeFactory().constructCollectionType(List.class, element));
    }
}
