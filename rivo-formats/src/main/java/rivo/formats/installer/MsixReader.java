package rivo.formats.installer;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import rivo.formats.installer.InstallerFile.Builder;
import rivo.formats.installer.InstallerFile.Needed;

/**
 * MSIX packages and their bundles ("App package manifest" and "Bundle manifest", Microsoft's schemas): of a bundle, the packages in it say which
 * version and architectures it has, and the main one what it is.
 */
final class MsixReader {

    static final String MANIFEST = "AppxManifest.xml";
    static final String BUNDLE_MANIFEST = "AppxMetadata/AppxBundleManifest.xml";
    private static final int MOST_MANIFEST = 256 << 10;
    /** Desktops, and what fits every kind of device. */
    private static final List<String> FAMILIES = List.of("Windows.Desktop", "Windows.Universal");
    private static final String VERSION = "Version";

    private MsixReader() {
    }

    static InstallerFile read(ZipFile zip, ReadingBudget budget) throws IOException, UnreadableInstallerException {
        ZipEntry bundle = zip.getEntry(BUNDLE_MANIFEST);
        ZipEntry manifest = bundle != null ? bundle : zip.getEntry(MANIFEST);
        if (manifest == null) {
            throw new IOException("it has no manifest");
        }
        Document document = Xml.read(ZipReader.bounded(zip, manifest, MOST_MANIFEST, budget), budget);
        Builder told = bundle != null ? bundle(zip, document, budget) : of(document);
        return told.signature(MsixSignature.of(zip, budget)).build();
    }

    private static Builder of(Document manifest) throws IOException, UnreadableInstallerException {
        Builder told = InstallerFile.of(InstallerFormat.MSIX);
        Element identity = identity(manifest);
        String code = Xml.text(identity.getAttribute("Name"));
        String maker = Xml.textOf(manifest, "PublisherDisplayName");
        String name = Xml.textOf(manifest, "DisplayName");
        told.name(isPlain(name) ? name : code).version(version(Xml.text(identity.getAttribute(VERSION)))).code(code).family(code)
                .packaged(Xml.text(identity.getAttribute(VERSION)))
                .maker(isPlain(maker) ? maker : Signers.organisation(identity.getAttribute("Publisher"))).description(plain(Xml.textOf(manifest, "Description")))
                .architecture(architecture(identity.getAttribute("ProcessorArchitecture"))).minimumSystem(minimum(manifest)).needs(needs(manifest));
        if ("true".equalsIgnoreCase(Xml.textOf(manifest, "ResourcePackage"))) {
            told.finding("resource-package", "It is a resource package: it only adds languages or pictures to another package. Drop the package itself, or its bundle.");
        }
        if ("true".equalsIgnoreCase(Xml.textOf(manifest, "Framework"))) {
            told.finding("framework-package", "It is a framework package: it shows nothing by itself, and others need it.");
        }
        return told;
    }

    private static Builder bundle(ZipFile zip, Document manifest, ReadingBudget budget) throws IOException, UnreadableInstallerException {
        List<Element> packages = Xml.all(manifest, "Package").stream().filter(one -> !"resource".equalsIgnoreCase(one.getAttribute("Type"))
                && !one.getAttribute("FileName").isBlank()).toList();
        Element main = packages.stream().filter(one -> "x64".equalsIgnoreCase(one.getAttribute("Architecture"))).findFirst()
                .orElse(packages.isEmpty() ? null : packages.get(0));
        Document own = main == null ? null : inner(zip, main.getAttribute("FileName"), budget);
        Builder told = own != null ? of(own) : of(manifest);
        packages.forEach(one -> told.architecture(architecture(one.getAttribute("Architecture"))));
        if (own == null && main != null) {
            told.version(version(Xml.text(main.getAttribute(VERSION)))).packaged(Xml.text(main.getAttribute(VERSION)))
                    .finding("bundle-only", "The main package in this bundle could not be looked into; name and needs are the bundle's own.");
        }
        told.fact("Bundle", packages.size() + (packages.size() == 1 ? " package" : " packages") + ", bundle version " + identity(manifest).getAttribute(VERSION));
        return told;
    }

    /** The manifest of a package in the bundle; null where it cannot be looked into. */
    private static @Nullable Document inner(ZipFile zip, String name, ReadingBudget budget) throws IOException {
        ZipEntry entry = zip.getEntry(name.replace('\\', '/'));
        try (Unpacked unpacked = entry == null ? null : Unpacked.of(zip, entry, budget)) {
            if (unpacked == null) {
                return null;
            }
            ZipReader.checkDirectory(unpacked.file(), budget);
            try (ZipFile inner = new ZipFile(unpacked.file().toFile())) {
                ZipEntry manifest = inner.getEntry(MANIFEST);
                return manifest == null ? null : Xml.read(ZipReader.bounded(inner, manifest, MOST_MANIFEST, budget), budget);
            }
        } catch (UnreadableInstallerException e) {
            return null;
        }
    }

    private static Element identity(Document manifest) throws IOException {
        Element identity = Xml.first(manifest, "Identity");
        if (identity == null) {
            throw new IOException("its manifest has no identity");
        }
        return identity;
    }

    /** A name that is not a reference to a resource. */
    private static boolean isPlain(@Nullable String name) {
        return name != null && !name.startsWith("ms-resource:");
    }

    private static @Nullable String plain(@Nullable String name) {
        return isPlain(name) ? name : null;
    }

    /** Packages number in four parts; the last is mostly an idle zero. */
    private static @Nullable String version(@Nullable String version) {
        return version == null ? null : version.replaceFirst("^(\\d+\\.\\d+\\.\\d+)\\.0$", "$1");
    }

    private static @Nullable String architecture(String architecture) {
        return switch (architecture.toLowerCase(Locale.ROOT)) {
            case "x64" -> "x64";
            case "x86" -> "x86";
            case "arm64", "x86a64" -> "arm64";
            case "arm" -> "arm";
            default -> null;
        };
    }

    /**
     * The desktop's; before there were families, the prerequisites'.
     *
     * @throws UnreadableInstallerException where it is for other kinds of devices alone
     */
    private static @Nullable String minimum(Document manifest) throws UnreadableInstallerException {
        List<Element> families = Xml.all(manifest, "TargetDeviceFamily");
        for (String family : FAMILIES) {
            for (Element one : families) {
                if (family.equals(one.getAttribute("Name"))) {
                    return Xml.text(one.getAttribute("MinVersion"));
                }
            }
        }
        if (!families.isEmpty()) {
            throw new UnreadableInstallerException("other-devices", "This package is for " + families.get(0).getAttribute("Name").replaceAll("[^A-Za-z0-9.]+", " ")
                    + ", not for desktop computers, so it could not be installed on any. Fetch the one for desktops.");
        }
        return Xml.textOf(manifest, "OSMinVersion");
    }

    private static List<Needed> needs(Document manifest) {
        List<Needed> needs = new ArrayList<>();
        for (Element one : Xml.all(manifest, "PackageDependency")) {
            needs.add(new Needed(one.getAttribute("Name"), version(Xml.text(one.getAttribute("MinVersion")))));
        }
        return needs;
    }
}
