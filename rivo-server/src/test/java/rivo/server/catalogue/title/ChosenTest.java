package rivo.server.catalogue.title;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import rivo.server.catalogue.content.Contents.Content;
import rivo.server.catalogue.title.ChoiceRecord.Allowed;
import rivo.server.catalogue.title.Chosen.Fixed;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;

/** Who fixes a choice, what reaches the steps, and what has to be fetched. */
class ChosenTest {

    private static final ChoiceRecord LANGUAGES = new ChoiceRecord("languages", "Languages", ChoiceKind.LANGUAGES, "en",
            List.of(new Allowed("en", "English", "LANG_EN", 0, ""), new Allowed("cy", "Welsh", "", 0, "cy.cab"),
                    new Allowed("de", "German", "LANG_DE", 7, "de.cab")), null, null);
    private static final ChoiceRecord TELEMETRY = new ChoiceRecord("telemetry", "Telemetry", ChoiceKind.SWITCH, "off",
            List.of(new Allowed("on", "", "TELEMETRY=1", 0, "")), null, null);
    private static final ChoiceRecord THREADS = new ChoiceRecord("threads", "Threads", ChoiceKind.NUMBER, "4", List.of(), 1L,
            16L);
    private static final ChoiceRecord SITE = new ChoiceRecord("site", "Site", ChoiceKind.TEXT, "", List.of(), null, null);

    private static final VariantRecord VARIANT = new VariantRecord("x64", null, false, List.of(content("setup.exe", 100),
            content("cy.cab", 20), content("de.cab", 30)), List.of(), List.of(), List.of(), null);

    private static Content content(String name, long size) {
        return new Content("0".repeat(64), size, name);
    }

    private static ReleaseRecord release(ChoiceRecord... choices) {
        return new ReleaseRecord("4.2.0", true, "", List.of(), List.of(), List.of(choices), List.of(VARIANT));
    }

    private static Fixed by(String who, String choice, String value) {
        return new Fixed(who, Map.of(choice, value));
    }

    private static Chosen languages(Fixed... layers) {
        return Chosen.of(release(LANGUAGES), List.of(layers));
    }

    @Test
    void whatNobodyFixesIsAsUsual() {
        assertThat(languages().find("languages")).isEqualTo(new Chosen.Value(LANGUAGES, "en", ""));
    }

    @Test
    void theFirstWhoFixesItDecides() {
        Chosen.Value value = languages(by("the assignment", "threads", "2"), by("imara", "languages", "cy,de"),
                by("otis", "languages", "en")).find("languages");
        assertThat(value.by()).isEqualTo("imara");
        assertThat(value.words()).isEqualTo("Welsh, German");
        assertThat(LANGUAGES.reads(value.value())).isEqualTo("cy,LANG_DE");
    }

    @Test
    void whatTheReleaseHasNoMoreIsLeftOut() {
        assertThat(languages(by("a", "languages", "fr,cy")).find("languages").value()).isEqualTo("cy");
        assertThat(languages(by("a", "languages", "fr"), by("b", "languages", "de")).find("languages").by()).isEqualTo("b");
        assertThat(Chosen.of(release(THREADS), List.of(by("a", "threads", "99"))).find("threads").value()).isEqualTo("4");
    }

    @Test
    void noneOfAListMayBeChosen() {
        assertThat(languages(by("a", "languages", "")).find("languages").value()).isEmpty();
        assertThat(languages(by("a", "languages", "")).has("languages", "en")).isFalse();
    }

    @Test
    void fewerPartsAreLessToFetch() {
        assertThat(languages().contents(VARIANT)).extracting(Content::fileName).containsExactly("setup.exe");
        assertThat(languages().bytes(VARIANT)).isEqualTo(100);
        assertThat(languages(by("a", "languages", "en,de")).bytes(VARIANT)).as("its file and what it costs besides")
                .isEqualTo(137);
        assertThat(Chosen.NOTHING.contents(VARIANT)).as("without choices everything").hasSize(3);
    }

    @Test
    void aFileThatTwoValuesNameIsFetchedForEither() {
        ChoiceRecord shared = new ChoiceRecord("languages", "", ChoiceKind.LANGUAGES, "", List.of(new Allowed("de", "", "", 0,
                "de.cab"), new Allowed("de-at", "", "", 0, "de.cab")), null, null);
        assertThat(Chosen.of(release(shared), List.of(by("a", "languages", "de-at"))).contents(VARIANT))
                .extracting(Content::fileName).containsExactly("setup.exe", "cy.cab", "de.cab");
        assertThat(Chosen.of(release(shared), List.of()).contents(VARIANT)).hasSize(2);
    }

    @Test
    void everyKindSaysWhatItTakes() {
        assertThat(LANGUAGES.problem("en,fr")).isEqualTo("“fr” is not one of the languages to choose from: en, cy, de.");
        assertThat(TELEMETRY.problem("maybe")).isEqualTo("Telemetry is on or off, not “maybe”.");
        assertThat(TELEMETRY.reads("on")).isEqualTo("TELEMETRY=1");
        assertThat(TELEMETRY.reads("off")).isEqualTo("off");
        assertThat(THREADS.problem("17")).isEqualTo("Threads is from 1 to 16, not 17.");
        assertThat(THREADS.problem("many")).isEqualTo("Threads is a whole number, not “many”.");
        assertThat(THREADS.problem("16")).isNull();
        assertThat(SITE.problem("Hartsmere 2")).isNull();
        assertThat(SITE.problem("x\" & reboot")).contains("because commands read the rest otherwise");
    }

    @Test
    void aSwitchIsChosenOnOrOffAndTheOthersAmongWhatTheyList() {
        assertThat(TELEMETRY.valuesToChoose()).containsExactly(new Allowed("on", "", "TELEMETRY=1", 0, ""), new Allowed("off", "", "", 0, ""));
        assertThat(LANGUAGES.valuesToChoose()).isEqualTo(LANGUAGES.allowed());
        assertThat(Stream.of(ChoiceKind.values()).filter(ChoiceKind::isForPeople)).containsExactlyInAnyOrder(ChoiceKind.PARTS, ChoiceKind.LANGUAGES,
                ChoiceKind.CHANNEL, ChoiceKind.SWITCH);
        assertThat(Stream.of(ChoiceKind.values()).filter(ChoiceKind::isMany)).containsExactlyInAnyOrder(ChoiceKind.PARTS, ChoiceKind.LANGUAGES);
        assertThat(Stream.of(ChoiceKind.values()).filter(ChoiceKind::isListed)).containsExactlyInAnyOrder(ChoiceKind.PARTS, ChoiceKind.LANGUAGES,
                ChoiceKind.CHANNEL);
    }

    @Test
    void whatMakesNoSenseByItselfIsSaid() {
        assertThat(new ChoiceRecord("Languages!", "", ChoiceKind.LANGUAGES, "", List.of(), null, null).problems())
                .hasSize(2);
        assertThat(new ChoiceRecord("n", "N", ChoiceKind.NUMBER, "5", List.of(), 9L, 3L).problems())
                .containsExactly("The lowest number of N is above its highest.");
        assertThat(new ChoiceRecord("n", "N", ChoiceKind.NUMBER, "5", List.of(), 9L, null).problems())
                .containsExactly("Usually: N is at least 9, not 5.");
        assertThat(new ChoiceRecord("c", "C", ChoiceKind.CHANNEL, "a", List.of(new Allowed("a", "", "", 0, ""),
                new Allowed("a", "", "", 0, "")), null, null).problems())
                .containsExactly("A value of C is there twice; take one out.");
        assertThat(new ChoiceRecord("c", "C", ChoiceKind.PARTS, "", List.of(new Allowed("a,b", "", "", 0, "")), null, null)
                .problems()).hasSize(1);
        assertThat(new ChoiceRecord("c", "C", ChoiceKind.PARTS, "", List.of(new Allowed("a", "", "x".repeat(201), 0, "")), null,
                null).problems()).singleElement().asString().contains("at most 200 characters");
    }
}
