package rivo.server.assignment;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Follows;
import rivo.core.estate.Intent;
import rivo.core.estate.Leaving;
import rivo.core.estate.ProblemList;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;

/** Reads a document as a core value. Of one thread, for one document. */
final class AssignmentParser {

    private static final BigDecimal ALL = BigDecimal.valueOf(100);

    private final AssignmentDocument from;
    private final ProblemList problems = new ProblemList();
    private final String at;

    AssignmentParser(AssignmentDocument from) {
        this.from = from;
        this.at = "assignment:" + from.id();
    }

    Assignment assignment() {
        Subject subject = Subject.parse(from.subject());
        if (subject == null) {
            problems.add("bad-subject", at + ".subject", "An assignment is about a title or a kit; write title:ID or kit:ID.");
        }
        AssignmentState state = word(AssignmentState.values(), AssignmentState::word, from.state(), AssignmentState.ACTIVE, "state");
        Intent intent = word(Intent.values(), Intent::word, from.intent(), null, "intent");
        Follows follows = word(Follows.values(), Follows::word, from.follows(), null, "follows");
        Leaving leaving = word(Leaving.values(), Leaving::word, from.leaving(), Leaving.KEEP, "leaving");
        List<Target> include = targets(from.include(), "include");
        List<Target> exclude = targets(from.exclude(), "exclude");
        Version pin = pin();
        List<Wave> waves = waves();
        int priority = priority();
        new DeliveryChecks(problems, at).check(from);
        if (!problems.all().isEmpty()) {
            throw new RefusedException(problems.all());
        }
        return new Assignment(from.id(), from.seq(), Objects.requireNonNull(state), Objects.requireNonNull(subject),
                Objects.requireNonNull(intent), Objects.requireNonNull(follows), include, exclude, from.within(), from.base(), from.binding(),
                priority, pin, from.from(), Objects.requireNonNull(leaving), waves);
    }

    private <E> @Nullable E word(E[] values, Function<E, String> word, @Nullable String written, @Nullable E usual, String key) {
        if (written == null) {
            return usual;
        }
        List<String> words = new ArrayList<>();
        for (E value : values) {
            if (word.apply(value).equals(written)) {
                return value;
            }
            words.add(word.apply(value));
        }
        problems.add("unknown-word", at + "." + key, "\"" + written + "\" is not known here; use " + String.join(", ", words) + ".");
        return usual;
    }

    private List<Target> targets(List<String> written, String key) {
        List<Target> targets = new ArrayList<>();
        for (int i = 0; i < written.size(); i++) {
            Target target = Target.parse(written.get(i));
            if (target == null) {
                problems.add("bad-target", at + "." + key + "[" + i + "]", "\"" + written.get(i) + "\" is no target; write all-devices, "
                        + "all-users, ou:ID, group:ID, collection:ID, device:ID or user:ID.");
            } else {
                targets.add(target);
            }
        }
        return targets;
    }

    private @Nullable Version pin() {
        String written = from.release();
        if (written == null) {
            return null;
        }
        try {
            if (written.startsWith("=")) {
                return Version.of(written.substring(1));
            }
        } catch (RefusedException e) {
            problems.add("bad-release", at + ".release", String.valueOf(e.getMessage()));
            return null;
        }
        problems.add("bad-release", at + ".release", "\"" + written + "\" is no release; write newest, or = and a version.");
        return null;
    }

    private int priority() {
        int priority = from.priority() == null ? Assignment.USUAL_PRIORITY : from.priority();
        if (priority < 0 || priority > Assignment.HIGHEST_PRIORITY) {
            problems.add("bad-priority", at + ".priority", "The priority " + priority + " is outside 0 to 1000; choose one inside.");
        }
        return priority;
    }

    private List<Wave> waves() {
        List<Wave> waves = new ArrayList<>();
        for (int i = 0; i < from.waves().size(); i++) {
            WaveDocument wave = from.waves().get(i);
            String place = "waves[" + i + "]";
            BigDecimal share = wave.share();
            List<String> to = wave.to();
            if ((to == null) == (share == null)) {
                problems.add("bad-wave", at + "." + place, "A wave has either \"to\" or \"share\"; give one of the two.");
            } else if (share != null && (share.signum() < 0 || share.compareTo(ALL) > 0)) {
                problems.add("bad-share", at + "." + place + ".share", "A share is a number of percent from 0 to 100.");
            } else {
                waves.add(new Wave(to == null ? List.of() : targets(to, place + ".to"), share, wave.open()));
            }
        }
        return waves;
    }
}
