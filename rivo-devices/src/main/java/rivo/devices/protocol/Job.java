package rivo.devices.protocol;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * One title that shall be on the device, or in somebody's profile there, or off it. A device skips the job when its check shows that it
 * is so.
 *
 * @param person the id of the person in whose profile, one of {@link Work#people()}: it is begun while they are signed in; null for the device
 * @param rest whether it is what is left of an installation on the device for this person, or what goes with its removal: begun after that,
 *     once for each person and version, and not looked for
 * @param version the release to put on; null for a removal
 * @param contents what the steps need
 * @param steps at least one, carried out in order
 * @param anyTimeFrom from when on the device begins it outside its maintenance windows, too; null for never
 * @param courtesy how people are treated meanwhile
 */
public record Job(String title, String name, @Nullable String person, boolean rest, JobAction action, @Nullable String version,
        List<Content> contents, List<Step> steps, @Nullable Instant anyTimeFrom, Courtesy courtesy) {

    /** One for the device, that waits for its windows and says nothing. */
    public Job(String title, String name, JobAction action, @Nullable String version, List<Content> contents, List<Step> steps) {
        this(title, name, null, false, action, version, contents, steps, null, Courtesy.SILENT);
    }

    /** The same for a person. */
    public Job of(String personId, boolean isRest) {
        return new Job(title, name, personId, isRest, action, version, contents, steps, anyTimeFrom, courtesy);
    }

    public Job {
        contents = contents == null ? List.of() : List.copyOf(contents);
        steps = List.copyOf(steps);
        courtesy = courtesy == null ? Courtesy.SILENT : courtesy;
    }

    /** The same, with other courtesy. */
    public Job with(Courtesy newCourtesy) {
        return new Job(title, name, person, rest, action, version, contents, steps, anyTimeFrom, newCourtesy);
    }

    /** Whether windows do not count for it at this instant. */
    public boolean isAnyTime(Instant at) {
        return anyTimeFrom != null && !at.isBefore(anyTimeFrom);
    }

    /** The longest it may take, in seconds, without what is fetched and looked at. */
    public int longestSeconds() {
        return steps.stream().filter(s -> s.kind() != StepKind.FETCH && s.kind() != StepKind.VERIFY && s.kind() != StepKind.LOOK)
                .mapToInt(Step::limitSeconds).sum();
    }

    /**
     * A file, fetched by its hash.
     *
     * @param sha256 64 lower-case hexadecimal digits
     * @param size in bytes
     */
    public record Content(String sha256, long size, String fileName) {
    }

    /**
     * One step.
     *
     * @param text what it does, in the reader's words
     * @param command what is run, or copied from; null where nothing is
     * @param limitSeconds the longest it may take
     * @param to where a copy goes; null for the others
     * @param existing what a copy does with what stands there; null for the others
     * @param asPerson whether it runs as the person who is signed in
     * @param folder in which it runs; null for the contents'
     * @param exitCodes what codes mean; one that is not listed means failed, and without a list 0 means done
     * @param goesOn whether the next step comes also where this one failed
     * @param thenTo the step that comes where this one went well, counted from 1 among all of them; null for the next
     * @param failsTo the step that comes where this one failed; null where {@code goesOn} decides
     * @param skipped why the device leaves it out; null where it does not
     * @param stops why the job ends here, in words; null where it does not
     */
    public record Step(StepKind kind, String text, @Nullable String command, int limitSeconds, @Nullable String to,
            @Nullable Existing existing, boolean asPerson, @Nullable String folder, Map<String, String> environment,
            List<ExitCode> exitCodes, boolean goesOn, @Nullable Integer thenTo, @Nullable Integer failsTo, @Nullable String skipped, @Nullable String stops) {

        public Step {
            environment = environment == null ? Map.of() : Map.copyOf(environment);
            exitCodes = exitCodes == null ? List.of() : List.copyOf(exitCodes);
        }

        /** A plain one. */
        public static Step of(StepKind kind, String text, @Nullable String command, int limitSeconds) {
            return new Step(kind, text, command, limitSeconds, null, null, false, null, Map.of(), List.of(), false, null,
                    null, null, null);
        }

        /** The same among other steps, with so many more before it. */
        public Step after(int more) {
            return new Step(kind, text, command, limitSeconds, to, existing, asPerson, folder, environment, exitCodes, goesOn,
                    thenTo == null ? null : (Integer) (thenTo + more), failsTo == null ? null : (Integer) (failsTo + more), skipped,
                    stops);
        }

        /** What a code means. */
        public ExitMeaning meaning(int code) {
            return exitCodes.stream().filter(c -> c.code() == code).map(ExitCode::meaning).findFirst()
                    .orElse(exitCodes.isEmpty() && code == 0 ? ExitMeaning.DONE : ExitMeaning.FAILED);
        }

        /** The code that means this; 0 when none does. */
        public int code(ExitMeaning meaning) {
            return exitCodes.stream().filter(c -> c.meaning() == meaning).mapToInt(ExitCode::code).findFirst().orElse(0);
        }
    }
}
