package rivo.formats.estate;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Facts;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.estate.User;
import rivo.core.estate.Version;
import rivo.core.rule.FactType;

/** Reads users and devices. Equal entries of what is installed and present come out as the same object. */
final class DeviceReader {

    private final JsonCursor at;
    private final Map<Installed, Installed> installed = new HashMap<>();
    private final Map<PresentKey, Present> present = new HashMap<>();

    /** Versions that compare equal may be written differently, so the text tells entries apart. */
    private record PresentKey(String title, @Nullable String version, @Nullable String user, @Nullable String by) {
    }

    DeviceReader(JsonCursor at) {
        this.at = at;
    }

    User user() {
        String[] texts = new String[3];
        Facts[] facts = {Facts.NONE};
        at.object(key -> {
            switch (key) {
                case "id" -> texts[0] = at.text();
                case "name" -> texts[1] = at.text();
                case "ou" -> texts[2] = at.optionalText();
                case "facts" -> facts[0] = userFacts();
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(texts[0], "id");
        String name = Objects.requireNonNullElse(texts[1], "");
        return new User(at.oneId(Objects.requireNonNullElse(texts[0], "")), name, name, texts[2], facts[0]);
    }

    private Facts userFacts() {
        Map<String, String> facts = new LinkedHashMap<>();
        at.object(key -> {
            put(facts, key, at.text());
            return true;
        });
        return Facts.of(facts);
    }

    private void put(Map<String, String> facts, String key, @Nullable String value) {
        if (value != null) {
            facts.put(key, value);
        }
    }

    Device device() {
        String[] texts = new String[3];
        List<String> people = new ArrayList<>(1);
        Facts[] facts = {Facts.NONE};
        List<Installed> software = new ArrayList<>();
        List<Present> found = new ArrayList<>();
        at.object(key -> {
            switch (key) {
                case "id" -> texts[0] = at.text();
                case "name" -> texts[1] = at.text();
                case "ou" -> texts[2] = at.optionalText();
                case "people" -> people.addAll(at.listOf(at::textOrEmpty));
                case "facts" -> facts[0] = deviceFacts();
                case "software" -> at.list(() -> software.add(installed()));
                case "present" -> at.list(() -> found.add(present()));
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(texts[0], "id");
        return new Device(at.oneId(Objects.requireNonNullElse(texts[0], "")), Objects.requireNonNullElse(texts[1], ""), texts[2],
                people, facts[0], software, found);
    }

    private Facts deviceFacts() {
        Map<String, String> facts = new LinkedHashMap<>();
        Map<String, String> folded = new HashMap<>();
        at.object(key -> {
            FactType type = FactType.of(key);
            if (type == null) {
                at.problem("unknown-fact", FactType.unknown(key));
                return true;
            }
            String value = switch (type) {
                case TEXT -> at.text();
                case NUMBER -> at.number();
                case VERSION -> {
                    Version version = at.version();
                    yield version == null ? null : version.toString();
                }
                case INSTANT -> at.instantText();
            };
            if (folded.putIfAbsent(key.toLowerCase(Locale.ROOT), key) != null) {
                at.problem("key-twice", "\"" + key + "\" is given twice, capitals aside; give it once.");
            }
            put(facts, key, value);
            return true;
        });
        return Facts.of(facts);
    }

    private Installed installed() {
        String[] texts = new String[3];
        at.object(key -> {
            switch (key) {
                case "name" -> texts[0] = at.optionalText();
                case "publisher" -> texts[1] = at.optionalText();
                case "version" -> texts[2] = versionText();
                default -> {
                    return false;
                }
            }
            return true;
        });
        Installed entry = new Installed(texts[0], texts[1], texts[2]);
        Installed known = installed.putIfAbsent(entry, entry);
        return known == null ? entry : known;
    }

    private @Nullable String versionText() {
        if (at.isNull()) {
            return null;
        }
        Version version = at.version();
        return version == null ? null : version.toString();
    }

    private Present present() {
        String[] texts = new String[4];
        at.object(key -> {
            switch (key) {
                case "title" -> texts[0] = at.text();
                case "version" -> texts[1] = versionText();
                case "user" -> texts[2] = at.optionalText();
                case "by" -> texts[3] = at.optionalText();
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(texts[0], "title");
        String title = Objects.requireNonNullElse(texts[0], "");
        return present.computeIfAbsent(new PresentKey(title, texts[1], texts[2], texts[3]), k -> new Present(title,
                texts[1] == null ? null : at.version(texts[1]), texts[2], texts[3]));
    }
}
