package rivo.core.resolve;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;

/**
 * Stands for the answers that devices get ({@link Resolver#answers}), for all of them and for each one. What a tick of time makes another for
 * a few devices leaves the others as they are. Immutable.
 */
public final class Answers {

    /** Beyond this many, none is told from the others. */
    private static final int MOST_APART = 5_000;

    private final Object ofAll;
    private final Map<String, Object> apart;

    private Answers(Object ofAll, Map<String, Object> apart) {
        this.ofAll = ofAll;
        this.apart = apart;
    }

    /** Like none before. */
    static Answers unlike() {
        return new Answers(new Object(), Map.of());
    }

    /** The same for all but these devices. */
    Answers without(Collection<String> devices) {
        if (devices.isEmpty()) {
            return this;
        }
        Map<String, Object> next = new HashMap<>(apart);
        Object unlike = new Object();
        devices.forEach(device -> next.put(device, unlike));
        return next.size() > MOST_APART ? unlike() : new Answers(ofAll, next);
    }

    /** Stands for the answer of one device: as long as it is the very same, so is that. */
    public Object of(String device) {
        return apart.getOrDefault(device, ofAll);
    }
}
