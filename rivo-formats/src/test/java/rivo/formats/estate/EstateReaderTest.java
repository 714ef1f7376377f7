package rivo.formats.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;

class EstateReaderTest {

    private static final String SOUND = """
            {"format": "rivo-estate/1", "asOf": "2026-11-23T08:00:00Z",
             "ous": [{"id": "root", "dn": "dc=quillbrook,dc=example", "parent": null},
                     {"id": "labs", "dn": "ou=Laboratories,dc=quillbrook,dc=example", "parent": "root", "fenced": true}],
             "users": [{"id": "u1", "name": "imara.voss", "ou": "labs", "facts": {"department": "Water quality"}}],
             "devices": [{"id": "d1", "name": "QB-LAB-001", "ou": "labs", "people": ["u1"],
                "facts": {"os.version": "10.0.26100", "ramGiB": 16, "lastSeen": "2026-11-22T17:05:00Z", "x.Room": "B12"},
                "software": [{"name": "Siltscope Lab", "version": "4.1.0"}],
                "present": [{"title": "siltscope", "version": "4.1.0", "by": "a7"}]}],
             "groups": [{"id": "g1", "name": "lab-analysts", "members": ["user:u1", "device:d1", "group:g1"]}],
             "collections": [{"id": "c1", "name": "Lab PCs", "base": "root", "rule": "ramGiB ge 8"}],
             "titles": [{"id": "siltscope", "scope": "device", "seats": 40,
                "releases": [{"version": "4.2.0", "variants": [{"id": "x64", "fits": "ramGiB gt 4"}]}]}],
             "kits": [{"id": "k1", "titles": ["siltscope"]}],
             "assignments": [{"id": "a7", "seq": 7, "subject": "title:siltscope", "intent": "required", "follows": "device",
                "include": ["ou:labs"], "waves": [{"to": ["collection:c1"], "open": true}, {"share": 25.5, "open": false}]}],
             "requests": [{"device": "d1", "title": "siltscope"}]}
            """;

    private static final byte[] DAMAGE = "{}[]\",:0-9aZ\\ \u0000\u00ff".getBytes(StandardCharsets.ISO_8859_1);

    private static Estate read(String json) throws IOException {
        return EstateReader.read(new ByteArrayInputStream(json.getBytes(StandardCharsets.UTF_8)));
    }

    private static List<Problem> problems(String json) {
        RefusedException refused = catchThrowableOfType(RefusedException.class, () -> read(json));
        return refused == null ? List.of() : refused.problems();
    }

    private static List<String> places(String json) {
        return problems(json).stream().map(Problem::place).toList();
    }

    @Test
    void aSoundEstateIsRead() throws IOException {
        Estate estate = read(SOUND);
        assertThat(estate.ous().at(1).name()).isEqualTo("Laboratories");
        assertThat(estate.devices().at(0).facts().get("X.ROOM")).isEqualTo("B12");
        assertThat(estate.assignments().of("siltscope")).hasSize(1);
    }

    @Test
    void membersAreNamedByTheVeryIdsOfThoseTheyAre() throws IOException {
        Estate estate = read(SOUND);
        Group group = estate.groups().values().iterator().next();
        assertThat(group.members().get(0).id()).isSameAs(estate.users().at(0).id()).isEqualTo("u1");
        assertThat(group.members().get(1).id()).isSameAs(estate.devices().at(0).id()).isEqualTo("d1");
    }

    /** What is put in the place of what, and the place that is then refused. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            "rivo-estate/1"                | "rivo-estate/9"           | format
            "2026-11-23T08:00:00Z"         | "yesterday"               | asOf
            "parent": "root"               | "parent": "moon"          | ous[1].parent
            "fenced": true                 | "fenced": "yes"           | ous[1].fenced
            "fenced": true                 | "colour": "red"           | ous[1].colour
            "people": ["u1"]               | "people": ["u1", "u1"]    | devices[0].people[1]
            "people": ["u1"]               | "people": ["u9"]          | devices[0].people[0]
            "people": ["u1"]               | "people": "u1"            | devices[0].people
            "ramGiB": 16                   | "ramGiB": "16"            | devices[0].facts.ramGiB
            "ramGiB": 16                   | "ramGB": 16               | devices[0].facts.ramGB
            "2026-11-22T17:05:00Z"         | "22.11.2026"              | devices[0].facts.lastSeen
            "10.0.26100"                   | ""                        | devices[0].facts.os.version
            "by": "a7"                     | "by": "a9"                | devices[0].present[0].by
            "by": "a7"                     | "user": "u1"              | devices[0].present[0].user
            "device:d1"                    | "ou:labs"                 | groups[0].members[1]
            "rule": "ramGiB ge 8"          | "rule": "ramGiB ge"       | collections[0].rule
            "rule": "ramGiB ge 8"          | "rule": "collection eq \\"Lab PCs\\"" | collections[0].rule
            "rule": "ramGiB ge 8"          | "rule": "collection eq \\"Lost\\""    | collections[0].rule
            "ramGiB gt 4"                  | "ramGiB gt \\"4\\""       | titles[0].releases[0].variants[0].fits
            "seats": 40                    | "seats": -1               | titles[0].seats
            "scope": "device"              | "scope": "planet"         | titles[0].scope
            "version": "4.2.0"             | "version": " "            | titles[0].releases[0].version
            "titles": ["siltscope"]        | "titles": ["lost"]        | kits[0].titles[0]
            "seq": 7,                      | "x": 1, "seq": 7,         | assignments[0].x
            "seq": 7,                      |                           | assignments[0].seq
            "seq": 7,                      | "seq": 7, "seq": 8,       | assignments[0].seq
            "seq": 7,                      | "seq": 7.5,               | assignments[0].seq
            "seq": 7,                      | "seq": 7, "priority": 1001, | assignments[0].priority
            "seq": 7,                      | "seq": 7, "release": "4.2", | assignments[0].release
            "seq": 7,                      | "seq": 7, "from": "soon", | assignments[0].from
            "title:siltscope"              | "siltscope"               | assignments[0].subject
            "intent": "required"           | "intent": "wished"        | assignments[0].intent
            "follows": "device"            | "follows": "cat"          | assignments[0].follows
            "follows": "device"            | "follows": "user"         | assignments[0].waves
            "ou:labs"                      | "user:u1"                 | assignments[0].include[0]
            "ou:labs"                      | "ou"                      | assignments[0].include[0]
            "share": 25.5                  | "share": 101              | assignments[0].waves[1].share
            "share": 25.5                  | "share": 1e-999999999     | assignments[0].waves[1].share
            "share": 25.5, "open": false   | "share": 25               | assignments[0].waves[1].open
            {"share": 25.5,                | {"share": 25, "to": [],   | assignments[0].waves[1]
            "requests": [{"device": "d1"   | "requests": [{"device": "d9" | requests[0].device
            """)
    void whatIsWrongIsRefusedWithItsPlace(String sound, String broken, String place) {
        assertThat(SOUND).contains(sound);
        List<String> places = places(SOUND.replace(sound, broken == null ? "" : broken));
        if (place.equals("assignments[0].waves")) {
            assertThat(places).as("an OU may follow either side").isEmpty();
        } else {
            assertThat(places).containsExactly(place);
        }
    }

    @Test
    void everythingIsToldAndNotOnlyTheFirst() {
        String json = SOUND.replace("\"seats\": 40", "\"seats\": -4").replace("\"ou:labs\"", "\"ou:moon\"")
                .replace("\"people\": [\"u1\"]", "\"people\": [\"u7\"]").replace("\"fenced\"", "\"fence\"");
        assertThat(places(json)).containsExactlyInAnyOrder("ous[1].fence", "devices[0].people[0]", "titles[0].seats",
                "assignments[0].include[0]");
        assertThat(problems(json)).allSatisfy(p -> assertThat(p.sentence()).endsWith("."));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " ", "[]", "7", "{", "{\"format\": \"rivo-estate/1\"", "not json", "{\"a\" 1}", "{} {}", "nul"})
    void whatIsNoEstateIsRefused(String text) {
        assertThatThrownBy(() -> read(text)).isInstanceOf(RefusedException.class);
    }

    @Test
    void aBrokenFileTellsWhereAndWhatWasFoundBefore() {
        List<Problem> problems = problems(SOUND.replace("\"fenced\": true", "\"colour\": 1")
                .replace("\"requests\": [{", "\"requests\": [}"));
        assertThat(problems).extracting(Problem::code).containsExactly("unknown-key", "bad-json");
        assertThat(problems.get(1).sentence()).contains("Line ").contains("column ");
    }

    @Test
    void gzipIsRecognisedByItsContent() throws IOException {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        try (GZIPOutputStream gzip = new GZIPOutputStream(packed)) {
            gzip.write(SOUND.getBytes(StandardCharsets.UTF_8));
        }
        byte[] bytes = packed.toByteArray();
        assertThat(EstateReader.read(new ByteArrayInputStream(bytes)).devices().size()).isEqualTo(1);
        byte[] cut = java.util.Arrays.copyOf(bytes, bytes.length / 2);
        assertThatThrownBy(() -> EstateReader.read(new ByteArrayInputStream(cut))).isInstanceOf(RefusedException.class);
    }

    @Test
    void deepNonsenseEndsWithARefusal() {
        assertThatThrownBy(() -> read("{\"x\":" + "[".repeat(100_000) + "]".repeat(100_000) + "}"))
                .isInstanceOf(RefusedException.class);
    }

    @Test
    void damagedFilesNeverDoAnythingButRefuse() throws IOException {
        List<Path> cases;
        try (Stream<Path> files = Files.list(Path.of("src/test/resources/cases"))) {
            cases = files.filter(f -> f.toString().endsWith(".json")).sorted().toList();
        }
        Random random = new Random(4);
        for (int i = 0; i < 3000; i++) {
            byte[] bytes = Files.readAllBytes(cases.get(random.nextInt(cases.size())));
            for (int hits = 1 + random.nextInt(4); hits > 0; hits--) {
                bytes[random.nextInt(bytes.length)] = DAMAGE[random.nextInt(DAMAGE.length)];
            }
            byte[] damaged = bytes;
            try {
                EstateReader.read(new ByteArrayInputStream(damaged));
            } catch (RefusedException e) {
                assertThat(e.problems()).as("try %d", i).isNotEmpty();
            }
        }
    }

    @Test
    void equalTextsAreOneObject() {
        TextTable texts = new TextTable();
        String first = texts.text("xsiltscopex".toCharArray(), 1, 9);
        assertThat(first).isEqualTo("siltscope");
        for (int i = 0; i < 100_000; i++) {
            String text = "text " + i;
            assertThat(texts.text(text.toCharArray(), 0, text.length())).isEqualTo(text);
        }
        assertThat(texts.text("siltscope".toCharArray(), 0, 9)).isSameAs(first);
    }
}
