package rivo.core.resolve;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import rivo.core.Estates;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.Intent;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;

class RankTest {

    private static final Estate ESTATE = Estates.usual().estate();

    private static Rank place(Target target, boolean binding, Follows side, int priority, String base) {
        Assignment assignment = Assignment.of("a", 1, Subject.title("siltscope"), Intent.REQUIRED, List.of(target))
                .withBinding(binding).withFollows(side).withPriority(priority).withBase(base);
        return Rank.of(ESTATE.ous(), assignment, target);
    }

    private static Rank plain(Target target) {
        return place(target, false, Follows.DEVICE, 500, "root");
    }

    @Test
    void theStrongerComesFirst() {
        List<Rank> strongestFirst = List.of(place(Target.ALL_DEVICES, true, Follows.DEVICE, 500, "root"),
                place(Target.ou("labs"), true, Follows.DEVICE, 500, "root"),
                place(Target.device("d-labs"), true, Follows.DEVICE, 500, "root"),
                plain(Target.device("d-labs")), place(Target.user("u"), false, Follows.USER, 1000, "root"),
                plain(Target.group("g")), plain(Target.ou("bench")),
                place(Target.ou("labs"), false, Follows.DEVICE, 501, "root"), plain(Target.ou("labs")),
                place(Target.ou("labs"), false, Follows.USER, 1000, "root"), plain(Target.ou("root")),
                plain(Target.ALL_DEVICES));
        List<Rank> shuffled = new ArrayList<>(strongestFirst);
        Collections.shuffle(shuffled, new Random(3));
        Collections.sort(shuffled);
        assertThat(shuffled).isEqualTo(strongestFirst);
    }

    @Test
    void everyoneBelowABaseStandsAsThatOu() {
        assertThat(place(Target.ALL_DEVICES, false, Follows.DEVICE, 500, "labs")).isEqualTo(plain(Target.ou("labs")));
    }

    @Test
    void theFirstStepThatDiffersIsNamed() {
        Rank labs = plain(Target.ou("labs"));
        assertThat(labs.firstDifference(place(Target.ou("labs"), true, Follows.USER, 1, "root"))).contains(LadderStep.BINDING);
        assertThat(labs.firstDifference(place(Target.ou("bench"), false, Follows.USER, 1, "root")))
                .contains(LadderStep.NEARNESS);
        assertThat(labs.firstDifference(place(Target.ou("works"), false, Follows.USER, 1, "root"))).contains(LadderStep.SIDE);
        assertThat(labs.firstDifference(place(Target.ou("works"), false, Follows.DEVICE, 1, "root")))
                .contains(LadderStep.PRIORITY);
        assertThat(labs.firstDifference(plain(Target.ou("works")))).isEmpty();
    }
}
