package rivo.server.catalogue.title;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.ChoiceRecord.Allowed;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;

/** What is chosen of a release: one value for each choice that it declares. */
public record Chosen(List<Value> values) {

    public static final Chosen NOTHING = new Chosen(List.of());

    public Chosen {
        values = List.copyOf(values);
    }

    /**
     * A choice with its value.
     *
     * @param by who fixed it, in words; empty where it is as usual
     */
    public record Value(ChoiceRecord choice, String value, String by) {

        /** The value in the reader's words. */
        public String words() {
            return choice.chosen(value).stream().map(one -> {
                Allowed found = choice.find(one);
                return found == null ? one : found.words();
            }).collect(Collectors.joining(", "));
        }
    }

    /** Some values that somebody has fixed, by choice. @param by in words */
    public record Fixed(String by, Map<String, String> values) {
        public Fixed {
            values = Map.copyOf(values);
        }
    }

    /**
     * The first of the layers that fixes a choice decides it. What the release does not allow any more is left out: where
     * nothing of a value remains, the next layer is asked.
     */
    public static Chosen of(ReleaseRecord release, List<Fixed> layers) {
        List<Value> values = new ArrayList<>();
        for (ChoiceRecord choice : release.choices()) {
            Value value = null;
            for (Fixed layer : layers) {
                String fixed = value == null ? layer.values().get(choice.id()) : null;
                String allowed = fixed == null ? null : allowed(choice, fixed);
                value = allowed == null ? value : new Value(choice, allowed, layer.by());
            }
            values.add(value == null ? new Value(choice, choice.usual(), "") : value);
        }
        return new Chosen(values);
    }

    private static @Nullable String allowed(ChoiceRecord choice, String fixed) {
        if (!choice.kind().isMany()) {
            return choice.problem(fixed) == null ? fixed : null;
        }
        Set<String> rest = new LinkedHashSet<>(choice.chosen(fixed));
        boolean none = rest.isEmpty();
        rest.removeIf(one -> choice.find(one) == null);
        return rest.isEmpty() && !none ? null : String.join(",", rest);
    }

    @Nullable Value find(String choice) {
        return values.stream().filter(v -> v.choice().id().equals(choice)).findFirst().orElse(null);
    }

    /** Whether this value of the choice is chosen; false for a choice that there is not. */
    boolean has(String choice, String value) {
        Value found = find(choice);
        return found != null && found.choice().chosen(found.value()).contains(value);
    }

    /** What has to be fetched: without the files of what is not chosen. */
    public List<Contents.Content> contents(VariantRecord variant) {
        return variant.contents().stream().filter(content -> isNeeded(content.fileName())).toList();
    }

    /** A file that values name is needed by those alone; one that none names by everybody. */
    private boolean isNeeded(String file) {
        boolean named = false;
        for (Value value : values) {
            for (Allowed one : value.choice().allowed()) {
                if (one.file().equals(file)) {
                    named = true;
                    if (has(value.choice().id(), one.value())) {
                        return true;
                    }
                }
            }
        }
        return !named;
    }

    /** How much has to be fetched, in bytes. */
    public long bytes(VariantRecord variant) {
        long files = contents(variant).stream().mapToLong(Contents.Content::size).sum();
        return files + values.stream().flatMap(v -> v.choice().allowed().stream().filter(a -> has(v.choice().id(), a.value())))
                .mapToLong(Allowed::bytes).sum();
    }
}
