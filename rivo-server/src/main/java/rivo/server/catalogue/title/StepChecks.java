package rivo.server.catalogue.title;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Problem;
import rivo.core.estate.Scope;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleException;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;

/** Whether the steps of a program make sense. */
final class StepChecks {

    static final Pattern CHOICE = Pattern.compile("\\{choice:([^{}]{1,100})}");
    private static final int LONGEST_TEXT = 20_000;
    private static final int LONGEST_LINE = 2_000;
    private static final int MOST_VARIABLES = 200;
    private static final int MOST_SECONDS = 86_400;
    private static final int MOST_STEPS = 100;

    private final List<Problem> problems;
    private final ReleaseRecord release;
    private final int steps;

    private StepChecks(List<Problem> problems, ReleaseRecord release, int steps) {
        this.problems = problems;
        this.release = release;
        this.steps = steps;
    }

    /** Adds what is wrong with the steps to the problems. */
    static void check(List<Problem> problems, Scope scope, ReleaseRecord release, List<Step> steps, String at) {
        StepChecks checks = new StepChecks(problems, release, steps.size());
        if (steps.size() > MOST_STEPS) {
            checks.add("too-many", at, "There may be at most " + MOST_STEPS + " steps, not " + steps.size() + ".");
        }
        for (int i = 0; i < steps.size(); i++) {
            checks.step(steps.get(i), i + 1, at + "[" + i + "]");
        }
        checks.atSignIn(steps, scope, at);
    }

    /** What is carried out at each person's sign-in comes last, and is a part of its own. */
    private void atSignIn(List<Step> all, Scope scope, String at) {
        int device = (int) all.stream().takeWhile(step -> !step.atSignIn()).count();
        for (int i = 0; i < all.size(); i++) {
            Step step = all.get(i);
            if (step.atSignIn() && scope == Scope.USER) {
                add("bad-step", at + "[" + i + "].atSignIn", "All steps of a title for each person run when they are signed in; leave this open.");
            } else if (!step.atSignIn() && i > device) {
                add("bad-step", at + "[" + i + "].atSignIn", "Step " + (i + 1) + " is the device's, but comes after one at sign-in; move those at sign-in "
                        + "to the end.");
            }
            boolean leavesItsPart = i < device && Stream.of(step.thenTo(), step.failsTo()).anyMatch(to -> to != null && to > device + 1);
            if (leavesItsPart && device < all.size()) {
                add("bad-step", at + "[" + i + "]", "Step " + (i + 1) + " leads among those at sign-in, which are carried out later; let it lead to step "
                        + (device + 1) + " at the most, where the device's part ends.");
            }
        }
    }

    private void step(Step step, int number, String at) {
        if (step.command().isBlank() || step.command().length() > LONGEST_TEXT) {
            add("bad-text", at + ".command", "Write 1 to " + LONGEST_TEXT + " characters.");
        }
        atMost(step.text(), LONGEST_LINE, at + ".text");
        atMost(step.says(), LONGEST_LINE, at + ".says");
        atMost(step.to(), LONGEST_LINE, at + ".to");
        atMost(step.folder(), LONGEST_LINE, at + ".folder");
        if (step.environment().size() > MOST_VARIABLES || step.exitCodes().size() > MOST_VARIABLES) {
            add("too-many", at, "A step has at most " + MOST_VARIABLES + " variables, and as many exit codes.");
        }
        step.environment().forEach((name, value) -> atMost(name + value, LONGEST_TEXT, at + ".environment"));
        rule(step.onlyWhere(), at + ".onlyWhere");
        if (step.kind().asksRule()) {
            rule(step.command(), at + ".command");
        }
        if (step.kind() == StepKind.COPY && step.to().isBlank()) {
            add("missing", at + ".to", "Say to where the files are copied.");
        }
        if (step.limitSeconds() < 1 || step.limitSeconds() > MOST_SECONDS) {
            add("bad-limit", at + ".limitSeconds", "A step takes from 1 second to a day, 86,400 seconds.");
        }
        leads(step.thenTo(), number, at + ".thenTo");
        leads(step.failsTo(), number, at + ".failsTo");
        onlyWith(step.onlyWith(), at + ".onlyWith");
        Matcher choice = CHOICE.matcher(step.command() + step.to() + step.folder());
        while (choice.find()) {
            known(choice.group(1), at + ".command");
        }
    }

    private void atMost(String text, int longest, String at) {
        if (text.length() > longest) {
            add("bad-text", at, "Write at most " + longest + " characters.");
        }
    }

    /** Steps lead forward only, so that every program ends. */
    private void leads(@Nullable Integer to, int number, String at) {
        if (to != null && (to <= number || to > steps + 1)) {
            add("leads-back", at, "Step " + number + " leads to step " + to + ": a step leads to a later one, or to the end, "
                    + (steps + 1) + ". Move the steps, or let it lead elsewhere.");
        }
    }

    private void onlyWith(String with, String at) {
        int equals = with.indexOf('=');
        if (!with.isEmpty() && equals < 1) {
            add("bad-choice", at, "Write a choice and a value, such as languages=cy.");
        } else if (!with.isEmpty() && known(with.substring(0, equals), at)) {
            ChoiceRecord choice = release.choices().stream().filter(c -> c.id().equals(with.substring(0, equals))).findFirst()
                    .orElseThrow();
            String refusal = choice.problem(with.substring(equals + 1));
            if (refusal != null) {
                add("bad-choice", at, refusal);
            }
        }
    }

    private boolean known(String choice, String at) {
        boolean known = release.choices().stream().anyMatch(c -> c.id().equals(choice));
        if (!known) {
            add("unknown-choice", at, "Release " + release.version() + " has no choice " + choice
                    + "; add it to the choices, or take it out of the step.");
        }
        return known;
    }

    private void rule(@Nullable String rule, String at) {
        if (rule != null) {
            try {
                Rule.parse(rule);
            } catch (RuleException e) {
                add("bad-rule", at, String.valueOf(e.getMessage()));
            }
        }
    }

    private void add(String code, String at, String sentence) {
        problems.add(new Problem(code, at, sentence));
    }
}
