package rivo.core.audience;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Device;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.rule.Rule;

/** A rule asked of all devices at once picks those that satisfy it when each is asked by itself. */
class RulesOverAllTest {

    private final Random random = new Random(41);
    private final RandomRules rules = new RandomRules(41);

    @Test
    void allAtOnceIsEachByItself() {
        for (int round = 0; round < 60; round++) {
            Estates estates = Estates.usual().user("imara", "works").collection("c", "ramGiB ge 8")
                    .group("g", Target.device("d3"), Target.user("imara"));
            for (int i = 0; i < 12; i++) {
                estates.device(rules.device(i));
            }
            Audiences audiences = Audiences.of(estates.estate());
            for (int r = 0; r < 120; r++) {
                String rule = rules.rule(random.nextInt(3));
                Rule compiled = Rule.parse(rule);
                Positions all = audiences.satisfying(rule, Scope.DEVICE);
                for (int p = 0; p < audiences.size(Scope.DEVICE); p++) {
                    assertThat(all.contains(p)).as("%s at %s", rule, audiences.estate().devices().at(p))
                            .isEqualTo(compiled.holds(audiences.rules().subject(p)));
                }
            }
        }
    }

    @Test
    void aChangedDeviceIsAskedAnewByEveryRule() {
        Estates estates = Estates.usual().user("imara", "works").collection("c", "ramGiB ge 8").group("g", Target.user("imara"));
        for (int i = 0; i < 12; i++) {
            estates.device(rules.device(i));
        }
        Audiences audiences = Audiences.of(estates.estate());
        List<String> asked = new ArrayList<>();
        for (int r = 0; r < 200; r++) {
            String rule = rules.rule(random.nextInt(3));
            asked.add(rule);
            audiences.satisfying(rule, Scope.DEVICE);
        }
        for (int change = 0; change < 40; change++) {
            Device next = rules.device(random.nextInt(12));
            Device known = java.util.Objects.requireNonNull(audiences.estate().devices().find(next.id()));
            audiences = audiences.follow(audiences.estate().withDevice(known.withReport(next.facts(), next.software(),
                    next.present())));
            Audiences anew = Audiences.of(audiences.estate());
            for (String rule : asked) {
                assertThat(audiences.satisfying(rule, Scope.DEVICE)).as(rule).isEqualTo(anew.satisfying(rule, Scope.DEVICE));
            }
        }
    }
}
