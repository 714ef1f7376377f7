package rivo.formats.installer;

import java.util.List;
import java.util.Objects;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rivo.formats.installer.InstallerFile.Fact;
import rivo.formats.installer.InstallerFile.Finding;
import rivo.formats.installer.InstallerFile.Inside;
import rivo.formats.installer.InstallerFile.Needed;
import rivo.formats.installer.InstallerFile.Part;
import rivo.formats.installer.InstallerFile.Setting;

/**
 * What a file told, made safe to show and to write into commands: a file may say anything of itself, and whoever made it may
 * mean harm.
 */
final class Tidied {

    private static final int LONGEST = 200;
    private static final int LONGEST_DESCRIPTION = 1000;
    private static final int MOST = 100;
    /** Codes of products and packages are written into commands, so they may hold nothing that a shell reads. */
    private static final Pattern CODE = Pattern.compile("[A-Za-z0-9][A-Za-z0-9._+~-]{0,199}|\\{[0-9A-Fa-f-]{36}}");
    private static final Pattern NAME = Pattern.compile("[A-Za-z_][A-Za-z0-9_.]{0,71}");
    private static final Pattern VALUE = Pattern.compile("[\\p{L}\\p{N} ._:,@+/-]{0,200}");
    private static final Pattern WORD = Pattern.compile("[a-z0-9_]{1,20}");

    private Tidied() {
    }

    static InstallerFile of(InstallerFile file) {
        List<Needed> needs = file.needs().stream().filter(n -> code(n.name()) != null).limit(MOST).map(Tidied::need).toList();
        List<Part> parts = file.parts().stream().filter(one -> NAME.matcher(one.id()).matches()).limit(MOST)
                .map(one -> new Part(one.id(), Objects.requireNonNullElse(text(one.title(), LONGEST), one.id()), one.usual(), one.shown())).toList();
        List<Setting> settings = file.settings().stream().filter(one -> NAME.matcher(one.name()).matches() && VALUE.matcher(one.usual()).matches())
                .limit(MOST).toList();
        List<Fact> facts = file.facts().stream().limit(MOST).map(one -> new Fact(one.what(), Objects.requireNonNullElse(text(one.value(), LONGEST_DESCRIPTION), "")))
                .filter(one -> !one.value().isEmpty()).toList();
        List<Finding> findings = file.findings().stream()
                .map(one -> new Finding(one.code(), Objects.requireNonNullElse(text(one.sentence(), LONGEST_DESCRIPTION), one.code()))).toList();
        FileSignature signature = file.signature();
        return new InstallerFile(file.format(), text(file.name(), LONGEST), version(file.version()), version(file.packaged()),
                text(file.maker(), LONGEST), text(file.description(), LONGEST_DESCRIPTION),
                file.architectures().stream().filter(one -> WORD.matcher(one).matches()).limit(10).toList(),
                code(file.code()), code(file.family()), version(file.minimumSystem()), file.kind(), file.perMachine(),
                new FileSignature(signature.state(), text(signature.signer(), LONGEST), signature.chain(), signature.signedAt(), signature.stampChain(),
                        signature.weakness(), Objects.requireNonNullElse(text(signature.problem(), LONGEST), "")),
                needs, parts, settings, file.replaces().stream().filter(one -> code(one) != null).limit(MOST).toList(), facts, inside(file.inside()), findings);
    }

    /** Its path is written into a command, so it may hold nothing that a shell reads. */
    private static @Nullable Inside inside(@Nullable Inside inside) {
        boolean isPlain = inside != null && inside.path().length() <= LONGEST && inside.path().matches("[\\p{L}\\p{N} ._+@()~,/-]+");
        return inside == null || !isPlain ? null : new Inside(inside.path(), of(inside.file()));
    }

    private static Needed need(Needed one) {
        return new Needed(one.name(), version(one.minimum()),
                one.alternatives().stream().filter(n -> code(n.name()) != null).limit(MOST).map(Tidied::need).toList());
    }

    /** Without characters that do not print; null when nothing is left. */
    private static @Nullable String text(@Nullable String text, int longest) {
        String plain = text == null ? "" : text.replaceAll("[\\p{Cntrl}\\p{Cf}\\p{Co}\\p{Cs}\\uFFFD]+", " ").strip();
        return plain.isEmpty() ? null : plain.substring(0, Math.min(longest, plain.length()));
    }

    private static @Nullable String version(@Nullable String version) {
        String plain = text(version, LONGEST + 1);
        return plain == null || plain.length() > LONGEST || !plain.matches("[\\p{L}\\p{N} ._+~^:-]+") ? null : plain;
    }

    private static @Nullable String code(@Nullable String code) {
        return code != null && CODE.matcher(code).matches() ? code : null;
    }
}
