package rivo.core.rule;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A subject for tests, put together value by value. */
final class Facts implements Subject {

    private final Map<String, List<String>> values = new LinkedHashMap<>();
    private final Map<String, List<Facts>> elements = new LinkedHashMap<>();

    Facts with(String attribute, String... more) {
        values.computeIfAbsent(attribute, a -> new ArrayList<>()).addAll(List.of(more));
        return this;
    }

    Facts element(String attribute, Facts element) {
        elements.computeIfAbsent(attribute, a -> new ArrayList<>()).add(element);
        return this;
    }

    @Override
    public Instant asOf() {
        return Instant.parse("2026-11-23T08:00:00Z");
    }

    @Override
    public List<String> values(String attribute) {
        return values.getOrDefault(attribute, List.of());
    }

    @Override
    public List<Facts> elements(String attribute) {
        return elements.getOrDefault(attribute, List.of());
    }
}
