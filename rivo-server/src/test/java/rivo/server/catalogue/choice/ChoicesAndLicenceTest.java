package rivo.server.catalogue.choice;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Device;
import rivo.core.estate.Scope;
import rivo.server.TestClient.Answer;
import rivo.server.TestDevice;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.ChoiceKind;
import rivo.server.catalogue.title.ChoiceRecord.Allowed;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.StepKind;
import rivo.server.catalogue.title.TitleRecord.About;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.estate.SnapshotPart;
import rivo.server.estate.SnapshotReader;
import tools.jackson.databind.JsonNode;

/** Choices from their declaration to the device's steps, the licence text, and who holds the seats. */
class ChoicesAndLicenceTest {

    private static final String DEVICE = "QB-LAB-003";

    @TempDir
    private static Path data;
    private static TestServer server;
    private static Catalogue catalogue;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        catalogue = server.bean(Catalogue.class);
    }

    @BeforeEach
    void fill() throws IOException {
        TestTitles.add(server);
        Contents contents = server.bean(Contents.class);
        VariantRecord before = catalogue.now().record("siltscope").releases().get(0).variants().get(0);
        Contents.Content german = contents.keep(new ByteArrayInputStream("German".getBytes(StandardCharsets.UTF_8)), "de.cab");
        Step german2 = new Step(StepKind.RUN, "Put German on", "setup --language {choice:languages}", "", null, null,
                "languages=de", 60, false, "", Map.of(), List.of(), false, null, null, false, "");
        VariantRecord variant = new VariantRecord("all", null, false, List.of(before.contents().get(0), german),
                List.of(Step.run("Run it", "setup --quiet --with {choice:languages}", List.of()), german2), before.remove(),
                List.of(), before.presence());
        ChoiceRecord languages = new ChoiceRecord("languages", "Languages", ChoiceKind.LANGUAGES, "en", List.of(
                new Allowed("en", "English", "", 0, ""), new Allowed("de", "German", "LANG_DE", 0, "de.cab")), null, null);
        catalogue.put("test", catalogue.now().record("siltscope").withReleases(List.of(new ReleaseRecord("4.2.0", true, "", List.of(),
                List.of(), List.of(languages), List.of(variant)))));
    }

    @AfterEach
    void clear() {
        server.ask("DELETE", "/api/draft", null);
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static Answer draft(String ou, String intent, Map<String, String> choices) {
        return server.ask("PUT", "/api/draft/edits", Map.of("subject", "title:siltscope", "ou", server.ou(ou), "intent", intent,
                "binding", false, "choices", choices));
    }

    private static Answer publish() {
        JsonNode draft = server.ask("GET", "/api/draft", null).body();
        return server.ask("POST", "/api/draft/publication", Map.of("reason", "a test", "token",
                draft.at("/rehearsal/token").asString()));
    }

    private static List<String> tried() {
        return server.ask("GET", "/api/titles/siltscope/trial?version=4.2.0&variant=all&program=install&device=" + DEVICE, null)
                .body().path("steps").valueStream().map(s -> s.path("command").asString() + " | " + s.path("state").asString()
                        + " | " + s.path("why").asString()).toList();
    }

    private static Answer person(String person, Map<String, String> values) {
        return server.ask("PUT", "/api/titles/siltscope/choices/people/" + person, Map.of("values", values));
    }

    @Test
    void anAssignmentGoesBeforeAPersonAndAPersonBeforeTheUsual() {
        assertThat(tried()).containsExactly("setup --quiet --with en | runs | ",
                "setup --language en | skipped | only with de, chosen is English");
        var estate = server.bean(CurrentSnapshot.class).now().estate();
        String person = estate.devices().find(server.device(DEVICE)).people().get(0);
        assertThat(person(person, Map.of("languages", "de")).status()).isEqualTo(204);
        assertThat(tried()).containsExactly("setup --quiet --with LANG_DE | runs | ", "setup --language LANG_DE | runs | ");

        draft("Hartsmere Laboratory", "required", Map.of("languages", "en,de"));
        assertThat(publish().status()).isEqualTo(200);
        assertThat(tried().get(0)).startsWith("setup --quiet --with en,LANG_DE");
        JsonNode fixed = server.ask("GET", "/api/titles/siltscope/choices", null).body();
        assertThat(fixed.valueStream().map(f -> f.path("kind").asString() + " " + f.at("/values/languages").asString()))
                .containsExactly("assignment en,de", "person de");
        assertThat(fixed.valueStream().map(f -> f.path("name").asString())).first().isEqualTo("Hartsmere Laboratory");
        isWhatARestartWouldRead(FixedChoices.PART);

        assertThat(person(person, Map.of()).status()).isEqualTo(204);
        assertThat(server.ask("GET", "/api/titles/siltscope/choices", null).body()).hasSize(1);
    }

    @Test
    void whatIsNotChosenIsNotCountedToBeFetched() {
        draft("Coldwell Laboratory", "required", Map.of());
        long small = server.ask("GET", "/api/draft", null).body().at("/rehearsal/bytes").asLong();
        draft("Coldwell Laboratory", "required", Map.of("languages", "en,de"));
        JsonNode draft = server.ask("GET", "/api/draft", null).body();
        long devices = draft.at("/rehearsal/gains").asLong();
        assertThat(devices).isPositive();
        assertThat(draft.at("/rehearsal/bytes").asLong() - small).isEqualTo(6 * devices);
    }

    @Test
    void valuesThatMayNotBeChosenAreRefused() {
        assertThat(draft("Laboratories", "required", Map.of("languages", "fr")).body().path("detail").asString())
                .contains("“fr” is not one of the languages");
        assertThat(draft("Laboratories", "required", Map.of("colour", "red")).code()).isEqualTo("unknown-choice");
        assertThat(person("nobody.here", Map.of("languages", "de")).code()).isEqualTo("unknown-person");
        assertThat(person("imara.voss", Map.of("languages", "xx")).status()).isEqualTo(422);
    }

    @Test
    void stepsThatNameChoicesThatThereAreNotAreRefused() {
        TitleRecord title = catalogue.now().record("siltscope");
        VariantRecord variant = title.releases().get(0).variants().get(0);
        TitleRecord without = title.withReleases(List.of(new ReleaseRecord("4.2.0", true, "", List.of(), List.of(), List.of(),
                List.of(variant))));
        Answer answer = server.ask("PUT", "/api/titles/siltscope", Map.of("record", without, "revision",
                catalogue.now().kept("siltscope").revision()));
        assertThat(answer.code()).isEqualTo("unknown-choice");
        assertThat(answer.body().path("detail").asString()).contains("Release 4.2.0 has no choice languages");
    }

    private static void isWhatARestartWouldRead(SnapshotPart<? extends Map<?, ?>> part) {
        Snapshot now = server.bean(CurrentSnapshot.class).now();
        assertThat(now.get(part).isEmpty()).isFalse();
        assertThat((Object) server.bean(SnapshotReader.class).read(now.estate().asOf()).get(part)).isEqualTo(now.get(part));
    }

    private static void licence(String text) {
        TitleRecord title = catalogue.now().record("siltscope");
        About about = title.about();
        catalogue.put("test", new TitleRecord(title.id(), title.name(), title.maker(), new About(about.owner(), about.category(),
                about.description(), "", "", "", "", "", text), "device", title.seats(), List.of(), List.of(), title.releases()));
    }

    @Test
    void aLicenceTextIsAcceptedOnceBeforeAnythingIsAssigned() {
        licence("You may use it in the laboratory.");
        draft("Trunk mains", "required", Map.of());
        JsonNode draft = server.ask("GET", "/api/draft", null).body();
        assertThat(draft.path("trouble").asString()).contains("The licence text of Siltscope Lab has not been accepted");
        assertThat(draft.path("cautions").valueStream().map(c -> c.path("code").asString())).contains("licence-not-accepted");
        assertThat(draft.has("rehearsal")).as("it is rehearsed all the same").isTrue();
        assertThat(publish().code()).isEqualTo("licence-not-accepted");

        assertThat(server.ask("POST", "/api/titles/siltscope/licence", Map.of("text", "another")).code()).isEqualTo("other-text");
        assertThat(server.ask("POST", "/api/titles/siltscope/licence", Map.of("text", "You may use it in the laboratory."))
                .status()).isEqualTo(204);
        assertThat(publish().status()).isEqualTo(200);
        isWhatARestartWouldRead(Licences.PART);
        assertThat(server.bean(JdbcClient.class).sql("select after_value from journal where kind = 'licence-accepted' and subject = 'title:siltscope'")
                .query(String.class).list()).singleElement().asString().contains("You may use it in the laboratory.");

        licence("You may use it everywhere.");
        assertThat(Licences.isMissing(server.bean(CurrentSnapshot.class).now(), catalogue.now().record("siltscope"))).as("another text").isTrue();
        licence("You may use it in the laboratory.");
        assertThat(Licences.isMissing(server.bean(CurrentSnapshot.class).now(), catalogue.now().record("siltscope"))).as("the first again").isFalse();
    }

    @Test
    void whatAnotherTitleNeedsHasToBeAcceptedToo() {
        TestTitles.add(server, "graphkit", "Graphkit runtime");
        TitleRecord graphkit = catalogue.now().record("graphkit");
        catalogue.put("test", new TitleRecord("graphkit", graphkit.name(), graphkit.maker(), new About("", "", "", "", "", "", "", "",
                "Charts for everybody."), "device", null, List.of(), List.of(), graphkit.releases()));
        TestTitles.add(server, "maps", "Maps");
        TitleRecord maps = catalogue.now().record("maps");
        ReleaseRecord first = maps.releases().get(0);
        catalogue.put("test", maps.withReleases(List.of(new ReleaseRecord(first.version(), true, "",
                List.of(new rivo.server.estate.EstateRecords.NeedRecord("graphkit", null)), List.of(), List.of(), first.variants()))));
        server.ask("PUT", "/api/draft/edits", Map.of("subject", "title:maps", "ou", server.ou("Billing"), "intent", "required",
                "binding", false));
        assertThat(server.ask("GET", "/api/draft", null).body().path("trouble").asString())
                .contains("The licence text of Graphkit runtime has not been accepted");
        assertThat(publish().code()).isEqualTo("licence-not-accepted");
    }

    @Test
    void seatsAreHeldInTheOrderOfTheRules() {
        TitleRecord title = catalogue.now().record("siltscope");
        catalogue.put("test", new TitleRecord(title.id(), title.name(), title.maker(), title.about(), "device", 2, List.of(), List.of(),
                title.releases()));
        draft("Pumping", "required", Map.of());
        assertThat(publish().status()).isEqualTo(200);
        JsonNode seats = server.ask("GET", "/api/titles/siltscope/seats", null).body();
        assertThat(seats.path("seats").asInt()).isEqualTo(2);
        assertThat(seats.path("held").asInt() + seats.path("coming").asInt()).isEqualTo(2);
        assertThat(seats.path("waiting").asInt()).isPositive();
        assertThat(seats.path("holders").valueStream().map(h -> h.path("state").asString()).limit(3))
                .containsExactly("coming", "coming", "waiting");
        List<String> names = seats.path("holders").valueStream().skip(2).map(h -> h.path("device").asString()).toList();
        assertThat(names).isSorted();
        assertThat(server.ask("GET", "/api/titles/siltscope/seats?limit=1", null).body().path("holders")).hasSize(1);
    }

    /** Of a title for each person the seat is theirs, and not everybody's who uses the device. */
    @Test
    void aSeatOfATitleForEachPersonIsHeldByThatPerson() {
        TestTitles.add(server, "notes", "Notes", Scope.USER);
        TitleRecord notes = catalogue.now().record("notes");
        catalogue.put("test", new TitleRecord(notes.id(), notes.name(), notes.maker(), notes.about(), "user", 5, List.of(), List.of(), notes.releases()));
        Device used = server.bean(CurrentSnapshot.class).now().estate().devices().all().stream().filter(d -> d.people().size() > 1).findFirst().orElseThrow();
        String first = used.people().get(0);
        assertThat(server.ask("PUT", "/api/draft/documents/assignment/notes", Map.of("revision", 0, "document", Map.of("id", "notes", "seq", 0, "subject",
                "title:notes", "intent", "required", "follows", "device", "include", List.of("device:" + used.id())))).status()).isEqualTo(200);
        assertThat(publish().status()).isEqualTo(200);
        TestDevice.enrolled(server, used.name()).report("{\"number\":1,\"present\":[{\"title\":\"notes\",\"version\":\"4.2.0\",\"person\":\"" + first + "\"}]}");
        JsonNode seats = server.ask("GET", "/api/titles/notes/seats", null).body();
        assertThat(seats.path("held").asInt()).isEqualTo(1);
        assertThat(seats.path("coming").asInt()).isEqualTo(used.people().size() - 1);
        JsonNode holder = seats.at("/holders/0");
        assertThat(holder.path("state").asString()).isEqualTo("held");
        assertThat(holder.path("version").asString()).isEqualTo("4.2.0");
        assertThat(holder.path("people").valueStream().map(JsonNode::asString)).containsExactly(FixedChoices.name(server.bean(CurrentSnapshot.class).now().estate(),
                first));
        assertThat(seats.at("/holders/1").has("version")).isFalse();
    }
}
