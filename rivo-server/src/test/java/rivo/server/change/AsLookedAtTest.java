package rivo.server.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.server.ServerTest;
import rivo.server.TestTitles;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.ChoiceKind;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.change.DraftRehearsal.Rehearsed;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;
import tools.jackson.databind.JsonNode;

/** What a draft was seen to do is what it does, or it is not published; and what stands in it is what may stand there. */
class AsLookedAtTest extends ServerTest {

    private static final String ME = "imara.voss";

    @BeforeAll
    static void prepare() {
        TestTitles.add(server);
        ChoiceRecord languages = new ChoiceRecord("languages", "Languages", ChoiceKind.LANGUAGES, "en", List.of(
                new ChoiceRecord.Allowed("en", "English", "", 100, ""), new ChoiceRecord.Allowed("cy", "Welsh", "", 2_000, "")), null, null);
        TitleRecord title = server.bean(Catalogue.class).now().record("siltscope");
        server.bean(Catalogue.class).put("test", title.withReleases(title.releases().stream().map(release -> new ReleaseRecord(release.version(),
                release.offered(), release.note(), release.needs(), release.replaces(), List.of(languages), release.variants())).toList()));
    }

    @AfterEach
    void closeTheDraft() {
        server.bean(Drafts.class).clear(ME);
    }

    private static Snapshot now() {
        return server.bean(CurrentSnapshot.class).now();
    }

    private static OuAssignment require(String ou, Map<String, String> choices) {
        return new OuAssignment("title:siltscope", server.ou(ou), "required", false, choices);
    }

    private static JsonNode draft() {
        return server.ask("GET", "/api/draft", null).body();
    }

    private static void moves(String name, String ou) {
        server.bean(ChangeWriter.class).take(context -> {
            Device device = context.estate().devices().find(server.device(name));
            context.becomes(context.estate().withDevice(new Device(device.id(), device.name(), server.ou(ou), device.people(), device.facts(),
                    device.software(), device.present())));
            return name;
        });
    }

    /** As many devices gain the same of the same assignment, but not the same devices. */
    @Test
    void otherDevicesThanThoseThatWereLookedAtDoNotGetIt() {
        server.bean(Drafts.class).put(ME, require("Microbiology", Map.of()));
        Publishing publishing = server.bean(Publishing.class);
        String looked = publishing.token(ME);
        List<Device> inside = devicesIn("Microbiology");
        List<Device> outside = devicesIn("Coldwell Laboratory");
        int gains = draft().at("/rehearsal/gains").asInt();
        moves(inside.get(0).name(), "Coldwell Laboratory");
        moves(outside.get(0).name(), "Microbiology");
        assertThat(draft().at("/rehearsal/gains").asInt()).isEqualTo(gains).isPositive();
        assertThat(publishing.token(ME)).isNotEqualTo(looked);
        assertThatThrownBy(() -> publishing.publish(ME, "as looked at", looked)).isInstanceOf(ApiException.class)
                .hasMessageContaining("look through it again");
        moves(inside.get(0).name(), "Microbiology");
        moves(outside.get(0).name(), "Coldwell Laboratory");
        assertThat(publishing.token(ME)).as("everybody is back").isEqualTo(looked);
    }

    private static List<Device> devicesIn(String ou) {
        Estate estate = now().estate();
        int position = estate.ous().position(server.ou(ou));
        return estate.devices().all().subList(estate.devices().from(position), estate.devices().to(position));
    }

    @Test
    void aRehearsalHoldsForTheVerySameSnapshotAndEditsOnly() {
        Drafts drafts = server.bean(Drafts.class);
        drafts.put(ME, require("Microbiology", Map.of()));
        Rehearsed rehearsed = server.bean(DraftRehearsal.class).rehearse(now(), ME, Drafts.of(now(), ME).edits());
        assertThat(rehearsed.holdsFor(now(), ME)).isTrue();
        assertThat(rehearsed.holdsFor(now(), "odile.brandt")).as("whose draft is empty").isFalse();
        drafts.put("odile.brandt", require("Archive", Map.of()));
        assertThat(rehearsed.holdsFor(now(), ME)).as("somebody else's draft is nothing to it").isTrue();
        drafts.clear("odile.brandt");
        drafts.put(ME, require("Archive", Map.of()));
        assertThat(rehearsed.holdsFor(now(), ME)).as("another edit").isFalse();
        drafts.undo(ME);
        assertThat(rehearsed.holdsFor(now(), ME)).isTrue();
        server.bean(Catalogue.class).put("test", now().get(Titles.PART).record("siltscope"));
        assertThat(rehearsed.holdsFor(now(), ME)).as("another catalogue").isFalse();
    }

    @Test
    void whatIsFetchedGoesByWhatTheAssignmentFixes() {
        int plain = TestTitles.INSTALLER.length;
        Drafts drafts = server.bean(Drafts.class);
        drafts.put(ME, require("Microbiology", Map.of()));
        int gains = draft().at("/rehearsal/gains").asInt();
        assertThat(draft().at("/rehearsal/bytes").asInt()).as("English, as usual").isEqualTo(gains * (plain + 100));
        drafts.put(ME, require("Microbiology", Map.of("languages", "en,cy")));
        assertThat(draft().at("/rehearsal/bytes").asInt()).isEqualTo(gains * (plain + 2_100));
    }

    @Test
    void anAssignmentFixesOnlyWhatTheTitleLetsItChoose() {
        assertThatThrownBy(() -> server.bean(Drafts.class).put(ME, require("Microbiology", Map.of("languages", "klingon"))))
                .isInstanceOfSatisfying(RefusedException.class, e -> assertThat(e.problems()).extracting(Problem::place)
                        .allSatisfy(place -> assertThat(place).startsWith("choices")));
        assertThat(draft().path("edits").isEmpty()).isTrue();
    }

    @Test
    void aDraftIsUndoneToItsBeginningAndNoFurther() {
        server.bean(Drafts.class).put(ME, require("Microbiology", Map.of()));
        JsonNode draft = draft();
        for (int step = 0; draft.path("mayUndo").asBoolean() && step < 100; step++) {
            draft = server.ask("POST", "/api/draft/undo", null).body();
        }
        assertThat(draft.path("mayUndo").asBoolean()).isFalse();
        assertThat(draft.path("edits").isEmpty()).isTrue();
        assertThat(draft.path("mayRedo").asBoolean()).isTrue();
        assertThat(server.ask("POST", "/api/draft/undo", null).body()).isEqualTo(draft);
    }

    @Test
    void aDraftFromBeforeDraftsHadStepsIsTakenOverOnce() {
        JdbcClient db = server.bean(JdbcClient.class);
        db.sql("insert into earlier_drafts (who, edits) values (?, ?)").params(ME, "[{\"subject\":\"title:siltscope\",\"ou\":\""
                + server.ou("Microbiology") + "\",\"intent\":\"required\",\"binding\":true},{\"subject\":\"title:gone\",\"ou\":\""
                + server.ou("Archive") + "\",\"intent\":\"required\",\"binding\":false}]").update();
        server.bean(EarlierDrafts.class).takeOver();
        assertThat(draft().path("edits").size()).as("what cannot be any more is left out").isEqualTo(1);
        assertThat(draft().at("/edits/0/places/0/intent").asString()).isEqualTo("required");
        assertThat(draft().at("/edits/0/binding").asBoolean()).isTrue();
        server.bean(Drafts.class).clear(ME);
        server.bean(EarlierDrafts.class).takeOver();
        assertThat(draft().path("edits").isEmpty()).as("it is not taken over again").isTrue();
    }

    @Test
    void whatIsEditedIsListedAndFoundByItsId() {
        Drafts drafts = server.bean(Drafts.class);
        Publishing publishing = server.bean(Publishing.class);
        server.ask("PUT", "/api/draft/documents/collection/lab-devices", Map.of("revision", 0, "document", Map.of("id", "lab-devices", "name",
                "Laboratory devices", "rule", "name sw \"QB-LAB\"")));
        server.ask("PUT", "/api/draft/documents/fence/" + server.ou("Archive"), Map.of("revision", 0, "document", Map.of("id", server.ou("Archive"))));
        drafts.put(ME, require("Finance", Map.of()));
        assertThat(draft().path("edits").size()).isEqualTo(3);
        publishing.publish(ME, "to be found", publishing.token(ME));
        for (Map.Entry<String, String> kind : Map.of("assignments", "title:siltscope", "collections", "Laboratory devices", "fences",
                server.ou("Archive")).entrySet()) {
            JsonNode page = server.ask("GET", "/api/" + kind.getKey(), null).body();
            assertThat(page.path("total").asInt()).as(kind.getKey()).isEqualTo(1);
            assertThat(page.toString()).contains(kind.getValue());
            assertThat(server.ask("GET", "/api/" + kind.getKey() + "?offset=1", null).body().toString()).doesNotContain(kind.getValue());
        }
        AssignmentDocument published = now().get(AssignmentDocument.KIND).stream().findFirst().orElseThrow();
        JsonNode one = server.ask("GET", "/api/assignments/" + published.id(), null).body();
        assertThat(one.at("/document/subject").asString()).isEqualTo("title:siltscope");
        assertThat(one.path("revision").asInt()).isEqualTo(1);
        assertThat(server.ask("GET", "/api/collections/lab-devices", null).body().at("/document/name").asString()).isEqualTo("Laboratory devices");
        assertThat(server.ask("GET", "/api/assignments/none-such", null).code()).isEqualTo("unknown-assignment");
        assertThat(server.ask("GET", "/api/collections/none-such", null).status()).isEqualTo(404);
    }
}
