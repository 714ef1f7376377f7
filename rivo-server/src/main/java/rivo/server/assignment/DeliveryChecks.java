package rivo.server.assignment;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Intent;
import rivo.core.estate.ProblemList;
import rivo.server.assignment.Delivery.Courtesy;
import rivo.server.assignment.Delivery.Deadline;
import rivo.server.assignment.Delivery.Interruption;

/** Whether what an assignment says of its delivery makes sense. */
final class DeliveryChecks {

    private static final Set<String> WINDOWS = Set.of("wait", "deadline-wins", "ignore");
    private static final Set<String> RESTARTS = Set.of("none", "ask", "night", "now");
    private static final Set<String> SIGN_OUTS = Set.of("none", "ask", "night", "now", "wait");
    private static final int MOST_DEFERRALS = 100;
    private static final int MOST_NOTICES = 10;
    private static final int LONGEST_NOTE = 1000;
    private static final int ALL = 100;
    private static final Duration ANY_PERIOD = Duration.ofSeconds(Long.MAX_VALUE);
    private static final Duration LONGEST_BETWEEN_WAVES = Duration.ofDays(365);
    private static final int MOST_DEVICES = 1_000_000;

    private final ProblemList problems;
    private final String at;

    /** @param at the place of the assignment */
    DeliveryChecks(ProblemList problems, String at) {
        this.problems = problems;
        this.at = at;
    }

    void check(AssignmentDocument document) {
        Delivery delivery = document.delivery();
        deadline(delivery.deadline());
        word(WINDOWS, delivery.windows(), "windows");
        courtesy(delivery.courtesy());
        if (delivery.note() != null && delivery.note().length() > LONGEST_NOTE) {
            problems.add("bad-note", at + ".note", "A note has at most " + LONGEST_NOTE + " characters; shorten it.");
        }
        if (delivery.menu() && !Intent.AVAILABLE.word().equals(document.intent())) {
            problems.add("bad-menu", at + ".menu", "Only what is offered stands in a device's menu; offer it, or leave this away.");
        }
        rollout(delivery.rollout(), document);
    }

    private void rollout(@Nullable Rollout rollout, AssignmentDocument document) {
        if (rollout == null) {
            return;
        }
        if (document.waves().isEmpty() && (rollout.stopped() || rollout.opens() != null || rollout.stops() != null)) {
            problems.add("no-waves", at + ".rollout", "There are no waves that could open or stop; add waves, or leave this away.");
        }
        if (rollout.opens() != null) {
            if (rollout.opens().after() != null) {
                period(rollout.opens().after(), "rollout.opens.after", LONGEST_BETWEEN_WAVES);
            }
            if (rollout.opens().inPlace() != null && Intent.AVAILABLE.word().equals(document.intent())) {
                problems.add("bad-rule", at + ".rollout.opens.inPlace", "Nothing is in place because it is offered; let the waves open by time.");
            }
            number(rollout.opens().inPlace(), 1, ALL, "rollout.opens.inPlace", "in 100 of them in place");
            number(rollout.opens().atLeast(), 1, MOST_DEVICES, "rollout.opens.atLeast", "of them in place");
        }
        if (rollout.stops() != null) {
            number(rollout.stops().failed(), 0, ALL - 1, "rollout.stops.failed", "in 100 of them failed");
            number(rollout.stops().atLeast(), 1, MOST_DEVICES, "rollout.stops.atLeast", "of them failed");
        }
    }

    private void number(@Nullable Integer number, int from, int to, String place, String what) {
        if (number != null && (number < from || number > to)) {
            problems.add("bad-number", at + "." + place, number + " " + what + " cannot be meant; write " + from + " to " + to + ".");
        }
    }

    private void deadline(@Nullable Deadline deadline) {
        if (deadline == null) {
            return;
        }
        if ((deadline.at() == null) == (deadline.local() == null)) {
            problems.add("bad-deadline", at + ".deadline", "A deadline is either one instant, \"at\", or a time by each device's own zone, "
                    + "\"local\"; give one of the two.");
        }
        if (deadline.local() != null) {
            try {
                LocalDateTime.parse(deadline.local());
            } catch (DateTimeException e) {
                problems.add("bad-deadline", at + ".deadline.local", "\"" + deadline.local() + "\" is no local time; write it like "
                        + "2026-12-04T18:00.");
            }
        }
    }

    private void courtesy(@Nullable Courtesy courtesy) {
        if (courtesy == null) {
            return;
        }
        List<String> before = courtesy.tell() == null ? List.of() : courtesy.tell().before();
        if (before.size() > MOST_NOTICES) {
            problems.add("too-many", at + ".courtesy.tell.before", "People are told at most " + MOST_NOTICES + " times before; take some out.");
        }
        before.forEach(period -> period(period, "courtesy.tell.before"));
        interruption(courtesy.restart(), RESTARTS, "courtesy.restart");
        interruption(courtesy.signOut(), SIGN_OUTS, "courtesy.signOut");
    }

    private void interruption(@Nullable Interruption interruption, Set<String> ways, String place) {
        if (interruption == null) {
            return;
        }
        word(ways, interruption.way() == null ? "" : interruption.way(), place + ".way");
        if (interruption.defer() != null) {
            Integer times = interruption.defer().times();
            if (times != null && (times < 0 || times > MOST_DEFERRALS)) {
                problems.add("bad-times", at + "." + place + ".defer.times", "It can be put off 0 to " + MOST_DEFERRALS + " times.");
            }
            if (interruption.defer().until() != null) {
                period(interruption.defer().until(), place + ".defer.until");
            }
        }
    }

    private void word(Set<String> words, @Nullable String word, String place) {
        if (word != null && !words.contains(word)) {
            problems.add("unknown-word", at + "." + place, "\"" + word + "\" is not known here; use "
                    + String.join(", ", words.stream().sorted().toList()) + ".");
        }
    }

    private void period(String text, String place) {
        period(text, place, ANY_PERIOD);
    }

    private void period(String text, String place, Duration longest) {
        boolean good;
        try {
            Duration period = Duration.parse(text);
            good = !period.isNegative() && !period.isZero() && period.compareTo(longest) <= 0;
        } catch (DateTimeException e) {
            good = false;
        }
        if (!good) {
            problems.add("bad-period", at + "." + place, "\"" + text + "\" is no period" + (longest.equals(ANY_PERIOD) ? "" : " of up to "
                    + longest.toDays() + " days") + "; write it like P1D, PT1H or PT30M.");
        }
    }
}
