package rivo.core.audience;

import java.util.Arrays;
import java.util.List;
import rivo.core.estate.CodePointOrder;
import rivo.core.estate.Device;
import rivo.core.estate.Devices;
import rivo.core.estate.Users;

/**
 * The units of titles of scope user (section 2): one for each device and each of its people, laid out by the position of
 * the device and then by the person's id, so that the units of a run of devices are a run. Immutable.
 */
public final class PersonUnits {

    /** For each device its first unit; one entry more than devices. */
    private final int[] firstOfDevice;
    private final int[] deviceOf;
    private final int[] userOf;
    /** For each person where their units begin in {@link #unitsByUser}; one entry more than people. */
    private final int[] firstOfUser;
    private final int[] unitsByUser;

    private PersonUnits(int[] firstOfDevice, int[] userOf, int users) {
        this.firstOfDevice = firstOfDevice;
        this.userOf = userOf;
        deviceOf = new int[userOf.length];
        firstOfUser = new int[users + 1];
        for (int d = 0; d + 1 < firstOfDevice.length; d++) {
            Arrays.fill(deviceOf, firstOfDevice[d], firstOfDevice[d + 1], d);
        }
        for (int user : userOf) {
            firstOfUser[user + 1]++;
        }
        for (int u = 0; u < users; u++) {
            firstOfUser[u + 1] += firstOfUser[u];
        }
        unitsByUser = new int[userOf.length];
        int[] next = Arrays.copyOf(firstOfUser, users);
        for (int unit = 0; unit < userOf.length; unit++) {
            unitsByUser[next[userOf[unit]]++] = unit;
        }
    }

    static PersonUnits of(Devices devices, Users users) {
        int[] first = firstOfDevice(devices);
        int[] userOf = new int[first[devices.size()]];
        for (int d = 0; d < devices.size(); d++) {
            lay(devices.at(d), users, userOf, first[d]);
        }
        return new PersonUnits(first, userOf, users.size());
    }

    /** Those of a newer estate. Only who has changed is looked up. */
    PersonUnits after(Devices devices, Users users, Moves movedDevices, Moves movedUsers) {
        int[] first = firstOfDevice(devices);
        int[] now = new int[first[devices.size()]];
        for (int d = 0; d + 1 < firstOfDevice.length; d++) {
            int at = movedDevices.to(d);
            if (at >= 0 && !movedDevices.changed().contains(at)) {
                for (int unit = from(d); unit < to(d); unit++) {
                    now[first[at] + unit - from(d)] = movedUsers.to(userOf[unit]);
                }
            }
        }
        movedDevices.changed().forEach(d -> lay(devices.at(d), users, now, first[d]));
        return new PersonUnits(first, now, users.size());
    }

    /** Where each of these units is among those of a newer estate. */
    Moves movesTo(PersonUnits newer, Moves movedDevices, Moves movedUsers) {
        int[] to = new int[size()];
        for (int unit = 0; unit < to.length; unit++) {
            int device = movedDevices.to(deviceOf[unit]);
            int user = movedUsers.to(userOf[unit]);
            to[unit] = device < 0 || user < 0 ? -1 : newer.find(device, user);
        }
        return Moves.of(to, newer.size());
    }

    private static int[] firstOfDevice(Devices devices) {
        int[] first = new int[devices.size() + 1];
        for (int d = 0; d < devices.size(); d++) {
            first[d + 1] = first[d] + devices.at(d).people().size();
        }
        return first;
    }

    private static void lay(Device device, Users users, int[] userOf, int first) {
        int unit = first;
        List<String> people = device.people();
        for (String person : people.size() < 2 ? people : people.stream().sorted(CodePointOrder.INSTANCE).toList()) {
            userOf[unit++] = users.positionOf(person);
        }
    }

    /** Whether every unit is of the same positions in both. */
    boolean sameAs(PersonUnits other) {
        return Arrays.equals(deviceOf, other.deviceOf) && Arrays.equals(userOf, other.userOf);
    }

    public int size() {
        return deviceOf.length;
    }

    public int device(int unit) {
        return deviceOf[unit];
    }

    public int user(int unit) {
        return userOf[unit];
    }

    /** The first unit of this device. */
    public int from(int device) {
        return firstOfDevice[device];
    }

    /** The position after the last unit of this device. */
    public int to(int device) {
        return firstOfDevice[device + 1];
    }

    /** The unit of this person on this device, or -1 when they are not one of its people. */
    public int find(int device, int user) {
        for (int unit = from(device); unit < to(device); unit++) {
            if (userOf[unit] == user) {
                return unit;
            }
        }
        return -1;
    }

    /** All the units of these devices. */
    public Positions ofDevices(Positions devices) {
        if (devices.isEmpty()) {
            return Positions.NONE;
        }
        int from = firstOfDevice[devices.first()];
        int to = firstOfDevice[devices.end()];
        if (devices instanceof RunOfPositions) {
            return Positions.range(from, to);
        }
        BitBuffer words = new BitBuffer(from, to);
        devices.forEach(d -> words.set(firstOfDevice[d], firstOfDevice[d + 1]));
        return words.toPositions();
    }

    /** All the units of these people. */
    public Positions ofUsers(Positions users) {
        BitBuffer words = new BitBuffer(0, size());
        users.forEach(u -> {
            for (int i = firstOfUser[u]; i < firstOfUser[u + 1]; i++) {
                words.add(unitsByUser[i]);
            }
        });
        return words.toPositions();
    }

    /** The devices that have one of these units. */
    public Positions devicesOf(Positions units) {
        if (units.isEmpty()) {
            return Positions.NONE;
        }
        BitBuffer words = new BitBuffer(deviceOf[units.first()], deviceOf[units.end() - 1] + 1);
        units.forEach(u -> words.add(deviceOf[u]));
        return words.toPositions();
    }
}
