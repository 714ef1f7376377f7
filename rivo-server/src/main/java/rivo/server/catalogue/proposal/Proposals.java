package rivo.server.catalogue.proposal;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Scope;
import rivo.core.estate.Version;
import rivo.devices.protocol.PresenceKind;
import rivo.formats.installer.InstallerFile;
import rivo.formats.installer.InstallerFile.Fact;
import rivo.formats.installer.InstallerFile.Finding;
import rivo.formats.installer.InstallerFormat;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.About;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.TrustedSigners;
import rivo.server.catalogue.trust.Verdicts;
import rivo.server.catalogue.trust.Verdicts.Verdict;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.EstateRecords.NeedRecord;
import rivo.server.estate.EstateRecords.ReplacementRecord;

/**
 * Makes of an installer file what somebody would otherwise type: the title, the release, how it goes on and comes off,
 * how one sees it, and where it fits. All of it is proposed, nothing imposed.
 */
@Component
class Proposals {

    private static final Pattern QUOTES = Pattern.compile("['\\u2018-\\u201f\\u2032-\\u2037]");
    private static final Predicate<Step> DATABASE = step -> step.command().startsWith("msiexec /i ");

    /**
     * @param title as it would be with the file in it
     * @param revision of the title that it goes into; 0 for a new one
     * @param version of the release that the file goes into
     * @param releaseIsThere whether that release is there already, and gets another variant
     * @param format in words
     * @param signature how it is signed; null for a title file
     * @param facts what else it tells of itself
     * @param findings what somebody should know before using the file
     */
    record Proposal(TitleRecord title, long revision, String version, boolean releaseIsThere, String variant, Content content, String format,
            @Nullable Verdict signature, List<Fact> facts, List<Finding> findings) {
    }

    private final Catalogue catalogue;
    private final CurrentSnapshot current;
    private final Verdicts verdicts;

    Proposals(Catalogue catalogue, CurrentSnapshot current, Verdicts verdicts) {
        this.verdicts = verdicts;
        this.catalogue = catalogue;
        this.current = current;
    }

    private Verdict signature(Content content) {
        return verdicts.of(current.now(), content.sha256(), Instant.now());
    }

    /** Of an archive what is in it, then what the installer in it tells. */
    private static List<Fact> facts(InstallerFile file) {
        return file.inside() == null ? file.facts() : Stream.concat(file.facts().stream(), file.inside().file().facts().stream()).toList();
    }

    /** @param into the title that the file was dropped on; null where it was dropped on the catalogue */
    Proposal propose(InstallerFile file, Content kept, @Nullable String into) {
        // The tool takes a package for one by the ending of its name alone.
        boolean needsEnding = file.format() == InstallerFormat.DEB && !kept.fileName().endsWith(".deb");
        InstallerFile described = file.inside() == null ? file : file.inside().file();
        // PowerShell takes curved quotation marks for straight ones.
        String fileName = file.format() == InstallerFormat.MSIX ? QUOTES.matcher(kept.fileName()).replaceAll("_") : kept.fileName();
        Content content = new Content(kept.sha256(), kept.size(), fileName + (needsEnding ? ".deb" : ""), signer(described));
        String name = described.name() == null ? plainName(content.fileName()) : described.name();
        TitleRecord known = into != null ? catalogue.now().record(into) : known(described, name);
        Proposal beside = known == null ? null : besideDatabase(file, content, known);
        if (beside != null) {
            return beside;
        }
        TitleRecord title = known != null ? known : new TitleRecord(freeId(name), name,
                Objects.requireNonNullElse(described.maker(), ""), About.NOTHING.described(described.description()),
                (described.perMachine() ? Scope.DEVICE : Scope.USER).word(), null, List.of(), List.of(), List.of());
        String version = release(title, described);
        ProposedVariant variant = ProposedVariant.of(file, content, name, described.version() == null ? "" : version);
        List<Finding> findings = new ArrayList<>(file.findings());
        if (file.inside() != null) {
            described.findings().forEach(one -> findings.add(new Finding(one.code(), "In it, " + file.inside().path() + ": " + one.sentence())));
        }
        findings.addAll(inCatalogue(content));
        if (described.version() == null) {
            findings.add(new Finding("no-version", "The file does not state a version: type the one that it has."));
        }
        if (into != null && known != null && described.name() != null && !described.name().equalsIgnoreCase(known.name())
                && !isOfFamily(known, described.family())) {
            findings.add(new Finding("other-title", "It calls itself " + described.name() + ", not " + known.name()
                    + ". Drop it on the catalogue if it is another title."));
        }
        findings.addAll(signer(described, title));
        findings.addAll(missing(described));
        return new Proposal(withVariant(title, version, variant, needs(described), replaces(described, title)), known == null ? 0 : catalogue.now().kept(title.id()).revision(),
                version, title.releases().stream().anyMatch(release -> release.version().equals(version)), variant.variant().id(), content,
                file.format().words(), signature(content), facts(file), findings);
    }

    /** A transform or a patch goes beside the database that the title has, and its command names it. */
    private @Nullable Proposal besideDatabase(InstallerFile file, Content content, TitleRecord title) {
        ReleaseRecord release = title.leading();
        VariantRecord database = release == null ? null : release.variants().stream().filter(v -> v.install().stream().anyMatch(DATABASE)).findFirst().orElse(null);
        boolean goesBeside = file.format() == InstallerFormat.MSI_TRANSFORM || file.format() == InstallerFormat.MSI_PATCH;
        if (!goesBeside || release == null || database == null) {
            return null;
        }
        String property = file.format() == InstallerFormat.MSI_PATCH ? " PATCH=\"" : " TRANSFORMS=\"";
        String path = "{content}\\" + content.fileName();
        List<Content> contents = new ArrayList<>(database.contents());
        contents.removeIf(one -> one.fileName().equals(content.fileName()));
        contents.add(content);
        List<Step> install = database.install().stream().map(step -> DATABASE.test(step) && !step.command().contains(path)
                ? step.running(withAlso(step.command(), property, path)) : step).toList();
        VariantRecord variant = new VariantRecord(database.id(), database.fits(), database.asPerson(), contents, install, database.remove(), database.repair(), database.presence(),
                database.family());
        List<Finding> findings = new ArrayList<>(file.findings());
        findings.add(new Finding("beside", "It goes beside the database of " + title.name() + " " + release.version() + ", and is given to its install command."));
        return new Proposal(withVariant(title, release.version(), new ProposedVariant(variant, List.of()), List.of(), List.of()), catalogue.now().kept(title.id()).revision(),
                release.version(), true, variant.id(), content, file.format().words(), signature(content), file.facts(), findings);
    }

    /** Several stand in one property, with semicolons between them, in the order in which they apply. */
    private static String withAlso(String command, String property, String path) {
        int known = command.indexOf(property);
        int end = known < 0 ? -1 : command.indexOf('"', known + property.length());
        return end < 0 ? command + property + path + "\"" : command.substring(0, end) + ";" + path + command.substring(end);
    }

    /** The title of the same family, else of the same name; null where there is none. */
    private @Nullable TitleRecord known(InstallerFile file, String name) {
        return catalogue.now().all().stream().filter(title -> isOfFamily(title, file.family())).findFirst()
                .orElseGet(() -> catalogue.now().all().stream().filter(t -> t.name().equalsIgnoreCase(name)).findFirst().orElse(null));
    }

    private static boolean isOfFamily(TitleRecord title, @Nullable String family) {
        return family != null && title.releases().stream().flatMap(release -> release.variants().stream()).anyMatch(variant -> family.equals(variant.family()));
    }

    /** The version of the software, empty where it states none; where another build of that is there already, the build's own. */
    private static String release(TitleRecord title, InstallerFile file) {
        if (file.version() == null) {
            return "";
        }
        String version = asWritten(title, file.version());
        String whole = file.packaged();
        boolean isRebuilt = whole != null && title.releases().stream().filter(release -> release.version().equals(version))
                .flatMap(release -> release.variants().stream()).flatMap(variant -> variant.presence().checks().stream())
                .anyMatch(check -> check.order() != null && check.subject().equals(file.code()) && !check.version().equals(whole));
        return isRebuilt ? whole.replaceFirst("^[0-9]+:", "") : version;
    }

    /** The organisation of a certificate; an OpenPGP key is of a packager, whom nobody takes for the maker. */
    private static @Nullable String signer(InstallerFile file) {
        return file.signature().chain().isEmpty() ? null : file.signer();
    }

    /** Whoever signs for a maker once may for all of that maker's titles. */
    private List<Finding> signer(InstallerFile file, TitleRecord title) {
        String maker = title.maker().isEmpty() ? Objects.requireNonNullElse(file.maker(), "") : title.maker();
        String signer = signer(file);
        return signer == null || maker.isEmpty() || TrustedSigners.maySign(catalogue.now(), signer, maker) ? List.of()
                : List.of(new Finding("signer-is-not-maker", "Signed by " + signer + ", made by " + maker + ". Ask where it came from, or say on the title's page that "
                        + signer + " may sign for " + maker + "."));
    }

    /** What a package needs first and no title is: of an MSIX package, whose needs no system fetches by itself. */
    private List<Finding> missing(InstallerFile file) {
        List<String> none = file.format() != InstallerFormat.MSIX ? List.of()
                : file.needs().stream().filter(need -> title(need) == null).map(need -> need.name() + (need.minimum() == null ? "" : " " + need.minimum())).toList();
        return none.isEmpty() ? List.of() : List.of(new Finding("need-missing", "It needs " + String.join(", ", none) + " first, which no title in the catalogue is. Drop "
                + (none.size() == 1 ? "that" : "those") + " on the catalogue, too."));
    }

    private List<ReplacementRecord> replaces(InstallerFile file, TitleRecord own) {
        return catalogue.now().all().stream().filter(title -> !title.id().equals(own.id()) && file.replaces().stream().anyMatch(code -> isOfFamily(title, code)))
                .map(title -> new ReplacementRecord(title.id(), false)).toList();
    }

    /** 4.2 is 4.2.0 where the title has that. */
    private static String asWritten(TitleRecord title, String version) {
        return title.releases().stream().map(ReleaseRecord::version)
                .filter(known -> Version.of(known).equals(Version.of(version))).findFirst().orElse(version);
    }

    private static String plainName(String fileName) {
        int dot = fileName.lastIndexOf('.');
        return (dot > 0 ? fileName.substring(0, dot) : fileName).replaceAll("[_-]+", " ").strip();
    }

    private String freeId(String name) {
        String plain = name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-+|-+$", "");
        String id = plain.isEmpty() ? "title" : plain.substring(0, Math.min(80, plain.length()));
        String free = id;
        for (int n = 2; catalogue.now().find(free) != null; n++) {
            free = id + "-" + n;
        }
        return free;
    }

    /** What it says it needs, as far as the catalogue has it, by the code that devices see it by, or by its name; of several that will do, the first. */
    private List<NeedRecord> needs(InstallerFile file) {
        List<NeedRecord> needs = new ArrayList<>();
        for (InstallerFile.Needed needed : file.needs()) {
            for (InstallerFile.Needed any : Stream.concat(Stream.of(needed), needed.alternatives().stream()).toList()) {
                TitleRecord title = title(any);
                if (title != null) {
                    if (needs.stream().noneMatch(n -> n.title().equals(title.id()))) {
                        needs.add(new NeedRecord(title.id(), any.minimum()));
                    }
                    break;
                }
            }
        }
        return needs;
    }

    private @Nullable TitleRecord title(InstallerFile.Needed needed) {
        return catalogue.now().all().stream().filter(t -> isCalled(t, needed.name())).findFirst().orElse(null);
    }

    private static boolean isCalled(TitleRecord title, String needed) {
        String last = needed.substring(needed.lastIndexOf('.') + 1);
        return letters(title.name()).equals(letters(last)) || title.releases().stream()
                .flatMap(r -> r.variants().stream()).flatMap(v -> v.presence().checks().stream())
                .anyMatch(c -> c.kind() == PresenceKind.PACKAGE && c.subject().equals(needed));
    }

    private static String letters(String name) {
        return name.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]+", "");
    }

    private List<Finding> inCatalogue(Content content) {
        List<Finding> findings = new ArrayList<>();
        for (TitleRecord title : catalogue.now().all()) {
            for (ReleaseRecord release : title.releases()) {
                for (VariantRecord variant : release.variants()) {
                    if (variant.contents().stream().anyMatch(c -> c.sha256().equals(content.sha256()))) {
                        findings.add(new Finding("already-there", "The very same file is in the catalogue already, as "
                                + title.name() + " " + release.version() + ", variant " + variant.id() + "."));
                    }
                }
            }
        }
        return findings;
    }

    /** A release that is there gets the variant, or another in its place; a new one waits until somebody offers it. */
    private static TitleRecord withVariant(TitleRecord title, String version, ProposedVariant proposed,
            List<NeedRecord> needs, List<ReplacementRecord> replaces) {
        VariantRecord variant = proposed.variant();
        List<ReleaseRecord> releases = new ArrayList<>(title.releases());
        for (int i = 0; i < releases.size(); i++) {
            ReleaseRecord release = releases.get(i);
            if (!version.isEmpty() && Version.of(release.version()).equals(Version.of(version))) {
                List<VariantRecord> variants = new ArrayList<>(release.variants());
                variants.removeIf(v -> v.id().equals(variant.id()));
                variants.add(variant);
                releases.set(i, new ReleaseRecord(release.version(), release.offered(), release.note(), release.needs(), release.replaces(),
                        withMore(release.choices(), proposed.choices()), variants));
                return title.withReleases(releases);
            }
        }
        ReleaseRecord before = title.leading();
        List<NeedRecord> all = new ArrayList<>(needs);
        List<ReplacementRecord> replaced = new ArrayList<>(before == null ? List.of() : before.replaces());
        replaces.stream().filter(one -> replaced.stream().noneMatch(known -> known.title().equals(one.title()))).forEach(replaced::add);
        if (before != null) {
            before.needs().stream().filter(n -> needs.stream().noneMatch(told -> told.title().equals(n.title())))
                    .forEach(all::add);
        }
        all.removeIf(need -> need.title().equals(title.id()));
        releases.add(new ReleaseRecord(version, false, "not offered yet", all, replaced,
                withMore(before == null ? List.of() : before.choices().stream().map(ChoiceRecord::withoutFiles).toList(), proposed.choices()), List.of(variant)));
        return title.withReleases(releases);
    }

    /** Those that are there stay as somebody made them. */
    private static List<ChoiceRecord> withMore(List<ChoiceRecord> known, List<ChoiceRecord> proposed) {
        List<ChoiceRecord> all = new ArrayList<>(known);
        proposed.stream().filter(one -> known.stream().noneMatch(there -> there.id().equals(one.id()))).forEach(all::add);
        return all;
    }
}
