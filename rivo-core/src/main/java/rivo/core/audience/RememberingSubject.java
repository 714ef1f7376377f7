package rivo.core.audience;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rivo.core.rule.Subject;
import rivo.core.rule.ValueCondition;

/** A subject of which many rules are asked, one after the other: it puts each value into a form once. Of one thread. */
abstract class RememberingSubject implements Subject {

    private final Map<String, Map<String, Set<String>>> folded = new HashMap<>(4);
    private static final int FORMS = ValueCondition.Form.values().length;

    /** By attribute, then by the place of the form. */
    private final Map<String, Object[]> prepared = new HashMap<>();

    @Override
    public final List<Object> prepared(ValueCondition condition) {
        Object[] ofAttribute = prepared.get(condition.attribute());
        if (ofAttribute == null) {
            ofAttribute = new Object[FORMS];
            prepared.put(condition.attribute(), ofAttribute);
        }
        int form = condition.form().ordinal();
        @SuppressWarnings("unchecked")
        List<Object> known = (List<Object>) ofAttribute[form];
        if (known == null) {
            known = Subject.super.prepared(condition);
            ofAttribute[form] = known;
        }
        return known;
    }

    @Override
    public final Set<String> foldedInElements(String complex, String attribute) {
        Map<String, Set<String>> ofComplex = folded.computeIfAbsent(complex, c -> new HashMap<>(4));
        Set<String> known = ofComplex.get(attribute);
        if (known == null) {
            known = Subject.super.foldedInElements(complex, attribute);
            ofComplex.put(attribute, known);
        }
        return known;
    }

    /** What was remembered of an attribute holds no longer. */
    final void forget(String attribute) {
        prepared.remove(attribute);
        folded.clear();
    }
}
