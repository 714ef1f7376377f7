package rivo.server.estate;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.springframework.jdbc.core.simple.JdbcClient;

/**
 * Who signs in on one device, as it tells it. Whoever does is one of its people from then on, besides those whom the directory names, until
 * they have not been there for a month. A device that tells it serves titles for people; of one that never has there is nothing here.
 * Immutable.
 */
public record SignIns(List<SignIn> people) {

    /** How many are remembered of one device, so that none can make everybody one of its people. */
    public static final int MOST = 100;

    /** What every device that tells it has told, by its id. */
    public static final SnapshotPart<PMap<String, SignIns>> PART = new SnapshotPart<>() {
        @Override
        public PMap<String, SignIns> read(JdbcClient db) {
            Map<String, SignIns> read = new HashMap<>();
            db.sql("select device, people from sign_ins").query(row -> {
                read.put(row.getString("device"), parse(row.getString("people")));
            });
            return HashTreePMap.from(read);
        }
    };

    /**
     * One person.
     *
     * @param person the id
     * @param now whether they are signed in
     * @param first when they first signed in here
     * @param last when they last signed in or out
     */
    public record SignIn(String person, boolean now, Instant first, Instant last) {
    }

    /** In the order in which they first signed in. */
    public SignIns {
        people = people.stream().sorted(Comparator.comparing(SignIn::first).thenComparing(SignIn::person)).toList();
    }

    /** As the column {@code sign_ins.people} has it. */
    static SignIns parse(String json) {
        return new SignIns(Json.readList(json, SignIn.class));
    }

    private String json() {
        return Json.write(people);
    }

    /** What a device has told once these people, and nobody else, are signed in; null where that is nothing new. */
    public static @Nullable SignIns after(ChangeContext context, String device, List<String> signedIn) {
        SignIns before = context.get(PART).get(device);
        SignIns after = (before == null ? new SignIns(List.of()) : before).with(signedIn, context.now());
        return after.equals(before) ? null : after;
    }

    /** Keeps what these devices have told, by their ids. */
    public static void keep(ChangeContext context, Map<String, SignIns> changed) {
        if (changed.isEmpty()) {
            return;
        }
        List<Object[]> rows = new ArrayList<>();
        PMap<String, SignIns> all = context.get(PART);
        for (Map.Entry<String, SignIns> one : changed.entrySet()) {
            rows.add(new Object[] {one.getKey(), one.getValue().json()});
            all = all.plus(one.getKey(), one.getValue());
        }
        context.batch("merge into sign_ins (device, people) values (?, ?)", rows);
        context.becomes(PART, all);
    }

    /** The same once these people, and nobody else, are signed in; beyond {@link #MOST}, whoever has been away the longest is forgotten. */
    public SignIns with(List<String> signedIn, Instant at) {
        List<SignIn> next = new ArrayList<>();
        for (SignIn one : people) {
            boolean now = signedIn.contains(one.person());
            next.add(now == one.now() ? one : new SignIn(one.person(), now, one.first(), at));
        }
        signedIn.stream().distinct().filter(person -> find(person) == null).forEach(person -> next.add(new SignIn(person, true, at, at)));
        next.sort(Comparator.comparing(SignIn::now).thenComparing(SignIn::last).reversed().thenComparing(SignIn::person));
        return new SignIns(next.subList(0, Math.min(MOST, next.size())));
    }

    /** Without those who have not been there since an instant. */
    public SignIns since(Instant instant) {
        return new SignIns(people.stream().filter(one -> one.now() || !one.last().isBefore(instant)).toList());
    }

    /** Without those who have left the directory. */
    public SignIns without(Set<String> gone) {
        return new SignIns(people.stream().filter(one -> !gone.contains(one.person())).toList());
    }

    public @Nullable SignIn find(String person) {
        return people.stream().filter(one -> one.person().equals(person)).findFirst().orElse(null);
    }

    /** Whether all of these are still among them. */
    public boolean hasAllOf(SignIns others) {
        return others.people.stream().allMatch(one -> find(one.person()) != null);
    }

    public boolean isSignedIn(String person) {
        SignIn found = find(person);
        return found != null && found.now();
    }

    /**
     * A device's people: first those whom the directory names.
     *
     * @param signIns null where it has told nothing
     */
    public static List<String> peopleOf(List<String> named, @Nullable SignIns signIns) {
        if (signIns == null || signIns.people.isEmpty()) {
            return named;
        }
        List<String> all = new ArrayList<>(named);
        signIns.people.stream().map(SignIn::person).filter(person -> !named.contains(person)).forEach(all::add);
        return all;
    }
}
