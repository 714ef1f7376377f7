package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Ou;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.devices.protocol.Report;
import rivo.server.audience.Accounts;
import tools.jackson.databind.json.JsonMapper;

/** What a report is refused for, each at its place; and that everything at its bound is taken. */
class ReportChecksTest {

    private static final Estate ESTATE = Estate.of(EstateParts.none(Instant.parse("2026-11-23T08:00:00Z"))
            .withOus(List.of(new Ou("root", "root", "dc=quillbrook", null, false)))
            .withUsers(List.of(user("u1", "rowena.elmby"), user("u2", "imke.craneham"), user("u3", "imke.craneham")))
            .withDevices(List.of(Device.of("d1", "QB-LAB-014", "root", List.of("u1"))))
            .withTitles(Stream.concat(Stream.of(new Title("maps", "Maps", Scope.USER, null, List.of(), List.of())),
                    IntStream.rangeClosed(0, 2000).mapToObj(i -> Title.of("t" + i, "Title " + i, List.of()))).toList()));

    private static User user(String id, String account) {
        return new User(id, account, account, "root", Facts.NONE);
    }

    private static List<String> places(String json) {
        Report report = JsonMapper.shared().readValue(json, Report.class);
        SignedInPeople people = new SignedInPeople(ESTATE, Objects.requireNonNull(ESTATE.devices().find("d1")), new Accounts());
        RefusedException refused = catchThrowableOfType(RefusedException.class, () -> ReportChecks.check(ESTATE, people, report));
        List<Problem> problems = refused == null ? List.of() : refused.problems();
        assertThat(problems).allSatisfy(problem -> assertThat(problem.sentence()).startsWith(problem.place() + " ").endsWith("."));
        return problems.stream().map(problem -> problem.code() + " " + problem.place()).toList();
    }

    private static String report(String part) {
        return "{\"number\":1," + part + "}";
    }

    private static String job(String more) {
        return report("\"progress\":[{\"title\":\"t1\",\"action\":\"install\",\"version\":\"4.2\",\"state\":\"running\",\"step\":1,\"steps\":2,"
                + "\"percent\":50,\"message\":\"Run\",\"at\":\"2026-11-23T08:00:00Z\"" + more + "}]");
    }

    /** The later of two fields of one name counts. */
    private static String notice(String more) {
        return report("\"notices\":[{\"notice\":\"n-1\",\"kind\":\"restart\",\"titles\":[\"t1\"],\"person\":\"u1\",\"state\":\"shown\","
                + "\"at\":\"2026-11-23T08:00:00Z\",\"left\":0" + more + "}]");
    }

    private static String letters(int n) {
        return "a".repeat(n);
    }

    private static String list(int n, IntFunction<String> one) {
        return IntStream.range(0, n).mapToObj(one).collect(Collectors.joining(",", "[", "]"));
    }

    @Test
    void aSoundReportIsTaken() {
        assertThat(places("{\"number\":1}")).isEmpty();
        assertThat(places(report("\"facts\":{\"arch\":\"x64\"},\"software\":[{\"name\":\"Siltscope\"}],\"present\":[{\"title\":\"t1\"},"
                + "{\"title\":\"t2\",\"version\":\"4\"},{\"title\":\"maps\",\"person\":\"u1\"},{\"title\":\"maps\",\"person\":\"u2\"}],"
                + "\"fetched\":[{\"sha256\":\"ab\",\"bytes\":1}],\"signedIn\":[\"Rowena.Elmby\"]"))).isEmpty();
        assertThat(places(job(""))).isEmpty();
        assertThat(places(job(",\"step\":0,\"steps\":0,\"percent\":0,\"fetching\":{\"bytes\":0,\"all\":0},\"waits\":{\"reason\":\"restart\"}"))).isEmpty();
        assertThat(places(job(",\"step\":2,\"steps\":2,\"percent\":100,\"fetching\":{\"bytes\":7,\"all\":7}"))).isEmpty();
        assertThat(places(notice(""))).isEmpty();
    }

    static Stream<Arguments> wrong() {
        return Stream.of(
                Arguments.of("{\"number\":0}", "bad-number number"),
                Arguments.of(report("\"facts\":{\"arch\":null}"), "bad-text facts.arch"),
                Arguments.of(report("\"software\":[{\"publisher\":\"Fenwick\"}]"), "bad-text software[0].name"),
                Arguments.of(report("\"fetched\":[{\"bytes\":1}]"), "bad-text fetched[0].sha256"),
                Arguments.of(report("\"present\":[{\"title\":\"t1\"},{\"title\":\"lost\"}]"), "unknown-title present[1].title"),
                Arguments.of(report("\"present\":[{\"title\":\"maps\"}]"), "wrong-scope present[0].person"),
                Arguments.of(report("\"present\":[{\"title\":\"t1\",\"person\":\"u1\"}]"), "wrong-scope present[0].person"),
                Arguments.of(report("\"present\":[{\"title\":\"t1\"},{\"title\":\"t1\",\"version\":\"2\"}]"), "twice present[1].title"),
                Arguments.of(report("\"present\":[{\"title\":\"maps\",\"person\":\"u1\"},{\"title\":\"maps\",\"person\":\"u1\"}]"), "twice present[1].title"),
                Arguments.of(report("\"present\":[{\"title\":\"maps\",\"person\":\"u9\"}]"), "unknown-person present[0].person"),
                Arguments.of(report("\"present\":[{\"title\":\"t1\",\"version\":\" \"}]"), "bad-version present[0].version"),
                Arguments.of(job(",\"title\":\"lost\""), "unknown-title progress[0].title"),
                Arguments.of(job(",\"title\":null"), "unknown-title progress[0].title"),
                Arguments.of(job(",\"title\":\"maps\""), "wrong-scope progress[0].person"),
                Arguments.of(job(",\"person\":\"u9\""), "unknown-person progress[0].person"),
                Arguments.of(job(",\"message\":null"), "bad-text progress[0].message"),
                Arguments.of(job(",\"action\":null"), "missing progress[0]"),
                Arguments.of(job(",\"state\":null"), "missing progress[0]"),
                Arguments.of(job(",\"at\":null"), "missing progress[0]"),
                Arguments.of(job(",\"waits\":{}"), "missing progress[0].waits.reason"),
                Arguments.of(job(",\"fetching\":{\"bytes\":-1,\"all\":7}"), "bad-step progress[0].fetching"),
                Arguments.of(job(",\"fetching\":{\"bytes\":8,\"all\":7}"), "bad-step progress[0].fetching"),
                Arguments.of(job(",\"step\":-1"), "bad-step progress[0]"), Arguments.of(job(",\"step\":3"), "bad-step progress[0]"),
                Arguments.of(job(",\"percent\":-1"), "bad-step progress[0]"), Arguments.of(job(",\"percent\":101"), "bad-step progress[0]"),
                Arguments.of(report("\"signedIn\":[\"rowena.elmby\",\"local\"]"), "unknown-person signedIn[1]"),
                Arguments.of(report("\"signedIn\":[null]"), "unknown-person signedIn[0]"),
                Arguments.of(report("\"signedIn\":[\"imke.craneham\"]"), "unknown-person signedIn[0]"),
                Arguments.of(notice(",\"notice\":null"), "bad-id notices[0].notice"), Arguments.of(notice(",\"notice\":\"N 1\""), "bad-id notices[0].notice"),
                Arguments.of(notice(",\"kind\":null"), "missing notices[0]"), Arguments.of(notice(",\"state\":null"), "missing notices[0]"),
                Arguments.of(notice(",\"at\":null"), "missing notices[0]"), Arguments.of(notice(",\"left\":-1"), "bad-step notices[0].left"),
                Arguments.of(notice(",\"person\":\"u9\""), "unknown-person notices[0].person"));
    }

    @ParameterizedTest
    @MethodSource("wrong")
    void whatMakesNoSenseIsRefusedAtItsPlace(String json, String problem) {
        assertThat(places(json)).containsExactly(problem);
    }

    @Test
    void everythingIsSaidAtOnce() {
        assertThat(places(report("\"present\":[{\"title\":\"lost\"}],\"signedIn\":[\"local\"],\"notices\":[{\"notice\":\"!\"}]")))
                .containsExactly("unknown-title present[0].title", "unknown-person signedIn[0]", "bad-id notices[0].notice", "missing notices[0]");
    }

    private record Bound(String place, int most, IntFunction<String> of) {
        @Override
        public String toString() {
            return place + " ≤ " + most;
        }
    }

    static Stream<Bound> bounds() {
        List<Bound> all = new ArrayList<>();
        all.add(new Bound("too-many facts", 200, n -> report("\"facts\":{" + IntStream.range(0, n).mapToObj(i -> "\"f" + i + "\":\"\"")
                .collect(Collectors.joining(",")) + "}")));
        all.add(new Bound("too-many software", 5000, n -> report("\"software\":" + list(n, i -> "{\"name\":\"s\"}"))));
        all.add(new Bound("too-many present", 2000, n -> report("\"present\":" + list(n, i -> "{\"title\":\"t" + i + "\"}"))));
        all.add(new Bound("too-many progress", 200, n -> report("\"progress\":" + list(n, i -> job("").replaceAll(".*\\[|].*", "")))));
        all.add(new Bound("too-many fetched", 200, n -> report("\"fetched\":" + list(n, i -> "{\"sha256\":\"ab\",\"bytes\":1}"))));
        all.add(new Bound("too-many notices", 200, n -> report("\"notices\":" + list(n, i ->
                "{\"notice\":\"n\",\"kind\":\"restart\",\"state\":\"shown\",\"at\":\"2026-11-23T08:00:00Z\"}"))));
        all.add(new Bound("too-many signedIn", 100, n -> report("\"signedIn\":[" + String.join(",", Collections.nCopies(n, "\"rowena.elmby\"")) + "]")));
        all.add(new Bound("too-many notices[0].titles", 200, n -> notice(",\"titles\":" + list(n, i -> "\"t" + i + "\""))));
        all.add(new Bound("bad-id notices[0].notice", 40, n -> notice(",\"notice\":\"" + letters(n) + "\"")));
        all.add(new Bound("bad-text software[0].name", 1000, n -> report("\"software\":[{\"name\":\"" + letters(n) + "\"}]")));
        all.add(new Bound("bad-text software[0].publisher", 1000, n -> report("\"software\":[{\"name\":\"s\",\"publisher\":\"" + letters(n) + "\"}]")));
        all.add(new Bound("bad-text software[0].version", 1000, n -> report("\"software\":[{\"name\":\"s\",\"version\":\"" + letters(n) + "\"}]")));
        all.add(new Bound("bad-text facts.f", 1000, n -> report("\"facts\":{\"f\":\"" + letters(n) + "\"}")));
        all.add(new Bound("bad-text fetched[0].sha256", 1000, n -> report("\"fetched\":[{\"sha256\":\"" + letters(n) + "\",\"bytes\":1}]")));
        all.add(new Bound("bad-text fetched[0].mirror", 1000, n -> report("\"fetched\":[{\"sha256\":\"ab\",\"mirror\":\"" + letters(n) + "\",\"bytes\":1}]")));
        all.add(new Bound("bad-text progress[0].message", 1000, n -> job(",\"message\":\"" + letters(n) + "\"")));
        all.add(new Bound("bad-version present[0].version", 200, n -> report("\"present\":[{\"title\":\"t1\",\"version\":\"" + letters(n) + "\"}]")));
        all.add(new Bound("bad-version progress[0].version", 200, n -> job(",\"version\":\"" + letters(n) + "\"")));
        return all.stream();
    }

    @ParameterizedTest
    @MethodSource("bounds")
    void whatIsAtItsBoundIsTakenAndOneMoreIsNot(Bound bound) {
        assertThat(places(bound.of().apply(bound.most()))).as("at the bound").isEmpty();
        assertThat(places(bound.of().apply(bound.most() + 1))).as("one more").containsExactly(bound.place());
    }
}
