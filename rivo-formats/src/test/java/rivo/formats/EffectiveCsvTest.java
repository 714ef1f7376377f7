package rivo.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Title;
import rivo.core.estate.Version;

class EffectiveCsvTest {

    private static final Title TITLE = new Title("siltscope", "Siltscope Lab",
            List.of(new Release(Version.of("4.2.0"), ReleaseState.OFFERED, List.of("x64"))));

    private static Device device(String id, String ou) {
        return new Device(id, id, ou, List.of(), Map.of(), List.of(), List.of());
    }

    private static Assignment assignment(String id, long seq, Intent intent, String ou) {
        return new Assignment(id, seq, AssignmentState.ACTIVE, "siltscope", intent, List.of(ou), false, 500);
    }

    private static String csv(List<Device> devices, Assignment... assignments) throws IOException {
        Estate estate = Estate.of(List.of(new Ou("root", "root", "dc=x", null, false),
                new Ou("labs", "labs", "ou=labs,dc=x", "root", false)), List.of(), devices, List.of(TITLE),
                List.of(assignments));
        StringBuilder out = new StringBuilder();
        EffectiveCsv.write(estate, List.of(TITLE), out);
        return out.toString();
    }

    @Test
    void eachOutcomeHasItsRow() throws IOException {
        String csv = csv(List.of(device("d2", "labs"), device("d1", "root")),
                assignment("a1", 1, Intent.UNINSTALL, "root"), assignment("a2", 2, Intent.REQUIRED, "labs"));
        assertThat(csv).isEqualTo("device,user,title,outcome,release,variant,assignment,reason,by\n"
                + "d1,,siltscope,uninstall,,,a1,assigned,\n"
                + "d2,,siltscope,required,4.2.0,x64,a2,assigned,\n");
    }

    @Test
    void contestedOnesNameAllThatDisagreeInCodePointOrder() throws IOException {
        String csv = csv(List.of(device("d1", "root")), assignment("a9", 1, Intent.REQUIRED, "root"),
                assignment("a10", 2, Intent.UNINSTALL, "root"));
        assertThat(csv).endsWith("d1,,siltscope,contested,,,a10;a9,,\n");
    }

    @Test
    void nothingIsTheHeaderAlone() throws IOException {
        assertThat(csv(List.of())).isEqualTo("device,user,title,outcome,release,variant,assignment,reason,by\n");
    }

    @Test
    void idsWithCommasAndQuotesAreQuoted() throws IOException {
        assertThat(csv(List.of(device("d,\"1\"", "root")), assignment("a1", 1, Intent.UNINSTALL, "root")))
                .contains("\"d,\"\"1\"\"\",,siltscope");
    }

    @Test
    void rowsStandInTheOrderOfCodePoints() {
        String beyond = new String(Character.toChars(0x1F4A7));
        List<String> ids = new ArrayList<>(List.of(beyond, "\uFF21", "b", "a", "aa"));
        ids.sort(CodePoints.ORDER);
        assertThat(ids).containsExactly("a", "aa", "b", "\uFF21", beyond);
    }
}
