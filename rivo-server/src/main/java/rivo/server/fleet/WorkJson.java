package rivo.server.fleet;

import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.function.Consumer;
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
    private volatile @Nullable Checks ofDevices;
    private volatile @Nullable Checks ofPeople;

    WorkJson(JsonMapper json) {
        this.json = json;
    }

    byte[] of(Work work) {
        SerializedString checks = checks(ofDevices, work.checks(), made -> ofDevices = made);
        List<Work.Check> wanted = work.personChecks();
        SerializedString personChecks = wanted == null ? null : checks(ofPeople, wanted, made -> ofPeople = made);
        ByteArrayOutputStream out = new ByteArrayOutputStream(USUAL_SIZE + checks.getValue().length()
                + (personChecks == null ? 0 : personChecks.getValue().length()));
        try (JsonGenerator generator = json.createGenerator(out)) {
            generator.writeStartObject();
            generator.writePOJOProperty("jobs", work.jobs());
            generator.writeName("checks");
            generator.writeRawValue(checks);
            generator.writePOJOProperty("mirrors", work.mirrors());
            generator.writePOJOProperty("windows", work.windows());
            if (personChecks != null) {
                generator.writePOJOProperty("people", work.people());
                generator.writeName("personChecks");
                generator.writeRawValue(personChecks);
            }
            if (work.quietHours() != null) {
                generator.writePOJOProperty("quietHours", work.quietHours());
            }
            if (work.answers() != null) {
                generator.writePOJOProperty("answers", work.answers());
            }
            if (work.menu() != null) {
                generator.writePOJOProperty("menu", work.menu());
            }
            if (work.serverKey() != null) {
                generator.writeStringProperty("serverKey", work.serverKey());
            }
            generator.writeEndObject();
        }
        return out.toByteArray();
    }

    private SerializedString checks(@Nullable Checks held, List<Work.Check> wanted, Consumer<Checks> keep) {
        if (held != null && held.of() == wanted) {
            return held.json();
        }
        Checks made = new Checks(wanted, new SerializedString(json.writeValueAsString(wanted)));
        keep.accept(made);
        return made.json();
    }
}
