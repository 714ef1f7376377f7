package rivo.formats.installer;

import java.util.List;

/** The well-known makes of Windows set-up programs, by the marks they leave in the file, and the switches that make them silent. */
public enum InstallerKind {
    NSIS("Nullsoft", "/S", "/S", List.of("Nullsoft.NSIS.exehead", "NullsoftInst")),
    INNO("Inno Setup", "/VERYSILENT /SUPPRESSMSGBOXES /NORESTART", "/VERYSILENT /SUPPRESSMSGBOXES /NORESTART",
            List.of("Inno Setup Setup Data", "JR.Inno.Setup")),
    WIX_BUNDLE("WiX bundle", "/quiet /norestart", "/uninstall /quiet /norestart", List.of(".wixburn")),
    INSTALL_SHIELD("InstallShield", "/s /v\"/qn\"", "/s /v\"/qn\"", List.of("InstallShield")),
    SQUIRREL("Squirrel", "--silent", "--uninstall --silent", List.of("SquirrelTemp")),
    UNKNOWN("unknown make", "", "", List.of());

    private final String words;
    private final String silent;
    private final String silentRemoval;
    private final List<String> marks;

    InstallerKind(String words, String silent, String silentRemoval, List<String> marks) {
        this.words = words;
        this.silent = silent;
        this.silentRemoval = silentRemoval;
        this.marks = marks;
    }

    public String words() {
        return words;
    }

    /** The switches that make it silent; empty when they are not known. */
    public String silent() {
        return silent;
    }

    /** The switches that make its removal program silent. */
    public String silentRemoval() {
        return silentRemoval;
    }

    List<String> marks() {
        return marks;
    }
}
