package rivo.formats.estate;

import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.util.List;
import java.util.zip.GZIPOutputStream;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Group;
import rivo.core.estate.Installed;
import rivo.core.estate.Kit;
import rivo.core.estate.Leaving;
import rivo.core.estate.Need;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.Replacement;
import rivo.core.estate.Request;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Variant;
import rivo.core.estate.Wave;
import rivo.core.rule.FactType;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.StreamWriteFeature;
import tools.jackson.core.json.JsonFactory;

/**
 * Writes an estate file, format {@code rivo-estate/1}, entry by entry. What has a default and has it is left out; reading
 * the file gives an estate of which every answer is the same. Used once, by one thread.
 */
public final class EstateWriter {

    private final JsonGenerator json;

    private EstateWriter(JsonGenerator json) {
        this.json = json;
    }

    /** Writes to the stream, which is flushed and left open. */
    public static void write(Estate estate, OutputStream out, boolean gzip) throws IOException {
        GZIPOutputStream packed = gzip ? new GZIPOutputStream(out, 1 << 16) : null;
        try (JsonGenerator json = JsonFactory.builder().disable(StreamWriteFeature.AUTO_CLOSE_TARGET).build()
                .createGenerator(ObjectWriteContext.empty(), packed == null ? out : packed)) {
            new EstateWriter(json).write(estate.parts());
        }
        if (packed != null) {
            packed.finish();
        }
        out.flush();
    }

    private interface Entry<T> {
        void write(T entry);
    }

    private void write(EstateParts parts) {
        json.writeStartObject();
        text("format", EstateReader.FORMAT);
        text("asOf", parts.asOf().toString());
        objects("ous", parts.ous(), this::ou);
        objects("users", parts.users(), this::user);
        objects("devices", parts.devices(), this::device);
        objects("groups", parts.groups(), this::group);
        objects("collections", parts.collections(), this::collection);
        objects("titles", parts.titles(), this::title);
        objects("kits", parts.kits(), this::kit);
        objects("assignments", parts.assignments(), this::assignment);
        objects("requests", parts.requests(), this::request);
        json.writeEndObject();
    }

    private void text(String key, @Nullable String value) {
        if (value != null) {
            json.writeStringProperty(key, value);
        }
    }

    private void name(String name) {
        text("name", name.isEmpty() ? null : name);
    }

    private <T> void objects(String key, List<T> entries, Entry<T> entry) {
        if (entries.isEmpty()) {
            return;
        }
        json.writeArrayPropertyStart(key);
        for (T one : entries) {
            json.writeStartObject();
            entry.write(one);
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void texts(String key, List<?> entries) {
        if (entries.isEmpty()) {
            return;
        }
        json.writeArrayPropertyStart(key);
        entries.forEach(one -> json.writeString(one.toString()));
        json.writeEndArray();
    }

    private void ou(Ou ou) {
        text("id", ou.id());
        text("dn", ou.dn());
        if (ou.parent() == null) {
            json.writeNullProperty("parent");
        } else {
            text("parent", ou.parent());
        }
        if (ou.fenced()) {
            json.writeBooleanProperty("fenced", true);
        }
    }

    private void user(User user) {
        text("id", user.id());
        name(user.name());
        text("ou", user.ou());
        if (!user.facts().isEmpty()) {
            json.writeObjectPropertyStart("facts");
            user.facts().forEach(this::text);
            json.writeEndObject();
        }
    }

    private void device(Device device) {
        text("id", device.id());
        name(device.name());
        text("ou", device.ou());
        texts("people", device.people());
        facts(device.facts());
        objects("software", device.software(), this::installed);
        objects("present", device.present(), this::present);
    }

    private void facts(Facts facts) {
        if (facts.isEmpty()) {
            return;
        }
        json.writeObjectPropertyStart("facts");
        facts.forEach((fact, value) -> {
            if (FactType.of(fact) == FactType.NUMBER) {
                json.writeNumberProperty(fact, new BigDecimal(value));
            } else {
                text(fact, value);
            }
        });
        json.writeEndObject();
    }

    private void installed(Installed entry) {
        text("name", entry.name());
        text("publisher", entry.publisher());
        text("version", entry.version());
    }

    private void present(Present entry) {
        text("title", entry.title());
        text("version", entry.version() == null ? null : entry.version().toString());
        text("user", entry.user());
        text("by", entry.by());
    }

    private void group(Group group) {
        text("id", group.id());
        name(group.name());
        texts("members", group.members());
    }

    private void collection(DeviceCollection collection) {
        text("id", collection.id());
        name(collection.name());
        text("base", collection.base());
        text("rule", collection.rule());
        texts("include", collection.include());
        texts("exclude", collection.exclude());
    }

    private void title(Title title) {
        text("id", title.id());
        name(title.name());
        text("scope", title.scope().word());
        if (title.seats() != null) {
            json.writeNumberProperty("seats", title.seats());
        }
        texts("conflictsWith", title.conflictsWith());
        objects("releases", title.releases(), this::release);
    }

    private void release(Release release) {
        text("version", release.version().toString());
        text("state", release.isOffered() ? null : release.state().word());
        objects("needs", release.needs(), this::need);
        objects("replaces", release.replaces(), this::replacement);
        objects("variants", release.variants(), this::variant);
    }

    private void need(Need need) {
        text("title", need.title());
        text("min", need.min() == null ? null : need.min().toString());
    }

    private void replacement(Replacement replacement) {
        text("title", replacement.title());
        text("mode", replacement.mode().word());
    }

    private void variant(Variant variant) {
        text("id", variant.id());
        text("fits", variant.fits());
    }

    private void kit(Kit kit) {
        text("id", kit.id());
        name(kit.name());
        texts("titles", kit.titles());
    }

    private void assignment(Assignment assignment) {
        text("id", assignment.id());
        json.writeNumberProperty("seq", assignment.seq());
        text("state", assignment.state() == AssignmentState.ACTIVE ? null : assignment.state().word());
        text("subject", assignment.subject().toString());
        text("intent", assignment.intent().word());
        text("follows", assignment.follows().word());
        texts("include", assignment.include());
        texts("exclude", assignment.exclude());
        text("within", assignment.within());
        text("base", assignment.base());
        if (assignment.binding()) {
            json.writeBooleanProperty("binding", true);
        }
        if (assignment.priority() != Assignment.USUAL_PRIORITY) {
            json.writeNumberProperty("priority", assignment.priority());
        }
        text("release", assignment.pin() == null ? null : "=" + assignment.pin());
        text("from", assignment.from() == null ? null : assignment.from().toString());
        text("leaving", assignment.leaving() == Leaving.KEEP ? null : assignment.leaving().word());
        objects("waves", assignment.waves(), this::wave);
    }

    private void wave(Wave wave) {
        if (wave.share() == null) {
            json.writeArrayPropertyStart("to");
            for (Target target : wave.to()) {
                json.writeString(target.toString());
            }
            json.writeEndArray();
        } else {
            json.writeNumberProperty("share", wave.share());
        }
        json.writeBooleanProperty("open", wave.open());
    }

    private void request(Request request) {
        text("device", request.device());
        text("title", request.title());
        text("user", request.user());
    }
}
