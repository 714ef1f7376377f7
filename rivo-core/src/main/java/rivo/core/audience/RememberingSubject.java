package rivo.core.audience;

import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import rivo.core.rule.Subject;
import rivo.core.rule.ValueCondition;

/** A subject of which many rules are asked, one after the other: it puts each value into a form once. Of one thread. */
abstract class RememberingSubject implements Subject {

    private final Map<ValueCondition.Form, Map<String, List<Object>>> prepared = new EnumMap<>(ValueCondition.Form.class);

    @Override
    public final List<Object> prepared(ValueCondition condition) {
        Map<String, List<Object>> ofForm = prepared.computeIfAbsent(condition.form(), f -> new HashMap<>());
        List<Object> known = ofForm.get(condition.attribute());
        if (known == null) {
            known = Subject.super.prepared(condition);
            ofForm.put(condition.attribute(), known);
        }
        return known;
    }

    /** What was remembered of an attribute holds no longer. */
    final void forget(String attribute) {
        prepared.values().forEach(ofForm -> ofForm.remove(attribute));
    }
}
