package rivo.core.audience;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Target;
import rivo.core.rule.Subject;

/** One device, as the rule language sees it. Of one thread. */
final class DeviceSubject extends RememberingSubject {

    private final Estate estate;
    private final Groups groups;
    private final Device device;
    private final Supplier<List<String>> collections;
    private final Map<String, List<String>> known = new HashMap<>();
    private final Map<String, List<? extends Subject>> knownElements = new HashMap<>();

    /** @param collections the names of the collections that hold it */
    DeviceSubject(Estate estate, Groups groups, Device device, Supplier<List<String>> collections) {
        this.estate = estate;
        this.groups = groups;
        this.device = device;
        this.collections = collections;
    }

    @Override
    public Instant asOf() {
        return estate.asOf();
    }

    @Override
    public List<String> values(String attribute) {
        List<String> values = known.get(attribute);
        if (values == null) {
            values = find(attribute);
            known.put(attribute, values);
        }
        return values;
    }

    /** Asks anew for the collections that hold it. */
    void forgetCollections() {
        known.remove("collection");
        forget("collection");
    }

    private List<String> find(String attribute) {
        return switch (attribute) {
            case "ou" -> Elements.dns(estate, device.ou());
            case "group" -> Elements.names(estate, groups, Target.device(device.id()));
            case "collection" -> collections.get();
            default -> Elements.some(fact(device, attribute));
        };
    }

    static @org.jspecify.annotations.Nullable String fact(Device device, String attribute) {
        if (attribute.equals("name") && !device.name().isEmpty()) {
            return device.name();
        }
        return device.facts().get(attribute);
    }

    @Override
    public List<? extends Subject> elements(String attribute) {
        List<? extends Subject> elements = knownElements.get(attribute);
        if (elements == null) {
            elements = findElements(attribute);
            knownElements.put(attribute, elements);
        }
        return elements;
    }

    private List<? extends Subject> findElements(String attribute) {
        return switch (attribute) {
            case "software" -> device.software().stream().map(e -> new Elements.OfSoftware(e, asOf())).toList();
            case "present" -> device.present().stream().map(e -> new Elements.OfPresent(e, asOf())).toList();
            case "people" -> device.people().stream().map(id -> estate.users().find(id))
                    .filter(java.util.Objects::nonNull).map(u -> new Elements.OfPeople(u, estate, groups)).toList();
            default -> List.of();
        };
    }
}
