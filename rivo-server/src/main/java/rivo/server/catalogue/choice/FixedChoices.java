package rivo.server.catalogue.choice;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.User;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.audience.Accounts;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.Chosen;
import rivo.server.catalogue.title.Chosen.Fixed;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.ChangeContext;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.Json;
import rivo.server.estate.Rows;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.web.ApiException;
import tools.jackson.core.type.TypeReference;

/**
 * What assignments and people have fixed of the choices of releases. An assignment goes before a person.
 * Safe for any number of threads.
 */
@Component
public class FixedChoices {

    /** What people have fixed: by title, then by the person's id. */
    public static final SnapshotPart<Map<String, Map<String, Map<String, String>>>> PART = new SnapshotPart<>() {
        @Override
        public Map<String, Map<String, Map<String, String>>> read(JdbcClient db) {
            Map<String, Map<String, Map<String, String>>> read = new HashMap<>();
            db.sql("select title, person, choices from person_choices").query(row -> {
                read.computeIfAbsent(row.getString("title"), t -> new HashMap<>()).put(row.getString("person"),
                        Json.read(row.getString("choices"), new TypeReference<Map<String, String>>() {
                        }));
            });
            return Map.copyOf(read);
        }
    };

    private final ChangeWriter writer;
    private final LiveEvents events;
    private final Accounts accounts;

    FixedChoices(ChangeWriter writer, LiveEvents events, Accounts accounts) {
        this.accounts = accounts;
        this.writer = writer;
        this.events = events;
    }

    /** What an assignment fixes; empty for one that fixes nothing or is unknown. */
    public static Map<String, String> of(Snapshot snapshot, String assignment) {
        AssignmentDocument document = snapshot.get(AssignmentDocument.KIND).find(assignment);
        return document == null ? Map.of() : document.delivery().choices();
    }

    /** What people have fixed of a title, by their ids. */
    static Map<String, Map<String, String>> people(Snapshot snapshot, String title) {
        return snapshot.get(PART).getOrDefault(title, Map.of());
    }

    /**
     * What is chosen of a release on a device, or in one person's profile there.
     *
     * @param person the id of that person; empty for the device, for which all its people have a say
     * @param assignment the one that decides there; null when none does
     */
    public static Chosen on(Snapshot snapshot, Device device, String person, String title, ReleaseRecord release, @Nullable Assignment assignment) {
        if (release.choices().isEmpty()) {
            return Chosen.NOTHING;
        }
        List<Fixed> layers = new ArrayList<>();
        if (assignment != null) {
            layers.add(new Fixed("the assignment", of(snapshot, assignment.id())));
        }
        Map<String, Map<String, String>> people = people(snapshot, title);
        for (String one : person.isEmpty() ? device.people() : List.of(person)) {
            Map<String, String> values = people.get(one);
            if (values != null) {
                layers.add(new Fixed(name(snapshot.estate(), one), values));
            }
        }
        return Chosen.of(release, layers);
    }

    public static String name(Estate estate, String person) {
        User user = estate.users().find(person);
        return user == null ? person : user.name();
    }

    /**
     * Fixes what a person gets of a title, in place of what was fixed before; nothing when there are no values.
     *
     * @param person the id or account name
     * @throws ApiException when there is no such person
     * @throws RefusedException when a value may not be chosen
     */
    void fix(String who, String title, String person, Map<String, String> values) {
        writer.take(context -> {
            check(context.get(Titles.PART).record(title), values, "choices");
            User user = user(context.estate(), person);
            Map<String, String> before = people(context.snapshot(), title).get(user.id());
            write(context, who, title, user.id(), values);
            context.journal(who, "choices-fixed", "title:" + title, null, before == null ? null : Map.of(user.id(), before),
                    Map.of(user.id(), values));
            context.becomes(PART, with(context.get(PART), title, user.id(), values));
            context.afterwards(() -> events.changed(Topics.title(title)));
            return user.id();
        });
    }

    /**
     * The choices of a release that people may make for themselves: those that the assignment does not fix.
     *
     * @param assignment the one that decides; null when none does
     */
    public static List<ChoiceRecord> open(Snapshot snapshot, ReleaseRecord release, @Nullable Assignment assignment) {
        Map<String, String> fixed = assignment == null ? Map.of() : of(snapshot, assignment.id());
        return release.choices().stream().filter(choice -> choice.kind().isForPeople() && !fixed.containsKey(choice.id())).toList();
    }

    /**
     * Fixes some of what a person gets of a title, as they choose themselves; what else is fixed for them stays.
     *
     * @param open the choices that they may make
     * @throws RefusedException where one of these is not open to them, or a value may not be chosen
     */
    public static void choose(ChangeContext context, String who, String title, String person, List<ChoiceRecord> open, Map<String, String> values) {
        List<Problem> problems = new ArrayList<>();
        values.forEach((id, value) -> {
            ChoiceRecord choice = open.stream().filter(one -> one.id().equals(id)).findFirst().orElse(null);
            String problem = choice == null || value == null ? "This cannot be chosen here any more. Load the page again." : choice.problem(value);
            if (problem != null) {
                problems.add(new Problem("not-allowed", "choices." + id, problem));
            }
        });
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
        Map<String, String> before = people(context.snapshot(), title).get(person);
        Map<String, String> after = new HashMap<>(before == null ? Map.of() : before);
        after.putAll(values);
        if (!after.equals(before)) {
            write(context, who, title, person, after);
            context.journal(who, "choices-fixed", "title:" + title, null, before == null ? null : Map.of(person, before), Map.of(person, after));
            context.becomes(PART, with(context.get(PART), title, person, after));
        }
    }

    private static Map<String, Map<String, Map<String, String>>> with(Map<String, Map<String, Map<String, String>>> before, String title,
            String person, Map<String, String> values) {
        Map<String, Map<String, Map<String, String>>> next = new HashMap<>(before);
        Map<String, Map<String, String>> people = new HashMap<>(before.getOrDefault(title, Map.of()));
        if (values.isEmpty()) {
            people.remove(person);
        } else {
            people.put(person, Map.copyOf(values));
        }
        next.put(title, Map.copyOf(people));
        if (people.isEmpty()) {
            next.remove(title);
        }
        return Map.copyOf(next);
    }

    private static void write(ChangeContext context, String who, String title, String person, Map<String, String> values) {
        context.db().sql("delete from person_choices where title = ? and person = ?").params(title, person).update();
        if (!values.isEmpty()) {
            context.db().sql("insert into person_choices (title, person, choices, set_by, set_at) values (?, ?, ?, ?, ?)")
                    .params(title, person, Json.write(values), who, Rows.at(context.now())).update();
        }
    }

    private User user(Estate estate, String person) {
        User byId = estate.users().find(person);
        return byId != null ? byId : accounts.find(estate, person).stream().map(id -> estate.users().find(id)).filter(Objects::nonNull).findFirst()
                .orElseThrow(() -> ApiException.notFound("unknown-person", "There is no person " + person
                        + "; type an account name, such as imara.voss."));
    }

    /**
     * Whether these values may be fixed of a title: each by a release of it.
     *
     * @throws RefusedException with every one that no release allows
     */
    public static void check(TitleRecord title, Map<String, String> values, String at) {
        List<Problem> problems = new ArrayList<>();
        for (Map.Entry<String, String> value : new LinkedHashMap<>(values).entrySet()) {
            List<String> refusals = title.releases().stream().flatMap(r -> r.choices().stream())
                    .filter(c -> c.id().equals(value.getKey())).map(c -> c.problem(Objects.requireNonNull(value.getValue())))
                    .map(p -> p == null ? "" : p).toList();
            if (refusals.isEmpty()) {
                problems.add(new Problem("unknown-choice", at + "." + value.getKey(), title.name() + " has no choice "
                        + value.getKey() + "; take it out."));
            } else if (!refusals.contains("")) {
                problems.add(new Problem("not-allowed", at + "." + value.getKey(), refusals.get(refusals.size() - 1)));
            }
        }
        if (!problems.isEmpty()) {
            throw new RefusedException(problems);
        }
    }
}
