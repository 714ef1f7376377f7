package rivo.server.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import rivo.core.estate.Facts;
import rivo.devices.protocol.Existing;
import rivo.server.TestClient.Answer;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.StepKind;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.EstateRecords.NeedRecord;
import rivo.server.estate.EstateRecords.ReplacementRecord;
import tools.jackson.databind.JsonNode;

/** A title's page, its checks, and changing it. */
class TitlesApiTest {

    private static final String DEVICE = "QB-LAB-003";

    @TempDir
    private static Path data;
    private static TestServer server;
    private static Catalogue catalogue;

    @BeforeAll
    static void start() {
        server = TestServer.start(data).signIn();
        catalogue = server.bean(Catalogue.class);
        server.bean(ChangeWriter.class).take(context -> {
            var device = context.estate().devices().find(server.device(DEVICE));
            context.becomes(context.estate().withDevice(device.withReport(
                    Facts.of(Map.of("arch", "x64", "site", "Hartsmere", "note", "x\" & reboot", "diskFreeGiB", "12")), List.of(), List.of())));
            return device;
        });
    }

    @BeforeEach
    void fill() {
        TestTitles.add(server);
        TestTitles.add(server, "graphkit", "Graphkit runtime");
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static TitleRecord siltscope() {
        return catalogue.now().record("siltscope");
    }

    private static TitleRecord withVariant(VariantRecord variant) {
        return siltscope().withReleases(List.of(ReleaseRecord.of("4.2.0", List.of(variant))));
    }

    private static VariantRecord variant(String fits, List<Step> install, List<Step> remove, Presence presence) {
        return new VariantRecord("all", fits, false, List.of(), install, remove, List.of(), presence);
    }

    private static JsonNode page() {
        return server.ask("GET", "/api/titles/siltscope", null).body();
    }

    private static Answer put(TitleRecord record) {
        return server.ask("PUT", "/api/titles/" + record.id(), Map.of("record", record, "revision",
                catalogue.now().kept(record.id()).revision()));
    }

    private static List<String> needy() {
        return page().at("/releases/0/looks").valueStream().filter(look -> !look.path("well").asBoolean())
                .map(look -> look.path("code").asString()).toList();
    }

    private static Step step(StepKind kind, String command, String onlyWhere) {
        return new Step(kind, "", command, kind == StepKind.COPY ? "{programs}/x" : "",
                kind == StepKind.COPY ? Existing.KEEP : null, onlyWhere, "", 60, false, "", Map.of(), List.of(), false, null,
                null, false, "");
    }

    @Test
    void whatIsReadyHasNothingToLookAt() {
        assertThat(needy()).isEmpty();
    }

    @Test
    void everythingThatCommonlyGoesWrongIsPointedOut() {
        put(withVariant(variant("arch eq \"sparc\"", List.of(step(StepKind.RUN, "K:\\share\\setup.exe", null)), List.of(),
                Presence.NONE)));
        assertThat(needy()).containsExactlyInAnyOrder("no-silent-switch", "no-removal", "no-presence-check", "own-drive",
                "fits-nowhere");
    }

    @Test
    void anAdministratorsShareIsPointedOut() {
        put(withVariant(variant(null, List.of(step(StepKind.RUN, "\\\\files\\admin$\\setup.exe /S", null)),
                siltscope().releases().get(0).variants().get(0).remove(), Presence.inventory("x"))));
        assertThat(needy()).containsExactly("administrators-share");
    }

    @Test
    void aSignerWhoIsTrustedIsNoMatterAnyMore() {
        Contents.Content signed = new Contents.Content("0".repeat(64), 5, "a.exe", "Delwick Packaging");
        VariantRecord ready = siltscope().releases().get(0).variants().get(0);
        put(withVariant(new VariantRecord("all", null, false, List.of(signed), ready.install(), ready.remove(),
                List.of(), ready.presence())));
        assertThat(needy()).containsExactlyInAnyOrder("content-missing", "signer-is-not-maker");
        TitleRecord now = siltscope();
        put(new TitleRecord(now.id(), now.name(), now.maker(), now.about(), "device", null, List.of("Delwick Packaging"), List.of(),
                now.releases()));
        assertThat(needy()).containsExactly("content-missing");
    }

    @Test
    void theStepsAreTriedOnADevice() {
        put(withVariant(variant(null, List.of(step(StepKind.CHECK, "diskFreeGiB ge 3", null),
                step(StepKind.RUN, "setup --site {fact:site}", null),
                step(StepKind.COPY, "{content}/x", "model co \"Intake\""), step(StepKind.CHECK, "diskFreeGiB ge 100", null),
                step(StepKind.RUN, "late", null)), List.of(), Presence.NONE)));
        JsonNode tried = server.ask("GET", "/api/titles/siltscope/trial?version=4.2.0&variant=all&program=install&device="
                + DEVICE, null).body();
        assertThat(tried.path("steps").valueStream().map(s -> s.path("state").asString()))
                .containsExactly("runs", "runs", "skipped", "stops", "not-reached");
        assertThat(tried.at("/steps/1/command").asString()).isEqualTo("setup --site Hartsmere");
        assertThat(tried.at("/steps/2/why").asString()).isEqualTo("needs model co \"Intake\", has not reported it");
        assertThat(tried.at("/steps/3/why").asString()).isEqualTo("not here: needs diskFreeGiB ge 100, has 12");
    }

    @Test
    void aFactThatIsNotReportedStopsTheStepThatRefersToIt() {
        put(withVariant(variant(null, List.of(step(StepKind.RUN, "setup {fact:edition}", null)), List.of(), Presence.NONE)));
        assertThat(server.ask("GET", "/api/titles/siltscope/trial?version=4.2.0&variant=all&program=install&device="
                + DEVICE, null).body().at("/steps/0/why").asString())
                .isEqualTo("needs the fact edition, which the device has not reported");
    }

    @Test
    void aFactNeverBecomesAPartOfWhatIsRun() {
        put(withVariant(variant(null, List.of(step(StepKind.RUN, "setup \"{fact:note}\"", null)), List.of(), Presence.NONE)));
        assertThat(server.ask("GET", "/api/titles/siltscope/trial?version=4.2.0&variant=all&program=install&device="
                + DEVICE, null).body().at("/steps/0/why").asString())
                .isEqualTo("the fact note holds characters that a command would read otherwise");
    }

    @Test
    void whoeverSavesSecondIsToldByWhomItWasChanged() {
        long revision = catalogue.now().kept("siltscope").revision();
        Map<String, Object> change = Map.of("record", siltscope(), "revision", revision);
        assertThat(server.ask("PUT", "/api/titles/siltscope", change).status()).isEqualTo(200);
        Answer second = server.ask("PUT", "/api/titles/siltscope", change);
        assertThat(second.status()).isEqualTo(409);
        assertThat(second.code()).isEqualTo("changed-since");
        assertThat(second.body().path("detail").asString()).contains("was changed by imara.voss since you opened it");
    }

    @Test
    void ofTwoWhoSaveAtTheVerySameTimeOneIsTold() throws Exception {
        long revision = catalogue.now().kept("siltscope").revision();
        List<Answer> answers = server.together(() -> server.ask("PUT", "/api/titles/siltscope", Map.of("record", siltscope(),
                "revision", revision)), () -> server.ask("PUT", "/api/titles/siltscope", Map.of("record", siltscope(), "revision",
                        revision)));
        assertThat(answers).extracting(Answer::status).containsExactlyInAnyOrder(200, 409);
        assertThat(catalogue.now().kept("siltscope").revision()).isEqualTo(revision + 1);
    }

    @Test
    void aNewTitleOfANameThatIsTakenIsRefused() {
        Answer answer = server.ask("PUT", "/api/titles/siltscope", Map.of("record", siltscope(), "revision", 0));
        assertThat(answer.code()).isEqualTo("title-exists");
        assertThat(answer.body().path("detail").asString()).contains("There is a title of this name already, Siltscope Lab");
    }

    @Test
    void relationsThatLeadBackAreRefusedWhereTheyAreMade() {
        TitleRecord graphkit = catalogue.now().record("graphkit");
        ReleaseRecord needing = new ReleaseRecord("4.2.0", true, "", List.of(new NeedRecord("graphkit", "2.0")), List.of(),
                List.of(),                 siltscope().releases().get(0).variants());
        assertThat(put(siltscope().withReleases(List.of(needing))).status()).isEqualTo(200);
        Answer loop = put(graphkit.withReleases(List.of(new ReleaseRecord("4.2.0", true, "",
                List.of(new NeedRecord("siltscope", null)), List.of(), List.of(), List.of()))));
        assertThat(loop.status()).isEqualTo(422);
        assertThat(loop.body().path("detail").asString()).contains("siltscope").contains("graphkit");
        assertThat(catalogue.now().record("graphkit")).isEqualTo(graphkit);
    }

    private static List<String> relations(String title) {
        return server.ask("GET", "/api/titles/" + title, null).body().path("relations").valueStream()
                .map(one -> one.path("kind").asString() + " " + one.path("name").asString() + " " + one.path("detail").asString()).map(String::strip).toList();
    }

    /** By the leading releases alone, and a conflict that both state once. */
    @Test
    void bothSidesOfARelationShowIt() {
        TestTitles.add(server, "tidewatch", "Tidewatch");
        TestTitles.add(server, "old-scope", "Old Scope");
        TestTitles.add(server, "rival", "Rival");
        TestTitles.add(server, "elder", "Elder Runtime");
        ReleaseRecord earlier = new ReleaseRecord("4.1.0", true, "", List.of(new NeedRecord("elder", null)), List.of(), List.of(), siltscope().releases().get(0).variants());
        ReleaseRecord leading = new ReleaseRecord("4.2.0", true, "", List.of(new NeedRecord("graphkit", "2.0"), new NeedRecord("tidewatch", "")),
                List.of(new ReplacementRecord("old-scope", true)), List.of(), siltscope().releases().get(0).variants());
        assertThat(put(conflicting(siltscope(), "rival").withReleases(List.of(earlier, leading))).status()).isEqualTo(200);
        List<String> ofSiltscope = List.of("needs Graphkit runtime 2.0 or later", "needs Tidewatch", "replaces Old Scope removed first", "conflicts Rival");
        assertThat(relations("siltscope")).isEqualTo(ofSiltscope);
        assertThat(relations("graphkit")).containsExactly("needed-by Siltscope Lab");
        assertThat(relations("elder")).as("of an earlier release").isEmpty();
        assertThat(relations("old-scope")).containsExactly("replaced-by Siltscope Lab");
        assertThat(relations("rival")).containsExactly("conflicts Siltscope Lab");
        assertThat(put(conflicting(catalogue.now().record("rival"), "siltscope")).status()).isEqualTo(200);
        assertThat(relations("siltscope")).isEqualTo(ofSiltscope);
        assertThat(relations("rival")).containsExactly("conflicts Siltscope Lab");
        put(siltscope().withReleases(List.of(new ReleaseRecord("4.3.0", true, "", List.of(), List.of(new ReplacementRecord("old-scope", false)), List.of(),
                siltscope().releases().get(0).variants()), earlier)));
        assertThat(relations("siltscope")).contains("replaces Old Scope in place");
        assertThat(relations("graphkit")).isEmpty();
        assertThat(put(conflicting(catalogue.now().record("rival"))).status()).isEqualTo(200);
    }

    private static TitleRecord conflicting(TitleRecord title, String... with) {
        return new TitleRecord(title.id(), title.name(), title.maker(), title.about(), title.scope(), title.seats(), title.asks(), title.trustedSigners(),
                List.of(with), title.releases());
    }

    @Test
    void theDevicesThatNothingFitsAreListedEachWithWhy() {
        put(withVariant(variant("arch eq \"arm64\" or site eq \"Hartsmere\" and diskFreeGiB ge 100", List.of(step(StepKind.RUN, "x", null)), List.of(), Presence.NONE)));
        JsonNode all = server.ask("GET", "/api/titles/siltscope/misfits?version=4.2.0", null).body();
        assertThat(all.path("total").asInt()).isEqualTo(60);
        assertThat(all.path("devices").size()).isEqualTo(60);
        assertThat(why(all, DEVICE)).contains("all needs").contains("arm64").contains("has x64");
        assertThat(why(all, "QB-LAB-001")).isEqualTo("has not reported anything yet");
        put(withVariant(variant("arch eq \"x64\"", List.of(step(StepKind.RUN, "x", null)), List.of(), Presence.NONE)));
        JsonNode rest = server.ask("GET", "/api/titles/siltscope/misfits?version=4.2.0&limit=7", null).body();
        assertThat(rest.path("total").asInt()).as("whom it fits is not among them").isEqualTo(59);
        assertThat(rest.path("devices").size()).isEqualTo(7);
        assertThat(server.ask("GET", "/api/titles/siltscope/misfits?version=4.2.0&limit=-1", null).body().path("devices").size()).isZero();
        assertThat(server.ask("GET", "/api/titles/siltscope/misfits?version=9", null).code()).isEqualTo("unknown-release");
    }

    private static String why(JsonNode misfits, String device) {
        return misfits.path("devices").valueStream().filter(one -> one.path("name").asString().equals(device)).map(one -> one.path("why").asString())
                .findFirst().orElse("");
    }

    /** Under a name of its own, for another catalogue. */
    @Test
    void aTitleIsHandedOutAsOneFile() throws Exception {
        Answer answer = server.ask("GET", "/api/titles/siltscope/export", null);
        assertThat(answer.header("Content-Type")).isEqualTo("application/zip");
        assertThat(answer.header("Content-Disposition")).isEqualTo("attachment; filename=\"siltscope.zip\"");
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(answer.bytes()))) {
            assertThat(in.getNextEntry()).isNotNull();
        }
        assertThat(server.ask("GET", "/api/titles/nothing/export", null).status()).isEqualTo(404);
    }

    @Test
    void everythingThatIsWrongIsSaidTogether() {
        Answer answer = put(new TitleRecord("siltscope", "", "x", siltscope().about(), "device", null, List.of(), List.of(),
                List.of(ReleaseRecord.of("", List.of(variant("arch is x64", List.of(step(StepKind.RUN, "", null)), List.of(),
                        Presence.NONE))))));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.body().path("problems").valueStream().map(p -> p.path("code").asString()))
                .contains("bad-text", "bad-version", "bad-rule");
    }

    private static Step leading(Integer thenTo, Integer failsTo) {
        return new Step(StepKind.RUN, "", "x", "", null, null, "", 60, false, "", Map.of(), List.of(), false, thenTo, failsTo, false, "");
    }

    @Test
    void stepsLeadForwardOnlySoThatEveryProgramEnds() {
        List<Step> forward = List.of(leading(3, 2), leading(null, 3), leading(null, null));
        assertThat(put(withVariant(variant(null, forward, List.of(), Presence.NONE))).status()).isEqualTo(200);
        for (Step back : List.of(leading(1, null), leading(null, 1), leading(0, null), leading(4, null))) {
            Answer answer = put(withVariant(variant(null, List.of(leading(null, null), back), List.of(), Presence.NONE)));
            assertThat(answer.code()).isEqualTo("leads-back");
            assertThat(answer.body().path("detail").asString()).contains("a step leads to a later one, or to the end, 3");
        }
    }

    @Test
    void contentAndPresenceThatNameNothingAreRefused() {
        VariantRecord bad = new VariantRecord("all", null, false, List.of(new Contents.Content("../../rivo", 5, "a.exe")),
                List.of(), List.of(), List.of(), Presence.inventory(""));
        assertThat(put(withVariant(bad)).body().path("problems").valueStream().map(p -> p.path("code").asString()))
                .contains("bad-content", "bad-text");
    }

    @Test
    void aChangeIsRehearsedBeforeItIsKept() {
        TitleRecord withdrawn = siltscope().withReleases(siltscope().releases().stream().map(r -> new ReleaseRecord(
                r.version(), false, "", List.of(), List.of(), List.of(), r.variants())).toList());
        JsonNode effects = server.ask("POST", "/api/titles/siltscope/rehearsal", Map.of("record", withdrawn, "revision", 1))
                .body();
        assertThat(effects.path("devices").asInt()).isEqualTo(60);
        assertThat(server.bean(CurrentSnapshot.class).now().estate().title("siltscope").newest()).as("nothing was kept").isNotNull();
    }

    @Test
    void aTitleIsTheSameAfterARestart() {
        put(withVariant(variant("arch eq \"x64\"", List.of(step(StepKind.COPY, "a", "diskFreeGiB ge 3")),
                List.of(step(StepKind.RUN, "off", null)), Presence.inventory("Siltscope Lab"))));
        var kept = Titles.PART.read(server.bean(org.springframework.jdbc.core.simple.JdbcClient.class));
        assertThat(kept.kept("siltscope").record()).isEqualTo(siltscope());
        assertThat(kept.kept("siltscope").changedBy()).isEqualTo("imara.voss");
    }
}
