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
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Target;
import rivo.server.TestServer;
import rivo.server.Titles;
import rivo.server.estate.EstateRecords;
import rivo.server.estate.Json;
import rivo.server.estate.WorkingEstate;
import rivo.server.web.ApiException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Random sequences of edits and publications by two administrators, held against the plainest idea of a draft. */
class DraftModelTest {

    private static final int STEPS = 120;
    private static final List<String> INTENTS = List.of("required", "uninstall", "none");

    @TempDir
    private Path data;
    private TestServer server;
    private Drafts drafts;
    private Publishing publishing;

    @BeforeEach
    void start() {
        server = TestServer.start(data).signIn();
        Titles.add(server);
        drafts = server.bean(Drafts.class);
        publishing = server.bean(Publishing.class);
    }

    @AfterEach
    void stop() {
        server.close();
    }

    /** What an OU is told: for the model, and as the server has it. */
    private record Told(String intent, boolean binding) {
    }

    private static final class Model {
        private final Map<String, Told> inForce = new LinkedHashMap<>();
        private final Map<String, Map<String, Told>> drafts = new LinkedHashMap<>();

        Map<String, Told> draft(String who) {
            return drafts.computeIfAbsent(who, w -> new LinkedHashMap<>());
        }

        void put(String who, String ou, Told told) {
            draft(who).remove(ou);
            Told now = inForce.get(ou);
            boolean isSo = told.intent().equals("none") ? now == null : told.equals(now);
            if (!isSo) {
                draft(who).put(ou, told);
            }
        }

        void publish(String who) {
            draft(who).forEach((ou, told) -> {
                if (told.intent().equals("none")) {
                    inForce.remove(ou);
                } else {
                    inForce.put(ou, told);
                }
            });
            draft(who).clear();
        }
    }

    @Test
    void draftsAndWhatIsInForceAreWhatTheModelSays() {
        long seed = System.nanoTime();
        Random random = new Random(seed);
        List<String> ous = List.of("Laboratories", "Microbiology", "Finance", "Billing", "Archive").stream().map(server::ou).toList();
        Model model = new Model();
        long changes = 0;
        for (int step = 0; step < STEPS; step++) {
            String what = "seed " + seed + ", step " + step;
            String who = random.nextBoolean() ? "imara" : "odile";
            String ou = ous.get(random.nextInt(ous.size()));
            switch (random.nextInt(8)) {
                case 0 -> {
                    drafts.remove(who, "title:siltscope", ou);
                    model.draft(who).remove(ou);
                }
                case 1 -> {
                    if (random.nextInt(4) == 0) {
                        drafts.clear(who);
                        model.draft(who).clear();
                    }
                }
                case 2 -> {
                    if (model.draft(who).isEmpty()) {
                        assertThatThrownBy(() -> publishing.publish(who, "as usual", publishing.token(who))).as(what)
                                .isInstanceOf(ApiException.class).hasMessageContaining("empty");
                    } else {
                        assertThat(publishing.publish(who, "step " + step, publishing.token(who)).change()).as(what).isEqualTo(++changes);
                        model.publish(who);
                    }
                }
                case 3 -> aTokenOfAnotherDraftPublishesNothing(who, ou, model, what);
                default -> {
                    Told told = new Told(INTENTS.get(random.nextInt(INTENTS.size())), random.nextBoolean());
                    drafts.put(who, DraftEdit.title("siltscope", ou, told.intent(), told.binding()));
                    model.put(who, ou, told);
                }
            }
            check(model, what);
        }
        assertThat(changes).isPositive();
        List<String> reasons = server.bean(JdbcClient.class).sql("select why from journal where kind = 'published' order by number")
                .query(String.class).list();
        assertThat(reasons).hasSize((int) changes).allMatch(reason -> reason.startsWith("step "));
    }

    /** Looked at, then edited in another tab, then published as it was looked at. */
    private void aTokenOfAnotherDraftPublishesNothing(String who, String ou, Model model, String what) {
        String token = publishing.token(who);
        Told before = model.draft(who).get(ou);
        Told other = before == null || !before.equals(new Told("required", true)) ? new Told("required", true) : new Told("uninstall", false);
        drafts.put(who, DraftEdit.title("siltscope", ou, other.intent(), other.binding()));
        Map<String, Told> drafted = Map.copyOf(model.draft(who));
        model.put(who, ou, other);
        if (!model.draft(who).isEmpty() && !model.draft(who).equals(drafted)) {
            assertThatThrownBy(() -> publishing.publish(who, "as looked at", token)).as(what).isInstanceOf(ApiException.class)
                    .hasMessageContaining("Nothing was published");
        }
    }

    private void check(Model model, String what) {
        for (String who : List.of("imara", "odile")) {
            assertThat(drafts.edits(who).stream().map(e -> e.ou() + " " + e.intent() + " " + (e.binding() && !e.intent().equals("none"))))
                    .as(what).isEqualTo(model.draft(who).entrySet().stream().map(e -> e.getKey() + " " + e.getValue().intent() + " "
                            + (e.getValue().binding() && !e.getValue().intent().equals("none"))).toList());
        }
        Estate now = server.bean(WorkingEstate.class).now();
        assertThat(inForce(now)).as(what).isEqualTo(model.inForce);
        assertThat(inForce(server.bean(EstateRecords.class).read(now.asOf()))).as(what + ", as a restart would read it").isEqualTo(model.inForce);
    }

    private static Map<String, Told> inForce(Estate estate) {
        Map<String, Told> told = new LinkedHashMap<>();
        for (Assignment one : estate.assignments().all()) {
            if (one.state() == AssignmentState.ACTIVE) {
                for (Target target : one.include()) {
                    assertThat(told.put(target.id(), new Told(one.intent().word(), one.binding()))).as("one for each OU").isNull();
                }
            }
        }
        return told;
    }

    /** Nobody stands in the archive: both come to nothing for any device, and are not the same all the same. */
    @Test
    void aTokenIsOfTheEditsThemselvesAndNotOnlyOfWhatTheyComeTo() {
        String archive = server.ou("Archive");
        drafts.put("imara", DraftEdit.title("siltscope", archive, "required", false));
        String token = publishing.token("imara");
        drafts.put("imara", DraftEdit.title("siltscope", archive, "uninstall", false));
        assertThat(publishing.token("imara")).isNotEqualTo(token);
        assertThatThrownBy(() -> publishing.publish("imara", "as looked at", token)).hasMessageContaining("Nothing was published");
        drafts.put("imara", DraftEdit.title("siltscope", archive, "required", false));
        assertThat(publishing.token("imara")).as("the same again").isEqualTo(token);
        drafts.put("imara", DraftEdit.title("siltscope", archive, "required", true));
        assertThat(publishing.token("imara")).isNotEqualTo(token);
    }

    @Test
    void aReasonHasThreeToAThousandCharacters() {
        drafts.put("imara", DraftEdit.title("siltscope", server.ou("Finance"), "required", false));
        for (String reason : List.of("", " ab ", "x".repeat(1001))) {
            assertThatThrownBy(() -> publishing.publish("imara", reason, publishing.token("imara"))).isInstanceOf(RefusedException.class);
        }
        assertThat(publishing.publish("imara", " " + "x".repeat(1000) + " ", publishing.token("imara")).change()).isEqualTo(1);
        drafts.put("imara", DraftEdit.title("siltscope", server.ou("Finance"), "none", false));
        assertThat(publishing.publish("imara", "abc", publishing.token("imara")).change()).isEqualTo(2);
    }

    @Test
    void whatIsPublishedStandsInTheJournalWithBeforeAndAfter() {
        String finance = server.ou("Finance");
        drafts.put("imara", DraftEdit.title("siltscope", finance, "required", false));
        publishing.publish("imara", "first", publishing.token("imara"));
        drafts.put("imara", DraftEdit.title("siltscope", finance, "uninstall", true));
        publishing.publish("imara", "second", publishing.token("imara"));
        Map<String, Object> row = server.bean(JdbcClient.class).sql("select * from journal where why = 'second'").query().singleRow();
        assertThat(row.get("who")).isEqualTo("imara");
        assertThat(row.get("subject")).isEqualTo("change:2");
        JsonNode before = new JsonMapper().readTree(Objects.toString(row.get("before_value")));
        JsonNode after = new JsonMapper().readTree(Objects.toString(row.get("after_value")));
        assertThat(before.findValuesAsString("id")).contains("a1", finance);
        assertThat(after.path("edits")).hasSize(1);
        assertThat(after.path("assignments").valueStream().map(a -> a.path("id").asString() + " " + a.path("state").asString())
                .toList()).containsExactlyInAnyOrder("a1 RETIRED", "a2 ACTIVE");
    }

    @Test
    void aFullDraftTakesNoMore() {
        List<DraftEdit> edits = new ArrayList<>();
        for (int i = 0; i < 499; i++) {
            edits.add(DraftEdit.title("title-" + i, server.ou("Finance"), "required", false));
        }
        server.bean(JdbcClient.class).sql("merge into drafts (who, edits) values ('imara', ?)").params(Json.write(edits)).update();
        drafts.put("imara", DraftEdit.title("siltscope", server.ou("Finance"), "required", false));
        assertThat(drafts.edits("imara")).hasSize(500);
        assertThatThrownBy(() -> drafts.put("imara", DraftEdit.title("siltscope", server.ou("Billing"), "required", false)))
                .isInstanceOf(RefusedException.class).hasMessageContaining("at most 500");
        assertThat(drafts.edits("imara")).hasSize(500);
        drafts.put("imara", DraftEdit.title("siltscope", server.ou("Finance"), "uninstall", false));
        assertThat(drafts.edits("imara")).as("one in place of another").hasSize(500);
    }
}
