package rivo.core.estate;

import java.util.Collection;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The people, in OU order (see {@link OuOrder}): the people of an OU and below are one run of positions. Immutable. */
public final class Users {

    private static final OuOrder.Kind<User> KIND = new OuOrder.Kind<>(User::id, User::ou);

    private final OuOrder<User> order;

    private Users(OuOrder<User> order) {
        this.order = order;
    }

    /** @param index of the ids of all of them */
    static Users of(OuTree ous, Collection<User> users, IdIndex index) {
        return new Users(OuOrder.of(ous, users.toArray(new User[0]), index, KIND));
    }

    static IdIndex index(Collection<User> users) {
        return IdIndex.of(users, User::id);
    }

    /** Where their ids are found: the numbers stay theirs wherever they move. */
    IdIndex index() {
        return order.slots();
    }

    public int size() {
        return order.size();
    }

    /** @throws IndexOutOfBoundsException when there is no such position */
    public User at(int position) {
        return order.at(position);
    }

    public @Nullable User find(String id) {
        int position = order.find(id);
        return position < 0 ? null : order.at(position);
    }

    /** The position of a person, or -1 when there is none of this id. */
    public int positionOf(String id) {
        return order.find(id);
    }

    /** The position of the person that has this number in {@link #index}; -1 where there is no such any more. */
    int ofNumber(int number) {
        return order.ofSlot(number);
    }

    /** All people, in OU order. */
    public List<User> all() {
        return order.all();
    }

    /** The first position of the people in this OU or below it. */
    public int from(int ouPosition) {
        return order.from(ouPosition);
    }

    /** The position after the last of the people in this OU or below it. */
    public int to(int ouPosition) {
        return order.to(ouPosition);
    }

    /** How many people are in this OU or below it. */
    public int countIn(int ouPosition) {
        return to(ouPosition) - from(ouPosition);
    }

    /** The same people where other OUs put them, of which none that a person is in is missing. */
    Users under(OuTree ous) {
        return new Users(order.under(ous));
    }

    /** Whether every position means the same person in both. */
    public boolean sameOrderAs(Users other) {
        return order.samePositionsAs(other.order);
    }

    /** Whether every position means the same person in both, in the same OU of the very same tree. */
    public boolean standAs(Users other) {
        return order.sameOusAs(other.order) && order.samePositionsAs(other.order);
    }

    /**
     * The positions, ascending, of those that are another object than in older people of the same order. Costs a comparison
     * of references for each.
     */
    public int[] changedSince(Users older) {
        return order.differingFrom(older.order);
    }
}
