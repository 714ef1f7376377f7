package rivo.server.notice;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.devices.protocol.NoticeAnswer;
import rivo.server.assignment.DeviceClock;

/** What became of a notice, in a sentence for administrators. Pure functions. */
final class NoticeSentence {

    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);

    private NoticeSentence() {
    }

    /** @param person as they are called; null where nobody was shown it */
    static String of(Notices.Line line, @Nullable Device device, @Nullable String person, List<String> titles) {
        String about = titles.isEmpty() ? "a title that has gone" : String.join(", ", titles);
        String said = line.kind().asks() ? asks(line, device, person == null ? "Somebody" : person, about) : tells(line, person, about);
        return line.refused() == null ? said : said + "; this did not count (" + refusal(line.refused()) + ")";
    }

    private static String tells(Notices.Line line, @Nullable String person, String about) {
        String what = switch (line.kind()) {
            case COMING -> about + " is to be installed or removed";
            case START -> about + " is being installed or removed";
            case REMOVED -> about + " is removed";
            case FAILED -> about + " did not work";
            default -> about + " is installed";
        };
        return switch (line.state()) {
            case HELD -> "To be told once somebody is there and it is not quiet: " + what;
            case OVER -> "Not told any more, since it was overtaken: " + what;
            case DONE -> (person == null ? "Somebody" : person) + " read on the shelf: " + what;
            default -> (person == null ? "Somebody" : person) + " was told: " + what;
        };
    }

    private static String asks(Notices.Line line, @Nullable Device device, String person, String about) {
        String what = switch (line.kind()) {
            case RESTART -> "the restart";
            case SIGN_OUT -> "the sign-out";
            default -> "closing programs";
        };
        String left = line.left() == null ? "" : line.left() == 0 ? "; for the last time" : "; " + line.left() + " more allowed";
        return switch (line.state()) {
            case HELD -> "To be asked: " + what + ", for " + about;
            case SHOWN -> person + " was asked for " + what + ", for " + about;
            case PUT_OFF -> person + " put " + what + " off until " + (line.answer() == NoticeAnswer.AT_SIGN_OUT ? "they sign out" : when(line.until(), device)) + left;
            case COUNTING_DOWN -> line.answer() == NoticeAnswer.NOW ? person + " agreed to " + what : capital(what) + " counts down to " + when(line.until(), device);
            case DONE -> capital(what) + " was done, for " + about;
            case OVER -> capital(what) + " is not asked for any more";
        };
    }

    private static String capital(String text) {
        return text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
    }

    private static String when(@Nullable Instant at, @Nullable Device device) {
        return at == null ? "later" : LocalDateTime.ofInstant(at, device == null ? ZoneId.systemDefault() : DeviceClock.zone(device)).format(WHEN);
    }

    private static String refusal(String code) {
        return switch (code) {
            case "withdrawn" -> "it was not asked any more";
            case "counts-down" -> "it counted down already";
            case "put-off-too-often" -> "it had been put off as often as allowed";
            case "put-off-too-long" -> "longer than allowed";
            default -> "no answer to this";
        };
    }
}
