package rivo.core.estate;

import java.time.Instant;
import java.util.List;
import java.util.Objects;

/**
 * Something that an assignment or a collection names and that has left the directory (section 11 of the resolution rules). What includes
 * it rests; what excludes it goes on holding whom it last held.
 *
 * @param target an OU, a group, a person or a device
 * @param name what people called it
 * @param since when it left
 * @param devices the ids of the devices that it held then, nested ones and those in OUs below too; those that have gone are passed over
 * @param users the ids of the people that it held then, likewise
 */
public record GoneReference(Target target, String name, Instant since, List<String> devices, List<String> users) {

    public GoneReference {
        Objects.requireNonNull(name);
        Objects.requireNonNull(since);
        devices = List.copyOf(devices);
        users = List.copyOf(users);
        boolean ofTheDirectory = switch (target.kind()) {
            case OU, GROUP, USER, DEVICE -> true;
            case ALL_DEVICES, ALL_USERS, COLLECTION -> false;
        };
        if (!ofTheDirectory) {
            throw new IllegalArgumentException(target + " cannot leave the directory");
        }
    }
}
