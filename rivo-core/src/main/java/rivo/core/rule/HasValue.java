package rivo.core.rule;

import java.time.Instant;

/** {@code pr}: there is a value that is not the empty string. */
record HasValue(String attribute) implements ValueCondition {

    @Override
    public Object prepare(String value) {
        return value;
    }

    @Override
    public Form form() {
        return Form.AS_IT_IS;
    }

    @Override
    public boolean acceptsPrepared(Object prepared, Instant asOf) {
        return !prepared.equals("");
    }

    @Override
    public String words() {
        return Attribute.written(attribute) + " pr";
    }
}
