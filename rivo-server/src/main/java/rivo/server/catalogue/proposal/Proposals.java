package rivo.server.catalogue.proposal;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Scope;
import rivo.core.estate.Version;
import rivo.devices.protocol.Existing;
import rivo.devices.protocol.ExitCode;
import rivo.devices.protocol.ExitMeaning;
import rivo.devices.protocol.PresenceKind;
import rivo.formats.installer.InstallerFile;
import rivo.formats.installer.InstallerFile.Finding;
import rivo.formats.installer.InstallerFormat;
import rivo.formats.installer.InstallerKind;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.StepKind;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.About;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.estate.EstateRecords.NeedRecord;

/**
 * Makes of an installer file what somebody would otherwise type: the title, the release, how it goes on and comes off,
 * how one sees it, and where it fits. All of it is proposed, nothing imposed.
 */
@Component
class Proposals {

    private static final List<ExitCode> UNIX_CODES = List.of(new ExitCode(0, ExitMeaning.DONE, 0));

    /**
     * @param title as it would be with the file in it
     * @param revision of the title that it goes into; 0 for a new one
     * @param version of the release that the file goes into
     * @param format in words
     * @param findings what somebody should know before using the file
     */
    record Proposal(TitleRecord title, long revision, String version, String variant, Content content, String format,
            List<Finding> findings) {
    }

    private final Catalogue catalogue;

    Proposals(Catalogue catalogue) {
        this.catalogue = catalogue;
    }

    /** @param into the title that the file was dropped on; null where it was dropped on the catalogue */
    Proposal propose(InstallerFile file, Content kept, @Nullable String into) {
        // The tool takes a package for one by the ending of its name alone.
        boolean needsEnding = file.format() == InstallerFormat.DEB && !kept.fileName().endsWith(".deb");
        Content content = new Content(kept.sha256(), kept.size(), kept.fileName() + (needsEnding ? ".deb" : ""), file.signer());
        String name = file.name() == null ? plainName(content.fileName()) : file.name();
        TitleRecord known = into != null ? catalogue.now().record(into) : named(name);
        TitleRecord title = known != null ? known : new TitleRecord(freeId(name), name,
                Objects.requireNonNullElse(file.maker(), ""), About.NOTHING.described(file.description()), Scope.DEVICE.word(), null, List.of(),
                List.of(), List.of());
        String version = asWritten(title, file.version() == null ? "1.0" : file.version());
        VariantRecord variant = variant(file, content, name, file.version() == null ? "" : version);
        List<Finding> findings = new ArrayList<>(file.findings());
        findings.addAll(inCatalogue(content));
        if (file.version() == null) {
            findings.add(new Finding("no-version", "The file does not state a version; check the one that is filled in."));
        }
        if (into != null && known != null && file.name() != null && !file.name().equalsIgnoreCase(known.name())) {
            findings.add(new Finding("other-title", "It calls itself " + file.name() + ", not " + known.name()
                    + ". Drop it on the catalogue if it is another title."));
        }
        return new Proposal(withVariant(title, version, variant, needs(file)), known == null ? 0 : catalogue.now().kept(title.id()).revision(),
                version, variant.id(), content, file.format().words(), findings);
    }

    /** 4.2 is 4.2.0 where the title has that. */
    private static String asWritten(TitleRecord title, String version) {
        return title.releases().stream().map(ReleaseRecord::version)
                .filter(known -> Version.of(known).equals(Version.of(version))).findFirst().orElse(version);
    }

    private @Nullable TitleRecord named(String name) {
        return catalogue.now().all().stream().filter(t -> t.name().equalsIgnoreCase(name)).findFirst().orElse(null);
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

    /** What it says it needs, as far as the catalogue has it: by the code that devices see it by, or by its name. */
    private List<NeedRecord> needs(InstallerFile file) {
        List<NeedRecord> needs = new ArrayList<>();
        for (InstallerFile.Needed needed : file.needs()) {
            TitleRecord title = catalogue.now().all().stream().filter(t -> isCalled(t, needed.name())).findFirst().orElse(null);
            if (title != null && needs.stream().noneMatch(n -> n.title().equals(title.id()))) {
                needs.add(new NeedRecord(title.id(), needed.minimum()));
            }
        }
        return needs;
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
    private static TitleRecord withVariant(TitleRecord title, String version, VariantRecord variant,
            List<NeedRecord> needs) {
        List<ReleaseRecord> releases = new ArrayList<>(title.releases());
        for (int i = 0; i < releases.size(); i++) {
            ReleaseRecord release = releases.get(i);
            if (Version.of(release.version()).equals(Version.of(version))) {
                List<VariantRecord> variants = new ArrayList<>(release.variants());
                variants.removeIf(v -> v.id().equals(variant.id()));
                variants.add(variant);
                releases.set(i, release.withVariants(variants));
                return title.withReleases(releases);
            }
        }
        ReleaseRecord before = title.leading();
        List<NeedRecord> all = new ArrayList<>(needs);
        if (before != null) {
            before.needs().stream().filter(n -> needs.stream().noneMatch(told -> told.title().equals(n.title())))
                    .forEach(all::add);
        }
        all.removeIf(need -> need.title().equals(title.id()));
        releases.add(new ReleaseRecord(version, false, "not offered yet", all,
                before == null ? List.of() : before.replaces(),
                before == null ? List.of() : before.choices().stream().map(ChoiceRecord::withoutFiles).toList(), List.of(variant)));
        return title.withReleases(releases);
    }

    private static VariantRecord variant(InstallerFile file, Content content, String name, String version) {
        String path = content.fileName();
        String code = Objects.requireNonNullElse(file.code(), "");
        return switch (file.format()) {
            case MSI -> variant(file, content, variantId("", file.architecture()), step("Run the installer silently",
                    "msiexec /i \"{content}\\" + path + "\" /qn /norestart", Step.USUAL_CODES),
                    byCode(code, "Remove it silently", "msiexec /x " + code + " /qn /norestart", Step.USUAL_CODES),
                    byCode(code, "Repair damaged files", "msiexec /fomus " + code + " /qn /norestart", Step.USUAL_CODES),
                    seen(PresenceKind.PRODUCT_CODE, code, version));
            case MSIX -> variant(file, content, variantId("", file.architecture()), step("Install the package for everyone",
                    "powershell Add-AppxProvisionedPackage -Online -SkipLicense -PackagePath \"{content}\\" + path + "\"",
                    Step.USUAL_CODES), byCode(code, "Remove the package for everyone", "powershell \"Get-AppxPackage -AllUsers " + code
                            + " | Remove-AppxPackage -AllUsers\"", Step.USUAL_CODES),
                    List.of(), seen(PresenceKind.PACKAGE, code, version));
            case EXE -> exe(file, content, name, version);
            case DEB -> variant(file, content, variantId("deb", file.architecture()), step("Install the package",
                    "apt-get -y install \"{content}/" + path + "\"", UNIX_CODES), byCode(code, "Remove the package",
                            "apt-get -y remove " + code, UNIX_CODES),
                    List.of(), seen(PresenceKind.PACKAGE, code, version));
            case RPM -> variant(file, content, variantId("rpm", file.architecture()), step("Install the package",
                    "dnf -y install \"{content}/" + path + "\"", UNIX_CODES), byCode(code, "Remove the package",
                            "dnf -y remove " + code, UNIX_CODES),
                    List.of(), seen(PresenceKind.PACKAGE, code, version));
            case SHELL_SCRIPT, BASH_SCRIPT, PYTHON_SCRIPT, PERL_SCRIPT, POWERSHELL_SCRIPT, BATCH_FILE -> variant(file, content, "all",
                    step("Run the script", interpreter(file.format(), path), UNIX_CODES), List.of(), List.of(), Presence.NONE);
            case MSI_PATCH -> variant(file, content, "all", step("Apply the patch silently",
                    "msiexec /p \"{content}\\" + path + "\" /qn /norestart", Step.USUAL_CODES), List.of(), List.of(),
                    Presence.NONE);
            case ZIP, OTHER -> variant(file, content, "all", List.of(new Step(StepKind.COPY, "Copy the files",
                    "{content}/" + path, "{programs}/" + name.replaceAll("[/\\\\:{}]+", " "), Existing.KEEP_NEWER, null,
                    "", Step.USUAL_LIMIT, false, "", Map.of(), List.of(), false, null, null, false, "")), List.of(), List.of(), Presence.NONE);
        };
    }

    private static VariantRecord exe(InstallerFile file, Content content, String name, String version) {
        InstallerKind kind = file.kind();
        List<Step> install = kind == InstallerKind.UNKNOWN ? List.of() : step("Run the installer silently", "\"{content}\\" + content.fileName() + "\" " + kind.silent(),
                Step.USUAL_CODES);
        List<Step> remove = kind.silentRemoval().isEmpty() ? List.of()
                : step("Run its own uninstaller silently", "\"{uninstaller:" + name.replaceAll("[{}\"]", "") + "}\" " + kind.silentRemoval(), Step.USUAL_CODES);
        return variant(file, content, variantId("", file.architecture()), install, remove, List.of(),
                seen(PresenceKind.INVENTORY, name, version));
    }

    private static VariantRecord variant(InstallerFile file, Content content, String id, List<Step> install,
            List<Step> remove, List<Step> repair, Presence presence) {
        return new VariantRecord(id, fits(file), !file.perMachine(), List.of(content), install, remove, repair, presence);
    }

    /** Such as x64, deb-x64 or deb; a variant for every device alike is all. */
    private static String variantId(String packaging, @Nullable String architecture) {
        String both = architecture == null ? packaging : packaging.isEmpty() ? architecture : packaging + "-" + architecture;
        return both.isEmpty() ? "all" : both;
    }

    /** Nothing where the file did not tell the code that the command needs. */
    private static List<Step> byCode(String code, String text, String command, List<ExitCode> codes) {
        return code.isEmpty() ? List.of() : step(text, command, codes);
    }

    private static List<Step> step(String text, String command, List<ExitCode> codes) {
        return List.of(Step.run(text, command, codes));
    }

    private static Presence seen(PresenceKind kind, String subject, String version) {
        return subject.isEmpty() ? Presence.NONE : new Presence(false, List.of(new Presence.Check(kind, subject, version)));
    }

    private static String interpreter(InstallerFormat format, String path) {
        return switch (format) {
            case POWERSHELL_SCRIPT -> "powershell -ExecutionPolicy Bypass -File \"{content}\\" + path + "\"";
            case BATCH_FILE -> "cmd /c \"{content}\\" + path + "\"";
            case PYTHON_SCRIPT -> "python3 \"{content}/" + path + "\"";
            case PERL_SCRIPT -> "perl \"{content}/" + path + "\"";
            case BASH_SCRIPT -> "bash \"{content}/" + path + "\"";
            default -> "sh \"{content}/" + path + "\"";
        };
    }

    /** The rule that a device has to satisfy: its system, its architecture, and the lowest version of the system. */
    private static @Nullable String fits(InstallerFile file) {
        List<String> clauses = new ArrayList<>();
        String family = family(file.format());
        if (family != null) {
            clauses.add("os.family eq \"" + family + "\"");
        }
        String architecture = file.architecture();
        String packages = packages(file.format());
        if (packages != null) {
            clauses.add("x.packages eq \"" + packages + "\"");
        }
        if ("x86".equals(architecture)) {
            clauses.add("(arch eq \"x86\" or arch eq \"x64\")");
        } else if (architecture != null) {
            clauses.add("arch eq \"" + architecture + "\"");
        }
        if (file.minimumSystem() != null) {
            clauses.add("os.version ge \"" + file.minimumSystem().replaceAll("[^0-9.]", "") + "\"");
        }
        return clauses.isEmpty() ? null : String.join(" and ", clauses);
    }

    private static @Nullable String family(InstallerFormat format) {
        return switch (format) {
            case MSI, MSI_PATCH, MSIX, EXE, POWERSHELL_SCRIPT, BATCH_FILE -> "windows";
            case DEB, RPM -> "linux";
            case SHELL_SCRIPT, BASH_SCRIPT, ZIP, PYTHON_SCRIPT, PERL_SCRIPT, OTHER -> null;
        };
    }

    /** Which packages the device has to take; null where that does not matter. */
    private static @Nullable String packages(InstallerFormat format) {
        return switch (format) {
            case DEB -> "deb";
            case RPM -> "rpm";
            default -> null;
        };
    }
}
