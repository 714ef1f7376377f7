package rivo.core.estate;

import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * The devices <b>in OU order</b>: first by the position of their OU in preorder, then by id. So the devices of an OU
 * with all that is below it are one run of positions, and an OU target is a range. A device outside every OU stands
 * with the root's own.
 *
 * <p>Immutable. Looking a device up by id or position is one step. Replacing one device copies the table of
 * references (8 bytes a device) and shares everything else.
 */
public final class Devices {

    private final OuTree ous;
    private final Device[] inOuOrder;
    private final Map<String, Integer> positions;
    /** For each OU position, the first device of that OU or of a later one; one entry more than OUs. */
    private final int[] firstOf;

    private Devices(OuTree ous, Device[] inOuOrder, Map<String, Integer> positions, int[] firstOf) {
        this.ous = ous;
        this.inOuOrder = inOuOrder;
        this.positions = positions;
        this.firstOf = firstOf;
    }

    static Devices of(OuTree ous, Collection<Device> devices) {
        Device[] sorted = devices.toArray(new Device[0]);
        Arrays.sort(sorted, Comparator.<Device>comparingInt(d -> ous.position(d.ou())).thenComparing(Device::id));
        Map<String, Integer> positions = new HashMap<>(sorted.length * 2);
        int[] firstOf = new int[ous.size() + 1];
        int next = 0;
        for (int p = 0; p < sorted.length; p++) {
            positions.put(sorted[p].id(), p);
            while (next <= ous.position(sorted[p].ou())) {
                firstOf[next++] = p;
            }
        }
        Arrays.fill(firstOf, next, firstOf.length, sorted.length);
        return new Devices(ous, sorted, positions, firstOf);
    }

    public int size() {
        return inOuOrder.length;
    }

    /** @throws IndexOutOfBoundsException when there is no such position */
    public Device at(int position) {
        return inOuOrder[position];
    }

    public @Nullable Device find(String id) {
        Integer position = positions.get(id);
        return position == null ? null : inOuOrder[position];
    }

    /** @throws IllegalArgumentException when there is no such device */
    public int position(String id) {
        Integer position = positions.get(id);
        if (position == null) {
            throw new IllegalArgumentException("no device " + id);
        }
        return position;
    }

    /** All devices, in OU order. */
    public List<Device> all() {
        return List.of(inOuOrder);
    }

    /** The first position of the devices in this OU or below it. */
    public int from(int ouPosition) {
        return firstOf[ouPosition];
    }

    /** The position after the last of the devices in this OU or below it. */
    public int to(int ouPosition) {
        return firstOf[ous.end(ouPosition)];
    }

    /** The position after the last of the devices in this OU itself, which start at {@link #from}. */
    public int ownTo(int ouPosition) {
        return firstOf[ouPosition + 1];
    }

    /** The same devices with one of them replaced by its newer self, which is in the same OU. */
    Devices with(Device newer) {
        int position = position(newer.id());
        if (!Objects.equals(inOuOrder[position].ou(), newer.ou())) {
            throw new IllegalArgumentException("a device that moves changes the order: lay the devices out anew");
        }
        Device[] copy = inOuOrder.clone();
        copy[position] = newer;
        return new Devices(ous, copy, positions, firstOf);
    }

    /** Whether every position means the same device in both. */
    public boolean sameOrderAs(Devices other) {
        return positions == other.positions || positions.equals(other.positions);
    }
}
