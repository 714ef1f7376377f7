package rivo.server.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import rivo.server.ServerTest;
import rivo.server.estate.CurrentSnapshot;
import tools.jackson.databind.JsonNode;

/** Finding audiences. */
class AudiencesApiTest extends ServerTest {

    private static JsonNode find(String query) {
        return server.ask("GET", "/api/audiences" + query, null).body();
    }

    private static int matches(JsonNode found, String kind) {
        return found.path("kinds").valueStream().filter(one -> one.path("kind").asString().equals(kind)).findFirst().orElseThrow()
                .path("matches").asInt();
    }

    @Test
    void everyKindIsCountedAndTheWantedOnesAreGiven() {
        JsonNode found = find("?q=lab&kind=ou");
        assertThat(matches(found, "ou")).isEqualTo(4);
        assertThat(matches(found, "device")).isEqualTo(16);
        assertThat(found.path("lines").valueStream().map(line -> line.path("kind").asString()).distinct()).containsExactly("ou");
        JsonNode all = find("?q=lab");
        assertThat(all.path("lines").valueStream().filter(line -> line.path("kind").asString().equals("device")).count())
                .as("the first eight of a kind").isEqualTo(8);
    }

    @Test
    void aLineSaysWhatItIsCalledWhereItIsAndWhatItHolds() {
        JsonNode line = find("?q=coldwell&kind=ou").path("lines").get(0);
        assertThat(line.path("target").asString()).isEqualTo("ou:" + server.ou("Coldwell Laboratory"));
        assertThat(line.path("where").asString()).isEqualTo("Laboratories");
        assertThat(line.path("devices").asInt()).isEqualTo(4);
        JsonNode person = find("?q=imara&kind=user").path("lines").get(0);
        assertThat(person.path("name").asString()).isEqualTo("Imara Voss");
        assertThat(person.path("where").asString()).isEqualTo("imara.voss");
        assertThat(List.of(person.path("devices").asInt(), person.path("people").asInt())).containsExactly(0, 1);
        JsonNode everyone = find("?q=every&kind=all-users").path("lines").get(0);
        assertThat(everyone.path("target").asString()).isEqualTo("all-users");
        assertThat(everyone.path("people").asInt()).isEqualTo(server.bean(CurrentSnapshot.class).now().estate().users().size());
    }

    @Test
    void aKindThatThereIsNotGivesNothing() {
        assertThat(find("?q=lab&kind=moon").path("lines").size()).isZero();
    }
}
