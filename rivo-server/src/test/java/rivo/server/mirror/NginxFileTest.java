package rivo.server.mirror;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The configuration that is written for nginx; {@link NginxMirrorTest} runs one. */
class NginxFileTest {

    @ParameterizedTest
    @CsvSource({"http://hartsmere.example, 80, false", "http://hartsmere.example:8090, 8090, false", "https://hartsmere.example, 443 ssl, true",
        "https://hartsmere.example:8443, 8443 ssl, true"})
    void itListensWhereDevicesAsk(String address, String listens, boolean certificate) {
        String file = NginxFile.of(new Mirror("hartsmere", "Hartsmere", address, null), URI.create("https://rivo.example//"), "k-e_y");
        assertThat(file).contains("    listen " + listens + ";\n", "    server_name hartsmere.example;", "\"Bearer k-e_y\"", "https://rivo.example/");
        assertThat(file).doesNotContain("rivo.example//");
        assertThat(file.contains("ssl_certificate_key")).isEqualTo(certificate);
    }
}
