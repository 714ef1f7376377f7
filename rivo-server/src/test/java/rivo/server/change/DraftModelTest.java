package rivo.server.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Intent;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.server.SnapshotRecords;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Delivery;
import rivo.server.document.DocumentKind;
import rivo.server.document.Kept;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Json;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotReader;
import rivo.server.web.ApiException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Random sequences of edits and publications by two administrators, held against the plainest idea of a draft. */
class DraftModelTest {

    private static final int STEPS = 250;
    private static final List<String> IDS = List.of("w", "x", "y", "z");
    private static final DocumentKind<AssignmentDocument> KIND = AssignmentDocument.KIND;

    @TempDir
    private static Path data;
    private static TestServer server;
    private static Drafts drafts;
    private static Publishing publishing;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        TestTitles.add(server);
        drafts = server.bean(Drafts.class);
        publishing = server.bean(Publishing.class);
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    /** @param content null for one that is to be retired */
    private record Wanted(AssignmentDocument content, long from) {
    }

    private record Published(AssignmentDocument content, long revision) {
    }

    private static final class Model {
        private final Map<String, Published> published = new LinkedHashMap<>();
        /** Each state that the draft has had, so that undoing is going back. */
        private final Map<String, List<Map<String, Wanted>>> states = new LinkedHashMap<>();
        private final Map<String, Integer> at = new LinkedHashMap<>();

        Map<String, Wanted> draft(String who) {
            return states.computeIfAbsent(who, w -> new ArrayList<>(List.of(Map.of()))).get(at.computeIfAbsent(who, w -> 0));
        }

        long revision(String id) {
            return published.containsKey(id) ? published.get(id).revision() : 0;
        }

        /** @param wanted null takes the edit out */
        void step(String who, String id, Wanted wanted) {
            Map<String, Wanted> next = new LinkedHashMap<>(draft(who));
            next.remove(id);
            if (wanted != null) {
                next.put(id, wanted);
            }
            become(who, next);
        }

        void become(String who, Map<String, Wanted> next) {
            draft(who);
            List<Map<String, Wanted>> all = states.get(who);
            all.subList(at.get(who) + 1, all.size()).clear();
            all.add(next);
            at.put(who, all.size() - 1);
        }

        void move(String who, int by) {
            draft(who);
            at.put(who, Math.max(0, Math.min(states.get(who).size() - 1, at.get(who) + by)));
        }

        boolean isHeldUp(String who) {
            return draft(who).entrySet().stream().anyMatch(e -> e.getValue().from() != revision(e.getKey()));
        }

        void publish(String who) {
            draft(who).forEach((id, wanted) -> published.put(id, new Published(wanted.content() != null ? wanted.content()
                    : KIND.retired(published.get(id).content()), revision(id) + 1)));
            states.put(who, new ArrayList<>(List.of(Map.of())));
            at.put(who, 0);
        }
    }

    @Test
    void draftsAndWhatIsInForceAreWhatTheModelSays() {
        long seed = System.nanoTime();
        Random random = new Random(seed);
        List<String> ous = List.of("Laboratories", "Microbiology", "Finance", "Groups").stream().map(server::ou).toList();
        Model model = new Model();
        int changes = 0;
        int heldUp = 0;
        for (int step = 0; step < STEPS; step++) {
            String what = "seed " + seed + ", step " + step;
            String who = random.nextBoolean() ? "imara" : "odile";
            String id = IDS.get(random.nextInt(IDS.size()));
            Wanted mine = model.draft(who).get(id);
            switch (random.nextInt(12)) {
                case 0 -> drop(model, who, id, mine);
                case 1 -> keep(model, who, id, mine);
                case 2 -> {
                    drafts.undo(who);
                    model.move(who, -1);
                }
                case 3 -> {
                    drafts.redo(who);
                    model.move(who, 1);
                }
                case 4 -> clear(model, who, random.nextInt(3) == 0);
                case 5 -> retire(model, who, id, what);
                case 6, 7 -> {
                    heldUp += model.isHeldUp(who) ? 1 : 0;
                    changes += publish(model, who, what) ? 1 : 0;
                }
                default -> put(model, who, id, ous.get(random.nextInt(ous.size())), Intent.values()[random.nextInt(3)], what);
            }
            check(model, what);
        }
        assertThat(changes).isPositive();
        assertThat(heldUp).as("seed " + seed + ": some were changed since").isPositive();
    }

    private static void drop(Model model, String who, String id, Wanted mine) {
        if (mine != null) {
            drafts.drop(who, edit(who, id));
            model.step(who, id, null);
        } else {
            assertThatThrownBy(() -> drafts.drop(who, "e-none")).isInstanceOf(ApiException.class);
        }
    }

    private static void keep(Model model, String who, String id, Wanted mine) {
        if (mine != null) {
            drafts.keep(who, edit(who, id));
            model.step(who, id, new Wanted(mine.content(), model.revision(id)));
        }
    }

    private static void clear(Model model, String who, boolean really) {
        if (really && !model.draft(who).isEmpty()) {
            drafts.clear(who);
            model.become(who, Map.of());
        }
    }

    private static void retire(Model model, String who, String id, String what) {
        if (model.revision(id) == 0) {
            assertThatThrownBy(() -> drafts.retire(who, KIND, id, 0)).as(what).isInstanceOfSatisfying(RefusedException.class,
                    e -> assertThat(e.problems()).extracting(Problem::code).contains("gone"));
            return;
        }
        drafts.retire(who, KIND, id, model.revision(id));
        model.step(who, id, new Wanted(null, model.revision(id)));
    }

    private static void put(Model model, String who, String id, String ou, Intent intent, String what) {
        long seq = model.published.containsKey(id) ? model.published.get(id).content().seq() : 0;
        AssignmentDocument content = AssignmentDocument.of(Assignment.of(id, seq, Subject.title("siltscope"), intent,
                List.of(Target.ou(ou))), Delivery.AS_USUAL);
        long revision = model.revision(id);
        assertThatThrownBy(() -> drafts.put(who, KIND, id, revision + 1, Json.tree(content))).as(what)
                .isInstanceOfSatisfying(RefusedException.class, e -> assertThat(e.problems()).extracting(Problem::code).contains("changed-since"));
        drafts.put(who, KIND, id, revision, Json.tree(content));
        model.step(who, id, new Wanted(content, revision));
    }

    private static boolean publish(Model model, String who, String what) {
        if (model.draft(who).isEmpty()) {
            assertThatThrownBy(() -> publishing.publish(who, "as usual", "x")).as(what).isInstanceOf(ApiException.class)
                    .hasMessageContaining("empty");
            return false;
        }
        if (model.isHeldUp(who)) {
            assertThatThrownBy(() -> publishing.publish(who, "as usual", "x")).as(what).isInstanceOf(RefusedException.class)
                    .hasMessageContaining("Nothing was overwritten");
            return false;
        }
        long seq = now().estate().assignments().nextSeq();
        publishing.publish(who, "a step", publishing.token(who));
        for (Map.Entry<String, Wanted> one : model.draft(who).entrySet()) {
            AssignmentDocument content = one.getValue().content();
            if (content != null) {
                Published known = model.published.get(one.getKey());
                one.setValue(new Wanted(content.numbered(known == null ? seq++ : known.content().seq()), one.getValue().from()));
            }
        }
        model.publish(who);
        return true;
    }

    private static String edit(String who, String document) {
        return Drafts.of(now(), who).edits().stream().filter(e -> e.document().equals(document)).map(Edit::id).findFirst().orElseThrow();
    }

    private static Snapshot now() {
        return server.bean(CurrentSnapshot.class).now();
    }

    private static void check(Model model, String what) {
        for (String who : List.of("imara", "odile")) {
            assertThat(Drafts.of(now(), who).edits().stream().map(e -> e.document() + " " + e.revision() + " " + e.content())).as(what)
                    .isEqualTo(model.draft(who).entrySet().stream().map(e -> e.getKey() + " " + e.getValue().from() + " "
                            + (e.getValue().content() == null ? null : Json.tree(e.getValue().content()))).toList());
        }
        Map<String, Published> published = new LinkedHashMap<>();
        for (Kept<AssignmentDocument> kept : now().get(KIND).kept()) {
            if (IDS.contains(kept.document().id())) {
                published.put(kept.document().id(), new Published(kept.document(), kept.revision()));
            }
            assertThat(now().estate().assignments().find(kept.document().id())).as(what).isEqualTo(kept.document().assignment());
        }
        assertThat(published).as(what).containsExactlyInAnyOrderEntriesOf(model.published);
        Snapshot anew = server.bean(SnapshotReader.class).read(now().estate().asOf());
        for (var part : SnapshotRecords.PARTS) {
            assertThat((Object) now().get(part)).as(what + ": " + part).isEqualTo(anew.get(part));
        }
        assertThat(now().estate().assignments().all()).as(what).containsExactlyInAnyOrderElementsOf(anew.estate().assignments().all());
    }

    private static String archive(String who, String intent, boolean binding) {
        drafts.put(who, OuAssignment.title("siltscope", server.ou("Archive"), intent, binding));
        return publishing.token(who);
    }

    /** Nobody stands in the archive: both come to nothing for any device, and are not the same all the same. */
    @Test
    void aTokenIsOfTheEditsThemselvesAndNotOnlyOfWhatTheyComeTo() {
        String token = archive("tamsin", "required", false);
        assertThat(archive("tamsin", "uninstall", false)).isNotEqualTo(token);
        assertThatThrownBy(() -> publishing.publish("tamsin", "as looked at", token)).hasMessageContaining("Nothing was published");
        assertThat(archive("tamsin", "required", false)).as("the same again").isEqualTo(token);
        assertThat(archive("tamsin", "required", true)).isNotEqualTo(token);
        drafts.clear("tamsin");
    }

    @Test
    void aReasonHasThreeToAThousandCharacters() {
        String token = archive("rhona", "required", false);
        for (String reason : List.of("", " ab ", "x".repeat(1001))) {
            assertThatThrownBy(() -> publishing.publish("rhona", reason, token)).isInstanceOf(RefusedException.class);
        }
        long change = publishing.publish("rhona", " " + "x".repeat(1000) + " ", token).change();
        assertThat(publishing.publish("rhona", "abc", archive("rhona", "none", false)).change()).isEqualTo(change + 1);
    }

    @Test
    void whatIsPublishedStandsInTheJournalWithBeforeAndAfter() {
        publishing.publish("brenna", "first", archive("brenna", "required", false));
        publishing.publish("brenna", "second", archive("brenna", "uninstall", true));
        Map<String, Object> row = server.bean(JdbcClient.class).sql("select * from journal where why = 'second'").query().singleRow();
        assertThat(row.get("who")).isEqualTo("brenna");
        assertThat(Objects.toString(row.get("subject"))).startsWith("change:");
        JsonNode before = new JsonMapper().readTree(Objects.toString(row.get("before_value")));
        JsonNode after = new JsonMapper().readTree(Objects.toString(row.get("after_value")));
        assertThat(before.properties().stream().map(p -> p.getKey().substring(p.getKey().lastIndexOf('/')) + " " + p.getValue()))
                .as("the difference, and nothing else").contains("/intent \"required\"");
        assertThat(after.properties().stream().map(p -> p.getKey().substring(p.getKey().lastIndexOf('/')) + " " + p.getValue()))
                .containsExactlyInAnyOrder("/intent \"uninstall\"", "/binding true");
        publishing.publish("brenna", "third", archive("brenna", "none", false));
        assertThat(now().estate().assignments().of("siltscope")).filteredOn(a -> a.include().contains(Target.ou(server.ou("Archive"))))
                .extracting(Assignment::state).contains(AssignmentState.RETIRED);
    }

    @Test
    void aFullDraftTakesNoMore() {
        List<Edit> edits = new ArrayList<>();
        for (int i = 0; i < 499; i++) {
            edits.add(new Edit("e-" + i, Act.RETIRE, KIND.word(), "d-" + i, 1, null));
        }
        server.bean(rivo.server.estate.ChangeWriter.class).take(context -> {
            Drafts.become(context, "full", Draft.EMPTY.with(edits));
            return 1;
        });
        drafts.put("full", OuAssignment.title("siltscope", server.ou("Finance"), "required", true));
        assertThat(drafts.size("full")).isEqualTo(500);
        assertThatThrownBy(() -> drafts.put("full", OuAssignment.title("siltscope", server.ou("Billing"), "required", false)))
                .isInstanceOf(RefusedException.class).hasMessageContaining("at most 500");
        assertThat(drafts.size("full")).isEqualTo(500);
        drafts.put("full", OuAssignment.title("siltscope", server.ou("Finance"), "uninstall", true));
        assertThat(drafts.size("full")).as("one in place of another").isEqualTo(500);
        drafts.clear("full");
    }

    @Test
    void manyStepsGrowTogetherAndNothingThatCountsIsLost() {
        for (int i = 0; i < Draft.MOST_STEPS + 5; i++) {
            drafts.put("busy", OuAssignment.title("siltscope", server.ou(i % 2 == 0 ? "Hartsmere Laboratory" : "Coldwell Laboratory"), i % 4 < 2 ? "required" : "uninstall",
                    true));
        }
        Draft draft = Drafts.of(now(), "busy");
        assertThat(draft.edits()).hasSize(2);
        assertThat(draft.steps().size()).isBetween(Draft.MOST_STEPS / 2, Draft.MOST_STEPS);
        drafts.clear("busy");
    }
}
