package rivo.server.estate;

import java.util.List;
import tools.jackson.core.JsonParser;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JavaType;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** JSON inside records. Safe for any number of threads. */
public final class Json {

    private static final JsonMapper MAPPER = JsonMapper.builder().addModule(InstantReader.module()).build();
    private static final JsonMapper STRICT = JsonMapper.builder().addModule(InstantReader.module()).enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES).build();

    private Json() {
    }

    public static String write(Object value) {
        return MAPPER.writeValueAsString(value);
    }

    /** In UTF-8. */
    public static byte[] bytes(Object value) {
        return MAPPER.writeValueAsBytes(value);
    }

    /** For what is read token by token. */
    static JsonParser parser(String json) {
        return MAPPER.createParser(json);
    }

    /** @param json in UTF-8 */
    static JsonParser parser(byte[] json) {
        return MAPPER.createParser(json);
    }

    public static <T> T read(String json, TypeReference<T> type) {
        return MAPPER.readValue(json, type);
    }

    /** The value as a tree, the same as when it is written and read again. */
    public static JsonNode tree(Object value) {
        return MAPPER.readTree(write(value));
    }

    /** Refuses what it does not know, so that nothing of it can be lost unseen; what is left out is as usual. */
    public static <T> T readWhole(String json, Class<T> type) {
        return STRICT.readValue(json, type);
    }

    public static <T> List<T> readList(String json, Class<T> element) {
        return MAPPER.readValue(json, listOf(element));
    }

    /** @param json in UTF-8 */
    public static <T> List<T> readList(byte[] json, Class<T> element) {
        return MAPPER.readValue(json, listOf(element));
    }

    private static JavaType listOf(Class<?> element) {
        return MAPPER.getTypeFactory().constructCollectionType(List.class, element);
    }
}
