package rivo.server.fleet;

import java.io.ByteArrayOutputStream;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Work;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.io.SerializedString;
import tools.jackson.databind.json.JsonMapper;

/**
 * Work as JSON, the same as the mapper would write it. What devices are to look at is the same for all of them, and by far the largest part
 * where there are many titles: its JSON is made once for all until a title changes. Safe for any number of threads.
 */
final class WorkJson {

    private static final int USUAL_SIZE = 1 << 12;

    private record Checks(List<Work.Check> of, SerializedString json) {
    }

    private final JsonMapper json;
    private volatile @Nullable Checks known;

    WorkJson(JsonMapper json) {
        this.json = json;
    }

    byte[] of(Work work) {
        SerializedString checks = checks(work.checks());
        ByteArrayOutputStream out = new ByteArrayOutputStream(USUAL_SIZE + checks.getValue().length());
        try (JsonGenerator generator = json.createGenerator(out)) {
            generator.writeStartObject();
            generator.writePOJOProperty("jobs", work.jobs());
            generator.writeName("checks");
            generator.writeRawValue(checks);
            generator.writePOJOProperty("mirrors", work.mirrors());
            generator.writePOJOProperty("windows", work.windows());
            if (work.serverKey() != null) {
                generator.writeStringProperty("serverKey", work.serverKey());
            }
            generator.writeEndObject();
        }
        return out.toByteArray();
    }

    private SerializedString checks(List<Work.Check> wanted) {
        Checks held = known;
        if (held == null || held.of() != wanted) {
            held = new Checks(wanted, new SerializedString(json.writeValueAsString(wanted)));
            known = held;
        }
        return held.json();
    }
}
