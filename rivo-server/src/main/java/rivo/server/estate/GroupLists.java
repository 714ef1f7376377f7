package rivo.server.estate;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Target;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * Whom groups list, as the rows of {@code group_lists} hold it: a JSON list in UTF-8 of targets in order, up to a thousand of them to a row. All
 * of it is read at every start and whenever the directory is compared.
 *
 * @param <M> what is made of a member
 */
public final class GroupLists<M> {

    public static final String INSERT = "insert into group_lists (group_id, part, members) values (?, ?, ?)";
    public static final String DELETE = "delete from group_lists where group_id = ?";
    static final String SELECT = "select group_id, part, members from group_lists where true";
    private static final int TO_A_ROW = 1000;

    /** What is made of a member, for all groups that list it; null where it is left out. */
    private static final class Listed<M> {

        private final @Nullable M made;
        /** For which group it was last come to, as {@link #times} counts. */
        private int lastTime;

        Listed(@Nullable M made) {
            this.made = made;
        }
    }

    private final Map<String, TreeMap<Integer, List<Listed<M>>>> parts = new HashMap<>();
    private final Function<Target, @Nullable M> make;
    /** By what is written: millions of entries are of some hundred thousand members. */
    private final Map<String, Listed<M>> members = new HashMap<>();
    private int times;

    /** @param make null where a member is left out; asked once for each member, however many groups list it */
    GroupLists(Function<Target, @Nullable M> make) {
        this.make = make;
    }

    /** What {@link #INSERT} takes for a group, row by row. */
    public static List<Object[]> rows(String group, List<Target> members) {
        List<Object[]> rows = new ArrayList<>();
        for (int from = 0; from < members.size(); from += TO_A_ROW) {
            List<String> part = members.subList(from, Math.min(members.size(), from + TO_A_ROW)).stream().map(Target::toString).toList();
            rows.add(new Object[] {group, from / TO_A_ROW, Json.bytes(part)});
        }
        return rows;
    }

    /** Takes a row of {@link #SELECT}, in whatever order they come. */
    void add(ResultSet row) throws SQLException {
        List<Listed<M>> part = new ArrayList<>();
        try (JsonParser parser = Json.parser(row.getBytes(3))) {
            parser.nextToken();
            while (parser.nextToken() == JsonToken.VALUE_STRING) {
                Listed<M> member = members.computeIfAbsent(parser.getString(), written -> new Listed<>(make.apply(target(written))));
                if (member.made != null) {
                    part.add(member);
                }
            }
        }
        parts.computeIfAbsent(row.getString(1), group -> new TreeMap<>()).put(row.getInt(2), part);
    }

    private static Target target(String written) {
        int colon = written.indexOf(':');
        String id = written.substring(colon + 1);
        return switch (written.substring(0, colon)) {
            case "user" -> Target.user(id);
            case "group" -> Target.group(id);
            default -> Target.device(id);
        };
    }

    /** The members of a group in order, as often as each is listed. */
    public List<M> of(String group) {
        return of(group, member -> true);
    }

    /** The same, each where it is listed first. Of one thread. */
    public List<M> distinct(String group) {
        times++;
        return of(group, member -> {
            boolean isFirst = member.lastTime != times;
            member.lastTime = times;
            return isFirst;
        });
    }

    private List<M> of(String group, Predicate<Listed<M>> counts) {
        List<M> all = new ArrayList<>();
        for (List<Listed<M>> part : parts.getOrDefault(group, new TreeMap<>()).values()) {
            for (Listed<M> member : part) {
                if (counts.test(member)) {
                    all.add(Objects.requireNonNull(member.made));
                }
            }
        }
        return all;
    }
}
