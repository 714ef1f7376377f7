package rivo.server.catalogue.title;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.time.Instant;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Ou;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.title.ChoiceRecord.Allowed;
import rivo.server.catalogue.title.TitleRecord.About;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;

/** Everything that a title is refused for: each with its place, and in words that name the remedy. */
class TitleRecordChecksTest {

    private static final String HASH = "ab".repeat(32);
    private static final ChoiceRecord LANGUAGES = new ChoiceRecord("languages", "Languages", ChoiceKind.LANGUAGES, "en",
            List.of(new Allowed("en", "English", "", 0, ""), new Allowed("cy", "Welsh", "", 0, "")), null, null);

    private static List<Problem> problems(TitleRecord record) {
        RefusedException refused = catchThrowableOfType(RefusedException.class, () -> TitleRecordChecks.alone(record));
        return refused == null ? List.of() : refused.problems();
    }

    private static TitleRecord title(ReleaseRecord... releases) {
        return TitleRecord.of("siltscope", "Siltscope Lab", "Fenwick Instruments", List.of(releases));
    }

    private static VariantRecord variant(Step... install) {
        return new VariantRecord("x64", "arch eq \"x64\"", false, List.of(new Contents.Content(HASH, 10, "setup.exe")),
                List.of(install), List.of(), List.of(), Presence.inventory("Siltscope Lab"));
    }

    private static TitleRecord with(Step... install) {
        return title(new ReleaseRecord("4.2.0", true, "", List.of(), List.of(), List.of(LANGUAGES), List.of(variant(install))));
    }

    private static TitleRecord with(ChoiceRecord... choices) {
        return title(new ReleaseRecord("4.2.0", true, "", List.of(), List.of(), List.of(choices), List.of(variant())));
    }

    private static Step step(StepKind kind, String command, String to, @Nullable String onlyWhere, String onlyWith, int seconds,
            @Nullable Integer thenTo, @Nullable Integer failsTo) {
        return new Step(kind, "", command, to, null, onlyWhere, onlyWith, seconds, false, "", Map.of(), List.of(), false, thenTo,
                failsTo, false, "");
    }

    private static Step run(String command) {
        return Step.run("", command, List.of());
    }

    private static ChoiceRecord choice(String id, ChoiceKind kind, String usual, Allowed... allowed) {
        return new ChoiceRecord(id, "", kind, usual, List.of(allowed), null, null);
    }

    @Test
    void aSoundTitleIsTaken() {
        assertThat(problems(with(run("setup.exe /S {choice:languages} {fact:site}"), step(StepKind.COPY, "{content}/a", "C:/a",
                "ramGiB ge 8", "languages=cy", 60, 3, 4), step(StepKind.CHECK, "diskFreeGiB gt 2", "", null, "", 1, null, null))))
                .isEmpty();
    }

    static Stream<Arguments> wrongSteps() {
        String here = "releases[0].variants[0].install[0]";
        return Stream.of(
                Arguments.of(run(" "), here + ".command"),
                Arguments.of(run("x".repeat(20_001)), here + ".command"),
                Arguments.of(run("setup {choice:colour}"), here + ".command"),
                Arguments.of(step(StepKind.COPY, "a", " ", null, "", 60, null, null), here + ".to"),
                Arguments.of(step(StepKind.COPY, "a", "{choice:colour}", null, "", 60, null, null),
                        here + ".command"),
                Arguments.of(step(StepKind.WAIT, "ramGB gt 4", "", null, "", 60, null, null),
                        here + ".command"),
                Arguments.of(step(StepKind.RUN, "a", "", "arch eq", "", 60, null, null),
                        here + ".onlyWhere"),
                Arguments.of(step(StepKind.RUN, "a", "", null, "cy", 60, null, null),
                        here + ".onlyWith"),
                Arguments.of(step(StepKind.RUN, "a", "", null, "colour=red", 60, null, null),
                        here + ".onlyWith"),
                Arguments.of(step(StepKind.RUN, "a", "", null, "languages=fr", 60, null, null),
                        here + ".onlyWith"),
                Arguments.of(step(StepKind.RUN, "a", "", null, "", 0, null, null),
                        here + ".limitSeconds"),
                Arguments.of(step(StepKind.RUN, "a", "", null, "", 86_401, null, null),
                        here + ".limitSeconds"),
                Arguments.of(step(StepKind.RUN, "a", "", null, "", 60, 1, null), here + ".thenTo"),
                Arguments.of(step(StepKind.RUN, "a", "", null, "", 60, 3, null), here + ".thenTo"),
                Arguments.of(step(StepKind.RUN, "a", "", null, "", 60, null, 0), here + ".failsTo"));
    }

    @ParameterizedTest
    @MethodSource("wrongSteps")
    void aStepThatMakesNoSenseIsRefusedAtItsPlace(Step step, String place) {
        assertThat(problems(with(step))).extracting(Problem::place).containsExactly(place);
    }

    @Test
    void aLeadMayGoToTheEnd() {
        assertThat(problems(with(step(StepKind.RUN, "a", "", null, "", 60, 2, 2)))).isEmpty();
    }

    static Stream<ChoiceRecord> wrongChoices() {
        Allowed en = new Allowed("en", "", "", 0, "");
        return Stream.of(choice("Languages", ChoiceKind.LANGUAGES, "en", en), choice("", ChoiceKind.LANGUAGES, "en", en),
                choice("languages", ChoiceKind.LANGUAGES, "en"), choice("languages", ChoiceKind.LANGUAGES, "cy", en),
                choice("languages", ChoiceKind.LANGUAGES, "en", en, en),
                choice("languages", ChoiceKind.LANGUAGES, "", new Allowed("en,cy", "", "", 0, "")),
                choice("languages", ChoiceKind.LANGUAGES, "", new Allowed("$(reboot)", "", "", 0, "")),
                choice("languages", ChoiceKind.LANGUAGES, "en", new Allowed("en", "", "", -1, "")),
                choice("languages", ChoiceKind.LANGUAGES, "en", new Allowed("en", "", "", 0, "lost.cab")),
                choice("telemetry", ChoiceKind.SWITCH, "perhaps"), choice("threads", ChoiceKind.NUMBER, "many"),
                new ChoiceRecord("threads", "", ChoiceKind.NUMBER, "5", List.of(), 1L, 4L),
                new ChoiceRecord("threads", "", ChoiceKind.NUMBER, "5", List.of(), 9L, 4L),
                choice("site", ChoiceKind.TEXT, "a; rm -rf /"),
                new ChoiceRecord("site", "x".repeat(201), ChoiceKind.TEXT, "", List.of(), null, null));
    }

    @ParameterizedTest
    @MethodSource("wrongChoices")
    void aChoiceThatMakesNoSenseIsRefused(ChoiceRecord choice) {
        assertThat(problems(with(choice))).isNotEmpty().allSatisfy(problem -> {
            assertThat(problem.place()).startsWith("releases[0].choices[0]");
            assertThat(problem.sentence()).endsWith(".");
        });
    }

    @Test
    void anIdOfAChoiceIsTakenOnce() {
        assertThat(problems(with(LANGUAGES, LANGUAGES))).extracting(Problem::place)
                .containsExactly("releases[0].choices[1].id");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "Siltscope", "silt scope", "-silt", "silt;drop", "../silt"})
    void anIdIsSmallAndPlain(String id) {
        assertThat(problems(TitleRecord.of(id, "Siltscope", "", List.of()))).extracting(Problem::place).containsExactly("id");
    }

    @Test
    void textsHaveTheirBounds() {
        About about = new About("", "", "d".repeat(20_001), "", "", "n".repeat(20_001), "", "", "l".repeat(200_001));
        TitleRecord record = new TitleRecord("siltscope", " ", "m".repeat(201), about, "device", null, List.of(), List.of(), List.of());
        assertThat(problems(record)).extracting(Problem::place).containsExactlyInAnyOrder("name", "maker", "about.notes",
                "about.licence", "about.description");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "  "})
    void aReleaseNeedsAVersion(String version) {
        assertThat(problems(title(ReleaseRecord.of(version, List.of())))).extracting(Problem::place)
                .containsExactly("releases[0].version");
    }

    @Test
    void aVariantNeedsANameOfItsOwnAndARuleThatCanBeRead() {
        VariantRecord one = variant();
        VariantRecord lost = new VariantRecord("arm", "arch is arm64", false, List.of(), List.of(), List.of(), List.of(), null);
        assertThat(problems(title(ReleaseRecord.of("4.2.0", List.of(one, one, lost))))).extracting(Problem::place)
                .containsExactly("releases[0].variants[1].id", "releases[0].variants[2].fits");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "xyz", "ABAB", "../../etc/passwd"})
    void contentIsNamedByItsHash(String hash) {
        VariantRecord variant = new VariantRecord("x64", null, false, List.of(new Contents.Content(hash, 1, "setup.exe")),
                List.of(), List.of(), List.of(), null);
        assertThat(problems(title(ReleaseRecord.of("4.2.0", List.of(variant))))).extracting(Problem::place)
                .containsExactly("releases[0].variants[0].contents");
    }

    @Test
    void thereIsAnEndToHowMuchATitleHolds() {
        List<ReleaseRecord> releases = IntStream.range(0, 501).mapToObj(i -> ReleaseRecord.of("1." + i, List.of())).toList();
        assertThat(problems(title(releases.toArray(new ReleaseRecord[0])))).extracting(Problem::place).containsExactly("releases");
        Step[] steps = Collections.nCopies(101, run("a")).toArray(new Step[0]);
        assertThat(problems(with(steps))).extracting(Problem::place).containsExactly("releases[0].variants[0].install");
        ChoiceRecord[] choices = IntStream.range(0, 31).mapToObj(i -> choice("c" + i, ChoiceKind.TEXT, ""))
                .toArray(ChoiceRecord[]::new);
        assertThat(problems(with(choices))).extracting(Problem::place).containsExactly("releases[0].choices");
    }

    @Test
    void everythingIsToldAtOnce() {
        TitleRecord record = TitleRecord.of("Silt", "", "", List.of(ReleaseRecord.of("", List.of(variant(run(""))))));
        assertThat(problems(record)).extracting(Problem::place).containsExactlyInAnyOrder("id", "name",
                "releases[0].version", "releases[0].variants[0].install[0].command");
    }

    @Test
    void relationsAreLookedAtAmongAllTitles() {
        Estate estate = Estate.of(EstateParts.none(Instant.parse("2026-11-23T08:00:00Z"))
                .withOus(List.of(new Ou("root", "root", "dc=quillbrook", null, false))));
        TitleRecord record = new TitleRecord("siltscope", "Siltscope", "", About.NOTHING, "device", null, List.of(), List.of("lost"),
                List.of());
        RefusedException refused = catchThrowableOfType(RefusedException.class, () -> TitleRecordChecks.check(estate, record));
        assertThat(refused.problems()).extracting(Problem::place).containsExactly("titles[0].conflictsWith[0]");
        assertThat(TitleRecordChecks.check(estate, title()).title("siltscope")).isNotNull();
        assertThat(estate.title("siltscope")).as("the estate itself stays as it is").isNull();
    }
}
