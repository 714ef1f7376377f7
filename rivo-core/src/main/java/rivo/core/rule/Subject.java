package rivo.core.rule;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** What a rule is asked about: a device, or one element of a complex attribute of it. */
public interface Subject {

    /** The instant against which periods such as {@code -P14D} are counted. */
    Instant asOf();

    /**
     * The values of a simple attribute, by its name in lower case; none when nothing has been reported.
     */
    List<String> values(String attribute);

    /** The values of the condition's attribute in the form in which it compares them. */
    default List<Object> prepared(ValueCondition condition) {
        List<Object> prepared = new ArrayList<>();
        for (String value : values(condition.attribute())) {
            Object one = condition.prepare(value);
            if (one != null) {
                prepared.add(one);
            }
        }
        return prepared;
    }

    /**
     * All that a simple attribute says in the elements of a complex one, as texts without regard to case: so that of many
     * rules that look for one name among hundreds of elements each costs one look.
     */
    default Set<String> foldedInElements(String complex, String attribute) {
        Set<String> folded = new HashSet<>();
        for (Subject element : elements(complex)) {
            for (String value : element.values(attribute)) {
                folded.add(Folding.fold(value));
            }
        }
        return folded;
    }

    /** The elements of a complex attribute: {@code software}, {@code present} or {@code people}. */
    List<? extends Subject> elements(String attribute);
}
