package rivo.formats.installer;

import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rivo.formats.installer.InstallerFile.Needed;

/**
 * What a file told, made safe to show and to write into commands: a file may say anything of itself, and whoever made it may
 * mean harm.
 */
final class Tidied {

    private static final int LONGEST = 200;
    private static final int LONGEST_DESCRIPTION = 1000;
    /** Codes of products and packages are written into commands, so they may hold nothing that a shell reads. */
    private static final Pattern CODE = Pattern.compile("[A-Za-z0-9][A-Za-z0-9._+~-]{0,199}|\\{[0-9A-Fa-f-]{36}}");

    private Tidied() {
    }

    static InstallerFile of(InstallerFile file) {
        List<Needed> needs = file.needs().stream().filter(n -> code(n.name()) != null).limit(100)
                .map(n -> new Needed(n.name(), version(n.minimum()))).toList();
        return new InstallerFile(file.format(), text(file.name(), LONGEST), version(file.version()),
                text(file.maker(), LONGEST), text(file.description(), LONGEST_DESCRIPTION), file.architecture(),
                code(file.code()), code(file.family()), version(file.minimumSystem()), file.kind(), file.perMachine(),
                text(file.signer(), LONGEST), needs, file.findings());
    }

    /** Without characters that do not print; null when nothing is left. */
    private static @Nullable String text(@Nullable String text, int longest) {
        String plain = text == null ? "" : text.replaceAll("[\\p{Cntrl}\\p{Cf}\\p{Co}\\p{Cs}\\uFFFD]+", " ").strip();
        return plain.isEmpty() ? null : plain.substring(0, Math.min(longest, plain.length()));
    }

    private static @Nullable String version(@Nullable String version) {
        String plain = text(version, LONGEST + 1);
        return plain == null || plain.length() > LONGEST || !plain.matches("[\\p{L}\\p{N} ._+~:-]+") ? null : plain;
    }

    private static @Nullable String code(@Nullable String code) {
        return code != null && CODE.matcher(code).matches() ? code : null;
    }
}
