package rivo.formats.installer;

import io.airlift.compress.zstd.ZstdInputStream;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.GZIPInputStream;
import org.apache.commons.compress.archivers.ar.ArArchiveEntry;
import org.apache.commons.compress.archivers.ar.ArArchiveInputStream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.jspecify.annotations.Nullable;
import org.tukaani.xz.XZInputStream;
import rivo.formats.installer.InstallerFile.Needed;

/** Debian packages (deb(5)): an ar archive with {@code debian-binary}, then the control files as a tar archive. */
final class DebReader {

    private static final int MOST_CONTROL = 1 << 20;
    /** What all control files come to: the archive is walked until the one called control, which may come last. */
    private static final int MOST_UNPACKED = 8 << 20;
    /** What unpacking itself may hold, in KiB; dpkg-deb's own default takes 9 MiB. */
    private static final int MOST_MEMORY_KIB = 32 << 10;
    private static final int MOST_ENTRIES = 1000;
    private static final Pattern NEED = Pattern.compile("\\s*([a-z0-9][a-z0-9+.-]+)(?::[a-z0-9]+)?[^(]*(?:\\(>[=>]?\\s*([^)]+)\\))?.*");
    private static final int MOST_SIGNATURE = 1 << 20;

    private DebReader() {
    }

    static InstallerFile read(Path file, List<byte[]> keys, ReadingBudget budget) throws IOException {
        try (InputStream in = new BufferedInputStream(budget.metered(Files.newInputStream(file), Files.size(file), "it"));
                ArArchiveInputStream archive = new ArArchiveInputStream(in)) {
            for (int i = 0; i < 10; i++) {
                ArArchiveEntry entry = archive.getNextEntry();
                if (entry == null) {
                    break;
                }
                if (entry.getName().startsWith("control.tar")) {
                    return control(fields(controlFile(budget.metered(unpacked(entry.getName(), archive, budget), MOST_UNPACKED,
                            "its control archive"), budget), budget)).signature(signature(file, keys, budget)).build();
                }
            }
            return InstallerFile.of(InstallerFormat.OTHER).build();
        }
    }

    /** By the file that signing tools put beside the others: a signature of them as they lie in it, or a signed list of their digests. */
    private static FileSignature signature(Path file, List<byte[]> keys, ReadingBudget budget) throws IOException {
        List<ArFile.Member> members = ArFile.members(file, budget);
        for (ArFile.Member member : members) {
            if (member.name().startsWith("_gpg") && member.size() <= MOST_SIGNATURE) {
                byte[] signature = ArFile.bytes(file, member, budget);
                List<ArFile.Member> signed = members.stream().filter(one -> !one.name().startsWith("_")).toList();
                return new String(signature, StandardCharsets.ISO_8859_1).contains("BEGIN PGP SIGNED MESSAGE")
                        ? OpenPgp.ofList(signature, keys, file, signed, budget) : OpenPgp.detached(signature, keys, ArFile.parts(file, signed), budget);
            }
        }
        return FileSignature.NONE;
    }

    private static InputStream unpacked(String name, InputStream in, ReadingBudget budget) throws IOException {
        budget.hold(MOST_UNPACKED);
        return switch (name.substring("control.tar".length()).replace("/", "")) {
            case "" -> in;
            case ".gz" -> new GZIPInputStream(in);
            case ".xz" -> new XZInputStream(in, MOST_MEMORY_KIB);
            case ".zst" -> new ZstdInputStream(in);
            default -> throw new IOException("its control files are packed in an unknown way: " + name);
        };
    }

    private static String controlFile(InputStream unpacked, ReadingBudget budget) throws IOException {
        TarArchiveInputStream tar = new TarArchiveInputStream(unpacked);
        for (int i = 0; i < MOST_ENTRIES; i++) {
            TarArchiveEntry entry = tar.getNextEntry();
            if (entry == null) {
                break;
            }
            if (entry.isFile() && entry.getName().replaceFirst("^\\./", "").equals("control")) {
                budget.hold(4L * Math.min(MOST_CONTROL, entry.getSize()));
                byte[] bytes = tar.readNBytes(MOST_CONTROL + 1);
                if (bytes.length > MOST_CONTROL) {
                    throw new IOException("its control file is longer than 1 MiB");
                }
                return new String(bytes, StandardCharsets.UTF_8);
            }
        }
        throw new IOException("it has no control file");
    }

    /** By name in lower case; a line that begins with a blank goes on with the field before. */
    private static Map<String, String> fields(String control, ReadingBudget budget) throws IOException {
        Map<String, StringBuilder> fields = new LinkedHashMap<>();
        String last = "";
        int at = 0;
        while (at < control.length()) {
            int end = control.indexOf('\n', at) < 0 ? control.length() : control.indexOf('\n', at);
            String line = control.substring(at, end);
            at = end + 1;
            budget.hold(64 + 2L * line.length());
            int colon = line.indexOf(':');
            if (line.startsWith(" ") || line.startsWith("\t")) {
                StringBuilder before = fields.computeIfAbsent(last, name -> new StringBuilder());
                before.append(before.isEmpty() ? "" : "\n").append(line.strip());
            } else if (colon > 0) {
                last = line.substring(0, colon).toLowerCase(Locale.ROOT);
                fields.put(last, new StringBuilder(line.substring(colon + 1).strip()));
            }
        }
        Map<String, String> texts = new LinkedHashMap<>();
        fields.forEach((name, text) -> texts.put(name, text.toString()));
        return texts;
    }

    private static InstallerFile.Builder control(Map<String, String> fields) {
        String code = fields.get("package");
        String summary = fields.getOrDefault("description", "").split("\n", 2)[0];
        String maintainer = fields.get("maintainer");
        String version = fields.get("version");
        return InstallerFile.of(InstallerFormat.DEB).name(title(code)).version(upstream(version)).packaged(version)
                .maker(maintainer == null ? null : maintainer.replaceFirst("\\s*<.*", "")).description(summary.isEmpty() ? null : summary)
                .architecture(architecture(fields.getOrDefault("architecture", "all"))).code(code).family(code)
                .needs(needs(fields.getOrDefault("pre-depends", "") + "," + fields.getOrDefault("depends", "")))
                .fact("Version of the package", version);
    }

    static @Nullable String title(@Nullable String code) {
        return code == null || code.isEmpty() ? code : code.substring(0, 1).toUpperCase(Locale.ROOT) + code.substring(1);
    }

    /** Without the epoch before it and the packager's count behind it. */
    private static @Nullable String upstream(@Nullable String version) {
        return version == null ? null : version.replaceFirst("^\\d+:", "").replaceFirst("-[^-]*$", "");
    }

    /** Those that have a word of their own in rules; others by the name that their system has for them. */
    static @Nullable String architecture(String word) {
        return switch (word) {
            case "amd64", "x86_64" -> "x64";
            case "arm64", "aarch64" -> "arm64";
            case "i386", "i486", "i586", "i686", "athlon" -> "x86";
            case "armhf", "armel", "armv5tel", "armv6hl", "armv7l", "armv7hl", "armv7hnl" -> "arm";
            case "all", "any", "noarch", "" -> null;
            default -> word.toLowerCase(Locale.ROOT);
        };
    }

    private static List<Needed> needs(String depends) {
        List<Needed> needs = new ArrayList<>();
        for (String one : depends.split(",", 200)) {
            List<Needed> any = new ArrayList<>();
            for (String alternative : one.replace('\n', ' ').split("\\|")) {
                Matcher need = NEED.matcher(alternative);
                if (need.matches()) {
                    any.add(new Needed(need.group(1), upstream(need.group(2))));
                }
            }
            if (!any.isEmpty()) {
                needs.add(new Needed(any.get(0).name(), any.get(0).minimum(), any.subList(1, any.size())));
            }
        }
        return needs;
    }
}
