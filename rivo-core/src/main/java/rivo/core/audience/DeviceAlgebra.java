package rivo.core.audience;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Facts;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.rule.Condition;
import rivo.core.rule.ValueCondition;

/**
 * Rules over all devices at once: each distinct condition is asked once of each distinct value, and the answers are
 * combined as sets. Columns of values are laid out when the first rule asks for them.
 */
final class DeviceAlgebra extends SetAlgebra {

    private final PersonUnits units;
    private final UserAlgebra users;
    private final Function<ValueCondition, Positions> collections;
    /** What stands in brackets, and before them. */
    private record SomeOf(String attribute, Condition within) {
    }

    private final Map<SomeOf, Positions> answers = new ConcurrentHashMap<>();
    private @Nullable EntryAlgebra<Installed> software;
    private @Nullable EntryAlgebra<Present> present;

    /** @param collections the devices in the collections whose name satisfies a condition */
    DeviceAlgebra(Estate estate, Groups groups, PersonUnits units, Function<ValueCondition, Positions> collections) {
        super(estate, groups, estate.devices().size());
        this.units = units;
        this.users = new UserAlgebra(estate, groups);
        this.collections = collections;
    }

    @Override
    @Nullable String value(int position, String attribute) {
        return DeviceSubject.fact(estate.devices().at(position), attribute);
    }

    @Override
    Facts factsAt(int position) {
        return estate.devices().at(position).facts();
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
            answers.put(asked, known);
        }
        return known;
    }

    private Positions answer(String attribute, Condition within) {
        return switch (attribute) {
            case "software" -> software().having(within);
            case "present" -> present().having(within);
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

    private synchronized EntryAlgebra<Installed> software() {
        if (software == null) {
            software = new EntryAlgebra<>(Postings.of(size(), p -> estate.devices().at(p).software()), estate.asOf(),
                    Elements::value);
        }
        return software;
    }

    private synchronized EntryAlgebra<Present> present() {
        if (present == null) {
            present = new EntryAlgebra<>(Postings.of(size(), p -> estate.devices().at(p).present()), estate.asOf(),
                    Elements::value);
        }
        return present;
    }
}
