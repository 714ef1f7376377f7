package rivo.devices.protocol;

import java.util.List;
import java.util.Locale;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * What {@code {uninstaller:NAME}} in a step's command becomes on a device ("Steps" in the page about the device protocol). Pure functions.
 */
public final class UninstallCommand {

    private static final Pattern PLACE = Pattern.compile("\"?\\{uninstaller:([^{}]+)}\"?");
    private static final Pattern DATABASE = Pattern.compile("(?i)\"?(?:[^\"]*\\\\)?msiexec(?:\\.exe)?\"?\\s+/[ix]\\s*(\\{[0-9a-f-]{36}}).*");
    private static final Pattern PROGRAM = Pattern.compile("(?i)([^\"]*?\\.exe)(?=\\s|$)(.*)");
    /** What stands behind a name that tells its version: such as {@code 2.1}, {@code v2.1 (x64)}, {@code version 2.1}. */
    private static final Pattern VERSION = Pattern.compile("(?i)[\\s-]+(?:(?:version\\s+|v)?[0-9][0-9a-z.+_-]*|\\([^()]*\\))$");

    private UninstallCommand() {
    }

    /**
     * A program in the device's list of installed software.
     *
     * @param quiet the command that removes it without asking, as it registered that; null where it has none
     * @param command the one that it registered for removing it; null where it has none
     */
    public record Registered(String name, @Nullable String quiet, @Nullable String command) {
    }

    /** There is nothing that the placeholder could become; the message says why, and what to do. */
    public static final class NoneException extends Exception {
        NoneException(String message) {
            super(message);
        }
    }

    /**
     * The step's command with the placeholder filled in; as it is where it has none.
     *
     * @throws NoneException where no program of that name, or several, have registered a command
     */
    public static String filled(String command, List<Registered> programs) throws NoneException {
        Matcher place = PLACE.matcher(command);
        if (!place.find()) {
            return command;
        }
        String registered = registered(place.group(1).strip(), programs);
        Matcher database = DATABASE.matcher(registered);
        return database.matches() ? command.substring(0, place.start()) + "msiexec /x " + database.group(1) + " /qn /norestart"
                : command.substring(0, place.start()) + quoted(registered) + command.substring(place.end());
    }

    private static String registered(String name, List<Registered> programs) throws NoneException {
        List<Registered> found = programs.stream().filter(isCalled(name)).toList();
        if (found.isEmpty()) {
            String plain = withoutVersion(name);
            found = programs.stream().filter(one -> withoutVersion(one.name()).equalsIgnoreCase(plain)).toList();
        }
        if (found.isEmpty()) {
            throw new NoneException("there is no “" + name + "” in the list of installed software, and so no command for removing it");
        }
        List<String> commands = found.stream().map(one -> one.quiet() == null || one.quiet().isBlank() ? one.command() : one.quiet())
                .filter(one -> one != null && !one.isBlank()).map(String::strip).distinct().toList();
        if (commands.size() > 1) {
            throw new NoneException("several programs are called so: " + String.join(", ", found.stream().map(Registered::name).sorted().toList())
                    + "; write the whole name of one of them");
        }
        if (commands.isEmpty()) {
            throw new NoneException("“" + found.get(0).name() + "” has registered no command for removing it");
        }
        return commands.get(0);
    }

    private static Predicate<Registered> isCalled(String name) {
        return one -> one.name().strip().equalsIgnoreCase(name);
    }

    private static String withoutVersion(String name) {
        String plain = name.strip();
        for (Matcher version = VERSION.matcher(plain); version.find() && version.start() > 0; version = VERSION.matcher(plain)) {
            plain = plain.substring(0, version.start());
        }
        return plain.toLowerCase(Locale.ROOT);
    }

    /** The program between quotation marks where its path has blanks. */
    private static String quoted(String registered) {
        Matcher program = PROGRAM.matcher(registered);
        return !registered.startsWith("\"") && program.matches() && program.group(1).contains(" ") ? "\"" + program.group(1) + "\"" + program.group(2) : registered;
    }
}
