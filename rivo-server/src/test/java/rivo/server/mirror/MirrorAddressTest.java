package rivo.server.mirror;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class MirrorAddressTest {

    @ParameterizedTest
    @ValueSource(strings = {"http://127.0.0.1:8090", "http://127.9.9.9", "http://localhost:8090", "http://[::1]:8090", "http://0.0.0.0:80",
        "http://169.254.169.254", "http://[fe80::1]:80", "http://[fd00:ec2::254]", "http://224.0.0.1", "http://[::ffff:127.0.0.1]:80"})
    void thisComputerAndItsLinkAreRefusedUnlessTheConfigurationAllowsThem(String address) {
        assertThat(MirrorAddress.problem(address, false).orElse("")).contains("--allow-local-mirrors");
        assertThat(MirrorAddress.problem(address, true)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"http://10.0.0.5:0", "http://10.0.0.5:65536", "http://10.0.0.5:99999", "ftp://10.0.0.5", "http://", "\\\\share\\x",
        "http://u:p@10.0.0.5", "http://10.0.0.5/x", "http://10.0.0.5?x", "http://10.0.0.5#x", "http://a b", "", "http://10.0.0.5:x"})
    void whatIsNoAddressIsNone(String address) {
        assertThat(MirrorAddress.problem(address, true)).as("whatever is allowed").isPresent();
    }

    @ParameterizedTest
    @ValueSource(strings = {"http://10.0.0.5:8090", "https://192.168.1.4", "http://[fd12:3456::1]:8090", "http://10.0.0.5:65535"})
    void computersOfTheOrganisationAreTaken(String address) {
        assertThat(MirrorAddress.problem(address, false)).isEmpty();
    }
}
