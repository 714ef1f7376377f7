package rivo.server.catalogue.title;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Ou;
import rivo.core.resolve.Resolver;
import rivo.devices.protocol.Job;
import rivo.server.catalogue.title.ChoiceRecord.Allowed;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;

/** What a device is told to run: its facts and choices put in, what does not apply skipped, what would end it said. */
class StepsOnDeviceTest {

    private static final ChoiceRecord LANGUAGES = new ChoiceRecord("languages", "Languages", ChoiceKind.LANGUAGES, "en",
            List.of(new Allowed("en", "English", "LANG_EN", 0, ""), new Allowed("cy", "Welsh", "", 0, "")), null, null);

    private static Job.Step on(Map<String, String> facts, Chosen chosen, Step step, boolean asPerson) {
        Device device = Device.of("d1", "QB-LAB-001", "root", List.of()).withReport(Facts.of(facts), List.of(), List.of());
        EstateParts none = EstateParts.none(Instant.parse("2026-11-23T08:00:00Z"));
        Estate estate = Estate.of(new EstateParts(none.asOf(), List.of(new Ou("root", "root", "dc=quillbrook", null, false)),
                List.of(), List.of(device), List.of(), List.of(), List.of(), List.of(), List.of(), List.of()));
        return new StepsOnDevice(Resolver.of(estate), device, chosen).of(List.of(step), asPerson).get(0);
    }

    private static Job.Step on(Map<String, String> facts, Step step) {
        return on(facts, Chosen.NOTHING, step, false);
    }

    private static Chosen chosen(String languages) {
        return Chosen.of(new ReleaseRecord("4.2.0", true, "", List.of(), List.of(), List.of(LANGUAGES), List.of()),
                List.of(new Chosen.Fixed("imara", Map.of("languages", languages))));
    }

    private static Step step(StepKind kind, String command, @Nullable String onlyWhere, String onlyWith, String says) {
        return new Step(kind, "", command, "", null, onlyWhere, onlyWith, 60, false, "", Map.of(), List.of(), false, null, null,
                false, says);
    }

    private static Step run(String command) {
        return Step.run("", command, List.of());
    }

    @Test
    void factsArePutIn() {
        Job.Step step = on(Map.of("site", "Hartsmere North", "ramGiB", "8"), run("setup /site={fact:site} /ram={fact:ramGiB}"));
        assertThat(step.command()).isEqualTo("setup /site=Hartsmere North /ram=8");
        assertThat(step.stops()).isNull();
        assertThat(step.skipped()).isNull();
    }

    @Test
    void aFactThatIsNotKnownStopsTheStep() {
        assertThat(on(Map.of(), run("setup {fact:site}")).stops())
                .isEqualTo("needs the fact site, which the device has not reported");
    }

    @ParameterizedTest
    @ValueSource(strings = {"a; reboot", "$(id)", "`id`", "a & b", "a | b", "\"a", "a\nb", "%PATH%", "a > b", "\u202Eabc"})
    void aFactThatACommandWouldReadOtherwiseStopsTheStep(String value) {
        Job.Step step = on(Map.of("site", value), run("setup {fact:site}"));
        assertThat(step.stops()).contains("the fact site holds characters that a command would read otherwise");
    }

    @Test
    void aFactCannotBringAnotherReferenceIn() {
        assertThat(on(Map.of("site", "{choice:languages}"), chosen("cy"), run("setup {fact:site}"), false).stops()).isNotNull();
        assertThat(on(Map.of("site", "$1"), run("setup {fact:site}")).stops()).isNotNull();
    }

    @Test
    void choicesArePutInAsStepsReadThem() {
        assertThat(on(Map.of(), chosen("en,cy"), run("setup /l {choice:languages}"), false).command())
                .isEqualTo("setup /l LANG_EN,cy");
        assertThat(on(Map.of(), run("setup {choice:languages}")).stops())
                .isEqualTo("needs the choice languages, which this release has not");
    }

    @Test
    void aStepThatIsOnlyForSomeIsSkippedElsewhereWithTheReason() {
        Step only = step(StepKind.RUN, "driver.exe", "arch eq \"arm64\" and ramGiB ge 4", "", "");
        assertThat(on(Map.of("arch", "arm64", "ramGiB", "8"), only).skipped()).isNull();
        assertThat(on(Map.of("arch", "x64", "ramGiB", "8"), only).skipped()).isEqualTo("needs arch eq \"arm64\", has x64");
        assertThat(on(Map.of("ramGiB", "2"), only).skipped())
                .isEqualTo("needs arch eq \"arm64\", has not reported it; needs ramGiB ge 4, has 2");
        Step not = step(StepKind.RUN, "driver.exe", "not (arch eq \"x64\")", "", "");
        assertThat(on(Map.of("arch", "x64"), not).skipped()).isNotEmpty();
    }

    @Test
    void aStepThatBelongsToAChoiceIsSkippedWithoutIt() {
        Step welsh = step(StepKind.RUN, "cy.exe", null, "languages=cy", "");
        assertThat(on(Map.of(), chosen("cy"), welsh, false).skipped()).isNull();
        assertThat(on(Map.of(), chosen("en"), welsh, false).skipped()).isEqualTo("only with cy, chosen is English");
        assertThat(on(Map.of(), chosen(""), welsh, false).skipped()).isEqualTo("only with cy, chosen is nothing");
        assertThat(on(Map.of(), welsh).skipped()).isEqualTo("only with cy, chosen is nothing");
    }

    @Test
    void aCheckThatDoesNotHoldStopsInItsOwnWordsOrInPlainOnes() {
        Map<String, String> full = Map.of("diskFreeGiB", "1");
        assertThat(on(full, step(StepKind.CHECK, "diskFreeGiB gt 2", null, "", "")).stops())
                .isEqualTo("not here: needs diskFreeGiB gt 2, has 1");
        assertThat(on(full, step(StepKind.CHECK, "diskFreeGiB gt 2", null, "", "The disk is too full.")).stops())
                .isEqualTo("The disk is too full.");
        Job.Step holds = on(Map.of("diskFreeGiB", "20"), step(StepKind.WAIT, "diskFreeGiB gt 2", null, "", ""));
        assertThat(holds.stops()).isNull();
        assertThat(holds.command()).as("a rule is not for the device to run").isNull();
    }

    @Test
    void aStepRunsAsThePersonWhereItsVariantOrItSaysSo() {
        Step asPerson = new Step(StepKind.RUN, "", "a", "", null, null, "", 60, true, "", Map.of(), List.of(), false, null, null, false, "");
        assertThat(on(Map.of(), run("a")).asPerson()).isFalse();
        assertThat(on(Map.of(), asPerson).asPerson()).isTrue();
        assertThat(on(Map.of(), Chosen.NOTHING, run("a"), true).asPerson()).isTrue();
    }

    @Test
    void whereItGoesAndRunsIsFilledToo() {
        Step copy = new Step(StepKind.COPY, "Put the map there", "{content}/map", "C:/{fact:site}", null, null, "", 60, false,
                "D:/{fact:site}", Map.of("A", "1"), List.of(), true, 2, null, false, "");
        Job.Step step = on(Map.of("site", "Weir"), copy);
        assertThat(step.to()).isEqualTo("C:/Weir");
        assertThat(step.folder()).isEqualTo("D:/Weir");
        assertThat(step.command()).as("the device knows where its content lies").isEqualTo("{content}/map");
        assertThat(step.text()).isEqualTo("Put the map there");
        assertThat(step.environment()).containsEntry("A", "1");
        assertThat(step.goesOn()).isTrue();
        assertThat(step.thenTo()).isEqualTo(2);
        assertThat(on(Map.of(), copy).stops()).contains("site");
    }
}
