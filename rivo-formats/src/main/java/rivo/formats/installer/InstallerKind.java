package rivo.formats.installer;

/** The kits with which Windows set-up programs are made that are told by their structure, and the switches that make them silent. */
public enum InstallerKind {
    NSIS("NSIS", "/S", "/S"),
    INNO("Inno Setup", "/VERYSILENT /SUPPRESSMSGBOXES /NORESTART", "/VERYSILENT /SUPPRESSMSGBOXES /NORESTART"),
    WIX_BUNDLE("WiX bundle", "/quiet /norestart", "/uninstall /quiet /norestart"),
    UNKNOWN("unknown make", "", "");

    private final String words;
    private final String silent;
    private final String silentRemoval;

    InstallerKind(String words, String silent, String silentRemoval) {
        this.words = words;
        this.silent = silent;
        this.silentRemoval = silentRemoval;
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
}
