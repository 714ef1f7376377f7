package rivo.devices.protocol;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * How the people of a device are treated while a job is carried out.
 *
 * @param notices what they are told and asked, at most one of each kind but {@code coming}; what is not among them is not said
 * @param restart how a restart comes about that the job needs
 * @param signOut how a sign-out does
 */
public record Courtesy(List<Notice> notices, Interruption restart, Interruption signOut) {

    public Courtesy {
        notices = notices == null ? List.of() : List.copyOf(notices);
        restart = restart == null ? Interruption.USUAL : restart;
        signOut = signOut == null ? Interruption.WAITS : signOut;
    }

    /** Where nothing is told of it: nothing is said, and a restart is asked for as usual. */
    public static final Courtesy SILENT = new Courtesy(List.of(), Interruption.USUAL, Interruption.WAITS);

    /** The one of a kind; null where that is not told. */
    public @Nullable Notice notice(NoticeKind kind) {
        return notices.stream().filter(one -> one.kind() == kind).findFirst().orElse(null);
    }

    /**
     * Something that is told or asked.
     *
     * @param beforeSeconds of {@code coming}: how long before the job is expected to begin; null for the others
     * @param words by language, a tag of RFC 5646; {@code {time}} stands for when the job begins, or when it happens at the latest
     * @param lastWords of what asks: the same while it counts down to {@code {time}}; null for the others
     */
    public record Notice(NoticeKind kind, @Nullable Integer beforeSeconds, Map<String, String> words, @Nullable Map<String, String> lastWords) {

        public Notice {
            words = Map.copyOf(words);
            lastWords = lastWords == null ? null : Map.copyOf(lastWords);
        }

        /** In a language, else in English. */
        public static String in(Map<String, String> words, String language) {
            return words.getOrDefault(language, words.getOrDefault("en", ""));
        }
    }

    /**
     * How a restart or a sign-out comes about.
     *
     * @param times how often it may be put off
     * @param withinSeconds how long it may be put off in all, from when it was first asked
     * @param countdownSeconds how long it counts down in the end, which nobody can put off
     */
    public record Interruption(Way way, int times, int withinSeconds, int countdownSeconds) {

        private static final int TIMES = 3;
        private static final Duration WITHIN = Duration.ofHours(8);
        private static final Duration COUNTDOWN = Duration.ofMinutes(15);

        /** Asked for; it may be put off three times within 8 hours, and counts down for 15 minutes. */
        public static final Interruption USUAL = new Interruption(Way.ASK, TIMES, (int) WITHIN.toSeconds(), (int) COUNTDOWN.toSeconds());
        /** Waits until it happens anyway. */
        public static final Interruption WAITS = new Interruption(Way.WAIT, TIMES, (int) WITHIN.toSeconds(), (int) COUNTDOWN.toSeconds());
    }
}
