package rivo.formats.installer;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What an installer file tells of itself. What is null or empty it does not tell.
 *
 * @param version as it was written, but for a Debian or RPM package, of which it is the upstream version
 * @param packaged the whole version of a Debian or RPM package, with epoch and revision, as its own system compares it; null for others
 * @param architectures x64, x86, arm64, arm or another word of its system; none when it says nothing or that any will do
 * @param code under which the system knows it once it is there: the product code of a Windows Installer database, the
 *     name of a package
 * @param family what all releases of it share: the upgrade code of a Windows Installer database
 * @param minimumSystem the lowest version of the system that it takes
 * @param kind of a Windows set-up program
 * @param perMachine whether it installs for the whole device
 * @param signature whether it is signed, by whom, and whether it is as it was signed
 * @param needs what it says has to be there first
 * @param parts of which some may be left out
 * @param settings what may be set when it is installed
 * @param replaces the families whose products it takes off
 * @param facts what else somebody wants to know of it, in words
 * @param inside of an archive: the one installer that is in it; null where there is none, or several
 * @param findings what somebody should know before using it
 */
public record InstallerFile(InstallerFormat format, @Nullable String name, @Nullable String version, @Nullable String packaged, @Nullable String maker,
        @Nullable String description, List<String> architectures, @Nullable String code, @Nullable String family, @Nullable String minimumSystem,
        InstallerKind kind, boolean perMachine, FileSignature signature, List<Needed> needs, List<Part> parts, List<Setting> settings,
        List<String> replaces, List<Fact> facts, @Nullable Inside inside, List<Finding> findings) {

    public InstallerFile {
        architectures = List.copyOf(architectures);
        needs = List.copyOf(needs);
        parts = List.copyOf(parts);
        settings = List.copyOf(settings);
        replaces = List.copyOf(replaces);
        facts = List.copyOf(facts);
        findings = List.copyOf(findings);
    }

    /**
     * Something that has to be there first, by the name its own packaging system knows.
     *
     * @param alternatives of which any will do instead
     */
    public record Needed(String name, @Nullable String minimum, List<Needed> alternatives) {
        public Needed {
            alternatives = List.copyOf(alternatives);
        }

        public Needed(String name, @Nullable String minimum) {
            this(name, minimum, List.of());
        }
    }

    /**
     * @param usual whether it is installed where nobody chooses
     * @param shown whether there is a choice at all; the others are installed with whatever is chosen
     */
    public record Part(String id, String title, boolean usual, boolean shown) {
    }

    /** @param usual its value where nobody sets one */
    public record Setting(String name, String usual) {
    }

    /** @param what such as its languages */
    public record Fact(String what, String value) {
    }

    /** @param path within the archive, with slashes */
    public record Inside(String path, InstallerFile file) {
    }

    /** @param sentence with the remedy */
    public record Finding(String code, String sentence) {
    }

    /** Who has signed it; null where nobody has, or it is not told. */
    public @Nullable String signer() {
        return signature.signer();
    }

    public static Builder of(InstallerFormat format) {
        return new Builder(format);
    }

    /** With all that it tells, to tell more. */
    Builder more() {
        Builder builder = new Builder(format).name(name).version(version).packaged(packaged).maker(maker).description(description)
                .code(code).family(family).minimumSystem(minimumSystem).kind(kind).perMachine(perMachine).signature(signature).inside(inside);
        builder.architectures.addAll(architectures);
        builder.needs.addAll(needs);
        builder.parts.addAll(parts);
        builder.settings.addAll(settings);
        builder.replaces.addAll(replaces);
        builder.facts.addAll(facts);
        builder.findings.addAll(findings);
        return builder;
    }

    /** Puts one together; used by one thread. */
    public static final class Builder {

        private final InstallerFormat format;
        private @Nullable String name;
        private @Nullable String version;
        private @Nullable String packaged;
        private @Nullable String maker;
        private @Nullable String description;
        private final List<String> architectures = new ArrayList<>();
        private @Nullable String code;
        private @Nullable String family;
        private @Nullable String minimumSystem;
        private InstallerKind kind = InstallerKind.UNKNOWN;
        private boolean perMachine = true;
        private FileSignature signature = FileSignature.NONE;
        private List<Needed> needs = new ArrayList<>();
        private final List<Part> parts = new ArrayList<>();
        private final List<Setting> settings = new ArrayList<>();
        private final List<String> replaces = new ArrayList<>();
        private final List<Fact> facts = new ArrayList<>();
        private @Nullable Inside inside;
        private final List<Finding> findings = new ArrayList<>();

        private Builder(InstallerFormat format) {
            this.format = format;
        }

        public Builder name(@Nullable String text) {
            name = text;
            return this;
        }

        public Builder version(@Nullable String text) {
            version = text;
            return this;
        }

        public Builder packaged(@Nullable String text) {
            packaged = text;
            return this;
        }

        public Builder maker(@Nullable String text) {
            maker = text;
            return this;
        }

        public Builder description(@Nullable String text) {
            description = text;
            return this;
        }

        /** One more; nothing where it is null, or said already. */
        public Builder architecture(@Nullable String word) {
            if (word != null && !architectures.contains(word)) {
                architectures.add(word);
            }
            return this;
        }

        public Builder code(@Nullable String text) {
            code = text;
            return this;
        }

        public Builder family(@Nullable String text) {
            family = text;
            return this;
        }

        public Builder minimumSystem(@Nullable String text) {
            minimumSystem = text;
            return this;
        }

        public Builder kind(InstallerKind make) {
            kind = make;
            return this;
        }

        public Builder perMachine(boolean whole) {
            perMachine = whole;
            return this;
        }

        public Builder signature(FileSignature found) {
            signature = found;
            return this;
        }

        public Builder needs(List<Needed> all) {
            needs = new ArrayList<>(all);
            return this;
        }

        public Builder part(Part one) {
            parts.add(one);
            return this;
        }

        public Builder setting(Setting one) {
            settings.add(one);
            return this;
        }

        public Builder replaces(String one) {
            replaces.add(one);
            return this;
        }

        /** Nothing where the value is null or blank. */
        public Builder fact(String what, @Nullable String value) {
            if (value != null && !value.isBlank()) {
                facts.add(new Fact(what, value));
            }
            return this;
        }

        public Builder inside(@Nullable Inside one) {
            inside = one;
            return this;
        }

        public Builder finding(String word, String sentence) {
            findings.add(new Finding(word, sentence));
            return this;
        }

        public InstallerFile build() {
            return new InstallerFile(format, name, version, packaged, maker, description, architectures, code, family, minimumSystem, kind, perMachine,
                    signature, needs, parts, settings, replaces, facts, inside, findings);
        }
    }
}
