package rivo.core.naive;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rivo.core.RandomEstates;
import rivo.core.Rows;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.resolve.Resolver;
import rivo.core.rule.EstateRules;

/** The engine against the naive model, on estates from seeds 0, 1, 2 and so on. */
class NaiveModelTest {

    private static final int ESTATES = Integer.getInteger("rivo.random-estates", 4000);

    @Test
    void theEngineSaysWhatTheNaiveModelSays() {
        for (long seed = 0; seed < ESTATES; seed++) {
            EstateParts parts = RandomEstates.parts(seed);
            assertThat(EstateRules.problems(parts)).as("seed %d", seed).isEmpty();
            Resolver resolver = Resolver.of(Estate.of(parts));
            Map<String, String> expected = NaiveModel.rows(parts);
            assertThat(Rows.byTitle(resolver)).as("seed %d, by title", seed).isEqualTo(expected);
            assertThat(Rows.byDevice(Resolver.of(Estate.of(parts)))).as("seed %d, by device", seed).isEqualTo(expected);
        }
    }

    @Test
    void theRandomEstatesShowEveryOutcomeAndReason() {
        Set<String> seen = new HashSet<>();
        for (long seed = 0; seed < ESTATES; seed++) {
            NaiveModel.rows(RandomEstates.parts(seed)).values().forEach(row -> {
                String[] cells = row.split(",", -1);
                seen.add(cells[0]);
                seen.add(cells[4]);
            });
        }
        assertThat(seen).contains("required", "available", "uninstall", "contested", "later", "unfit", "blocked", "replaced",
                "displaced", "waiting", "assigned", "requested", "implied", "left", "no-release", "needs-removed",
                "needs-contested", "needs-later", "needs-unfit", "needs-seat", "needs-replaced", "needs-displaced",
                "needs-newer", "needs-blocked", "needs-device");
    }
}
