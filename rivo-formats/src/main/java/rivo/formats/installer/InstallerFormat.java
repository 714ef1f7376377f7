package rivo.formats.installer;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** What a file really is. */
public enum InstallerFormat {
    MSI("msi", "a Windows Installer database", "msi"),
    MSI_PATCH("msp", "a Windows Installer patch", "msp"),
    MSI_TRANSFORM("mst", "a Windows Installer transform", "mst"),
    MERGE_MODULE("msm", "a Windows Installer merge module", "msm"),
    MSIX("msix", "an MSIX package", "msix", "appx", "msixbundle", "appxbundle"),
    EXE("exe", "a Windows program", "exe"),
    DEB("deb", "a Debian package", "deb"),
    RPM("rpm", "an RPM package", "rpm"),
    ZIP("zip", "a ZIP archive", "zip"),
    TAR("tar", "a tar archive", "tar", "tgz"),
    SEVEN_ZIP("7z", "a 7z archive", "7z"),
    RAR("rar", "a RAR archive", "rar"),
    CAB("cab", "a cabinet archive", "cab"),
    DISK_IMAGE("image", "a disk image", "iso", "img", "dmg", "wim", "vhd", "vhdx"),
    APP_IMAGE("appimage", "an AppImage, a program for Linux in one file", "appimage"),
    LINUX_PROGRAM("elf", "a program for Linux", "run", "bin"),
    FLATPAK("flatpak", "a Flatpak bundle", "flatpak", "flatpakref"),
    SNAP("snap", "a snap", "snap"),
    XAR("pkg", "a package for macOS", "pkg"),
    SHELL_SCRIPT("sh", "a shell script", "sh"),
    BASH_SCRIPT("bash", "a Bash script", "bash"),
    PYTHON_SCRIPT("py", "a Python script", "py"),
    PERL_SCRIPT("pl", "a Perl script", "pl"),
    POWERSHELL_SCRIPT("ps1", "a PowerShell script", "ps1"),
    BATCH_FILE("bat", "a batch file", "bat", "cmd"),
    OTHER("other", "a file of no format that Rivo can read");

    private final String word;
    private final String words;
    private final List<String> endings;

    InstallerFormat(String word, String words, String... endings) {
        this.word = word;
        this.words = words;
        this.endings = List.of(endings);
    }

    /** Whether an interpreter runs it. */
    public boolean isScript() {
        return switch (this) {
            case SHELL_SCRIPT, BASH_SCRIPT, PYTHON_SCRIPT, PERL_SCRIPT, POWERSHELL_SCRIPT, BATCH_FILE -> true;
            default -> false;
        };
    }

    /** As it stands in data. */
    public String word() {
        return word;
    }

    /** As it stands in a sentence. */
    public String words() {
        return words;
    }

    /** What the ending of a file name claims; empty when it claims nothing known. */
    static Optional<InstallerFormat> claimedBy(String fileName) {
        String ending = fileName.substring(fileName.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        return Arrays.stream(values()).filter(format -> format.endings.contains(ending)).findFirst();
    }
}
