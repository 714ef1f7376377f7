package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;
import static rivo.core.Estates.EMPTY;
import static rivo.core.Estates.SILTSCOPE;
import static rivo.core.estate.Intent.REQUIRED;
import static rivo.core.estate.Intent.UNINSTALL;

import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import rivo.core.Estates;
import rivo.core.NaiveModel;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Title;

class ResolverTest {

    private static final int ESTATES = 3000;

    private static String outcome(Estates estates, String device) {
        Estate estate = estates.build();
        return said(new Resolver(estate).title(SILTSCOPE), estate.devices().position(device));
    }

    /** As the naive model says it. */
    private static String said(TitleOutcomes outcomes, int position) {
        return outcomes.at(position).map(decision -> decision.outcome().word() + " "
                + decision.deciding().stream().map(Assignment::id).collect(Collectors.joining(";"))
                + (decision.release() == null ? "" : " " + decision.release().version())).orElse("nothing");
    }

    @Test
    void anAssignmentReachesItsOuAndAllBelow() {
        Estates estates = Estates.usual().assign("siltscope", REQUIRED, "labs");
        assertThat(outcome(estates, "d-labs")).isEqualTo("required a1 4.2.0");
        assertThat(outcome(estates, "d-bench")).isEqualTo("required a1 4.2.0");
        assertThat(outcome(estates, "d-works")).isEqualTo("nothing");
    }

    @Test
    void nearBeatsFar() {
        Estates estates = Estates.usual().assign("siltscope", REQUIRED, "root").assign("siltscope", UNINSTALL, "labs");
        assertThat(outcome(estates, "d-bench")).isEqualTo("uninstall a2");
        assertThat(outcome(estates, "d-works")).isEqualTo("required a1 4.2.0");
    }

    @Test
    void amongBindingOnesFarBeatsNear() {
        Estates estates = Estates.usual().assign("siltscope", UNINSTALL, "bench").bind("siltscope", UNINSTALL, "labs")
                .bind("siltscope", REQUIRED, "root");
        assertThat(outcome(estates, "d-bench")).isEqualTo("required a3 4.2.0");
    }

    @Test
    void thePriorityDecidesBetweenEquallyNearOnes() {
        Estates estates = Estates.usual().assign("siltscope", REQUIRED, "labs").withPriority(501, "siltscope",
                UNINSTALL, "labs");
        assertThat(outcome(estates, "d-labs")).isEqualTo("uninstall a2");
    }

    @Test
    void levelOnesThatDisagreeAreContested() {
        Estates estates = Estates.usual().assign("siltscope", REQUIRED, "labs").assign("siltscope", UNINSTALL, "labs");
        assertThat(outcome(estates, "d-bench")).isEqualTo("contested a1;a2");
    }

    @Test
    void theOldestOfLevelOnesThatAgreeWins() {
        Estates estates = Estates.usual().assign("siltscope", REQUIRED, "labs").assign("siltscope", REQUIRED, "labs");
        assertThat(outcome(estates, "d-bench")).isEqualTo("required a1 4.2.0");
    }

    @Test
    void aFenceTakesNothingFromOutside() {
        Estates estates = Estates.usual().fence("labs").assign("siltscope", REQUIRED, "root");
        assertThat(outcome(estates, "d-bench")).isEqualTo("nothing");
        assertThat(outcome(estates, "d-works")).isEqualTo("required a1 4.2.0");
    }

    @Test
    void aFenceTakesWhatIsAssignedAtItOrInsideIt() {
        assertThat(outcome(Estates.usual().fence("labs").assign("siltscope", REQUIRED, "labs"), "d-bench"))
                .isEqualTo("required a1 4.2.0");
        assertThat(outcome(Estates.usual().fence("labs").assign("siltscope", REQUIRED, "bench"), "d-bench"))
                .isEqualTo("required a1 4.2.0");
    }

    @Test
    void aBindingAssignmentCrossesFences() {
        Estates estates = Estates.usual().fence("labs").fence("bench").bind("siltscope", REQUIRED, "root");
        assertThat(outcome(estates, "d-bench")).isEqualTo("required a1 4.2.0");
    }

    @Test
    void aRetiredAssignmentHasNoSay() {
        assertThat(outcome(Estates.usual().retired("siltscope", REQUIRED, "root"), "d-labs")).isEqualTo("nothing");
    }

    @Test
    void aTitleWithoutAReleaseFitsNowhere() {
        Estate estate = Estates.usual().assign("empty", REQUIRED, "root").build();
        assertThat(said(new Resolver(estate).title(EMPTY), 0)).isEqualTo("unfit a1");
    }

    @Test
    void aDeviceWithoutAnOuIsReachedFromTheRootOnly() {
        assertThat(outcome(Estates.usual().assign("siltscope", REQUIRED, "root"), "d-root"))
                .isEqualTo("required a1 4.2.0");
        assertThat(outcome(Estates.usual().assign("siltscope", REQUIRED, "labs"), "d-root")).isEqualTo("nothing");
    }

    static java.util.stream.LongStream seeds() {
        return java.util.stream.LongStream.range(0, 20);
    }

    /** Each seed stands for a run of estates, so that a failure names a narrow place. */
    @ParameterizedTest
    @MethodSource("seeds")
    void theEngineSaysWhatTheNaiveModelSays(long run) {
        for (long seed = run * ESTATES / 20; seed < (run + 1) * ESTATES / 20; seed++) {
            Estate estate = Estates.random(seed).build();
            NaiveModel model = new NaiveModel(estate);
            Resolver resolver = new Resolver(estate);
            for (Title title : estate.titles()) {
                TitleOutcomes outcomes = resolver.title(title);
                for (Device device : estate.devices().all()) {
                    assertThat(said(outcomes, estate.devices().position(device.id())))
                            .as("seed %d, device %s, title %s", seed, device.id(), title.id())
                            .isEqualTo(model.outcome(device, title));
                }
            }
        }
    }

    @Test
    void titleByTitleAndDeviceByDeviceAgree() {
        for (long seed = 0; seed < 500; seed++) {
            Estate estate = Estates.random(seed).build();
            Resolver resolver = new Resolver(estate);
            for (Device device : estate.devices().all()) {
                int position = estate.devices().position(device.id());
                for (Title title : estate.titles()) {
                    assertThat(resolver.device(device).get(title.id())).as("seed %d", seed)
                            .isEqualTo(resolver.title(title).at(position).orElse(null));
                }
            }
        }
    }

    @Test
    void theOrderOfTheInputNeverMatters() {
        for (long seed = 0; seed < 500; seed++) {
            Estate one = Estates.random(seed).build();
            Estate other = Estates.random(seed).shuffled(seed + 1);
            for (Title title : one.titles()) {
                assertThat(new Resolver(other).title(title)).as("seed %d", seed)
                        .isEqualTo(new Resolver(one).title(title));
            }
        }
    }

    @Test
    void theSharesOfATitleAreDisjoint() {
        for (long seed = 0; seed < 500; seed++) {
            Estate estate = Estates.random(seed).build();
            TitleOutcomes outcomes = new Resolver(estate).title(SILTSCOPE);
            int counted = outcomes.shares().stream().mapToInt(share -> share.devices().size()).sum();
            int any = outcomes.shares().stream().map(TitleOutcomes.Share::devices)
                    .reduce(rivo.core.audience.DeviceSet.NONE, rivo.core.audience.DeviceSet::or).size();
            assertThat(counted).as("seed %d", seed).isEqualTo(any);
        }
    }
}
