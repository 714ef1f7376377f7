package rivo.server.audience;

import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Group;
import rivo.core.estate.Kit;
import rivo.core.estate.Ou;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;

/** What targets are called, and whether they are there. Pure functions. */
public final class Names {

    private Names() {
    }

    /** What a target is called; of what has gone, what it was called; its own text where nothing is known of it. */
    public static String of(Estate estate, Target target) {
        GoneReference gone = estate.gone().get(target);
        String name = gone != null ? gone.name() : switch (target.kind()) {
            case ALL_DEVICES -> "Every device";
            case ALL_USERS -> "Every person";
            case OU -> {
                Ou ou = estate.ous().find(target.id());
                yield ou == null ? "" : ou.name();
            }
            case GROUP -> {
                Group group = estate.groups().get(target.id());
                yield group == null ? "" : of(group);
            }
            case COLLECTION -> {
                DeviceCollection collection = estate.collections().get(target.id());
                yield collection == null ? "" : of(collection);
            }
            case DEVICE -> {
                Device device = estate.devices().find(target.id());
                yield device == null ? "" : device.name();
            }
            case USER -> {
                User user = estate.users().find(target.id());
                yield user == null ? "" : of(user);
            }
        };
        return name.isEmpty() ? target.id().isEmpty() ? target.toString() : target.id() : name;
    }

    /** Whether a target is there; of what has gone, it is not. */
    public static boolean isThere(Estate estate, Target target) {
        return switch (target.kind()) {
            case ALL_DEVICES, ALL_USERS -> true;
            case OU -> estate.ous().find(target.id()) != null;
            case GROUP -> estate.groups().containsKey(target.id());
            case COLLECTION -> estate.collections().containsKey(target.id());
            case DEVICE -> estate.devices().find(target.id()) != null;
            case USER -> estate.users().find(target.id()) != null;
        };
    }

    /** What a title or kit is called; its id where there is none. */
    public static String subject(Estate estate, Subject subject) {
        Title title = subject.kit() ? null : estate.title(subject.id());
        Kit kit = subject.kit() ? estate.kits().get(subject.id()) : null;
        return title != null ? title.name() : kit != null ? kit.name() : subject.id();
    }

    /** The OUs that something is in, from below the root down; the root's name for the root. @param ou its id; null outside every OU */
    public static String where(Estate estate, @Nullable String ou) {
        List<Ou> path = estate.ous().path(estate.ous().position(ou));
        return ou == null ? "outside every OU" : path.stream().skip(path.size() > 1 ? 1 : 0).map(Ou::name).collect(Collectors.joining(" › "));
    }

    /** The full name, or the account's. */
    public static String of(User user) {
        return user.fullName().isEmpty() ? user.name() : user.fullName();
    }

    public static String of(Group group) {
        return group.name().isEmpty() ? group.id() : group.name();
    }

    public static String of(DeviceCollection collection) {
        return collection.name().isEmpty() ? collection.id() : collection.name();
    }
}
