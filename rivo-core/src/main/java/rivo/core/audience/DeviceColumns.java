package rivo.core.audience;

import java.time.Instant;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Devices;
import rivo.core.estate.Installed;
import rivo.core.estate.Present;
import rivo.core.rule.Condition;

/** What devices say of themselves, laid out when the first rule asks. Safe for any thread. */
final class DeviceColumns {

    private final Devices devices;
    private final FactColumns facts;
    private volatile @Nullable Entries<Installed> software;
    private volatile @Nullable Entries<Present> present;

    DeviceColumns(Devices devices) {
        this.devices = devices;
        this.facts = new FactColumns(devices.size(), p -> devices.at(p).facts(), p -> devices.at(p).name());
    }

    FactColumns facts() {
        return facts;
    }

    /** The devices that have an entry of {@code software} or {@code present} which satisfies the condition. */
    Positions havingEntry(String attribute, Condition within, Instant asOf) {
        return attribute.equals("software") ? software().having(within, asOf) : present().having(within, asOf);
    }

    /** How many devices say each value of an attribute of {@code software} or {@code present}, about. */
    Map<String, Integer> counts(String complex, String attribute) {
        return complex.equals("software") ? software().counts(attribute) : present().counts(attribute);
    }

    private synchronized Entries<Installed> software() {
        Entries<Installed> known = software;
        if (known == null) {
            known = new Entries<>(devices.size(), p -> devices.at(p).software(), Elements::value);
            software = known;
        }
        return known;
    }

    private synchronized Entries<Present> present() {
        Entries<Present> known = present;
        if (known == null) {
            known = new Entries<>(devices.size(), p -> devices.at(p).present(), Elements::value);
            present = known;
        }
        return known;
    }

    /** Whether anything has been laid out. */
    boolean areLaidOut() {
        return facts.areLaidOut() || software != null || present != null;
    }
}
