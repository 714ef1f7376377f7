package rivo.core.audience;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.rule.Condition;
import rivo.core.rule.Subject;
import rivo.core.rule.ValueCondition;

/**
 * Rules over all devices at once: each distinct condition is asked once of each distinct value, and the answers are
 * combined as sets. Columns of values are laid out when the first rule asks for them, and carried along from one estate
 * to the next.
 */
final class DeviceAlgebra extends SetAlgebra {

    /** More than rules ask that are kept: whoever tries rules out, letter by letter, fills no memory. */
    private static final int MOST_ANSWERS = 10_000;

    /** What stands in brackets, and before them. */
    private record SomeOf(String attribute, Condition within) {
    }

    private final PersonUnits units;
    private final UserAlgebra users;
    private final Function<ValueCondition, Positions> collections;
    private final CarriedColumns<DeviceColumns> columns;
    private final CarriedColumns<FactColumns> userColumns;
    private final Map<SomeOf, Positions> answers = new ConcurrentHashMap<>();

    private DeviceAlgebra(Estate estate, Groups groups, PersonUnits units, Function<ValueCondition, Positions> collections,
            CarriedColumns<DeviceColumns> columns, CarriedColumns<FactColumns> userColumns) {
        super(estate, groups, estate.devices().size());
        this.units = units;
        this.users = new UserAlgebra(estate, groups, userColumns);
        this.collections = collections;
        this.columns = columns;
        this.userColumns = userColumns;
    }

    /** @param collections the devices in the collections whose name satisfies a condition */
    DeviceAlgebra(Estate estate, Groups groups, PersonUnits units, Function<ValueCondition, Positions> collections) {
        this(estate, groups, units, collections, CarriedColumns.of(new DeviceColumns(estate.devices()), estate.devices().size()),
                CarriedColumns.of(UserAlgebra.columns(estate.users()), estate.users().size()));
    }

    /** That of a newer estate, with what has been laid out. */
    DeviceAlgebra after(Estate newer, Groups newGroups, PersonUnits newUnits, Moves devices, Moves people,
            Function<ValueCondition, Positions> newCollections) {
        return new DeviceAlgebra(newer, newGroups, newUnits, newCollections,
                columns.after(devices, newer.devices().size(), DeviceColumns::areLaidOut,
                        () -> new DeviceColumns(newer.devices())),
                userColumns.after(people, newer.users().size(), FactColumns::areLaidOut,
                        () -> UserAlgebra.columns(newer.users())));
    }

    /**
     * The values that devices have of an attribute, each with about how many have it.
     *
     * @param attribute in lower case; of a complex one a part, such as {@code software.name}
     */
    Map<String, Integer> values(String attribute) {
        int dot = attribute.indexOf('.');
        String complex = dot < 0 ? "" : attribute.substring(0, dot);
        String part = attribute.substring(dot + 1);
        return switch (complex) {
            case "software", "present" -> columns.columns().counts(complex, part);
            case "people" -> part.equals("ou") || part.equals("group") ? values(part) : users.counts(part);
            default -> own(attribute);
        };
    }

    private Map<String, Integer> own(String attribute) {
        Map<String, Integer> counts = new HashMap<>();
        switch (attribute) {
            case "ou" -> {
                for (int ou = 0; ou < estate.ous().size(); ou++) {
                    counts.put(estate.ous().at(ou).dn(), estate.devices().to(ou) - estate.devices().from(ou));
                }
            }
            case "group" -> estate.groups().values().forEach(group -> counts.merge(group.name(), groups.of(group.id()).devices().size(), Math::max));
            case "collection" -> estate.collections().values().forEach(one -> counts.put(one.name(), 0));
            default -> {
                return columns.columns().facts().counts(attribute);
            }
        }
        return counts;
    }

    /** The names of all facts that devices report, folded. */
    Set<String> facts() {
        return columns.columns().facts().told();
    }

    @Override
    Positions told(ValueCondition condition) {
        return columns.now(columns.columns().facts().having(condition, estate.asOf()), p -> condition.holds(subject(p)));
    }

    /** What a device says of itself; nobody asks it here for what it is in. */
    private Subject subject(int position) {
        return new DeviceSubject(estate, groups, estate.devices().at(position), List::of);
    }

    @Override
    Positions below(int ou) {
        return Positions.range(estate.devices().from(ou), estate.devices().to(ou));
    }

    @Override
    boolean hasOu(int position) {
        return estate.devices().at(position).ou() != null;
    }

    @Override
    Positions held(Groups.Members members) {
        return members.devices();
    }

    @Override
    Positions other(ValueCondition condition) {
        return collections.apply(condition);
    }

    @Override
    public Positions havingElement(String attribute, Condition within) {
        SomeOf asked = new SomeOf(attribute, within);
        Positions known = answers.get(asked);
        if (known == null) {
            known = answer(attribute, within);
            if (answers.size() < MOST_ANSWERS) {
                answers.put(asked, known);
            }
        }
        return known;
    }

    private Positions answer(String attribute, Condition within) {
        return switch (attribute) {
            case "software", "present" -> columns.now(columns.columns().havingEntry(attribute, within, estate.asOf()),
                    p -> subject(p).elements(attribute).stream().anyMatch(within::holds));
            case "people" -> units.devicesOf(units.ofUsers(within.over(users)));
            default -> throw new IllegalStateException("no elements of " + attribute);
        };
    }

    @Override
    public Positions havingAnyElement(String attribute) {
        return Positions.range(0, estate.devices().size()).filter(p -> hasElement(estate.devices().at(p), attribute));
    }

    private static boolean hasElement(Device device, String attribute) {
        return switch (attribute) {
            case "software" -> !device.software().isEmpty();
            case "present" -> !device.present().isEmpty();
            default -> !device.people().isEmpty();
        };
    }
}
