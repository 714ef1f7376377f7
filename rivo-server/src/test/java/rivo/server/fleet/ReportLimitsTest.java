package rivo.server.fleet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import rivo.server.ServerSettings;
import rivo.server.web.ApiException;

class ReportLimitsTest {

    private static final int MIB = 1 << 20;

    private static ReportLimits limits(int aMinute, int mebibytesADay) {
        ServerSettings plain = ServerSettings.at(Path.of("."));
        return new ReportLimits(new ServerSettings(Path.of("."), plain.callInEvery(), null, false, false, plain.clientPatience(),
                new ServerSettings.ReportLimits(aMinute, mebibytesADay), null, null, null));
    }

    private static ApiException refusal(ReportLimits limits, String device, int bytes) {
        return catchThrowableOfType(ApiException.class, () -> limits.take(device, bytes));
    }

    @Test
    void aDeviceSendsSoManyReportsAMinuteAndOthersAreNotHeldUpByIt() {
        ReportLimits limits = limits(3, 100);
        for (int i = 0; i < 3; i++) {
            limits.take("d1", 10);
        }
        ApiException refused = refusal(limits, "d1", 10);
        assertThat(refused).hasMessageContaining("3 reports a minute");
        assertThat(refused.getMessage()).as("a third of a minute, and no more than a second over").containsPattern("in (19|20|21) s\\.");
        assertThatCode(() -> limits.take("d2", 10)).doesNotThrowAnyException();
    }

    @Test
    void andSoManyBytesADay() {
        ReportLimits limits = limits(1000, 2);
        limits.take("d1", MIB);
        limits.take("d1", MIB);
        assertThat(refusal(limits, "d1", 0)).as("an empty one counts as a byte").hasMessageContaining("2 MiB of reports a day");
        assertThatCode(() -> limits.take("d2", 2 * MIB)).doesNotThrowAnyException();
    }
}
