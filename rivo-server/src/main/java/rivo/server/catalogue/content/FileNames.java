package rivo.server.catalogue.content;

import java.util.regex.Pattern;

/** Names of files that are written into commands, between quotation marks, and into folders of devices. */
public final class FileNames {

    public static final int LONGEST = 200;
    /** These mean something to a shell, even between quotation marks. */
    private static final Pattern SHELL = Pattern.compile("[\"$`%!]");
    private static final Pattern PLAIN = Pattern.compile("[^\"$`%!/\\\\:*?<>|\\p{Cntrl}]{1," + LONGEST + "}");

    private FileNames() {
    }

    /** The name without the folders before it, and without what a shell would read; perhaps empty. */
    static String tidied(String name) {
        return SHELL.matcher(name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1).strip()).replaceAll("_");
    }

    /** Whether it is the name of a file, and of one only, wherever it is put. */
    public static boolean isPlain(String name) {
        return PLAIN.matcher(name).matches() && !name.isBlank() && !name.equals(".") && !name.equals("..");
    }
}
