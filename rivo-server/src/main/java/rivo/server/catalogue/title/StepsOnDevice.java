package rivo.server.catalogue.title;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.resolve.Resolver;
import rivo.core.rule.Clause;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.StepKind;

/**
 * A program's steps as they come out on one device: its facts and what is chosen put in, what does not apply there marked as skipped, and
 * where it would end, why. Of one thread.
 */
public final class StepsOnDevice {

    private static final Pattern FACT = Pattern.compile("\\{fact:([^{}]{1,100})}");

    /** What a device says of itself may not become a part of what is run. */
    private static final Pattern HARMLESS = Pattern.compile("[\\p{L}\\p{N} ._:,@+/-]*");

    private final Resolver resolver;
    private final Device device;
    private final int position;
    private final Chosen chosen;

    /** @param chosen what is chosen of the release there */
    public StepsOnDevice(Resolver resolver, Device device, Chosen chosen) {
        this.resolver = resolver;
        this.chosen = chosen;
        this.device = device;
        this.position = resolver.estate().devices().position(device.id());
    }

    /** @param asPerson whether steps run as the person where they do not say so themselves */
    public List<Job.Step> of(List<Step> program, boolean asPerson) {
        List<Job.Step> steps = new ArrayList<>();
        for (Step step : program) {
            steps.add(of(step, asPerson));
        }
        return steps;
    }

    private Job.Step of(Step step, boolean asPerson) {
        String skipped = step.onlyWhere() == null || holds(step.onlyWhere()) ? notChosen(step.onlyWith()) : why(step.onlyWhere());
        String stops = null;
        if (step.kind().asksRule() && !holds(step.command())) {
            stops = step.says().isEmpty() ? "not here: " + why(step.command()) : step.says();
        }
        String wrong = wrongValue(step.command() + step.to() + step.folder());
        stops = wrong == null ? stops : wrong;
        return new Job.Step(StepKind.valueOf(step.kind().name()), step.words(),
                step.kind().asksRule() ? null : filled(step.command()), step.limitSeconds(),
                step.to().isEmpty() ? null : filled(step.to()), step.existing(), asPerson || step.asPerson(),
                step.folder().isEmpty() ? null : filled(step.folder()), step.environment(), step.exitCodes(),
                step.goesOn(), step.thenTo(), step.failsTo(), skipped, stops);
    }

    private boolean holds(String rule) {
        return resolver.audiences().devicesWhere(rule).contains(position);
    }

    private String why(String rule) {
        return why(resolver, rule, position);
    }

    /** The clauses that did not come out as wanted on the device, each with what it has. */
    public static String why(Resolver resolver, String rule, int position) {
        List<Clause> clauses = resolver.audiences().clauses(rule, position);
        return clauses.stream().filter(c -> !c.holds()).map(c -> "needs " + c.words() + ", has "
                + (c.seen().isEmpty() ? "not reported it" : String.join(", ", c.seen())))
                .collect(Collectors.collectingAndThen(Collectors.joining("; "), text -> text.isEmpty() ? "only where " + rule
                        : text));
    }

    /** Why a step is skipped that belongs to a value which is not chosen; null when it is. */
    private @Nullable String notChosen(String with) {
        int equals = with.indexOf('=');
        Chosen.Value value = equals < 0 ? null : chosen.find(with.substring(0, equals));
        return equals < 0 || chosen.has(with.substring(0, equals), with.substring(equals + 1)) ? null
                : "only with " + with.substring(equals + 1) + ", chosen is " + (value == null || value.words().isEmpty() ? "nothing" : value.words());
    }

    static boolean isHarmless(String text) {
        return HARMLESS.matcher(text).matches();
    }

    /** Why the facts and choices that are referred to cannot be put in; null when they can. */
    private @Nullable String wrongValue(String text) {
        Matcher choice = StepChecks.CHOICE.matcher(text);
        while (choice.find()) {
            if (chosen.find(choice.group(1)) == null) {
                return "needs the choice " + choice.group(1) + ", which this release has not";
            }
        }
        Matcher fact = FACT.matcher(text);
        while (fact.find()) {
            String value = device.facts().get(fact.group(1));
            if (value == null) {
                return "needs the fact " + fact.group(1) + ", which the device has not reported";
            }
            if (!isHarmless(value)) {
                return "the fact " + fact.group(1) + " holds characters that a command would read otherwise";
            }
        }
        return null;
    }

    private String filled(String text) {
        String withChoices = StepChecks.CHOICE.matcher(text).replaceAll(found -> {
            Chosen.Value value = chosen.find(found.group(1));
            return Matcher.quoteReplacement(value == null ? found.group() : value.choice().reads(value.value()));
        });
        return FACT.matcher(withChoices).replaceAll(found -> {
            String value = device.facts().get(found.group(1));
            return Matcher.quoteReplacement(value == null ? found.group() : value);
        });
    }
}
