package rivo.devices.fleet;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.JobAction;
import rivo.devices.protocol.PresenceKind;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.VersionOrder;
import rivo.devices.protocol.Work;

class EvidenceTest {

    private static final Work.Look CODE = new Work.Look(PresenceKind.PRODUCT_CODE, "{5C1E}", "4.2.0");
    private static final Work.Look FILE = new Work.Look(PresenceKind.FILE, "/opt/siltscope", "");

    private static Work.Check check(boolean any, Work.Look... looks) {
        return new Work.Check("siltscope", List.of(new Work.Seen("4.2.0", any, List.of(looks))));
    }

    private static Job job(JobAction action, String version) {
        return new Job("siltscope", "Siltscope Lab", action, version, List.of(), List.of());
    }

    @Test
    void nothingIsSeenOnAnEmptyDevice() {
        assertThat(new Evidence(Map.of()).version(check(false, CODE))).isNull();
    }

    @Test
    void whatIsPutOnIsSeenByEveryLookOfItsRelease() {
        Work.Check check = check(false, CODE, FILE);
        Evidence evidence = new Evidence(Map.of()).with(job(JobAction.INSTALL, "4.2.0"), check);
        assertThat(evidence.version(check)).isEqualTo("4.2.0");
        assertThat(evidence.software()).as("only what the device lists itself")
                .containsExactly(new Report.Software("Siltscope Lab", null, "4.2.0"));
    }

    @Test
    void aPackageIsComparedByItsOwnSystemAndToldByItsRelease() {
        Work.Look deb = new Work.Look(PresenceKind.PACKAGE, "tidewatch", "1:2.1.0-2", VersionOrder.DEBIAN);
        Work.Check check = new Work.Check("tidewatch", List.of(new Work.Seen("2.1.0", false, List.of(deb))));
        Job job = new Job("tidewatch", "Tidewatch", JobAction.INSTALL, "2.1.0", List.of(), List.of());
        assertThat(new Evidence(Map.of()).with(job, check).version(check)).isEqualTo("2.1.0");
        assertThat(new Evidence(Map.of("PACKAGE\ntidewatch", "1:2.1.0-2")).version(check)).isEqualTo("2.1.0");
        assertThat(new Evidence(Map.of("PACKAGE\ntidewatch", "1:2.1.0-1")).version(check)).as("an older build").isNull();
        assertThat(new Evidence(Map.of("PACKAGE\ntidewatch", "1:2.1.0~rc1-9")).version(check)).isNull();
        assertThat(new Evidence(Map.of("PACKAGE\ntidewatch", "1:2.3-1")).version(check)).as("what is newer than any release").isEqualTo("2.3");
    }

    @Test
    void anotherReleasesLooksStayUnseen() {
        Evidence evidence = new Evidence(Map.of()).with(job(JobAction.INSTALL, "4.1.0"), check(false, CODE));
        assertThat(evidence.version(check(false, CODE))).isNull();
    }

    @Test
    void allOrAnyOfTheLooksHaveToHold() {
        Evidence half = new Evidence(Map.of("FILE\n/opt/siltscope", ""));
        assertThat(half.version(check(false, CODE, FILE))).isNull();
        assertThat(half.version(check(true, CODE, FILE))).isEmpty();
    }

    @Test
    void aLowerVersionThanTheLookAsksForIsNotSeen() {
        assertThat(new Evidence(Map.of("PRODUCT_CODE\n{5C1E}", "4.1.9")).version(check(false, CODE))).isNull();
        assertThat(new Evidence(Map.of("PRODUCT_CODE\n{5C1E}", "4.2")).version(check(false, CODE))).isEqualTo("4.2");
    }

    @Test
    void whatIsTakenOffIsSeenByNothingAnyMore() {
        Work.Check check = check(true, CODE, FILE);
        Evidence evidence = new Evidence(Map.of("Siltscope Lab", "4.1.0", "PRODUCT_CODE\n{5C1E}", "4.2.0", "Mudview", "3.9"))
                .without(job(JobAction.REMOVE, null), check);
        assertThat(evidence.version(check)).isNull();
        assertThat(evidence.things()).containsOnlyKeys("Mudview");
    }
}
