package rivo.server.catalogue.title;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Existing;
import rivo.devices.protocol.ExitCode;
import rivo.devices.protocol.ExitMeaning;

/**
 * One step of a program. Texts may refer to values by name: {@code {content}} is the folder in which the content lies,
 * {@code {fact:NAME}} a fact of the device, {@code {choice:ID}} what was chosen.
 *
 * @param text what it does, in the reader's words; empty for the plain words of its kind
 * @param command what its {@link StepKind} says it is
 * @param to where a copy goes; empty for the others
 * @param onlyWhere a rule: where it does not hold the step is skipped; null for everywhere
 * @param onlyWith a choice and a value, {@code languages=cy}: where another is chosen the step is skipped; empty for always
 * @param limitSeconds the longest it may take, 1 to 86,400
 * @param folder in which it runs; empty for the content's
 * @param exitCodes those that mean something else than failed; without any, 0 means done
 * @param goesOn whether the next step comes also where this one failed
 * @param thenTo the step that comes where this one went well, counted from 1 and later than this one; one more than there
 *     are for the end; null for the next
 * @param failsTo the step that comes where this one failed, likewise; null where {@code goesOn} decides
 * @param atSignIn whether it is carried out for each person when they next sign in, after the others, which are the device's; only of a
 *     title for the device
 * @param says what is said where it fails; empty for the plain words
 */
public record Step(StepKind kind, String text, String command, String to, @Nullable Existing existing,
        @Nullable String onlyWhere, String onlyWith, int limitSeconds, boolean asPerson, String folder, Map<String, String> environment,
        List<ExitCode> exitCodes, boolean goesOn, @Nullable Integer thenTo,
        @Nullable Integer failsTo, boolean atSignIn, String says) {

    /** The limit of a step that is proposed. */
    public static final int USUAL_LIMIT = 1200;
    private static final int BUSY_MINUTES = 5;
    /** What Windows installers mean by their exit codes. */
    public static final List<ExitCode> USUAL_CODES = List.of(new ExitCode(0, ExitMeaning.DONE, 0),
            new ExitCode(3010, ExitMeaning.RESTART, 0), new ExitCode(1641, ExitMeaning.RESTART, 0),
            new ExitCode(1618, ExitMeaning.AGAIN, BUSY_MINUTES));

    public Step {
        Objects.requireNonNull(kind, "a step needs a kind");
        text = orEmpty(text);
        command = orEmpty(command);
        to = orEmpty(to);
        folder = orEmpty(folder);
        says = orEmpty(says);
        onlyWith = orEmpty(onlyWith);
        environment = environment == null ? Map.of() : Map.copyOf(environment);
        exitCodes = exitCodes == null ? List.of() : List.copyOf(exitCodes);
    }

    private static String orEmpty(@Nullable String text) {
        return text == null ? "" : text;
    }

    /** A command line with these exit codes, as the device. */
    public static Step run(String text, String command, List<ExitCode> exitCodes) {
        return new Step(StepKind.RUN, text, command, "", null, null, "", USUAL_LIMIT, false, "", Map.of(), exitCodes,
                false, null, null, false, "");
    }

    /** The same with another command. */
    public Step running(String other) {
        return new Step(kind, text, other, to, existing, onlyWhere, onlyWith, limitSeconds, asPerson, folder, environment, exitCodes, goesOn, thenTo,
                failsTo, atSignIn, says);
    }

    /** The same for each person, when they next sign in. */
    public Step atEachSignIn() {
        return new Step(kind, text, command, to, existing, onlyWhere, onlyWith, limitSeconds, asPerson, folder, environment, exitCodes, goesOn, thenTo,
                failsTo, true, says);
    }

    /** What it does, in words. */
    String words() {
        return text.isEmpty() ? kind.words() : text;
    }
}
