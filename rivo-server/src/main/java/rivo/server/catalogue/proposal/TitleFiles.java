package rivo.server.catalogue.proposal;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Version;
import rivo.formats.installer.InstallerFile.Finding;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.proposal.Proposals.Proposal;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.TitleRecordChecks;
import rivo.server.estate.Json;
import rivo.server.web.ApiException;
import rivo.server.web.ReadValues;
import tools.jackson.core.JacksonException;
import tools.jackson.core.type.TypeReference;

/**
 * A title as one file: a ZIP archive with {@code manifest.json}, as {@code docs/title-file.schema.json} describes it, and
 * the content under {@code content/} by its SHA-256.
 */
@Component
public class TitleFiles {

    private static final String MANIFEST = "manifest.json";
    private static final String FORMAT = "rivo-title";
    private static final int FORMAT_VERSION = 1;
    private static final int MOST_MANIFEST = 8 << 20;
    /** What a file may unpack to in any case, in bytes; a larger one to so many times its own size. */
    private static final long HARMLESS = 64L << 20;
    private static final int MOST_TIMES = 50;

    /** @param format always {@code rivo-title} */
    private record Manifest(@Nullable String format, int formatVersion, @Nullable TitleRecord title) {
    }

    private final Catalogue catalogue;
    private final Contents contents;

    TitleFiles(Catalogue catalogue, Contents contents) {
        this.catalogue = catalogue;
        this.contents = contents;
    }

    /** @throws ApiException when there is no such title, or content of it is missing or damaged */
    public void write(String id, OutputStream out) throws IOException {
        TitleRecord title = catalogue.now().record(id);
        Map<String, Path> files = files(title);
        try (ZipOutputStream zip = new ZipOutputStream(new BufferedOutputStream(out))) {
            zip.putNextEntry(new ZipEntry(MANIFEST));
            zip.write(Json.write(new Manifest(FORMAT, FORMAT_VERSION, title)).getBytes(StandardCharsets.UTF_8));
            zip.closeEntry();
            for (Map.Entry<String, Path> file : files.entrySet()) {
                zip.putNextEntry(new ZipEntry("content/" + file.getKey()));
                Files.copy(file.getValue(), zip);
                zip.closeEntry();
            }
        }
    }

    /** The title's content, each file once and each looked at. */
    public Map<String, Path> files(TitleRecord title) {
        Map<String, Path> files = new LinkedHashMap<>();
        all(title).forEach(content -> files.put(content.sha256(), contents.file(content.sha256())));
        return files;
    }

    private static List<Content> all(TitleRecord title) {
        return title.releases().stream().flatMap(r -> r.variants().stream()).flatMap(v -> v.contents().stream()).toList();
    }

    /** Whether the archive is such a file. */
    static boolean isOne(Path archive) throws IOException {
        try (ZipFile zip = new ZipFile(archive.toFile())) {
            ZipEntry manifest = zip.getEntry(MANIFEST);
            if (manifest == null) {
                return false;
            }
            try (InputStream in = zip.getInputStream(manifest)) {
                return new String(in.readNBytes(200), StandardCharsets.UTF_8).contains(FORMAT);
            }
        }
    }

    /**
     * Keeps the content of such a file, and proposes its title: beside the releases that are there already, its own come in
     * without being offered.
     *
     * @param room how many bytes may be unpacked at the most
     * @throws ApiException when the manifest cannot be read, content is missing or is not what the manifest says, or there is no
     *     room for it
     * @throws rivo.core.estate.RefusedException when the title would be refused if somebody typed it in
     */
    Proposal read(Path archive, Content file, long room) throws IOException {
        try (ZipFile zip = new ZipFile(archive.toFile())) {
            TitleRecord told = title(zip, file.fileName());
            TitleRecordChecks.alone(told);
            long most = Math.min(room, Math.max(HARMLESS, MOST_TIMES * Files.size(archive)));
            Map<String, Content> named = new LinkedHashMap<>();
            all(told).forEach(content -> named.putIfAbsent(content.sha256(), content));
            for (Content content : named.values()) {
                most -= keep(zip, content, most);
            }
            return proposal(told, file);
        }
    }

    private static TitleRecord title(ZipFile zip, String fileName) throws IOException {
        try (InputStream in = zip.getInputStream(zip.getEntry(MANIFEST))) {
            byte[] bytes = in.readNBytes(MOST_MANIFEST + 1);
            Manifest manifest = bytes.length > MOST_MANIFEST ? new Manifest(null, 0, null)
                    : Json.read(new String(bytes, StandardCharsets.UTF_8), new TypeReference<Manifest>() {
                    });
            if (!FORMAT.equals(manifest.format()) || manifest.formatVersion() != FORMAT_VERSION || manifest.title() == null) {
                throw refused(fileName + " is no title file of version " + FORMAT_VERSION
                        + "; export it again from where it came from.");
            }
            List<Problem> problems = ReadValues.problems(manifest.title());
            if (!problems.isEmpty()) {
                throw new RefusedException(problems);
            }
            return manifest.title();
        } catch (JacksonException | NullPointerException e) {
            throw refused("The manifest of " + fileName + " is not what a title file holds. Compare it with "
                    + "docs/title-file.schema.json.");
        }
    }

    /** How many bytes were unpacked. */
    private long keep(ZipFile zip, Content content, long most) throws IOException {
        ZipEntry entry = zip.getEntry("content/" + content.sha256());
        if (entry == null) {
            if (!contents.has(content)) {
                throw refused("The content " + content.fileName() + " is not in the file; export it again.");
            }
            return 0;
        }
        if (content.size() > most) {
            throw ApiException.refused(HttpStatus.INSUFFICIENT_STORAGE, "no-room", "The content " + content.fileName()
                    + " would come to " + content.size() + " bytes, more than there is room for, or than a file of this size may "
                    + "unpack to. Make room on the server's disk, or put the file in by itself.");
        }
        try (InputStream in = zip.getInputStream(entry)) {
            Content found = contents.keepIf(new Bounded(in, content.size()), content);
            if (!found.sha256().equals(content.sha256()) || found.size() != content.size()) {
                throw refused("The content " + content.fileName() + " is not what the manifest says: its SHA-256 is "
                        + found.sha256() + ", its size " + found.size() + " bytes. Export it again.");
            }
            return found.size();
        }
    }

    private static ApiException refused(String sentence) {
        return ApiException.refused(HttpStatus.UNPROCESSABLE_CONTENT, "damaged-file", sentence);
    }

    /** A stream that is cut off where it should have ended, so that nobody can fill the disk. */
    private static final class Bounded extends java.io.FilterInputStream {
        private long left;

        Bounded(InputStream in, long size) {
            super(in);
            this.left = size + 1;
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] buffer, int from, int length) throws IOException {
            int n = left <= 0 ? -1 : super.read(buffer, from, (int) Math.min(length, left));
            left -= Math.max(0, n);
            return n;
        }
    }

    private Proposal proposal(TitleRecord told, Content file) {
        List<Finding> findings = new ArrayList<>();
        TitleRecord known = catalogue.now().find(told.id());
        List<ReleaseRecord> releases = new ArrayList<>(known == null ? List.of() : known.releases());
        for (ReleaseRecord release : told.releases()) {
            Version version = Version.of(release.version());
            if (releases.stream().anyMatch(r -> Version.of(r.version()).equals(version))) {
                findings.add(new Finding("release-stays", release.version()
                        + " is in the catalogue already, and stays as it is there."));
            } else {
                releases.add(related(release, told, findings));
            }
        }
        TitleRecord title = new TitleRecord(told.id(), told.name(), told.maker(), told.about().withoutIcon(), told.scope(), told.seats(), told.asks(),
                told.trustedSigners(), told.conflictsWith().stream().filter(id -> knows(id, told, findings)).toList(),
                releases);
        ReleaseRecord leading = told.leading();
        VariantRecord variant = leading == null || leading.variants().isEmpty() ? null : leading.variants().get(0);
        return new Proposal(title, known == null ? 0 : catalogue.now().kept(told.id()).revision(),
                leading == null ? "" : leading.version(), known != null, variant == null ? "" : variant.id(), file, "a title file",
                null, List.of(), findings);
    }

    /** With those relations whose titles are here, and not offered yet. */
    private ReleaseRecord related(ReleaseRecord release, TitleRecord told, List<Finding> findings) {
        return new ReleaseRecord(release.version(), false, "not offered yet",
                release.needs().stream().filter(n -> knows(n.title(), told, findings)).toList(),
                release.replaces().stream().filter(r -> knows(r.title(), told, findings)).toList(), release.choices(),
                release.variants());
    }

    private boolean knows(String id, TitleRecord told, List<Finding> findings) {
        boolean known = id.equals(told.id()) || catalogue.now().find(id) != null;
        if (!known && findings.stream().noneMatch(f -> f.sentence().contains(" " + id + ","))) {
            findings.add(new Finding("relation-left-out", "It is related to " + id
                    + ", which is not in this catalogue; that relation is left out."));
        }
        return known;
    }
}
