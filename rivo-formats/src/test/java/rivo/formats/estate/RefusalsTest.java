package rivo.formats.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;

/** Everything that an estate file is refused for, one change to a sound one at a time; and what is harmless. */
class RefusalsTest {

    private static final String SOUND = """
            {"format": "rivo-estate/1", "asOf": "2026-11-23T08:00:00Z",
             "ous": [{"id": "root", "dn": "dc=quillbrook", "parent": null},
                     {"id": "labs", "dn": "ou=labs,dc=quillbrook", "parent": "root"},
                     {"id": "bench", "dn": "ou=bench,ou=labs,dc=quillbrook", "parent": "labs"}],
             "users": [{"id": "u1", "ou": "labs"}, {"id": "u2"}],
             "devices": [{"id": "d1", "ou": "labs", "people": ["u1", "u2"], "facts": {"ramGiB": 8, "os.version": "10.0"},
                          "software": [{"name": "Silt", "version": "1.0"}, {"name": "Silt", "version": "1.0"}],
                          "present": [{"title": "silt", "version": "1.0", "by": "a1"},
                                      {"title": "notes", "user": "u1"}, {"title": "notes", "user": "u2"}]},
                         {"id": "d2"}],
             "groups": [{"id": "g1", "members": ["user:u1", "device:d1"]}, {"id": "g2", "members": ["group:g1"]}],
             "collections": [{"id": "c1", "name": "Small", "rule": "ramGiB lt 9", "include": ["d2"], "exclude": ["d1"]},
                             {"id": "c2", "name": "Large", "base": "labs", "rule": "not (collection eq \\"Small\\")"}],
             "titles": [{"id": "silt", "scope": "device", "seats": 3, "conflictsWith": ["mud"], "releases": [
                          {"version": "1.0", "state": "withdrawn", "variants": [{"id": "all"}]},
                          {"version": "2.0", "needs": [{"title": "kit", "min": "1.0"}],
                           "replaces": [{"title": "old", "mode": "in-place"}],
                           "variants": [{"id": "x64", "fits": "arch eq \\"x64\\""}, {"id": "arm"}]}]},
                        {"id": "kit", "scope": "device", "releases": [{"version": "1.0", "needs": [{"title": "base"}],
                          "replaces": [{"title": "plain", "mode": "remove-first"}], "variants": []}]},
                        {"id": "base", "scope": "device", "releases": [{"version": "1.0", "variants": []}]},
                        {"id": "mud", "scope": "device", "releases": []}, {"id": "old", "scope": "device", "releases": []},
                        {"id": "plain", "scope": "device", "releases": []},
                        {"id": "notes", "scope": "user", "releases": [{"version": "1.0", "needs": [{"title": "base"}],
                          "variants": []}]},
                        {"id": "memo", "scope": "user", "releases": []}],
             "kits": [{"id": "k1", "titles": ["silt", "kit"]}],
             "assignments": [{"id": "a1", "seq": 1, "subject": "title:silt", "intent": "required", "follows": "device",
                              "include": ["ou:labs", "group:g1"], "exclude": ["device:d2"], "within": "ramGiB gt 1",
                              "base": "labs", "priority": 0, "release": "=2.0", "from": "2026-11-20T00:00:00+01:00",
                              "waves": [{"to": ["collection:c1"], "open": true}, {"share": 40, "open": true},
                                        {"share": 60, "open": false}]},
                             {"id": "a2", "seq": 2, "subject": "kit:k1", "intent": "available", "follows": "user",
                              "state": "paused", "include": ["user:u1", "all-users"], "leaving": "remove"}],
             "requests": [{"device": "d1", "title": "silt"}, {"device": "d1", "title": "notes", "user": "u2"}]}
            """;

    /** What stands in the sound one, what takes its place, and where that is complained of. */
    private static final String USED_TWICE = """
            {"id": "labs", "dn"                        | {"id": "root", "dn"                      | ous[1].id
            {"id": "u2"}                               | {"id": "u1"}                             | users[1].id
            {"id": "d2"}                               | {"id": "d1"}                             | devices[1].id
            {"id": "g2",                               | {"id": "g1",                             | groups[1].id
            {"id": "c2",                               | {"id": "c1",                             | collections[1].id
            {"id": "memo",                             | {"id": "silt",                           | titles[7].id
            [{"id": "k1", "titles"                     | [{"id": "k1", "titles": []}, {"id": "k1", "titles" | kits[1].id
            {"id": "a2",                               | {"id": "a1",                             | assignments[1].id
            "seq": 2,                                  | "seq": 1,                                | assignments[1].seq
            "name": "Large"                            | "name": "SMALL"                          | collections[1].name
            """;

    private static final String UNDECLARED = """
            {"id": "u1", "ou": "labs"}        | {"id": "u1", "ou": "moon"}        | users[0].ou
            {"id": "d1", "ou": "labs",        | {"id": "d1", "ou": "moon",        | devices[0].ou
            ["u1", "u2"]                      | ["u1", "u9"]                      | devices[0].people[1]
            {"title": "silt", "version"       | {"title": "lost", "version"       | devices[0].present[0].title
            "by": "a1"                        | "by": "a9"                        | devices[0].present[0].by
            ["user:u1", "device:d1"]          | ["user:u9", "device:d1"]          | groups[0].members[0]
            ["group:g1"]                      | ["group:g9"]                      | groups[1].members[0]
            "include": ["d2"]                 | "include": ["d9"]                 | collections[0].include[0]
            "exclude": ["d1"]                 | "exclude": ["d9"]                 | collections[0].exclude[0]
            "base": "labs", "rule"            | "base": "moon", "rule"            | collections[1].base
            "conflictsWith": ["mud"]          | "conflictsWith": ["lost"]         | titles[0].conflictsWith[0]
            {"title": "kit", "min"            | {"title": "lost", "min"           | titles[0].releases[1].needs[0].title
            {"title": "old", "mode"           | {"title": "lost", "mode"          | titles[0].releases[1].replaces[0].title
            ["silt", "kit"]                   | ["silt", "lost"]                  | kits[0].titles[1]
            "subject": "title:silt"           | "subject": "title:lost"           | assignments[0].subject
            "subject": "kit:k1"               | "subject": "kit:k9"               | assignments[1].subject
            ["ou:labs", "group:g1"]           | ["ou:labs", "group:g9"]           | assignments[0].include[1]
            ["device:d2"]                     | ["device:d9"]                     | assignments[0].exclude[0]
            "base": "labs", "priority"        | "base": "moon", "priority"        | assignments[0].base
            "to": ["collection:c1"]           | "to": ["collection:c9"]           | assignments[0].waves[0].to[0]
            [{"device": "d1", "title": "silt" | [{"device": "d9", "title": "silt" | requests[0].device
            {"device": "d1", "title": "notes" | {"device": "d1", "title": "lost"  | requests[1].title
            {"device": "d1", "title": "notes", "user": "u2" | {"device": "d1", "title": "notes", "user": "u9" | requests[1].user
            """;

    private static final String LISTED_TWICE = """
            ["u1", "u2"]                         | ["u1", "u2", "u1"]                            | devices[0].people[2]
            ["user:u1", "device:d1"]             | ["user:u1", "user:u1"]                        | groups[0].members[1]
            [{"title": "kit", "min": "1.0"}]     | [{"title": "kit"}, {"title": "kit", "min": "1.0"}] | titles[0].releases[1].needs[1]
            [{"title": "old", "mode": "in-place"}] | [{"title": "old", "mode": "in-place"}, {"title": "old", "mode": "remove-first"}] | titles[0].releases[1].replaces[1]
            {"title": "notes", "user": "u1"},    | {"title": "notes", "user": "u2"},             | devices[0].present[2]
            {"id": "arm"}                        | {"id": "x64"}                                 | titles[0].releases[1].variants[1]
            {"version": "1.0", "state": "withdrawn" | {"version": "2.0.0", "state": "withdrawn"  | titles[0].releases[1]
            """;

    private static final String TREES_RULES_FACTS = """
            {"id": "root", "dn": "dc=quillbrook", "parent": null} | {"id": "root", "dn": "dc=quillbrook", "parent": "bench"} | ous
            "parent": "labs"                     | "parent": null                                | ous[2]
            "parent": "root"                     | "parent": "bench"                             | ous[
            "parent": null}                      | "parent": null, "fenced": true}               | ous[0].fenced
            "ramGiB lt 9"                        | "ramGiB lt"                                   | collections[0].rule
            "ramGiB lt 9"                        | "arch lt 9"                                   | collections[0].rule
            "ramGiB lt 9"                        | "collection eq \\"Large\\""                   | collections[
            "ramGiB lt 9"                        | "collection eq \\"Lost\\""                    | collections[0].rule
            "ramGiB gt 1"                        | "ramGiB gt \\"one\\""                         | assignments[0].within
            "ramGiB gt 1"                        | "collection eq \\"Lost\\""                    | assignments[0].within
            "arch eq \\"x64\\""                  | "arch eq x64"                                 | titles[0].releases[1].variants[0].fits
            "ramGiB": 8                          | "ramGiB": "8"                                 | devices[0].facts.ramGiB
            "os.version": "10.0"                 | "os.version": 10.0                            | devices[0].facts.os.version
            "os.version": "10.0"                 | "os.colour": "red"                            | devices[0].facts.os.colour
            """;

    private static final String WORDS_NUMBERS_TARGETS = """
            ["ou:labs", "group:g1"]         | ["user:u1"]             | assignments[0].include[0]
            ["ou:labs", "group:g1"]         | ["all-users"]           | assignments[0].include[0]
            ["user:u1", "all-users"]        | ["device:d1"]           | assignments[1].include[0]
            ["user:u1", "all-users"]        | ["all-devices"]         | assignments[1].include[0]
            ["user:u1", "all-users"]        | ["collection:c1"]       | assignments[1].include[0]
            "intent": "available"           | "intent": "offered"     | assignments[1].intent
            "state": "paused"               | "state": "asleep"       | assignments[1].state
            "state": "withdrawn"            | "state": "gone"         | titles[0].releases[0].state
            "mode": "in-place"              | "mode": "somehow"       | titles[0].releases[1].replaces[0].mode
            "leaving": "remove"             | "leaving": "perhaps"    | assignments[1].leaving
            "rivo-estate/1"                 | "rivo-estate/2"         | format
            "from": "2026-11-20             | "from": "2026-13-20     | assignments[0].from
            "asOf": "2026-11-23             | "asOf": "2026-11-31     | asOf
            "release": "=2.0"               | "release": "2.0"        | assignments[0].release
            "release": "=2.0"               | "release": "="          | assignments[0].release
            "priority": 0                   | "priority": -1          | assignments[0].priority
            "priority": 0                   | "priority": 1001        | assignments[0].priority
            "seats": 3                      | "seats": -1             | titles[0].seats
            "share": 60                     | "share": 60.5           | assignments[0].waves
            "share": 60                     | "share": -1             | assignments[0].waves[2].share
            "share": 60                     | "share": 101            | assignments[0].waves[2].share
            "share": 60, "open": false      | "share": 60             | assignments[0].waves[2].open
            "share": 60,                    |                         | assignments[0].waves[2]
            "share": 60                     | "colour": 60            | assignments[0].waves[2].colour
            {"id": "u2"}                    | {"id": "u2", "mail": 1} | users[1].mail
            {"title": "notes", "user": "u1"}, | {"title": "notes"},   | devices[0].present[1]
            {"title": "silt", "version": "1.0", | {"title": "silt", "user": "u1", "version": "1.0", | devices[0].present[0].user
            "d1", "title": "notes", "user": "u2"} | "d1", "title": "notes"} | requests[1]
            {"id": "plain", "scope": "device" | {"id": "plain"        | titles[5].scope
            {"id": "memo", "scope": "user"  | {"id": "memo", "scope": "planet" | titles[7].scope
            "version": "1.0", "by": "a1"    | "version": "", "by": "a1" | devices[0].present[0].version
            """;

    private static final String RELATIONS = """
            {"id": "base", "scope": "device", "releases": [{"version": "1.0", | {"id": "base", "scope": "device", "releases": [{"version": "1.0", "needs": [{"title": "silt"}],
            {"id": "old", "scope": "device", "releases": []}   | {"id": "old", "scope": "device", "releases": [{"version": "1", "replaces": [{"title": "silt", "mode": "in-place"}], "variants": []}]}
            {"title": "kit", "min"                             | {"title": "mud", "min"
            {"title": "kit", "min"                             | {"title": "old", "min"
            {"title": "kit", "min"                             | {"title": "silt", "min"
            "conflictsWith": ["mud"]                           | "conflictsWith": ["silt"]
            {"title": "old", "mode"                            | {"title": "silt", "mode"
            {"title": "old", "mode"                            | {"title": "memo", "mode"
            {"title": "kit", "min"                             | {"title": "memo", "min"
            "conflictsWith": ["mud"]                           | "conflictsWith": ["memo"]
            """;

    private static List<Problem> problems(String json) throws IOException {
        try {
            EstateReader.read(new ByteArrayInputStream(json.getBytes(StandardCharsets.UTF_8)));
            return List.of();
        } catch (RefusedException e) {
            return e.problems();
        }
    }

    private static String with(String sound, String broken) {
        assertThat(SOUND.split(java.util.regex.Pattern.quote(sound), -1)).as("\"%s\" stands there once", sound).hasSize(2);
        return SOUND.replace(sound, broken);
    }

    @Test
    void theSoundOneIsTaken() throws IOException {
        assertThat(problems(SOUND)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', textBlock = USED_TWICE)
    void whatMustBeUniqueIsRefusedTheSecondTime(String sound, String broken, String place) throws IOException {
        assertThat(problems(with(sound, broken))).extracting(Problem::place).contains(place);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', textBlock = UNDECLARED)
    void anIdThatIsNotDeclaredIsRefused(String sound, String broken, String place) throws IOException {
        assertThat(problems(with(sound, broken))).extracting(Problem::place).contains(place);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', textBlock = LISTED_TWICE)
    void anEntryThatStandsTwiceInOneListIsRefused(String sound, String broken, String place) throws IOException {
        assertThat(problems(with(sound, broken))).extracting(Problem::place).anySatisfy(p -> assertThat(p).startsWith(place));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', textBlock = """
            ["ou:labs", "group:g1"]     | ["ou:labs", "ou:labs"]
            ["device:d2"]               | ["device:d2", "device:d2"]
            "conflictsWith": ["mud"]    | "conflictsWith": ["mud", "mud"]
            ["silt", "kit"]             | ["silt", "kit", "silt"]
            "include": ["d2"]           | "include": ["d2", "d2"]
            ["collection:c1"], "open"   | ["collection:c1", "collection:c1"], "open"
            ["group:g1"]                | ["group:g1", "group:g2"]
            {"id": "d2"}                | {"id": "d2", "name": "", "people": [], "software": [], "present": []}
            {"device": "d1", "title": "silt"} | {"device": "d1", "title": "silt"}, {"device": "d1", "title": "silt"}
            {"device": "d1", "title": "silt"} | {"device": "d1", "title": "silt"}, {"device": "d2", "title": "notes", "user": "u2"}
            "share": 60                 | "share": 0.01
            "share": 60                 | "share": 60.0
            "priority": 0               | "priority": 1000
            "seats": 3                  | "seats": 0
            "name": "Small"             | "name": "Small", "base": "root"
            "ramGiB": 8                 | "ramGiB": 8.25
            """)
    void whatIsHarmlessIsTaken(String sound, String other) throws IOException {
        assertThat(problems(with(sound, other))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', textBlock = TREES_RULES_FACTS)
    void treesRulesAndFactsAreLookedAt(String sound, String broken, String place) throws IOException {
        assertThat(problems(with(sound, broken))).extracting(Problem::place).anySatisfy(p -> assertThat(p).startsWith(place));
    }

    /** The relations of three titles, each put in the place of what it needs, replaces or conflicts with. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', textBlock = RELATIONS)
    void relationsThatCannotBeAreRefusedAtATitle(String sound, String broken) throws IOException {
        assertThat(problems(with(sound, broken))).isNotEmpty().allSatisfy(problem -> {
            assertThat(problem.place()).startsWith("titles[");
            assertThat(problem.sentence()).endsWith(".").hasSizeGreaterThan(20);
        });
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', textBlock = WORDS_NUMBERS_TARGETS)
    void wordsNumbersAndTargetsAreLookedAt(String sound, String broken, String place) throws IOException {
        assertThat(problems(with(sound, broken == null ? "" : broken))).extracting(Problem::place)
                .anySatisfy(p -> assertThat(p).startsWith(place));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "a;b", "a\\nb", "a\\u0000", "a\\u007f"})
    void anIdHasToBeOne(String id) throws IOException {
        assertThat(problems(with("{\"id\": \"u2\"}", "{\"id\": \"u2\"}, {\"id\": \"" + id + "\"}")))
                .extracting(Problem::place).containsExactly("users[2].id");
    }

    @Test
    void anIdMayHaveTwoHundredCharacters() throws IOException {
        assertThat(problems(with("{\"id\": \"u2\"}", "{\"id\": \"u2\"}, {\"id\": \"" + "é".repeat(200) + "\"}"))).isEmpty();
        assertThat(problems(with("{\"id\": \"u2\"}", "{\"id\": \"u2\"}, {\"id\": \"" + "é".repeat(201) + "\"}")))
                .extracting(Problem::place).containsExactly("users[2].id");
    }

    @Test
    void aNumberOfAHundredThousandDigitsIsRefusedAndNotReckonedWith() throws IOException {
        assertThat(problems(with("\"seats\": 3", "\"seats\": " + "9".repeat(100_000)))).isNotEmpty();
        assertThat(problems(with("\"seats\": 3", "\"seats\": " + "9".repeat(900)))).extracting(Problem::place)
                .containsExactly("titles[0].seats");
        assertThat(problems(with("\"ramGiB\": 8", "\"ramGiB\": 0." + "1".repeat(100_000)))).isNotEmpty();
    }

    @Test
    void threeFaultsInOneFileAreAllTold() throws IOException {
        String json = with("\"seats\": 3", "\"seats\": -3").replace("\"priority\": 0", "\"priority\": 5000")
                .replace("\"ramGiB lt 9\"", "\"ramGB lt 9\"");
        assertThat(problems(json)).extracting(Problem::place).containsExactlyInAnyOrder("titles[0].seats",
                "assignments[0].priority", "collections[0].rule");
    }

    private record Fault(String sound, String broken, String place) {
        static Stream<Fault> all() {
            return Stream.of(USED_TWICE, UNDECLARED, LISTED_TWICE, TREES_RULES_FACTS, WORDS_NUMBERS_TARGETS, RELATIONS)
                    .flatMap(String::lines).map(line -> line.split("\\|", -1))
                    .map(cells -> new Fault(cells[0].strip(), cells[1].strip(),
                            cells.length > 2 ? cells[2].strip() : "titles["));
        }

        boolean canBePutInto(String json) {
            return json.split(java.util.regex.Pattern.quote(sound), -1).length == 2;
        }

        String in(String json) {
            return json.replace(sound, broken);
        }
    }

    /**
     * All pairs of faults but those of the tree of OUs, which may mend or make each other, and those that move what is
     * complained of to another place in its list.
     */
    @Test
    void noFaultHidesAnother() throws IOException {
        List<Fault> faults = Fault.all().filter(f -> !f.sound.contains("parent") && !f.sound.contains("labs\", \"dn\"")
                && !f.broken.contains("[{\"id\": \"k1\", \"titles\": []}")).toList();
        int pairs = 0;
        for (Fault one : faults) {
            String json = one.in(SOUND);
            for (Fault other : faults) {
                if (other.canBePutInto(json) && !one.broken.contains(other.sound) && !other.sound.contains(one.sound)) {
                    assertThat(problems(other.in(json))).as("%s, and then %s", one, other).extracting(Problem::place)
                            .anySatisfy(place -> assertThat(place).startsWith(one.place));
                    pairs++;
                }
            }
        }
        assertThat(pairs).isGreaterThan(7_000);
    }
}
