package rivo.devices.protocol;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import rivo.devices.protocol.UninstallCommand.NoneException;
import rivo.devices.protocol.UninstallCommand.Registered;

/** The table in the page about the device protocol is what holds: each of its lines is tried. */
class UninstallCommandTest {

    private static final String TABLE = "| registered name | registered quiet command | registered command | the step's command | becomes |";

    static Stream<List<String>> lines() throws IOException {
        List<String> page = Files.readAllLines(Path.of("..", "docs", "device-protocol.md"));
        return page.stream().skip(page.indexOf(TABLE) + 2L).takeWhile(line -> line.startsWith("|"))
                .map(line -> Stream.of(line.substring(1, line.length() - 1).split("\\|")).map(cell -> cell.strip().replaceAll("^`|`$", "")).toList());
    }

    @ParameterizedTest
    @MethodSource("lines")
    void eachLineOfThePageHolds(List<String> line) throws NoneException {
        Registered program = new Registered(line.get(0), line.get(1).isEmpty() ? null : line.get(1), line.get(2).isEmpty() ? null : line.get(2));
        assertThat(UninstallCommand.filled(line.get(3), List.of(program, new Registered("Other", null, "C:\\other.exe")))).isEqualTo(line.get(4));
    }

    @Test
    void thePageHasTheLines() throws IOException {
        assertThat(lines()).hasSizeGreaterThan(8).allMatch(line -> line.size() == 5);
    }

    private static String filled(String command, Registered... programs) throws NoneException {
        return UninstallCommand.filled(command, List.of(programs));
    }

    @ParameterizedTest
    @CsvSource({"Tidewatch, Tidewatch 2.1", "Tidewatch 2.0, Tidewatch 2.1.0", "tidewatch, TIDEWATCH v2", "Tidewatch, Tidewatch version 2.1 (x64)", "Tidewatch (64-bit), Tidewatch"})
    void aNameIsComparedWithoutItsVersion(String named, String registered) throws NoneException {
        assertThat(filled("{uninstaller:" + named + "}", new Registered(registered, null, "u.exe"))).isEqualTo("u.exe");
    }

    @Test
    void theWholeNameComesFirst() throws NoneException {
        Registered older = new Registered("Tidewatch 2.0", null, "old.exe");
        Registered newer = new Registered("Tidewatch 2.1", null, "new.exe");
        assertThat(filled("{uninstaller:Tidewatch 2.1} /S", older, newer)).isEqualTo("new.exe /S");
        assertThatThrownBy(() -> filled("{uninstaller:Tidewatch}", older, newer)).isInstanceOf(NoneException.class)
                .hasMessage("several programs are called so: Tidewatch 2.0, Tidewatch 2.1; write the whole name of one of them");
    }

    @Test
    void whereThereIsNothingItSaysSo() {
        assertThatThrownBy(() -> filled("{uninstaller:Tide}", new Registered("Tidewatch", null, "u.exe"))).hasMessageContaining("there is no “Tide”");
        assertThatThrownBy(() -> filled("{uninstaller:Tidewatch}", new Registered("Tidewatch", " ", null))).hasMessageContaining("has registered no command");
    }

    @Test
    void aCommandWithoutThePlaceholderStaysAsItIs() throws NoneException {
        assertThat(filled("msiexec /x {5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F2} /qn")).isEqualTo("msiexec /x {5C1E0B7A-4D2F-4E8B-9A61-3F7C2D9090F2} /qn");
    }
}
