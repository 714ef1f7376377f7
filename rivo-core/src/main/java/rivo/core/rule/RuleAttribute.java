package rivo.core.rule;

import java.util.List;

/**
 * An attribute that rules may name.
 *
 * @param name as it is written; of a complex one each part, such as {@code software.name}
 * @param type {@code text}, {@code version}, {@code number}, {@code instant}, {@code dn} or {@code collection}
 */
public record RuleAttribute(String name, String type) {

    /** Those that every estate has; a device may report others, {@code x.NAME}. In alphabetical order. */
    public static List<RuleAttribute> all() {
        return Attribute.all();
    }
}
