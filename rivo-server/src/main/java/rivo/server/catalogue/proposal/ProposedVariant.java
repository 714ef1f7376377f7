package rivo.server.catalogue.proposal;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Existing;
import rivo.devices.protocol.ExitCode;
import rivo.devices.protocol.ExitMeaning;
import rivo.devices.protocol.PresenceKind;
import rivo.devices.protocol.VersionOrder;
import rivo.formats.installer.InstallerFile;
import rivo.formats.installer.InstallerFile.Part;
import rivo.formats.installer.InstallerFile.Setting;
import rivo.formats.installer.InstallerFormat;
import rivo.formats.installer.InstallerKind;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.ChoiceKind;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.ChoiceRecord.Allowed;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.StepKind;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;

/**
 * How a file is installed and removed, how it is seen, and where it fits: what is proposed for each format. Nothing is proposed that was not read.
 *
 * @param choices that its commands refer to
 */
record ProposedVariant(VariantRecord variant, List<ChoiceRecord> choices) {

    private static final List<ExitCode> UNIX_CODES = List.of(new ExitCode(0, ExitMeaning.DONE, 0));
    /** A changed configuration file stays as it is; one that nobody has changed is replaced. */
    private static final String CONFIGURATION = "-o Dpkg::Options::=--force-confdef -o Dpkg::Options::=--force-confold ";
    private static final String NO_OLDER = "If a newer version is on the device, remove that first: an older one is not installed over it.";
    private static final String WINDOWS = "os.family eq \"windows\"";
    private static final String NOT_WINDOWS = "os.family ne \"windows\"";
    private static final String LINUX = "os.family eq \"linux\"";
    private static final int MOST_SETTINGS = 10;

    /**
     * @param name of the title
     * @param version that a presence check asks for; empty for any
     */
    static ProposedVariant of(InstallerFile file, Content content, String name, String version) {
        InstallerFile.Inside inside = file.inside();
        return inside == null ? new ProposedVariant(variant(file, content, content.fileName(), name, version), choices(file))
                : new ProposedVariant(unpacking(inside, content, name, version), choices(inside.file()));
    }

    /** The archive is unpacked first, then what is in it is installed as it would be by itself. */
    private static VariantRecord unpacking(InstallerFile.Inside inside, Content archive, String name, String version) {
        VariantRecord own = variant(inside.file(), archive, inside.path(), name, version);
        String to = inside.file().format() == InstallerFormat.DEB || inside.file().format() == InstallerFormat.RPM
                ? "unzip -o -q \"{content}/" + archive.fileName() + "\" -d \"{content}\"" : "tar -xf \"{content}\\" + archive.fileName() + "\" -C \"{content}\"";
        List<Step> install = new ArrayList<>();
        if (!own.install().isEmpty()) {
            install.add(Step.run("Unpack the archive", to, UNIX_CODES));
            install.addAll(own.install());
        }
        return new VariantRecord(own.id(), own.fits(), own.asPerson(), List.of(archive), install, own.remove(), own.repair(), own.presence(), own.family());
    }

    /** @param path of the installer, below the folder of the content */
    private static VariantRecord variant(InstallerFile file, Content content, String path, String name, String version) {
        String windowsPath = path.replace('/', '\\');
        String code = Objects.requireNonNullElse(file.code(), "");
        Made made = new Made(file, content);
        return switch (file.format()) {
            case MSI -> made.variant("", step("Run the installer silently",
                    "msiexec /i \"{content}\\" + windowsPath + "\" /qn /norestart" + properties(file), Step.USUAL_CODES),
                    byCode(code, "Remove it silently", "msiexec /x " + code + " /qn /norestart", Step.USUAL_CODES),
                    byCode(code, "Repair damaged files", "msiexec /fomus " + code + " /qn /norestart", Step.USUAL_CODES),
                    seen(PresenceKind.PRODUCT_CODE, code, version));
            case MSIX -> file.findings().stream().anyMatch(one -> "resource-package".equals(one.code())) ? made.nothing()
                    : made.variant("", step("Install the package for everyone", "powershell -NoProfile -Command \"Add-AppxProvisionedPackage -Online -SkipLicense -PackagePath '"
                            + "{content}\\" + windowsPath.replace("'", "''") + "'\"", Step.USUAL_CODES),
                    byCode(code, "Remove the package for everyone, and for people who come later", "powershell -NoProfile -Command \"Get-AppxProvisionedPackage -Online | "
                            + "Where-Object DisplayName -eq '" + code + "' | Remove-AppxProvisionedPackage -Online; Get-AppxPackage -AllUsers '" + code
                            + "' | Remove-AppxPackage -AllUsers\"", Step.USUAL_CODES), List.of(), seen(PresenceKind.PACKAGE, code, version));
            case EXE -> made.variant("", exe(file, windowsPath), uninstaller(file, name), List.of(),
                    seen(PresenceKind.INVENTORY, file.kind() == InstallerKind.UNKNOWN ? "" : name, version));
            case DEB -> made.variant("deb", quietly("Install the package", "apt-get -y " + CONFIGURATION + "install \"{content}/" + path + "\"", NO_OLDER),
                    code.isEmpty() ? List.of() : quietly("Remove the package", "apt-get -y remove " + code, ""), List.of(), packaged(file, code, VersionOrder.DEBIAN));
            case RPM -> made.variant("rpm", List.of(saying(Step.run("Install the package", "dnf -y install \"{content}/" + path + "\"", UNIX_CODES), Map.of(), NO_OLDER)),
                    byCode(code, "Remove the package", "dnf -y remove " + code, UNIX_CODES), List.of(), packaged(file, code, VersionOrder.RPM));
            case SHELL_SCRIPT, BASH_SCRIPT, PYTHON_SCRIPT, PERL_SCRIPT, POWERSHELL_SCRIPT, BATCH_FILE -> made.variant("",
                    step("Run the script", interpreter(file.format(), path), UNIX_CODES), List.of(), List.of(), Presence.NONE);
            case MSI_PATCH -> made.variant("", step("Apply the patch silently",
                    "msiexec /p \"{content}\\" + windowsPath + "\" /qn /norestart", Step.USUAL_CODES), List.of(), List.of(), Presence.NONE);
            case TAR -> made.variant("", List.of(script("Unpack the archive", "mkdir -p \"" + folder(name) + "\" && tar -xf \"{content}/" + path + "\" -C \"" + folder(name) + "\"")),
                    List.of(script("Delete what was unpacked", "rm -rf \"" + folder(name) + "\"")), List.of(), Presence.NONE);
            case ZIP, OTHER, APP_IMAGE, LINUX_PROGRAM -> made.variant("", List.of(new Step(StepKind.COPY, "Copy the files", "{content}/" + path, folder(name),
                    Existing.KEEP_NEWER, null, "", Step.USUAL_LIMIT, false, "", Map.of(), List.of(), false, null, null, false, "")), List.of(), List.of(), Presence.NONE);
            case MSI_TRANSFORM, MERGE_MODULE, SEVEN_ZIP, RAR, CAB, DISK_IMAGE, FLATPAK, SNAP, XAR -> made.nothing();
        };
    }

    private static String folder(String name) {
        return "{programs}/" + name.replaceAll("[/\\\\:{}\"$`%!]+", " ");
    }

    private static List<Step> exe(InstallerFile file, String path) {
        return file.kind() == InstallerKind.UNKNOWN ? List.of()
                : step("Run the installer silently", "\"{content}\\" + path + "\" " + file.kind().silent(), Step.USUAL_CODES);
    }

    private static List<Step> uninstaller(InstallerFile file, String name) {
        return file.kind().silentRemoval().isEmpty() ? List.of() : step("Run its own uninstaller silently",
                "{uninstaller:" + name.replaceAll("[{}\"]", "") + "} " + file.kind().silentRemoval(), Step.USUAL_CODES);
    }

    /** What a file and its content come to. */
    private record Made(InstallerFile file, Content content) {

        VariantRecord variant(String packaging, List<Step> install, List<Step> remove, List<Step> repair, Presence presence) {
            List<String> several = file.architectures();
            String architecture = several.size() == 1 ? several.get(0) : "";
            String id = packaging.isEmpty() ? architecture : architecture.isEmpty() ? packaging : packaging + "-" + architecture;
            return new VariantRecord(id.isEmpty() ? "all" : id, fits(file), !file.perMachine(), List.of(content), install, remove, repair, presence, file.family());
        }

        VariantRecord nothing() {
            return variant("", List.of(), List.of(), List.of(), Presence.NONE);
        }
    }

    /** The parts to choose from and the switches, as Windows Installer takes them. */
    private static String properties(InstallerFile file) {
        StringBuilder text = new StringBuilder();
        if (hasParts(file)) {
            text.append(" ADDLOCAL=");
            file.parts().stream().filter(one -> !one.shown() && one.usual()).forEach(one -> text.append(one.id()).append(','));
            text.append("{choice:parts}");
        }
        switches(file).forEach(one -> text.append(' ').append(one.name()).append("={choice:").append(id(one)).append('}'));
        return text.toString();
    }

    private static boolean hasParts(InstallerFile file) {
        return shown(file).size() > 1 && shown(file).stream().anyMatch(Part::usual);
    }

    private static List<Part> shown(InstallerFile file) {
        return file.parts().stream().filter(Part::shown).toList();
    }

    private static List<Setting> switches(InstallerFile file) {
        return file.settings().stream().filter(one -> one.usual().matches("[01]")).limit(MOST_SETTINGS).toList();
    }

    private static String id(Setting setting) {
        String plain = setting.name().toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-+|-+$", "");
        return "set-" + plain.substring(0, Math.min(36, plain.length()));
    }

    private static List<ChoiceRecord> choices(InstallerFile file) {
        List<ChoiceRecord> choices = new ArrayList<>();
        if (file.format() == InstallerFormat.MSI && hasParts(file)) {
            choices.add(new ChoiceRecord("parts", "Parts", ChoiceKind.PARTS, shown(file).stream().filter(Part::usual).map(Part::id).collect(Collectors.joining(",")),
                    shown(file).stream().map(one -> new Allowed(one.id(), one.title(), "", 0, "")).toList(), null, null));
        }
        for (Setting one : switches(file)) {
            choices.add(new ChoiceRecord(id(one), one.name(), ChoiceKind.SWITCH, "1".equals(one.usual()) ? "on" : "off",
                    List.of(new Allowed("on", "", "1", 0, ""), new Allowed("off", "", "0", 0, "")), null, null));
        }
        return choices;
    }

    /** Nothing where the file did not tell the code that the command needs. */
    private static List<Step> byCode(String code, String text, String command, List<ExitCode> codes) {
        return code.isEmpty() ? List.of() : step(text, command, codes);
    }

    private static List<Step> step(String text, String command, List<ExitCode> codes) {
        return List.of(Step.run(text, command, codes));
    }

    private static Step script(String text, String command) {
        return new Step(StepKind.SCRIPT, text, command, "", null, null, "", Step.USUAL_LIMIT, false, "", Map.of(), UNIX_CODES, false, null, null, false, "");
    }

    /** Of the tool for Debian packages, which otherwise asks whoever is not there. */
    private static List<Step> quietly(String text, String command, String says) {
        return List.of(saying(Step.run(text, command, UNIX_CODES), Map.of("DEBIAN_FRONTEND", "noninteractive"), says));
    }

    private static Step saying(Step step, Map<String, String> environment, String says) {
        return new Step(step.kind(), step.text(), step.command(), step.to(), step.existing(), step.onlyWhere(), step.onlyWith(), step.limitSeconds(), step.asPerson(),
                step.folder(), environment, step.exitCodes(), step.goesOn(), step.thenTo(), step.failsTo(), step.atSignIn(), says);
    }

    private static Presence seen(PresenceKind kind, String subject, String version) {
        return subject.isEmpty() ? Presence.NONE : new Presence(false, List.of(new Presence.Check(kind, subject, version)));
    }

    /** By the whole version, as its own system compares it. */
    private static Presence packaged(InstallerFile file, String code, VersionOrder order) {
        String whole = Objects.requireNonNullElse(file.packaged(), "");
        return code.isEmpty() ? Presence.NONE
                : new Presence(false, List.of(new Presence.Check(PresenceKind.PACKAGE, code, whole, whole.isEmpty() ? null : order)));
    }

    private static String interpreter(InstallerFormat format, String path) {
        return switch (format) {
            case POWERSHELL_SCRIPT -> "powershell -NoProfile -NonInteractive -ExecutionPolicy Bypass -File \"{content}\\" + path + "\"";
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
            clauses.add(family);
        }
        String packages = packages(file.format());
        if (packages != null) {
            clauses.add("x.packages eq \"" + packages + "\"");
        }
        List<String> architectures = new ArrayList<>(file.architectures());
        // 32-bit software runs on both.
        if (architectures.contains("x86") && !architectures.contains("x64")) {
            architectures.add("x64");
        }
        if (!architectures.isEmpty()) {
            String any = architectures.stream().map(one -> "arch eq \"" + one + "\"").collect(Collectors.joining(" or "));
            clauses.add(architectures.size() == 1 ? any : "(" + any + ")");
        }
        if (file.minimumSystem() != null) {
            clauses.add("os.version ge \"" + file.minimumSystem().replaceAll("[^0-9.]", "") + "\"");
        }
        return clauses.isEmpty() ? null : String.join(" and ", clauses);
    }

    private static @Nullable String family(InstallerFormat format) {
        return switch (format) {
            case MSI, MSI_PATCH, MSI_TRANSFORM, MERGE_MODULE, MSIX, EXE, POWERSHELL_SCRIPT, BATCH_FILE -> WINDOWS;
            case DEB, RPM, APP_IMAGE, LINUX_PROGRAM, FLATPAK, SNAP -> LINUX;
            case SHELL_SCRIPT, BASH_SCRIPT, PYTHON_SCRIPT, PERL_SCRIPT, TAR -> NOT_WINDOWS;
            case XAR -> "os.family eq \"macos\"";
            case ZIP, SEVEN_ZIP, RAR, CAB, DISK_IMAGE, OTHER -> null;
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
