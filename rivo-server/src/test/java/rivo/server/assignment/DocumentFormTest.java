package rivo.server.assignment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion.VersionFlag;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rivo.core.estate.Assignment;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.formats.estate.EstateReader;
import rivo.formats.estate.EstateWriter;
import rivo.server.audience.CollectionDocument;
import rivo.server.estate.Json;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Documents have one JSON form, which is the estate file's. */
class DocumentFormTest {

    private static final int ESTATES = 300;
    private static final JsonMapper JSON = new JsonMapper();

    private static JsonNode file(Estate estate) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        EstateWriter.write(estate, out, false);
        return JSON.readTree(out.toByteArray());
    }

    @Test
    void assignmentsAndCollectionsStandInTheEstateFileAsTheyDoInRecords() throws IOException {
        for (long seed = 0; seed < ESTATES; seed++) {
            Estate estate = new RandomDocuments(seed).estate();
            JsonNode file = file(estate);
            List<Assignment> assignments = estate.assignments().all();
            for (int i = 0; i < assignments.size(); i++) {
                AssignmentDocument document = AssignmentDocument.of(assignments.get(i), Delivery.AS_USUAL);
                assertThat(Json.tree(document)).as("seed " + seed).isEqualTo(file.at("/assignments/" + i));
                assertThat(AssignmentDocument.KIND.parse(file.at("/assignments/" + i).toString())).as("seed " + seed).isEqualTo(document);
                assertThat(document.assignment()).as("seed " + seed).isEqualTo(assignments.get(i));
            }
            for (int i = 0; i < file.path("collections").size(); i++) {
                JsonNode written = file.at("/collections/" + i);
                DeviceCollection collection = estate.collections().get(written.path("id").asString());
                CollectionDocument document = CollectionDocument.KIND.parse(written.toString());
                assertThat(document.collection()).as("seed " + seed).isEqualTo(collection);
                assertThat(Json.tree(CollectionDocument.of(collection))).as("seed " + seed).isEqualTo(written);
            }
            assertThat(EstateReader.read(new ByteArrayInputStream(JSON.writeValueAsBytes(file))).assignments().all()).as("seed " + seed)
                    .isEqualTo(assignments);
        }
    }

    @Test
    void whatIsWrittenIsReadAgainWithItsDelivery() throws IOException {
        JsonSchema schema = JsonSchemaFactory.getInstance(VersionFlag.V202012)
                .getSchema(Files.readString(Path.of("../docs/schema/assignment.schema.json")));
        for (long seed = 0; seed < ESTATES; seed++) {
            RandomDocuments random = new RandomDocuments(seed);
            Assignment assignment = random.assignment("a1", seed);
            AssignmentDocument document = AssignmentDocument.of(assignment, random.delivery(!assignment.waves().isEmpty()));
            assertThat(document.assignment()).as("seed " + seed).isEqualTo(assignment);
            String written = Json.write(document);
            assertThat(AssignmentDocument.KIND.parse(written)).as(written).isEqualTo(document);
            assertThat(schema.validate(written, InputFormat.JSON)).as(written).isEmpty();
            ObjectNode misspelt = (ObjectNode) JSON.readTree(written);
            misspelt.put("inclde", "x");
            assertThatThrownBy(() -> AssignmentDocument.KIND.parse(misspelt.toString())).isInstanceOf(JacksonException.class);
            assertThat(schema.validate(misspelt.toString(), InputFormat.JSON)).as("misspelt").isNotEmpty();
        }
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', value = {"\"subject\":\"siltscope\";bad-subject", "\"intent\":\"perhaps\";unknown-word",
        "\"follows\":\"nobody\";unknown-word", "\"state\":\"idle\";unknown-word", "\"leaving\":\"burn\";unknown-word",
        "\"include\":[\"moon:x\"];bad-target", "\"exclude\":[\"ou:\"];bad-target", "\"release\":\"4.2\";bad-release",
        "\"release\":\"=\";bad-release", "\"priority\":1001;bad-priority", "\"priority\":-1;bad-priority", "\"waves\":[{\"open\":true}];bad-wave",
        "\"waves\":[{\"to\":[\"ou:labs\"],\"share\":3,\"open\":true}];bad-wave", "\"waves\":[{\"share\":101,\"open\":true}];bad-share",
        "\"rollout\":{\"stopped\":true};no-waves", "\"rollout\":{\"stops\":{\"failed\":3}};no-waves",
        "\"rollout\":{\"opens\":{\"after\":\"a day\"}},\"waves\":[{\"share\":5,\"open\":true}];bad-period",
        "\"rollout\":{\"opens\":{\"after\":\"P366D\"}},\"waves\":[{\"share\":5,\"open\":true}];bad-period",
        "\"rollout\":{\"opens\":{\"after\":\"P99999999999D\"}},\"waves\":[{\"share\":5,\"open\":true}];bad-period",
        "\"rollout\":{\"opens\":{\"inPlace\":0}},\"waves\":[{\"share\":5,\"open\":true}];bad-number",
        "\"rollout\":{\"opens\":{\"inPlace\":101}},\"waves\":[{\"share\":5,\"open\":true}];bad-number",
        "\"rollout\":{\"opens\":{\"inPlace\":95,\"atLeast\":0}},\"waves\":[{\"share\":5,\"open\":true}];bad-number",
        "\"rollout\":{\"opens\":{\"inPlace\":95}},\"intent\":\"available\",\"waves\":[{\"share\":5,\"open\":true}];bad-rule",
        "\"rollout\":{\"stops\":{\"failed\":100}},\"waves\":[{\"share\":5,\"open\":true}];bad-number",
        "\"rollout\":{\"stops\":{\"failed\":3,\"atLeast\":0}},\"waves\":[{\"share\":5,\"open\":true}];bad-number",
        "\"windows\":\"never\";unknown-word", "\"deadline\":{};bad-deadline", "\"deadline\":{\"local\":\"tomorrow\"};bad-deadline",
        "\"deadline\":{\"at\":\"2026-12-04T18:00:00Z\",\"local\":\"2026-12-04T18:00\"};bad-deadline",
        "\"courtesy\":{\"tell\":{\"before\":[\"soon\"]}};bad-period", "\"courtesy\":{\"restart\":{\"way\":\"wait\"}};unknown-word",
        "\"courtesy\":{\"restart\":{\"way\":\"ask\",\"defer\":{\"times\":101}}};bad-times",
        "\"courtesy\":{\"restart\":{\"way\":\"ask\",\"defer\":{\"until\":\"-PT1H\"}}};bad-period",
        "\"courtesy\":{\"signOut\":{\"way\":\"kick\"}};unknown-word",
        "\"courtesy\":{\"tell\":{\"before\":[\"P1D\",\"P1D\",\"P1D\",\"P1D\",\"P1D\",\"P1D\",\"P1D\",\"P1D\",\"P1D\",\"P1D\",\"P1D\"]}};too-many"})
    void whatMakesNoSenseIsRefusedByItsPlace(String part, String code) {
        ObjectNode json = (ObjectNode) JSON.readTree("{\"id\":\"a1\",\"seq\":1,\"subject\":\"title:siltscope\",\"intent\":\"required\","
                + "\"follows\":\"device\"}");
        json.setAll((ObjectNode) JSON.readTree("{" + part + "}"));
        String key = part.substring(1, part.indexOf('"', 1));
        assertThatThrownBy(() -> AssignmentDocument.KIND.parse(json.toString()).assignment()).isInstanceOfSatisfying(RefusedException.class,
                e -> assertThat(e.problems()).singleElement().satisfies(problem -> {
                    assertThat(problem.code()).isEqualTo(code);
                    assertThat(problem.place()).startsWith("assignment:a1." + key);
                }));
    }

    @Test
    void everythingThatIsWrongIsSaidAtOnce() {
        assertThatThrownBy(() -> AssignmentDocument.KIND.parse("{}").assignment()).isInstanceOfSatisfying(RefusedException.class,
                e -> assertThat(e.problems()).extracting(Problem::place).contains("assignment:.subject", "assignment:.intent", "assignment:.follows"));
    }

    @Test
    void aWaveHasToSayWhetherItIsOpen() {
        assertThatThrownBy(() -> AssignmentDocument.KIND.parse("{\"waves\":[{\"share\":5}]}")).isInstanceOf(JacksonException.class);
    }
}
