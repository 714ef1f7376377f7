package rivo.core.state;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.core.plan.Action;
import rivo.core.resolve.Choice;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;

/** Every combination of what the state of a unit hangs on, against tables that say what comes of it: the first line that fits counts. */
class UnitStateTest {

    private static final Version WANTED = Version.of("2.0");
    private static final List<String> COLUMNS = List.of("outcome", "there", "seen", "back", "asked", "job", "needs", "rest", "contact", "person", "opening");

    /** What the device has to bring about. */
    private static final String DOES = """
            outcome     there              back  job                          | does
            *           unknown,old,wanted yes   *                            | remove
            uninstall   *                  *     *                            | remove
            required    *                  *     *                            | install
            replaced,displaced unknown,old,wanted * remove-running,remove-done,remove-failed,remove-wait,remove-wait-window,remove-wait-sign_in,remove-wait-restart | remove
            *           *                  *     *                            | nothing
            """;

    private static final String STATES = """
            does    outcome    there       seen asked job                   needs rest   contact     person   opening  | state
            nothing none       *           *    *     *                     *     *      *           *        *        | nothing
            nothing contested  *           *    *     *                     *     *      *           *        *        | contested
            nothing unfit      *           *    *     *                     *     *      *           *        *        | unfit
            nothing blocked    *           *    *     *                     *     *      *           *        *        | blocked
            nothing replaced   *           *    *     *                     *     *      *           *        *        | replaced
            nothing displaced  *           *    *     *                     *     *      *           *        *        | kept-off
            nothing later      *           *    *     *                     *     *      *           *        *        | waits-wave
            nothing waiting    *           *    *     *                     *     *      *           *        *        | waits-seat
            nothing available  *           *    yes   *                     *     *      *           *        *        | waits-approval
            nothing available  nothing     *    no    *                     *     *      *           *        *        | offered
            nothing available  *           *    no    *                     *     *      *           *        *        | in-place
            remove  *          nothing     *    *     *                     *     *      *           *        *        | gone
            install *          wanted      *    *     install-wait-restart  *     *      *           *        *        | after-restart
            install *          wanted      *    *     install-wait-sign_out *     *      *           *        *        | after-sign-in
            install *          wanted      *    *     *                     *     failed *           *        *        | failed
            install *          wanted      *    *     *                     *     ahead  *           *        *        | after-sign-in
            install *          wanted      *    *     *                     *     none   *           *        *        | in-place
            install *          *           no   *     install-done          *     failed *           *        *        | failed
            install *          *           no   *     install-done          *     ahead  *           *        *        | after-sign-in
            install *          *           no   *     install-done          *     none   *           *        *        | unverified
            install *          *           *    *     install-failed        *     *      *           *        *        | failed
            remove  *          *           *    *     remove-failed         *     *      *           *        *        | failed
            *       *          *           *    *     *                     *     *      never,away  *        *        | waits-device
            install *          *           *    *     install-running       *     *      *           *        *        | running
            install *          *           *    *     install-fetching      *     *      *           *        *        | fetching
            install *          *           *    *     install-wait-window   *     *      *           *        *        | waits-window
            install *          *           *    *     install-wait-deadline *     *      *           *        *        | waits-deadline
            install *          *           *    *     install-wait-need     *     *      *           *        *        | waits-need
            install *          *           *    *     install-wait-answer   *     *      *           *        *        | waits-answer
            install *          *           *    *     install-wait-sign_in  *     *      *           *        *        | waits-sign-in
            install *          *           *    *     install-wait-content  *     *      *           *        *        | waits-content
            install *          *           *    *     install-wait-try      *     *      *           *        *        | waits-try
            install *          *           *    *     install-wait-restart  *     *      *           *        *        | after-restart
            install *          *           *    *     install-wait-sign_out *     *      *           *        *        | after-sign-in
            install *          *           *    *     install-wait          *     *      *           *        *        | waits-device
            remove  *          *           *    *     remove-running        *     *      *           *        *        | running
            remove  *          *           *    *     remove-wait-window    *     *      *           *        *        | waits-window
            remove  *          *           *    *     remove-wait-sign_in   *     *      *           *        *        | waits-sign-in
            remove  *          *           *    *     remove-wait-restart   *     *      *           *        *        | after-restart
            remove  *          *           *    *     remove-wait           *     *      *           *        *        | waits-device
            *       *          *           *    *     *                     *     *      *           not-told *        | waits-device
            *       *          *           *    *     *                     *     *      *           away     *        | waits-sign-in
            *       *          *           *    *     *                     yes   *      *           *        *        | waits-need
            *       *          *           *    *     *                     *     *      *           *        window   | waits-window
            *       *          *           *    *     *                     *     *      *           *        deadline | waits-deadline
            *       *          *           *    *     *                     *     *      *           *        open     | waits-device
            """;

    @Test
    void everyCombinationIsInTheStateThatTheTableSays() {
        Table does = new Table(DOES);
        Table states = new Table(STATES);
        Map<UnitState, Integer> counts = new EnumMap<>(UnitState.class);
        int[] all = {0};
        eachSituation((words, situation) -> {
            words.put("does", does.of(words));
            UnitState state = UnitState.of(situation);
            if (!state.word().equals(states.of(words))) {
                throw new AssertionError(words + " is " + state.word() + " and not " + states.of(words));
            }
            counts.merge(state, 1, Integer::sum);
            all[0]++;
        });
        assertThat(does.unused()).isEmpty();
        assertThat(states.unused()).isEmpty();
        assertThat(all[0]).isEqualTo(11 * 4 * 26 * 16 * 108);
        assertThat(counts.keySet()).as("each state comes about").isEqualTo(EnumSet.allOf(UnitState.class));
        assertThat(counts.values().stream().mapToInt(Integer::intValue).sum()).isEqualTo(all[0]);
    }

    @Test
    void whatWaitsOrIsHeldIsNeitherFailedNorInPlace() {
        for (UnitState state : UnitState.values()) {
            if (state.word().startsWith("waits") || state.word().startsWith("after")) {
                assertThat(state.group()).isEqualTo(StateGroup.WAITING);
            }
        }
        assertThat(Arrays.stream(UnitState.values()).filter(state -> state.group() == StateGroup.FAILED)).containsExactly(UnitState.FAILED);
        assertThat(Arrays.stream(UnitState.values()).filter(state -> state.group() == StateGroup.IN_PLACE))
                .containsExactly(UnitState.IN_PLACE, UnitState.UNVERIFIED);
    }

    @Test
    void eachStateAndGroupHasAWordOfItsOwn() {
        assertThat(Arrays.stream(UnitState.values()).map(UnitState::word)).doesNotHaveDuplicates().allMatch(word -> word.matches("[a-z-]+"));
        assertThat(Arrays.stream(UnitState.values()).map(UnitState::words)).doesNotHaveDuplicates();
        assertThat(Arrays.stream(StateGroup.values()).map(StateGroup::word)).doesNotHaveDuplicates().contains("under-way", "in-place");
    }

    /** A table whose first line that fits counts. A cell is a star, or words with commas between them. */
    private static final class Table {

        private final List<String> columns;
        private final int[] places;
        private final List<String[]> lines = new ArrayList<>();
        /** The words that each cell allows; null for all. */
        private final List<List<@Nullable Set<String>>> cells = new ArrayList<>();
        private final Set<Integer> used = new TreeSet<>();

        Table(String text) {
            List<String> all = text.lines().toList();
            columns = List.of(all.get(0).replace("|", "").strip().split("\\s+"));
            all.stream().skip(1).forEach(line -> lines.add(line.replace("|", "").strip().split("\\s+")));
            places = columns.subList(0, columns.size() - 1).stream().mapToInt(Words::index).toArray();
            for (String[] line : lines) {
                assertThat(line).as("%s", Arrays.toString(line)).hasSize(columns.size());
                cells.add(Arrays.stream(line).limit(places.length).map(cell -> "*".equals(cell) ? null : Set.of(cell.split(","))).toList());
            }
        }

        String of(Words words) {
            for (int i = 0; i < lines.size(); i++) {
                if (fits(cells.get(i), words)) {
                    used.add(i);
                    return lines.get(i)[columns.size() - 1];
                }
            }
            throw new AssertionError("no line is for " + words);
        }

        private boolean fits(List<@Nullable Set<String>> line, Words words) {
            for (int c = 0; c < places.length; c++) {
                Set<String> allowed = line.get(c);
                if (allowed != null && !allowed.contains(words.words[places[c]])) {
                    return false;
                }
            }
            return true;
        }

        List<String> unused() {
            List<String> unused = new ArrayList<>();
            for (int i = 0; i < lines.size(); i++) {
                if (!used.contains(i)) {
                    unused.add(Arrays.toString(lines.get(i)));
                }
            }
            return unused;
        }
    }

    /** A situation as the tables name it. */
    private static final class Words {
        private final String[] words = new String[COLUMNS.size() + 1];

        void put(String column, String word) {
            words[index(column)] = word;
        }

        private static int index(String column) {
            return column.equals("does") ? COLUMNS.size() : COLUMNS.indexOf(column);
        }

        @Override
        public String toString() {
            return Arrays.toString(words);
        }
    }

    private static void eachSituation(BiConsumer<Words, Situation> taker) {
        Words words = new Words();
        for (Decision decision : decisions()) {
            words.put("outcome", decision == null ? "none" : decision.outcome().word());
            for (String there : List.of("nothing", "unknown", "old", "wanted")) {
                words.put("there", there);
                for (JobReport job : jobs()) {
                    words.put("job", word(job));
                    for (int flags = 0; flags < 16; flags++) {
                        int bits = flags;
                        words.put("seen", yes(bits, 1));
                        words.put("back", yes(bits, 2));
                        words.put("asked", yes(bits, 4));
                        words.put("needs", yes(bits, 8));
                        eachPlace(words, (rest, contact, person, opening) -> taker.accept(words, new Situation(decision, present(there), has(bits, 1), has(bits, 2),
                                has(bits, 4), job, has(bits, 8), rest, contact, person, opening)));
                    }
                }
            }
        }
    }

    private interface PlaceTaker {
        void take(Rest rest, Contact contact, PersonThere person, Opening opening);
    }

    private static void eachPlace(Words words, PlaceTaker taker) {
        for (Rest rest : Rest.values()) {
            words.put("rest", word(rest));
            for (Contact contact : Contact.values()) {
                words.put("contact", word(contact));
                for (PersonThere person : PersonThere.values()) {
                    words.put("person", word(person));
                    for (Opening opening : Opening.values()) {
                        words.put("opening", word(opening).replace("at-", ""));
                        taker.take(rest, contact, person, opening);
                    }
                }
            }
        }
    }

    private static boolean has(int flags, int bit) {
        return (flags & bit) != 0;
    }

    private static String yes(int flags, int bit) {
        return has(flags, bit) ? "yes" : "no";
    }

    private static String word(Enum<?> one) {
        return one.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    private static List<@Nullable Decision> decisions() {
        Variant variant = new Variant("all", null);
        Choice choice = new Choice(Release.of(WANTED, List.of(variant)), variant);
        List<@Nullable Decision> decisions = new ArrayList<>();
        decisions.add(null);
        for (Outcome outcome : Outcome.values()) {
            decisions.add(new Decision(outcome, null, outcome.hasRelease() ? choice : null, List.of(), null));
        }
        return decisions;
    }

    private static @Nullable Present present(String there) {
        return switch (there) {
            case "nothing" -> null;
            case "unknown" -> Present.of("siltscope", null);
            case "old" -> Present.of("siltscope", Version.of("1.9"));
            default -> Present.of("siltscope", Version.of("2.0"));
        };
    }

    private static List<@Nullable JobReport> jobs() {
        List<@Nullable JobReport> jobs = new ArrayList<>();
        jobs.add(null);
        for (JobReport.Stage stage : JobReport.Stage.values()) {
            for (String version : new String[] {"2.0", "1.9"}) {
                jobs.add(new JobReport(Action.Kind.INSTALL, version, stage, false, null));
            }
            jobs.add(new JobReport(Action.Kind.REMOVE, null, stage, false, null));
        }
        jobs.add(new JobReport(Action.Kind.INSTALL, "2.0", JobReport.Stage.RUNNING, true, null));
        for (WaitsFor what : WaitsFor.values()) {
            jobs.add(new JobReport(Action.Kind.INSTALL, "2.0", JobReport.Stage.WAITING, false, what));
        }
        for (WaitsFor what : List.of(WaitsFor.WINDOW, WaitsFor.SIGN_IN, WaitsFor.RESTART)) {
            jobs.add(new JobReport(Action.Kind.REMOVE, null, JobReport.Stage.WAITING, false, what));
        }
        return jobs;
    }

    /** One for another version is like none, and named so. */
    private static String word(@Nullable JobReport job) {
        if (job == null || "1.9".equals(job.version())) {
            return "none";
        }
        String kind = word(job.kind());
        return job.fetching() ? kind + "-fetching" : job.stage() == JobReport.Stage.WAITING
                ? kind + "-wait" + (job.waitsFor() == null ? "" : "-" + job.waitsFor().name().toLowerCase(Locale.ROOT))
                : kind + "-" + word(Objects.requireNonNull(job.stage()));
    }
}
