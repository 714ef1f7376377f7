package rivo.formats.installer;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Which scripts there are, and which interpreter runs them: the one that the first line names ({@code #!}), else the one that the ending of the name
 * stands for. A text that is neither is no script. Pure functions.
 */
final class Scripts {

    private static final int SHORTEST = 2;
    private static final Pattern SHEBANG = Pattern.compile("#!\\s*(?:\\S*/)?(?:env\\s+(?:-S\\s+)?)?(?:\\S*/)?([a-z]+)[0-9.]*(?:\\s|$)");
    /** What a download brings instead of a script: a page, data. */
    private static final Pattern OTHER_TEXT = Pattern.compile("(?is)\\s*(<!doctype|<html|<\\?xml|[{\\[]\\s*\").*");

    private Scripts() {
    }

    /**
     * Empty where it is none.
     *
     * @param head the first bytes of the file
     */
    static Optional<InstallerFormat> of(byte[] head, String fileName) {
        String text = text(head);
        if (head.length < SHORTEST || text.indexOf('\0') >= 0) {
            return Optional.empty();
        }
        Matcher shebang = SHEBANG.matcher(text);
        if (shebang.lookingAt()) {
            return interpreter(shebang.group(1));
        }
        Optional<InstallerFormat> claimed = InstallerFormat.claimedBy(fileName).filter(InstallerFormat::isScript);
        return OTHER_TEXT.matcher(text).matches() ? Optional.empty() : claimed;
    }

    private static Optional<InstallerFormat> interpreter(String name) {
        return Optional.ofNullable(switch (name.toLowerCase(Locale.ROOT)) {
            case "sh", "dash", "ash", "ksh" -> InstallerFormat.SHELL_SCRIPT;
            case "bash" -> InstallerFormat.BASH_SCRIPT;
            case "python" -> InstallerFormat.PYTHON_SCRIPT;
            case "perl" -> InstallerFormat.PERL_SCRIPT;
            case "pwsh", "powershell" -> InstallerFormat.POWERSHELL_SCRIPT;
            default -> null;
        });
    }

    /** By the mark before it, else as one byte for each character: legacy code pages are texts, too. */
    private static String text(byte[] head) {
        Charset charset = starts(head, 0xff, 0xfe) ? StandardCharsets.UTF_16LE : starts(head, 0xfe, 0xff) ? StandardCharsets.UTF_16BE : StandardCharsets.ISO_8859_1;
        int mark = charset != StandardCharsets.ISO_8859_1 ? 2 : starts(head, 0xef, 0xbb, 0xbf) ? 3 : 0;
        return new String(head, mark, head.length - mark, charset);
    }

    private static boolean starts(byte[] head, int... bytes) {
        for (int i = 0; i < bytes.length; i++) {
            if (i >= head.length || (head[i] & 0xff) != bytes[i]) {
                return false;
            }
        }
        return true;
    }
}
