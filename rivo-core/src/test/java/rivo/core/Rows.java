package rivo.core;

import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import rivo.core.audience.Audiences;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Resolver;
import rivo.core.resolve.TitleOutcomes;

/** What the engine says, in the form of the naive model's rows. */
public final class Rows {

    private Rows() {
    }

    /** "device|user|title" to "outcome,release,variant,assignment,reason,by", resolved title by title. */
    public static Map<String, String> byTitle(Resolver resolver) {
        Map<String, String> rows = new HashMap<>();
        Audiences audiences = resolver.audiences();
        for (TitleOutcomes title : resolver.all().values()) {
            title.parts().forEach(part -> {
                String words = words(part.decision());
                audiences.each(part.units()).forEach(unit -> {
                    String key = unit.device().id() + "|" + unit.user() + "|" + title.title().id();
                    if (rows.put(key, words) != null) {
                        throw new AssertionError("two outcomes for " + key);
                    }
                });
            });
        }
        return rows;
    }

    /** The same, resolved device by device. */
    public static Map<String, String> byDevice(Resolver resolver) {
        Map<String, String> rows = new HashMap<>();
        for (Device device : resolver.estate().devices().all()) {
            resolver.device(device).forEach(o -> rows.put(device.id() + "|" + o.user() + "|" + o.title().id(),
                    words(o.decision())));
        }
        return rows;
    }

    public static String words(Decision decision) {
        return String.join(",", decision.outcome().word(),
                decision.release() == null ? "" : decision.release().version().toString(),
                Objects.requireNonNullElse(decision.variant(), ""),
                decision.deciding().stream().map(Assignment::id).collect(Collectors.joining(";")),
                decision.reason() == null ? "" : decision.reason().word(), Objects.requireNonNullElse(decision.by(), ""));
    }
}
