package rivo.core;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Request;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.rule.EstateRules;

/** Changes of random estates, of every kind that a directory, devices and administrators make. */
public final class RandomChanges {

    private RandomChanges() {
    }

    /** The same estate after something in it has changed. */
    public static Estate change(Estate estate, Random random) {
        Device device = estate.devices().at(random.nextInt(estate.devices().size()));
        String ou = estate.ous().at(random.nextInt(estate.ous().size())).id();
        return switch (random.nextInt(11)) {
            case 0 -> estate.withDevice(device.withReport(Estates.facts("arch", random.nextBoolean() ? "x64" : "arm64",
                    "ramGiB", "8"), List.of(), device.present()));
            case 1 -> estate.withDevice(device.withOu(random.nextInt(5) == 0 ? null : ou));
            case 2 -> estate.withDevice(device.withPeople(estate.users().all().stream().map(u -> u.id())
                    .filter(u -> random.nextBoolean()).toList()));
            case 3 -> withMembers(estate, random, device);
            case 4 -> estate.withAssignments(estate.assignments().all().stream().filter(a -> random.nextInt(3) == 0)
                    .map(a -> random.nextBoolean() ? a.retired() : a.withPriority(random.nextInt(1001))).toList());
            case 5 -> estate.withDevice(device.withReport(device.facts(), device.software(), List.of()));
            case 6 -> estate.withOus(estate.ous().all().stream().map(o -> moved(estate, o, ou)).toList());
            case 7 -> random.nextInt(4) == 0 ? estate.withRequests(List.of()) : request(estate, random, device);
            case 8 -> withoutACollection(estate, random);
            default -> tick(estate, random);
        };
    }

    /** Somebody takes a title on a device, or gives it back. */
    private static Estate request(Estate estate, Random random, Device device) {
        List<Title> titles = estate.titles().stream().filter(title -> title.scope() == Scope.DEVICE || !device.people().isEmpty()).toList();
        if (titles.isEmpty()) {
            return estate;
        }
        Title title = titles.get(random.nextInt(titles.size()));
        Request request = new Request(device.id(), title.id(), title.scope() == Scope.DEVICE ? null : device.people().get(0));
        List<Request> requests = new ArrayList<>(estate.requests());
        if (!requests.remove(request)) {
            requests.add(request);
        }
        return estate.withRequests(requests);
    }

    /** A minute later, or as long as it takes for periods to move and for what has not started to start. */
    private static Estate tick(Estate estate, Random random) {
        Instant later = estate.asOf().plusSeconds(random.nextBoolean() ? 60 : 86_400L * random.nextInt(60));
        return random.nextInt(3) > 0 ? estate.at(later) : estate.withAssignments(estate.assignments().all().stream()
                .filter(a -> random.nextInt(4) == 0).map(a -> a.withFrom(later)).toList()).at(random.nextBoolean() ? later : estate.asOf());
    }

    private static Estate withoutACollection(Estate estate, Random random) {
        for (DeviceCollection collection : estate.collections().values()) {
            try {
                Estate rest = estate.withCollections(List.of(), Set.of(collection.id()));
                if (EstateRules.problems(rest.parts()).isEmpty()) {
                    return rest;
                }
            } catch (RefusedException e) {
                // Something names it.
                continue;
            }
        }
        return estate.withCollection(new DeviceCollection("extra", "Extra ones", null, random.nextBoolean() ? "lastSeen gt \"-P30D\"" : "arch pr",
                List.of(), List.of()));
    }

    private static Estate withMembers(Estate estate, Random random, Device device) {
        if (estate.groups().isEmpty()) {
            return estate;
        }
        Group group = List.copyOf(estate.groups().values()).get(random.nextInt(estate.groups().size()));
        List<Target> members = new ArrayList<>(group.members());
        if (!members.remove(Target.device(device.id()))) {
            members.add(Target.device(device.id()));
        }
        return estate.withGroup(new Group(group.id(), group.name(), members));
    }

    /** Puts this OU below that one, where that is possible, and turns its fence round. */
    private static Ou moved(Estate estate, Ou ou, String below) {
        int to = estate.ous().position(below);
        int at = estate.ous().position(ou.id());
        boolean may = ou.parent() != null && to != at + 1 && at == estate.ous().size() - 1 && to < at;
        return may ? new Ou(ou.id(), ou.name(), ou.dn(), below, !ou.fenced()) : ou;
    }
}
