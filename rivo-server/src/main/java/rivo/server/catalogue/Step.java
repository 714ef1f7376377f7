package rivo.server.catalogue;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.ExitCode;
import rivo.devices.protocol.ExitMeaning;
import rivo.devices.protocol.Existing;

/**
 * One step of a program. Texts may refer to values by name: {@code {content}} is the folder in which the content lies,
 * {@code {fact:NAME}} a fact of the device.
 *
 * @param text what it does, in the reader's words; empty for the plain words of its kind
 * @param command what its {@link StepKind} says it is
 * @param to where a copy goes; empty for the others
 * @param onlyWhere a rule: where it does not hold the step is skipped; null for everywhere
 * @param limitSeconds the longest it may take, 1 to 86,400
 * @param folder in which it runs; empty for the content's
 * @param exitCodes those that mean something else than failed; without any, 0 means done
 * @param goesOn whether the next step comes also where this one failed
 * @param says what is said where it fails; empty for the plain words
 */
public record Step(StepKind kind, String text, String command, String to, @Nullable Existing existing,
        @Nullable String onlyWhere, int limitSeconds, boolean asPerson, String folder, Map<String, String> environment,
        List<ExitCode> exitCodes, boolean goesOn, String says) {

    /** The limit of a step that is proposed. */
    static final int USUAL_LIMIT = 1200;

    public Step {
        Objects.requireNonNull(kind, "a step needs a kind");
        text = orEmpty(text);
        command = orEmpty(command);
        to = orEmpty(to);
        folder = orEmpty(folder);
        says = orEmpty(says);
        environment = environment == null ? Map.of() : Map.copyOf(environment);
        exitCodes = exitCodes == null ? List.of() : List.copyOf(exitCodes);
    }

    private static String orEmpty(@Nullable String text) {
        return text == null ? "" : text;
    }

    /** A command line with these exit codes, as the device. */
    public static Step run(String text, String command, List<ExitCode> exitCodes) {
        return new Step(StepKind.RUN, text, command, "", null, null, USUAL_LIMIT, false, "", Map.of(), exitCodes, false,
                "");
    }

    /** What it does, in words. */
    String words() {
        return text.isEmpty() ? kind.words() : text;
    }
}
