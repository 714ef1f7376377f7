package rivo.formats.installer;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.apache.poi.hpsf.ClassID;
import org.apache.poi.hpsf.NoPropertySetStreamException;
import org.apache.poi.hpsf.PropertySet;
import org.apache.poi.hpsf.SummaryInformation;
import org.apache.poi.hpsf.UnexpectedPropertySetTypeException;
import org.apache.poi.poifs.filesystem.POIFSFileSystem;
import org.apache.poi.util.LocaleID;
import org.jspecify.annotations.Nullable;
import rivo.formats.installer.InstallerFile.Builder;
import rivo.formats.installer.InstallerFile.Part;
import rivo.formats.installer.InstallerFile.Setting;

/**
 * Windows Installer databases ("Windows Installer", Microsoft's documentation of it: database tables, summary information): what product it is, for
 * whom it installs, which parts it has, what may be set, and what it replaces. Merge modules, patches and transforms are told by their storage.
 */
final class MsiReader {

    private static final ClassID TRANSFORM = new ClassID("{000C1082-0000-0000-C000-000000000046}");
    private static final ClassID PATCH = new ClassID("{000C1086-0000-0000-C000-000000000046}");
    private static final String PER_USER = "MSIINSTALLPERUSER";
    /** What Windows Installer itself gives a meaning to; somebody who sets one of these knows why. */
    private static final Pattern ITS_OWN = Pattern.compile("(ARP|MSI|PID|TRANSFORMS|PATCH|REINSTALL|DISABLE|_).*|ADD(LOCAL|SOURCE|DEFAULT)|ADVERTISE|ALLUSERS|COMPANYNAME"
            + "|EXECUTE(ACTION|MODE)|INSTALLLEVEL|INSTALLDIR|TARGETDIR|APPLICATIONFOLDER|LIMITUI|LOGACTION|MEDIAPACKAGEPATH|PRIMARYFOLDER|PROMPTROLLBACKCOST|REBOOT.*|REMOVE"
            + "|ROOTDRIVE|SEQUENCE|SHORTFILENAMES|UPGRADINGPRODUCTCODE|USERNAME|WIX.*|NEWPRODUCTFOUND|NEWERVERSIONDETECTED|OLDPRODUCTS|FASTOEM");
    private static final Pattern PUBLIC = Pattern.compile("[A-Z_][A-Z0-9_.]*");
    /** A row of the table Upgrade that only looks whether the other product is there. */
    private static final int ONLY_DETECTS = 2;
    private static final int MOST_LANGUAGES = 20;

    private MsiReader() {
    }

    static InstallerFile read(Path file, ReadingBudget budget) throws IOException {
        CompoundFileBounds.check(file, budget);
        try (POIFSFileSystem storage = new POIFSFileSystem(file.toFile(), true)) {
            MsiDatabase database = new MsiDatabase(storage.getRoot(), budget);
            InstallerFormat format = format(storage.getRoot().getStorageClsid(), database);
            FileSignature signature = MsiSignature.of(storage, database, budget);
            Builder told = InstallerFile.of(format).signature(signature);
            if (format == InstallerFormat.MSI) {
                tell(database, summary(database), told);
            }
            return told.build();
        }
    }

    private static InstallerFormat format(@Nullable ClassID storage, MsiDatabase database) {
        return TRANSFORM.equals(storage) ? InstallerFormat.MSI_TRANSFORM
                : PATCH.equals(storage) || database.hasTable("MsiPatchSequence") && !database.hasTable("Property") ? InstallerFormat.MSI_PATCH
                : !database.hasTexts() ? InstallerFormat.OTHER
                : database.hasTable("ModuleSignature") ? InstallerFormat.MERGE_MODULE : InstallerFormat.MSI;
    }

    private static void tell(MsiDatabase database, @Nullable SummaryInformation summary, Builder told) throws IOException {
        Map<String, String> properties = new HashMap<>();
        for (Map<String, String> row : database.rows("Property")) {
            properties.put(row.getOrDefault("Property", ""), row.getOrDefault("Value", ""));
        }
        String code = properties.get("ProductCode");
        String family = properties.get("UpgradeCode");
        told.name(properties.get("ProductName")).version(properties.get("ProductVersion")).maker(properties.get("Manufacturer"))
                .description(summary == null ? null : summary.getSubject()).code(code == null ? null : code.toUpperCase(Locale.ROOT))
                .family(family == null ? null : family.toUpperCase(Locale.ROOT)).perMachine(isPerMachine(properties));
        if (properties.isEmpty()) {
            told.finding("no-product", "It is a Windows Installer database without properties, so it names no product. Nothing can be proposed for it but its file name.");
        }
        told.fact("Upgrade code", family);
        template(summary, told);
        if ("2".equals(properties.get("ALLUSERS"))) {
            told.fact("Installed for", "1".equals(properties.get(PER_USER)) ? "one person, or the device where ALLUSERS=1 is given" : "the device, or one person where "
                    + PER_USER + "=1 is given");
        }
        parts(database, told);
        settings(database, properties, told);
        upgrades(database, family, told);
        told.fact("Installs only where", database.rows("LaunchCondition").stream().map(row -> row.getOrDefault("Description", row.getOrDefault("Condition", "")))
                .collect(Collectors.joining(" · ")));
    }

    /**
     * As the documentation of ALLUSERS defines it: 1 is for the device; 2, for whoever may install for the device, as the system may, is so too unless
     * MSIINSTALLPERUSER is 1; without it, it is for the one who installs.
     */
    private static boolean isPerMachine(Map<String, String> properties) {
        String all = properties.getOrDefault("ALLUSERS", "");
        return "1".equals(all) || "2".equals(all) && !"1".equals(properties.get(PER_USER));
    }

    private static @Nullable SummaryInformation summary(MsiDatabase database) throws IOException {
        byte[] bytes = database.bytes(SummaryInformation.DEFAULT_STREAM_NAME);
        try {
            return bytes == null ? null : new SummaryInformation(new PropertySet(new ByteArrayInputStream(bytes)));
        } catch (NoPropertySetStreamException | UnexpectedPropertySetTypeException e) {
            return null;
        }
    }

    /** The template is the platform and the languages, such as {@code x64;1033,2057}; without a platform it is Intel's of 32 bits. */
    private static void template(@Nullable SummaryInformation summary, Builder told) {
        String template = summary == null ? null : summary.getTemplate();
        String[] halves = template == null ? new String[0] : template.split(";", 2);
        for (String platform : halves.length == 0 ? new String[0] : halves[0].split(",")) {
            told.architecture(switch (platform.strip().toLowerCase(Locale.ROOT)) {
                case "x64", "amd64" -> "x64";
                case "arm64" -> "arm64";
                case "arm" -> "arm";
                case "intel64" -> "ia64";
                case "intel", "" -> "x86";
                default -> null;
            });
        }
        if (halves.length == 2) {
            told.fact("Language", Arrays.stream(halves[1].split(",")).map(String::strip).filter(one -> one.matches("[1-9][0-9]{0,5}")).limit(MOST_LANGUAGES)
                    .map(MsiReader::language).collect(Collectors.joining(", ")));
        }
    }

    private static String language(String lcid) {
        LocaleID known = LocaleID.lookupByLcid(Integer.parseInt(lcid));
        return known == null ? lcid : Locale.forLanguageTag(known.getLanguageTag()).getDisplayName(Locale.ENGLISH);
    }

    private static void parts(MsiDatabase database, Builder told) throws IOException {
        int usualLevel = 1;
        for (Map<String, String> row : database.rows("Property")) {
            usualLevel = "INSTALLLEVEL".equals(row.get("Property")) ? number(row.get("Value"), 1) : usualLevel;
        }
        for (Map<String, String> row : database.rows("Feature")) {
            int level = number(row.get("Level"), 1);
            if (level > 0 && row.get("Feature") != null) {
                told.part(new Part(row.get("Feature"), row.getOrDefault("Title", row.get("Feature")), level <= usualLevel, number(row.get("Display"), 0) != 0));
            }
        }
    }

    private static int number(@Nullable String text, int otherwise) {
        return text != null && text.matches("-?[0-9]{1,6}") ? Integer.parseInt(text) : otherwise;
    }

    /** Those in capitals that somebody may give it, but for Windows Installer's own. */
    private static void settings(MsiDatabase database, Map<String, String> properties, Builder told) throws IOException {
        Set<String> ofUpgrades = database.rows("Upgrade").stream().map(row -> row.getOrDefault("ActionProperty", "")).collect(Collectors.toSet());
        Set<String> names = new HashSet<>(properties.keySet());
        names.addAll(Arrays.asList(properties.getOrDefault("SecureCustomProperties", "").split(";")));
        names.stream().filter(name -> isToBeSet(name, ofUpgrades)).sorted()
                .forEach(name -> told.setting(new Setting(name, properties.getOrDefault(name, ""))));
        told.fact("Can be set", names.stream().filter(name -> isToBeSet(name, ofUpgrades)).sorted()
                .map(name -> name + (properties.getOrDefault(name, "").isEmpty() ? "" : "=" + properties.get(name))).collect(Collectors.joining(", ")));
    }

    private static boolean isToBeSet(String name, Set<String> ofUpgrades) {
        return PUBLIC.matcher(name).matches() && !ITS_OWN.matcher(name).matches() && !ofUpgrades.contains(name);
    }

    private static void upgrades(MsiDatabase database, @Nullable String family, Builder told) throws IOException {
        List<Map<String, String>> rows = database.rows("Upgrade");
        List<String> others = rows.stream().filter(row -> (number(row.get("Attributes"), 0) & ONLY_DETECTS) == 0)
                .map(row -> row.getOrDefault("UpgradeCode", "").toUpperCase(Locale.ROOT)).filter(code -> !code.equalsIgnoreCase(family)).distinct().toList();
        others.forEach(told::replaces);
        told.fact("Replaces", others.isEmpty() ? null : "products with the upgrade code " + String.join(", ", others));
    }
}
