package rivo.server.directory;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rivo.core.estate.Device;
import rivo.core.estate.DirectoryChange;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;
import rivo.directory.Differences;
import rivo.directory.DirectoryPicture.ComputerEntry;
import rivo.directory.DirectoryPicture.GroupEntry;
import rivo.directory.DirectoryPicture.Identified;
import rivo.directory.DirectoryPicture.OuEntry;
import rivo.directory.DirectoryPicture.UserEntry;
import rivo.server.audience.FenceDocument;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.EstateRecords;
import rivo.server.estate.SignIns;
import rivo.server.request.RequestDocument;

/**
 * The differences of one scan as an edit of the estate, after they have been written to their rows. Costs some queries for each thing that
 * is new, changed or enabled again; what is unchanged is not read. Used by the writer's thread.
 */
final class DirectoryEdit {

    private final ChangeContext context;
    private final EstateRecords records;
    private final Estate before;

    DirectoryEdit(ChangeContext context) {
        this.context = context;
        this.records = new EstateRecords(context.db());
        this.before = context.estate();
    }

    /** The estate after it; what has gone and is named by assignments is kept with the records. */
    Estate apply(Differences<OuEntry> ous, Differences<UserEntry> users, Differences<ComputerEntry> computers, Differences<GroupEntry> groups,
            Set<String> enabledIn) {
        forget(ids(users.gone()), computers);
        List<Device> devices = devices(computers);
        Set<String> goneDevices = ids(computers.gone());
        computers.changed().stream().filter(c -> !c.enabled()).forEach(c -> goneDevices.add(c.id()));
        Estate after = before.at(context.now()).with(DirectoryChange.none(context.now()).withOus(ous(ous), goneOus(ous))
                .withUsers(records.users(ids(users.put())), ids(users.gone())).withDevices(devices, goneDevices)
                .withGroups(groups(groups, enabledIn, devices), ids(groups.gone())));
        EstateRecords.writeGone(context, before, after);
        return RequestDocument.requested(after, context.get(RequestDocument.KIND));
    }

    /** Whoever has left the directory uses no device any more; when they are back, devices tell it anew. */
    private void forget(Set<String> gone, Differences<ComputerEntry> computers) {
        if (gone.isEmpty()) {
            return;
        }
        EstateRecords.forgetPresent(context, present -> present.user() != null && gone.contains(present.user()), computers.put().stream()
                .map(ComputerEntry::id).filter(id -> before.devices().find(id) == null).toList());
        Map<String, SignIns> less = new HashMap<>();
        context.get(SignIns.PART).forEach((device, signIns) -> {
            SignIns rest = signIns.without(gone);
            if (!rest.equals(signIns)) {
                less.put(device, rest);
            }
        });
        SignIns.keep(context, less);
    }

    private static Set<String> ids(List<? extends Identified> entries) {
        Set<String> ids = new LinkedHashSet<>();
        entries.forEach(entry -> ids.add(entry.id()));
        return ids;
    }

    private List<Ou> ous(Differences<OuEntry> ous) {
        List<Ou> put = records.ous(ids(ous.put()), ou -> context.get(FenceDocument.KIND).find(ou) != null);
        boolean noneAreLeft = put.isEmpty() && before.ous().size() == ous.gone().size();
        return noneAreLeft ? List.of(EstateRecords.NO_DIRECTORY_YET) : put;
    }

    private Set<String> goneOus(Differences<OuEntry> ous) {
        Set<String> gone = ids(ous.gone());
        if (!ous.added().isEmpty() && before.ous().find(EstateRecords.NO_DIRECTORY_YET.id()) != null) {
            gone.add(EstateRecords.NO_DIRECTORY_YET.id());
        }
        return gone;
    }

    /** What devices reported goes along with them. */
    private List<Device> devices(Differences<ComputerEntry> computers) {
        Set<String> read = new LinkedHashSet<>();
        List<Device> devices = new ArrayList<>();
        for (ComputerEntry computer : computers.put()) {
            Device known = before.devices().find(computer.id());
            if (computer.enabled() && known == null) {
                read.add(computer.id());
            } else if (computer.enabled()) {
                devices.add(new Device(computer.id(), computer.name(), computer.ou(),
                        SignIns.peopleOf(computer.people(), context.get(SignIns.PART).get(computer.id())), known.facts(), known.software(),
                        known.present()));
            }
        }
        devices.addAll(records.devices(read));
        return devices;
    }

    /** @param enabledIn the ids of those that list a device which is enabled again: it is back in them */
    private List<Group> groups(Differences<GroupEntry> groups, Set<String> enabledIn, List<Device> devices) {
        Set<String> put = ids(groups.put());
        put.addAll(enabledIn);
        Set<String> known = new HashSet<>();
        devices.forEach(device -> known.add(device.id()));
        put.removeAll(ids(groups.gone()));
        return records.groups(put, member -> member.kind() != Target.Kind.DEVICE || known.contains(member.id())
                || before.devices().find(member.id()) != null ? member : null);
    }
}
