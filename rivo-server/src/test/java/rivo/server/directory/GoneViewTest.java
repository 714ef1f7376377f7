package rivo.server.directory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static rivo.server.SmallEstate.assignment;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.DirectoryChange;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Target;
import rivo.core.estate.Wave;
import rivo.server.SmallEstate;

class GoneViewTest {

    @Test
    void whateverNamesItIsSaidAndWhatHasEndedIsNot() {
        Target works = Target.ou("works");
        Estate before = SmallEstate.with(List.of(), assignment("includes", 1, Intent.REQUIRED, "works"),
                assignment("excludes", 2, Intent.REQUIRED, "labs").withExclude(List.of(works)),
                assignment("base", 3, Intent.AVAILABLE, "labs").withBase("works"),
                assignment("waves", 4, Intent.REQUIRED, "labs").withWaves(List.of(Wave.to(List.of(works), false), Wave.share(100, false))),
                assignment("elsewhere", 5, Intent.REQUIRED, "labs").withWaves(List.of(Wave.to(List.of(Target.ou("labs")), true))),
                assignment("ended", 6, Intent.REQUIRED, "works").withState(AssignmentState.RETIRED));
        Estate after = before.with(DirectoryChange.none(before.asOf()).withOus(List.of(), Set.of("works")));
        assertThat(GoneView.of(after)).extracting(GoneView::target, GoneView::name, GoneView::namedBy)
                .containsExactly(tuple("ou:works", "Works", List.of("includes", "excludes", "base", "waves")));
    }
}
