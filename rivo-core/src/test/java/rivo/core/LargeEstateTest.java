package rivo.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Present;
import rivo.core.resolve.Resolver;

/**
 * The laws on an estate that is large enough for every shape of set, for blocks and for many classes of alike units; the
 * random estates of {@link LawsTest} are small.
 */
class LargeEstateTest {

    private static Resolver resolver;
    private static Map<String, String> rows;

    private final Random random = new Random(20);
    private final LargeEstate large = new LargeEstate();

    @BeforeAll
    static void resolve() {
        resolver = Resolver.of(Estate.of(new LargeEstate().parts()));
        rows = Rows.byTitle(resolver);
    }

    @Test
    void eachDeviceByItselfGetsWhatAllTogetherGet() {
        assertThat(rows).hasSizeGreaterThan(20_000);
        assertThat(Rows.byDevice(resolver)).isEqualTo(rows);
    }

    @Test
    void severalThreadsSayWhatOneSays() {
        assertThat(resolver.all(3)).isEqualTo(resolver.all());
    }

    @Test
    void aDeviceIsAnsweredTheSameBeforeAnybodyHasAskedForAll() {
        Resolver fresh = Resolver.of(resolver.estate());
        for (int i = 0; i < LargeEstate.DEVICES; i += 23) {
            Device device = resolver.estate().devices().at(i);
            assertThat(fresh.device(device)).isEqualTo(resolver.device(device));
        }
    }

    @Test
    void aRehearsedEditIsTheDifferenceOfTheWholes() {
        for (int edit = 0; edit < 20; edit++) {
            Estate estate = large.edited(resolver.estate(), edit);
            LawsTest.rehearsalIsTheDifference(resolver, resolver.follow(estate), rows, Rows.byTitle(Resolver.of(estate)),
                    "edit " + edit);
        }
    }

    @Test
    void aRehearsedChangeOfWhoIsWhereIsTheDifferenceOfTheWholes() {
        for (int change = 0; change < 50; change++) {
            Estate estate = large.changed(resolver.estate(), change);
            LawsTest.rehearsalIsTheDifference(resolver, resolver.follow(estate), rows, Rows.byTitle(Resolver.of(estate)),
                    "change " + change);
        }
    }

    @Test
    void whatFollowsManyChangesSaysWhatOneMadeAnewSays() {
        Resolver now = resolver;
        for (int change = 0; change < 20; change++) {
            now = now.follow(large.changed(now.estate(), change));
            if (change % 3 == 0) {
                assertThat(Rows.byTitle(now)).as("change %d", change).isEqualTo(Rows.byTitle(Resolver.of(now.estate())));
            }
        }
    }

    @Test
    void aDeviceThatReportsAnewGetsWhatAnEstateMadeAnewGivesIt() {
        Resolver now = resolver;
        for (int i = 0; i < 15; i++) {
            Device device = now.estate().devices().at(random.nextInt(LargeEstate.DEVICES));
            Device newer = i % 3 == 0 ? device.withOu("o" + random.nextInt(60)) : device.withReport(Estates.facts("arch",
                    random.nextBoolean() ? "x64" : "arm64", "ramGiB", "16"), List.of(), List.of(Present.of("t1", null)));
            now = now.follow(now.estate().withDevice(newer));
            Resolver anew = Resolver.of(now.estate());
            for (Device asked : List.of(newer, now.estate().devices().at(random.nextInt(LargeEstate.DEVICES)))) {
                assertThat(now.device(asked)).isEqualTo(anew.device(asked));
            }
        }
        assertThat(Rows.byTitle(now)).isEqualTo(Rows.byTitle(Resolver.of(now.estate())));
    }
}
