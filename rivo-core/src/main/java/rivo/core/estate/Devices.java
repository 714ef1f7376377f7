package rivo.core.estate;

import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The devices, in OU order (see {@link OuOrder}): the devices of an OU and below are one run of positions. Immutable. */
public final class Devices {

    private static final OuOrder.Kind<Device> KIND = new OuOrder.Kind<>(Device::id, Device::ou);

    private final OuOrder<Device> order;

    private Devices(OuOrder<Device> order) {
        this.order = order;
    }

    /** @param index of the ids of all of them */
    static Devices of(OuTree ous, Collection<Device> devices, IdIndex index) {
        return new Devices(OuOrder.of(ous, devices.toArray(new Device[0]), index, KIND));
    }

    static IdIndex index(Collection<Device> devices) {
        return IdIndex.of(devices, Device::id);
    }

    /** Where their ids are found: the numbers stay theirs wherever they move. */
    IdIndex index() {
        return order.slots();
    }

    public int size() {
        return order.size();
    }

    /** @throws IndexOutOfBoundsException when there is no such position */
    public Device at(int position) {
        return order.at(position);
    }

    public @Nullable Device find(String id) {
        int position = order.find(id);
        return position < 0 ? null : order.at(position);
    }

    /** The position of a device, or -1 when there is none of this id. */
    public int positionOf(String id) {
        return order.find(id);
    }

    /** The position of the device that has this number in {@link #index}; -1 where there is no such any more. */
    int ofNumber(int number) {
        return order.ofSlot(number);
    }

    /** @throws IllegalArgumentException when there is no such device */
    public int position(String id) {
        int position = order.find(id);
        if (position < 0) {
            throw new IllegalArgumentException("no device " + id);
        }
        return position;
    }

    /** All devices, in OU order. */
    public List<Device> all() {
        return order.all();
    }

    /** The first position of the devices in this OU or below it. */
    public int from(int ouPosition) {
        return order.from(ouPosition);
    }

    /** The position after the last of the devices in this OU or below it. */
    public int to(int ouPosition) {
        return order.to(ouPosition);
    }

    /** The position after the last of the devices in this OU itself, which start at {@link #from}. */
    public int ownTo(int ouPosition) {
        return order.ownTo(ouPosition);
    }

    /** The same devices with some known ones replaced by their newer selves, wherever these stand. */
    Devices with(Collection<Device> newer) {
        return new Devices(order.with(newer));
    }

    /** The same devices where other OUs put them, of which none that a device is in is missing. */
    Devices under(OuTree ous) {
        return new Devices(order.under(ous));
    }

    /** Whether every position means the same device in both. */
    public boolean sameOrderAs(Devices other) {
        return order.samePositionsAs(other.order);
    }

    /** Whether every position means the same device in both, in the same OU of the very same tree. */
    public boolean standAs(Devices other) {
        return order.sameOusAs(other.order) && order.samePositionsAs(other.order);
    }

    /**
     * The positions, ascending, of those that are another object than in older devices of the same order. Costs a comparison
     * of references for each.
     */
    public int[] changedSince(Devices older) {
        return order.differingFrom(older.order);
    }
}
