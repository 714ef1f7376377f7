package rivo.server.membership;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.rule.Folding;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleAttribute;
import rivo.core.rule.RuleOutline;

/** A rule as the lines of its editor, each with how many devices it leaves. Pure functions. */
final class RuleLines {

    /**
     * A clause, or a group of them.
     *
     * @param devices how many are left after it; in {@code any} how many more it lets in; in {@code none} how many it keeps out
     * @param nearest what the fleet has instead of a value that no device has; absent where some has it, or nothing is near
     */
    record RuleLine(@Schema(allowableValues = {"all", "any", "none", "some", "has", "clause"}) String kind, String attribute, String operator, String value,
            int devices, @Nullable String nearest, List<RuleLine> parts) {
    }

    private RuleLines() {
    }

    /** @param fleet the devices among which it is asked */
    static RuleLine of(Audiences audiences, Rule rule, DeviceSet fleet) {
        return line(audiences, RuleOutline.of(rule), fleet, fleet);
    }

    /** @param left those that are still left where the line begins; {@code counted} those that it counts among */
    private static RuleLine line(Audiences audiences, RuleOutline outline, DeviceSet left, DeviceSet counted) {
        DeviceSet own = audiences.trying().satisfying(outline.condition()).and(counted);
        List<RuleLine> parts = new ArrayList<>();
        DeviceSet at = left;
        DeviceSet before = DeviceSet.NONE;
        for (RuleOutline part : outline.parts()) {
            switch (outline.kind()) {
                case ALL -> {
                    parts.add(line(audiences, part, at, at));
                    at = at.and(audiences.trying().satisfying(part.condition()));
                }
                case ANY -> {
                    parts.add(line(audiences, part, left, left.without(before)));
                    before = before.or(audiences.trying().satisfying(part.condition()));
                }
                case NONE -> parts.add(line(audiences, part, left, left));
                // What stands in brackets is about elements, not devices.
                case SOME, HAS, CLAUSE -> parts.add(inBrackets(audiences, outline.attribute(), part));
            }
        }
        return new RuleLine(outline.kind().word(), outline.attribute(), outline.operator(), outline.value(), own.size(),
                nearest(audiences, "", outline), parts);
    }

    private static RuleLine inBrackets(Audiences audiences, String complex, RuleOutline outline) {
        return new RuleLine(outline.kind().word(), outline.attribute(), outline.operator(), outline.value(), 0, nearest(audiences, complex + ".", outline),
                outline.parts().stream().map(part -> inBrackets(audiences, complex, part)).toList());
    }

    /** The value of the fleet that begins most alike, where no device has the one that is written. */
    private static @Nullable String nearest(Audiences audiences, String complex, RuleOutline clause) {
        boolean equality = clause.kind() == RuleOutline.Kind.CLAUSE && (clause.operator().equals("eq") || clause.operator().equals("ne"));
        String attribute = complex + clause.attribute().toLowerCase(Locale.ROOT);
        if (!equality || !isText(attribute)) {
            return null;
        }
        String written = clause.value().toLowerCase(Locale.ROOT);
        Map<String, Integer> values = audiences.trying().values(attribute);
        if (values.keySet().stream().anyMatch(value -> Folding.fold(value).equals(Folding.fold(clause.value())))) {
            return null;
        }
        return values.keySet().stream().filter(value -> !written.isEmpty() && value.toLowerCase(Locale.ROOT).contains(written.substring(0, Math.min(3, written.length()))))
                .max(Comparator.comparingInt((String value) -> alike(value.toLowerCase(Locale.ROOT), written)).thenComparing(Comparator.reverseOrder())).orElse(null);
    }

    private static int alike(String value, String written) {
        int n = 0;
        while (n < value.length() && n < written.length() && value.charAt(n) == written.charAt(n)) {
            n++;
        }
        return n;
    }

    private static boolean isText(String attribute) {
        return RuleAttribute.all().stream().noneMatch(known -> known.name().equalsIgnoreCase(attribute) && !known.type().equals("text"));
    }
}
