package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Random;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.Wave;

/** Which wave takes a device: the first that names it or whose share does, else the last. */
class WavesTest {

    private static final int DEVICES = 300;

    private final Estates estates = Estates.usual();

    WavesTest() {
        Target[] first = new Target[20];
        for (int i = 0; i < DEVICES; i++) {
            estates.device("e" + i, "labs");
            if (i < first.length) {
                first[i] = Target.device("e" + i);
            }
        }
        estates.group("pilot", first);
    }

    private Waves waves(Audiences audiences, Assignment assignment) {
        return Objects.requireNonNull(Pair.of(audiences, assignment, Scope.DEVICE).get(0).waves());
    }

    private Assignment with(Wave... waves) {
        return estates.next("siltscope", Intent.REQUIRED, Target.ou("labs")).withWaves(List.of(waves));
    }

    /** The rule as it is written, with numbers of any size. */
    private static int h(String assignment, String device) throws GeneralSecurityException {
        byte[] digest = MessageDigest.getInstance("SHA-256").digest((assignment + "|" + device).getBytes(StandardCharsets.UTF_8));
        return new BigInteger(1, Arrays.copyOf(digest, 8)).mod(BigInteger.valueOf(10_000)).intValue();
    }

    private static int expected(Estate estate, Assignment assignment, String device) throws GeneralSecurityException {
        BigDecimal shares = BigDecimal.ZERO;
        for (int w = 0; w < assignment.waves().size(); w++) {
            Wave wave = assignment.waves().get(w);
            boolean takes;
            if (wave.share() == null) {
                takes = wave.to().stream().anyMatch(target -> target.kind() == Target.Kind.GROUP
                        ? Objects.requireNonNull(estate.groups().get(target.id())).members().contains(Target.device(device))
                        : target.equals(Target.device(device)));
            } else {
                shares = shares.add(wave.share());
                takes = BigDecimal.valueOf(h(assignment.id(), device)).compareTo(shares.multiply(BigDecimal.valueOf(100))) < 0;
            }
            if (takes) {
                return w + 1;
            }
        }
        return assignment.waves().size();
    }

    private void check(Assignment assignment) throws GeneralSecurityException {
        Estate estate = estates.estate();
        Audiences audiences = Audiences.of(estate);
        Waves waves = waves(audiences, assignment);
        int labs = estate.ous().position("labs");
        Positions open = waves.open(Positions.range(estate.devices().from(labs), estate.devices().to(labs)));
        for (int p = estate.devices().from(labs); p < estate.devices().to(labs); p++) {
            int wave = expected(estate, assignment, estate.devices().at(p).id());
            boolean isOpen = assignment.waves().get(wave - 1).open();
            assertThat(waves.waveOf(p)).as("%s at %d", assignment.waves(), p).isEqualTo(wave);
            assertThat(waves.isOpen(p)).as("%s at %d", assignment.waves(), p).isEqualTo(isOpen);
            assertThat(open.contains(p)).as("%s at %d", assignment.waves(), p).isEqualTo(isOpen);
        }
    }

    @Test
    void sharesTakeInTheirOrderAndWhatIsLeftGoesToTheLast() throws GeneralSecurityException {
        check(with(Wave.share(25, true), Wave.share(25, false), Wave.share(50, true)));
        check(with(Wave.share(10, true), Wave.share(0, true), Wave.share(30, false)));
        check(with(Wave.share(100, true), Wave.share(0, false)));
        check(with(Wave.share(0, true)));
    }

    @Test
    void whoIsNamedIsTakenByTheFirstWaveThatNamesThem() throws GeneralSecurityException {
        check(with(Wave.to(List.of(Target.group("pilot")), true), Wave.share(40, false), Wave.to(List.of(Target.device("e250")), true)));
        check(with(Wave.share(50, false), Wave.to(List.of(Target.group("pilot"), Target.device("e250")), true), Wave.share(50, false)));
    }

    @Test
    void sharesMayBeFractions() throws GeneralSecurityException {
        check(with(new Wave(List.of(), new BigDecimal("12.345"), true), new Wave(List.of(), new BigDecimal("0.005"), false),
                new Wave(List.of(), new BigDecimal("50"), true)));
    }

    @Test
    void anyWavesAtAll() throws GeneralSecurityException {
        for (int seed = 0; seed < 25; seed++) {
            Random random = new Random(seed);
            List<Wave> waves = new ArrayList<>();
            int left = 100;
            for (int n = 1 + random.nextInt(5); n > 0; n--) {
                int share = random.nextInt(left + 1);
                boolean named = random.nextInt(3) == 0;
                left -= named ? 0 : share;
                waves.add(named ? Wave.to(List.of(random.nextBoolean() ? Target.group("pilot") : Target.device("e" + random.nextInt(
                        DEVICES))), random.nextBoolean()) : Wave.share(share, random.nextBoolean()));
            }
            check(with(waves.toArray(Wave[]::new)));
        }
    }
}
