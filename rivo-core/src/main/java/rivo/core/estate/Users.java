package rivo.core.estate;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The people, by id, and how many of them each OU holds. Immutable. */
public final class Users {

    private final Map<String, User> byId;
    private final int[] inOrBelow;

    private Users(Map<String, User> byId, int[] inOrBelow) {
        this.byId = byId;
        this.inOrBelow = inOrBelow;
    }

    static Users of(OuTree ous, Collection<User> users) {
        Map<String, User> byId = new HashMap<>(users.size() * 2);
        int[] inOrBelow = new int[ous.size()];
        for (User user : users) {
            byId.put(user.id(), user);
            for (int p = ous.position(user.ou()); p >= 0; p = ous.parent(p)) {
                inOrBelow[p]++;
            }
        }
        return new Users(byId, inOrBelow);
    }

    public int size() {
        return byId.size();
    }

    public @Nullable User find(String id) {
        return byId.get(id);
    }

    /** How many people are in this OU or below it. */
    public int countIn(int ouPosition) {
        return inOrBelow[ouPosition];
    }
}
