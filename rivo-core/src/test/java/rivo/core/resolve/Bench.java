package rivo.core.resolve;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import rivo.core.Estates;
import rivo.core.Rows;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Facts;
import rivo.core.estate.Intent;
import rivo.core.estate.Need;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Replacement;
import rivo.core.estate.Scope;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;

/** One device, {@code d-labs}, and titles written in a few words, for what happens among titles on a unit. */
final class Bench {

    private static final String DEVICE = "d-labs";

    private final Estates estates = Estates.usual();
    private final List<Present> present = new ArrayList<>();
    private int assignments;

    /**
     * A title in words: {@code siltscope@4.2 needs:graphkit>=2.0 replaces:classic conflicts:mudview seats:3 fits:never}.
     * {@code replaces-first} takes off first; {@code withdrawn} offers nothing.
     */
    Bench title(String words) {
        String[] parts = words.split(" ");
        String[] name = parts[0].split("@");
        List<Need> needs = new ArrayList<>();
        List<Replacement> replaces = new ArrayList<>();
        List<String> conflicts = new ArrayList<>();
        Integer seats = null;
        String fits = null;
        ReleaseState state = ReleaseState.OFFERED;
        for (int i = 1; i < parts.length; i++) {
            String[] said = parts[i].split(":");
            switch (said[0]) {
                case "needs" -> {
                    String[] need = said[1].split(">=");
                    needs.add(new Need(need[0], need.length == 1 ? null : Version.of(need[1])));
                }
                case "replaces" -> replaces.add(new Replacement(said[1], Replacement.Mode.IN_PLACE));
                case "replaces-first" -> replaces.add(new Replacement(said[1], Replacement.Mode.REMOVE_FIRST));
                case "conflicts" -> conflicts.add(said[1]);
                case "seats" -> seats = Integer.valueOf(said[1]);
                case "fits" -> fits = "x." + said[1] + " pr";
                case "withdrawn" -> state = ReleaseState.WITHDRAWN;
                default -> throw new IllegalArgumentException(parts[i]);
            }
        }
        estates.title(new Title(name[0], name[0], Scope.DEVICE, seats, conflicts, List.of(new Release(
                Version.of(name.length == 1 ? "1.0" : name[1]), state, needs, replaces, List.of(new Variant("all", fits))))));
        return this;
    }

    Bench titles(String... words) {
        for (String title : words) {
            title(title);
        }
        return this;
    }

    /** An assignment to the device's OU; the next seq. */
    Bench far(Intent intent, String title) {
        return assign(next(intent, title, Target.ou("labs")));
    }

    /** An assignment that names the device; the next seq. */
    Bench near(Intent intent, String title) {
        return assign(next(intent, title, Target.device(DEVICE)));
    }

    Assignment next(Intent intent, String title, Target target) {
        assignments++;
        return Assignment.of("a" + assignments, assignments, Subject.title(title), intent, List.of(target));
    }

    Bench assign(Assignment assignment) {
        estates.assignment(assignment);
        return this;
    }

    /** The title is there: {@code siltscope@4.2}, {@code siltscope} in an unknown version, {@code siltscope@4.2 by:a1}. */
    Bench there(String words) {
        String[] parts = words.split(" by:");
        String[] name = parts[0].split("@");
        present.add(new Present(name[0], name.length == 1 ? null : Version.of(name[1]), null, parts.length == 1 ? null : parts[1]));
        return this;
    }

    /** What comes out of each title there: {@code required assigned}, {@code blocked needs-newer by graphkit}. */
    Map<String, String> outcomes() {
        estates.device(new Device(DEVICE, DEVICE, "labs", List.of(), Facts.NONE, List.of(), present));
        Resolver resolver = estates.resolver();
        Map<String, String> outcomes = new TreeMap<>();
        Rows.byTitle(resolver).forEach((key, row) -> {
            String[] unit = key.split("\\|");
            String[] said = row.split(",", -1);
            if (unit[0].equals(DEVICE)) {
                outcomes.put(unit[2], (said[0] + " " + said[4] + (said[5].isEmpty() ? "" : " by " + said[5])).strip().replace("  ", " "));
            }
        });
        Map<String, String> alone = new TreeMap<>();
        Rows.byDevice(resolver).forEach((key, row) -> alone.put(key, row));
        if (!alone.equals(new TreeMap<>(Rows.byTitle(resolver)))) {
            throw new AssertionError("title by title " + Rows.byTitle(resolver) + ", device by device " + alone);
        }
        return outcomes;
    }

    String outcome(String title) {
        return outcomes().getOrDefault(title, "nothing");
    }
}
