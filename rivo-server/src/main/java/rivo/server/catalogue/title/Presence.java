package rivo.server.catalogue.title;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.PresenceKind;
import rivo.devices.protocol.VersionOrder;
import rivo.devices.protocol.Work;

/**
 * How one sees that a release is there.
 *
 * @param any whether one of the checks is enough; else all have to hold
 * @param checks without any the release cannot be seen
 */
public record Presence(boolean any, List<Check> checks) {

    public static final Presence NONE = new Presence(false, List.of());

    public Presence {
        checks = checks == null ? List.of() : List.copyOf(checks);
    }

    /**
     * One thing to look at.
     *
     * @param subject the name, code, path or script
     * @param version the lowest version that will do; empty for any
     * @param order by whose rules that is compared: of packages, by those of their own system; null for as everywhere
     */
    public record Check(PresenceKind kind, String subject, String version, @JsonInclude(JsonInclude.Include.NON_NULL) @Nullable VersionOrder order) {
        public Check {
            version = version == null ? "" : version;
        }

        /** One whose version is compared as everywhere. */
        public Check(PresenceKind kind, String subject, String version) {
            this(kind, subject, version, null);
        }
    }

    public static Presence inventory(String name) {
        return new Presence(false, List.of(new Check(PresenceKind.INVENTORY, name, "")));
    }

    /** Whether its presence can be seen at all. */
    public boolean hasChecks() {
        return !checks.isEmpty();
    }

    /** In the words of the device protocol. */
    Work.Seen seen(String release) {
        return new Work.Seen(release, any, checks.stream().map(c -> new Work.Look(c.kind(), c.subject(), c.version(), c.order()))
                .toList());
    }
}
