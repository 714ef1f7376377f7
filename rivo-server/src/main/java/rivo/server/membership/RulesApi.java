package rivo.server.membership;

import io.swagger.v3.oas.annotations.media.Schema;
import java.security.Principal;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Target;
import rivo.core.rule.Folding;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleAttribute;
import rivo.core.rule.RuleException;
import rivo.server.change.Drafts;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.reach.Spread;

/** Tries rules out while they are written, and helps to write them. Nothing is kept of it. */
@RestController
class RulesApi {

    /**
     * A rule as it is written, finished or not.
     *
     * @param rule empty for none
     * @param collection of which it is to be the rule: then its hand-picked devices count, and its published devices are compared
     * @param base the id of the OU below which it looks; the root where none is given
     * @param include ids of devices that are put in by hand; {@code exclude} of those that are left out
     */
    record WrittenRule(String rule, @Nullable String collection, @Nullable String base, @Nullable List<String> include,
            @Nullable List<String> exclude) {
    }

    /**
     * What a rule comes to.
     *
     * @param devices how many satisfy it; absent where something is wrong with it
     * @param fleet how many devices there are below its base
     * @param line where that is, from 1 on, and {@code column} likewise; absent where nothing is wrong, or no single place
     * @param outline the same rule in clauses; absent without a rule, or where something is wrong with it
     * @param saved how many the collection holds as it is published
     * @param comesIn the first of those that it would hold and does not; {@code goesOut} the other way round
     */
    record TriedRule(@Nullable Integer devices, int fleet, @Nullable String problem, @Nullable Integer line, @Nullable Integer column,
            RuleLines.@Nullable RuleLine outline, @Nullable Integer saved, int comingIn, int goingOut, List<RuleDevice> comesIn, List<RuleDevice> goesOut,
            List<Spread.SpreadPart> spread) {
    }

    record RuleDevice(String id, String name, String where) {
    }

    /** @param type {@code text}, {@code version}, {@code number}, {@code instant}, {@code dn} or {@code collection} */
    record AttributeLine(String name, @Schema(allowableValues = {"text", "version", "number", "instant", "dn", "collection"}) String type) {
    }

    /** @param label what people call it */
    record ValueLine(String value, String label, int devices) {
    }

    private static final int MOST_VALUES = 12;
    private static final int MOST_SHOWN = 50;

    private final CurrentSnapshot current;

    RulesApi(CurrentSnapshot current) {
        this.current = current;
    }

    @PostMapping("/api/rules/trial")
    TriedRule attempt(@RequestBody WrittenRule written, Principal who) {
        Audiences audiences = Drafts.after(current.now(), who.getName()).resolver().audiences();
        DeviceSet fleet = fleet(audiences, written.base());
        try {
            Rule rule = written.rule().isBlank() ? null : Rule.parse(written.rule());
            String unknown = rule == null ? null : problem(audiences.estate(), rule, written.collection());
            if (unknown != null) {
                return broken(fleet, unknown, null, null);
            }
            return tried(audiences, written, rule, fleet);
        } catch (RuleException e) {
            return broken(fleet, String.valueOf(e.getMessage()), e.line(), e.column());
        }
    }

    private static DeviceSet fleet(Audiences audiences, @Nullable String base) {
        if (base == null || audiences.estate().ous().find(base) == null) {
            return audiences.everyDevice();
        }
        return audiences.devicesIn(Target.ou(base));
    }

    private static TriedRule broken(DeviceSet fleet, String problem, @Nullable Integer line, @Nullable Integer column) {
        return new TriedRule(null, fleet.size(), problem, line, column, null, null, 0, 0, List.of(), List.of(), List.of());
    }

    /** A collection that there is not, or a circle; null where there is none. */
    private static @Nullable String problem(Estate estate, Rule rule, @Nullable String own) {
        Map<String, DeviceCollection> byName = new HashMap<>();
        estate.collections().values().forEach(one -> byName.put(Folding.fold(one.name()), one));
        for (String name : rule.collections()) {
            DeviceCollection named = byName.get(Folding.fold(name));
            if (named == null) {
                return "There is no collection named \"" + name + "\"; name one that is declared.";
            }
            String circle = own == null ? null : circle(named, own, byName);
            if (circle != null) {
                return circle;
            }
        }
        return null;
    }

    /** In words how a collection that is named asks about the one with this id; null where it does not. Looks at each collection once. */
    private static @Nullable String circle(DeviceCollection named, String own, Map<String, DeviceCollection> byName) {
        Map<String, String> askedBy = new LinkedHashMap<>(Map.of(named.id(), ""));
        Deque<DeviceCollection> open = new ArrayDeque<>(List.of(named));
        while (!open.isEmpty()) {
            DeviceCollection at = open.remove();
            if (at.id().equals(own)) {
                String by = askedBy.getOrDefault(own, "");
                return by.isEmpty() ? "A circle: the rule asks about its own collection, \"" + at.name() + "\"; delete that clause."
                        : "A circle: \"" + named.name() + "\" asks about this collection itself" + (by.equals(named.name()) ? ""
                                : ", by way of \"" + by + "\"") + "; delete that clause.";
            }
            for (String next : at.rule() == null ? Set.<String>of() : Rule.parse(at.rule()).collections()) {
                DeviceCollection asked = byName.get(Folding.fold(next));
                if (asked != null && askedBy.putIfAbsent(asked.id(), at.name()) == null) {
                    open.add(asked);
                }
            }
        }
        return null;
    }

    private TriedRule tried(Audiences audiences, WrittenRule written, @Nullable Rule rule, DeviceSet fleet) {
        boolean collects = written.collection() != null;
        DeviceSet satisfying = rule == null ? collects ? DeviceSet.NONE : fleet : audiences.trying().satisfying(rule);
        DeviceSet now = satisfying.or(audiences.devicesOf(written.include() == null ? List.of() : written.include()))
                .without(audiences.devicesOf(written.exclude() == null ? List.of() : written.exclude())).and(fleet);
        DeviceSet saved = collects ? saved(audiences, written.collection()) : null;
        DeviceSet in = saved == null ? DeviceSet.NONE : now.without(saved);
        DeviceSet out = saved == null ? DeviceSet.NONE : saved.without(now);
        return new TriedRule(now.size(), fleet.size(), null, null, null, rule == null ? null : RuleLines.of(audiences, rule, fleet),
                saved == null ? null : (Integer) saved.size(), in.size(), out.size(), shown(audiences.estate(), in), shown(audiences.estate(), out),
                collects ? Spread.of(audiences.estate(), now) : List.of());
    }

    /** The devices of the collection as it is published, where they stand in the estate that is asked. */
    private DeviceSet saved(Audiences audiences, String collection) {
        Audiences published = current.now().resolver().audiences();
        if (!published.estate().collections().containsKey(collection)) {
            return DeviceSet.NONE;
        }
        DeviceSet devices = published.devicesIn(Target.collection(collection));
        return published.estate().devices() == audiences.estate().devices() ? devices
                : audiences.devicesOf(devices.stream().mapToObj(p -> published.estate().devices().at(p).id()).toList());
    }

    private static List<RuleDevice> shown(Estate estate, DeviceSet devices) {
        return devices.stream().limit(MOST_SHOWN).mapToObj(p -> estate.devices().at(p)).map(device -> device(estate, device)).toList();
    }

    private static RuleDevice device(Estate estate, Device device) {
        return new RuleDevice(device.id(), device.name(), estate.ous().at(estate.ous().position(device.ou())).name());
    }

    /** Every attribute that a rule may name, and those that devices report besides. */
    @GetMapping("/api/rules/attributes")
    List<AttributeLine> attributes() {
        return attributes(current.now().resolver().audiences()).toList();
    }

    private static Stream<AttributeLine> attributes(Audiences audiences) {
        return Stream.concat(RuleAttribute.all().stream().map(one -> new AttributeLine(one.name(), one.type())),
                audiences.trying().reportedFacts().stream().filter(name -> name.startsWith("x.")).sorted().map(name -> new AttributeLine(name, "text")));
    }

    /**
     * Values that the fleet has of an attribute, those of the most devices first.
     *
     * @param q what they contain
     */
    @GetMapping("/api/rules/values")
    List<ValueLine> values(@RequestParam String attribute, @RequestParam(defaultValue = "") String q, Principal who) {
        Audiences audiences = Drafts.after(current.now(), who.getName()).resolver().audiences();
        String typed = q.strip().toLowerCase(Locale.ROOT);
        String asked = attribute.toLowerCase(Locale.ROOT);
        if (attributes(audiences).noneMatch(known -> known.name().equalsIgnoreCase(asked))) {
            // Columns are laid out for what there is only.
            return List.of();
        }
        return audiences.trying().values(asked).entrySet().stream().map(entry -> new ValueLine(entry.getKey(), label(audiences.estate(), asked, entry.getKey()), entry.getValue()))
                .filter(line -> !line.value().isEmpty() && (line.label().toLowerCase(Locale.ROOT).contains(typed) || line.value().toLowerCase(Locale.ROOT).contains(typed)))
                .sorted(Comparator.comparingInt((ValueLine line) -> -line.devices()).thenComparing(ValueLine::value)).limit(MOST_VALUES)
                .map(line -> new ValueLine(line.value(), line.label(), exactly(audiences, asked, line))).toList();
    }

    private static String label(Estate estate, String attribute, String value) {
        boolean isOu = attribute.equals("ou") || attribute.equals("people.ou");
        return !isOu ? value : estate.ous().all().stream().filter(ou -> ou.dn().equals(value)).map(ou -> ou.name()).findFirst().orElse(value);
    }

    /** How many devices a clause with this value holds for. */
    private static int exactly(Audiences audiences, String attribute, ValueLine line) {
        boolean number = RuleAttribute.all().stream().anyMatch(known -> known.name().equalsIgnoreCase(attribute) && known.type().equals("number"));
        String literal = number ? line.value() : "\"" + line.value().replace("\\", "\\\\").replace("\"", "\\\"") + "\"";
        try {
            return audiences.trying().satisfying(Rule.parse(attribute + " eq " + literal)).size();
        } catch (RuleException e) {
            // A value that cannot be compared, such as a version with line breaks in it.
            return line.devices();
        }
    }
}
