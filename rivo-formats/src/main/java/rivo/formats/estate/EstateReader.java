package rivo.formats.estate;

import java.io.BufferedInputStream;
import java.io.CharConversionException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipException;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateChecks;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Group;
import rivo.core.estate.Kit;
import rivo.core.estate.Ou;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Request;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.rule.EstateRules;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.TokenStreamLocation;
import tools.jackson.core.json.JsonFactory;

/**
 * Reads an estate file, format {@code rivo-estate/1}: JSON, plain or gzipped, whatever its name says. The file is streamed
 * and never held as text. Used once, by one thread.
 */
public final class EstateReader {

    /** The format that is read and written. */
    public static final String FORMAT = "rivo-estate/1";
    private static final int BUFFER = 1 << 16;
    private static final int GZIP_FIRST = 0x1f;
    private static final int GZIP_SECOND = 0x8b;

    private final JsonCursor at;
    private final DeviceReader devicesAt;
    private final CatalogueReader catalogueAt;
    private final AssignmentReader assignmentsAt;

    private @Nullable String format;
    private @Nullable Instant asOf;
    private boolean asOfGiven;
    private final List<Ou> ous = new ArrayList<>();
    private final List<User> users = new ArrayList<>();
    private final List<Device> devices = new ArrayList<>();
    private final List<Group> groups = new ArrayList<>();
    private final List<DeviceCollection> collections = new ArrayList<>();
    private final List<Title> titles = new ArrayList<>();
    private final List<Kit> kits = new ArrayList<>();
    private final List<Assignment> assignments = new ArrayList<>();
    private final List<Request> requests = new ArrayList<>();

    private EstateReader(JsonTokens json) {
        this.at = new JsonCursor(json);
        this.devicesAt = new DeviceReader(at);
        this.catalogueAt = new CatalogueReader(at);
        this.assignmentsAt = new AssignmentReader(at);
    }

    /**
     * Reads and checks an estate file.
     *
     * @throws RefusedException with everything that is wrong with it, each with its place, such as
     *     {@code assignments[3].include[0]}; a place is empty when the file is no JSON at all
     * @throws IOException when the file cannot be read
     */
    public static Estate read(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return read(in);
        }
    }

    /** The same from a stream, which is not closed. */
    public static Estate read(InputStream in) throws IOException {
        try (JsonParser parser = new JsonFactory().createParser(ObjectReadContext.empty(), unpacked(in));
                JsonTokens json = new JsonTokens(parser)) {
            EstateReader reader = new EstateReader(json);
            EstateParts parts = reader.parse(json);
            return Estate.of(reader.checked(parts));
        } catch (ZipException | java.io.EOFException e) {
            throw new RefusedException("bad-gzip", "", "The file is gzipped, but damaged: " + e.getMessage()
                    + "; create it again.");
        }
    }

    private static InputStream unpacked(InputStream in) throws IOException {
        BufferedInputStream buffered = new BufferedInputStream(in, BUFFER);
        buffered.mark(2);
        boolean gzip = buffered.read() == GZIP_FIRST && buffered.read() == GZIP_SECOND;
        buffered.reset();
        return gzip ? new GZIPInputStream(buffered, BUFFER) : buffered;
    }

    private EstateParts parse(JsonTokens json) throws IOException {
        try {
            if (json.next() == null) {
                throw new RefusedException("empty", "", "The file is empty; give an estate as JSON.");
            }
            at.object(this::section);
            JsonToken after = json.next();
            if (after != null) {
                at.problem("more", "There is something after the end of the estate; remove it.");
            }
        } catch (JacksonException e) {
            if (e.getCause() instanceof IOException cause && !(cause instanceof CharConversionException)) {
                throw cause;
            }
            // Nothing after this can be read; what was found before is told as well.
            TokenStreamLocation where = Objects.requireNonNull(json.failedAt());
            at.problem("bad-json", "Line " + where.getLineNr() + ", column " + where.getColumnNr() + ": "
                    + e.getOriginalMessage() + "; correct the JSON here.");
            throw new RefusedException(List.copyOf(at.problems().values()));
        }
        at.need(format, "format");
        if (!asOfGiven) {
            at.need(null, "asOf");
        }
        return parts();
    }

    private boolean section(String key) {
        switch (key) {
            case "format" -> format();
            case "asOf" -> {
                asOfGiven = true;
                asOf = at.instant();
            }
            case "ous" -> at.list(() -> ous.add(ou()));
            case "users" -> at.list(() -> users.add(devicesAt.user()));
            case "devices" -> at.list(() -> devices.add(devicesAt.device()));
            case "groups" -> at.list(() -> groups.add(assignmentsAt.group()));
            case "collections" -> at.list(() -> collections.add(assignmentsAt.collection()));
            case "titles" -> at.list(() -> titles.add(catalogueAt.title()));
            case "kits" -> at.list(() -> kits.add(catalogueAt.kit()));
            case "assignments" -> at.list(() -> assignments.add(assignmentsAt.assignment()));
            case "requests" -> at.list(() -> requests.add(assignmentsAt.request()));
            default -> {
                return false;
            }
        }
        return true;
    }

    private void format() {
        format = at.textOrEmpty();
        if (!format.isEmpty() && !format.equals(FORMAT)) {
            at.problem("unknown-format", "The format \"" + format + "\" is unknown; this reads " + FORMAT + ".");
        }
    }

    private Ou ou() {
        String[] texts = new String[3];
        boolean[] flags = new boolean[2];
        at.object(key -> {
            switch (key) {
                case "id" -> texts[0] = at.text();
                case "dn" -> texts[1] = at.text();
                case "parent" -> {
                    flags[0] = true;
                    texts[2] = at.optionalText();
                }
                case "fenced" -> flags[1] = at.truth();
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(texts[0], "id");
        at.need(texts[1], "dn");
        if (!flags[0]) {
            at.need(null, "parent");
        }
        String dn = Objects.requireNonNullElse(texts[1], "");
        return new Ou(Objects.requireNonNullElse(texts[0], ""), name(dn), dn, texts[2], flags[1]);
    }

    /** The value of the first part of a DN. */
    private static String name(String dn) {
        String first = dn.split(",", 2)[0];
        return first.substring(first.indexOf('=') + 1).strip();
    }

    private EstateParts parts() {
        return new EstateParts(Objects.requireNonNullElse(asOf, Instant.EPOCH), ous, users, devices, groups,
                collections, titles, kits, assignments, requests);
    }

    /** Adds what only shows in the whole; a place that has been complained of already is left in peace. */
    private EstateChecks checked(EstateParts parts) {
        Map<String, Problem> found = new LinkedHashMap<>(at.problems());
        EstateChecks checks = EstateChecks.of(parts, catalogueAt.ofUnreadScope());
        List<Problem> more = new ArrayList<>(checks.problems());
        more.addAll(EstateRules.problems(parts));
        for (Problem problem : more) {
            if (!complainedOf(found, problem.place())) {
                found.put(problem.place(), problem);
            }
        }
        if (!found.isEmpty()) {
            throw new RefusedException(found.values().stream().sorted(Comparator.comparing(Problem::place, PLACES))
                    .toList());
        }
        return checks;
    }

    /** Whether the place, or the entry it is in, or something in it has been complained of. */
    private static boolean complainedOf(Map<String, Problem> found, String place) {
        for (String at = place; !at.isEmpty(); at = at.substring(0, Math.max(at.lastIndexOf('.'), 0))) {
            if (found.containsKey(at)) {
                return true;
            }
        }
        return false;
    }

    /** In the order of the sections, then of the entries. */
    private static final Comparator<String> PLACES = Comparator.comparing(EstateReader::numbered);

    private static String numbered(String place) {
        StringBuilder padded = new StringBuilder();
        for (String piece : place.split("(?<=\\[)|(?=])")) {
            padded.append(piece.chars().allMatch(Character::isDigit) && !piece.isEmpty()
                    ? "0".repeat(Math.max(0, 10 - piece.length())) + piece : piece);
        }
        return padded.toString();
    }
}
