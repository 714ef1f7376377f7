package rivo.server.web;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.RecordComponent;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Problem;

/**
 * Looks through what has been read from JSON, for what no record can say by its type: a component that may not be null is there, no
 * list or map holds null, texts are text (no lone surrogate, no NUL), and instants have a year of four digits. Records, lists and maps
 * are walked; anything else is taken as it is. Safe for any number of threads.
 */
public final class ReadValues {

    private static final Instant EARLIEST = Instant.parse("0001-01-01T00:00:00Z");
    private static final Instant LATEST = Instant.parse("9999-12-31T23:59:59Z");
    private static final int MOST_PROBLEMS = 100;

    /** Of a record, those that can hold something wrong. Java makes them, and parses their annotations, anew whenever it is asked for them. */
    private static final ClassValue<List<Component>> COMPONENTS = new ClassValue<>() {
        @Override
        protected List<Component> computeValue(Class<?> type) {
            return Stream.of(type.getRecordComponents()).filter(one -> !one.getType().isPrimitive()).map(Component::of).toList();
        }
    };

    private record Component(String name, Method accessor, boolean mayBeNull) {

        static Component of(RecordComponent component) {
            component.getAccessor().setAccessible(true);
            return new Component(component.getName(), component.getAccessor(), component.getAnnotatedType().isAnnotationPresent(Nullable.class));
        }

        @Nullable Object of(Object value) {
            try {
                return accessor.invoke(value);
            } catch (IllegalAccessException | InvocationTargetException e) {
                throw new IllegalStateException("a record gives its components", e);
            }
        }
    }

    private final List<Problem> problems = new ArrayList<>();
    /** Where the walk is: names, and numbers of elements. Written out only for what is wrong. */
    private final List<Object> place = new ArrayList<>();

    private ReadValues() {
    }

    /** What is wrong, each with its place; at most the first hundred. */
    public static List<Problem> problems(Object value) {
        ReadValues walk = new ReadValues();
        walk.value(value);
        return walk.problems;
    }

    private void value(Object value) {
        if (problems.size() >= MOST_PROBLEMS) {
            return;
        }
        if (value instanceof String text) {
            text(text);
        } else if (value instanceof Instant instant) {
            if (instant.isBefore(EARLIEST) || instant.isAfter(LATEST)) {
                add("bad-time", "is no time that can be meant; give one with a year of four digits.");
            }
        } else if (value instanceof Collection<?> list) {
            int i = 0;
            for (Object element : list) {
                at(i++, element, false);
            }
        } else if (value instanceof Map<?, ?> map) {
            map.forEach((key, element) -> {
                text(String.valueOf(key));
                at(String.valueOf(key), element, false);
            });
        } else if (value instanceof Record) {
            for (Component component : COMPONENTS.get(value.getClass())) {
                at(component.name(), component.of(value), component.mayBeNull());
            }
        }
    }

    /** @param step a name, or the number of an element */
    private void at(Object step, @Nullable Object value, boolean mayBeNull) {
        place.add(step);
        if (value != null) {
            value(value);
        } else if (!mayBeNull) {
            add("missing", "is missing; give it.");
        }
        place.remove(place.size() - 1);
    }

    private void text(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean pair = Character.isHighSurrogate(c) && i + 1 < text.length() && Character.isLowSurrogate(text.charAt(i + 1));
            if (c == 0 || Character.isSurrogate(c) && !pair) {
                add("bad-text", "holds characters that are no text; write it anew.");
                return;
            }
            i += pair ? 1 : 0;
        }
    }

    private void add(String code, String what) {
        StringBuilder written = new StringBuilder();
        for (Object step : place) {
            if (step instanceof Integer) {
                written.append('[').append(step).append(']');
            } else {
                written.append(written.isEmpty() ? "" : ".").append(step);
            }
        }
        String shown = written.length() > 200 ? written.substring(0, 200) + "…" : written.toString();
        problems.add(new Problem(code, shown, (shown.isEmpty() ? "The body" : shown) + " " + what));
    }
}
