package rivo.formats.installer;

/** A file that says it is an installer of some format but is damaged, or was made to do harm. */
public final class UnreadableInstallerException extends Exception {

    private static final long serialVersionUID = 1L;
    private final String code;

    UnreadableInstallerException(String code, String sentence) {
        super(sentence);
        this.code = code;
    }

    /** {@code empty-file}, {@code damaged-file} or {@code hostile-file}. */
    public String code() {
        return code;
    }
}
