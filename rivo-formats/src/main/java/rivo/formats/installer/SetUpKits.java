package rivo.formats.installer;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.Document;
import org.w3c.dom.Element;

/**
 * Which kit a Windows set-up program was made with: by the structure that the kit's own loader looks for, never by a word somewhere in the file.
 */
final class SetUpKits {

    /** {@code NSIS firstheader}: flags, 0xDEADBEEF, "NullsoftInst", in blocks of 512 bytes from the end of the sections on. */
    private static final int NSIS_BLOCK = 512;
    private static final int NSIS_MOST_BLOCKS = 4096;
    private static final int NSIS_LENGTH = 28;
    private static final int NSIS_SIGNATURE = 0xDEADBEEF;
    private static final String NSIS_NAME = "NullsoftInst";
    private static final int NSIS_FLAGS = 0xf;
    private static final int NSIS_UNINSTALLER = 1;

    /** Inno Setup's loader finds its set-up data by this resource. */
    private static final int RAW_DATA = 10;
    private static final int INNO_OFFSETS = 11111;
    private static final byte[] INNO_NAME = {'r', 'D', 'l', 'P', 't', 'S'};
    private static final String INNO_DATA = "Inno Setup Setup Data (";
    /** Where the offset of the set-up data may stand in that resource, by the loader's versions: 32 bits, then 64. */
    private static final int INNO_OFFSET_AT = 32;
    private static final int INNO_LATER_OFFSET_AT = 44;

    private static final String BUNDLE_SECTION = ".wixburn";
    private static final int BUNDLE_SIGNATURE = 0x00f14300;
    private static final int BUNDLE_LENGTH = 48;
    private static final int BUNDLE_OF_CABINETS = 1;

    /**
     * @param uninstaller whether it removes what such a set-up program has installed
     * @param registration what it registers itself as; null where that is not told
     */
    record Kit(InstallerKind kind, boolean uninstaller, @Nullable Registration registration) {
    }

    /** As it stands in the list of installed software once it is there. */
    record Registration(@Nullable String name, @Nullable String version, @Nullable String maker, boolean perMachine) {
    }

    private SetUpKits() {
    }

    /** Null where it is none that is known. */
    static @Nullable Kit of(PeFile file, ReadingBudget budget) throws IOException {
        if (file.isLibrary()) {
            return null;
        }
        Kit nsis = nsis(file);
        return nsis != null ? nsis : isInno(file) ? new Kit(InstallerKind.INNO, false, null) : bundle(file, budget);
    }

    private static @Nullable Kit nsis(PeFile file) throws IOException {
        long at = (file.overlay() + NSIS_BLOCK - 1) / NSIS_BLOCK * NSIS_BLOCK;
        for (int i = 0; i < NSIS_MOST_BLOCKS && at + NSIS_LENGTH <= file.size(); i++, at += NSIS_BLOCK) {
            ByteBuffer header = file.bytes(at, NSIS_LENGTH);
            byte[] name = new byte[NSIS_NAME.length()];
            header.get(8, name);
            int flags = header.getInt(0);
            boolean isHeader = header.getInt(4) == NSIS_SIGNATURE && NSIS_NAME.equals(new String(name, StandardCharsets.ISO_8859_1)) && (flags & ~NSIS_FLAGS) == 0;
            if (isHeader && header.getInt(20) > 0 && header.getInt(24) > 0) {
                return new Kit(InstallerKind.NSIS, (flags & NSIS_UNINSTALLER) != 0, null);
            }
        }
        return null;
    }

    private static boolean isInno(PeFile file) throws IOException {
        ByteBuffer offsets = file.resource(RAW_DATA, INNO_OFFSETS);
        if (offsets == null || offsets.limit() < INNO_OFFSET_AT + 4) {
            return false;
        }
        for (int i = 0; i < INNO_NAME.length; i++) {
            if (offsets.get(i) != INNO_NAME[i]) {
                return false;
            }
        }
        return isInnoData(file, offsets.getInt(INNO_OFFSET_AT) & 0xffffffffL)
                || offsets.limit() >= INNO_LATER_OFFSET_AT + 8 && isInnoData(file, offsets.getLong(INNO_LATER_OFFSET_AT));
    }

    private static boolean isInnoData(PeFile file, long at) throws IOException {
        return at > 0 && at <= file.size() - INNO_DATA.length()
                && INNO_DATA.equals(StandardCharsets.ISO_8859_1.decode(file.bytes(at, INNO_DATA.length())).toString());
    }

    /** The section tells how long the program itself is; behind it lies the cabinet with the manifest. */
    private static @Nullable Kit bundle(PeFile file, ReadingBudget budget) throws IOException {
        for (PeFile.Section section : file.sections()) {
            if (section.name().equals(BUNDLE_SECTION) && section.size() >= BUNDLE_LENGTH) {
                ByteBuffer header = file.bytes(section.data(), BUNDLE_LENGTH);
                long cabinet = header.getInt(24) & 0xffffffffL;
                boolean isBundle = header.getInt(0) == BUNDLE_SIGNATURE && header.getInt(40) == BUNDLE_OF_CABINETS && Cabinet.isAt(file, cabinet);
                return isBundle ? new Kit(InstallerKind.WIX_BUNDLE, false, registration(file, cabinet, budget)) : null;
            }
        }
        return null;
    }

    /** What it registers itself as; null where its manifest cannot be read. */
    private static @Nullable Registration registration(PeFile file, long cabinet, ReadingBudget budget) throws IOException {
        byte[] manifest = Cabinet.first(file, cabinet);
        if (manifest == null) {
            return null;
        }
        Document read = Xml.read(manifest, budget);
        Element registration = Xml.first(read, "Registration");
        Element listed = Xml.first(read, "Arp");
        return registration == null || listed == null ? null : new Registration(Xml.text(listed.getAttribute("DisplayName")), Xml.text(listed.getAttribute("DisplayVersion")),
                Xml.text(listed.getAttribute("Publisher")), "yes".equals(registration.getAttribute("PerMachine")));
    }
}
