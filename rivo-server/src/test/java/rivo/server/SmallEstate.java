package rivo.server;

import java.util.List;
import java.util.Map;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Version;

/** An estate of three OUs and one device, for tests that need no server. */
public final class SmallEstate {

    private SmallEstate() {
    }

    public static Estate with(List<Present> present, Assignment... assignments) {
        Title siltscope = new Title("siltscope", "Siltscope Lab",
                List.of(new Release(Version.of("4.2.0"), ReleaseState.OFFERED, List.of("all"))));
        Title empty = new Title("empty", "Emptyware", List.of());
        return Estate.of(List.of(new Ou("root", "Quillbrook Water", "", null, false),
                new Ou("labs", "Laboratories", "", "root", false), new Ou("works", "Works", "", "root", false)),
                List.of(new User("u1", "imara.voss", "Imara Voss", "labs")),
                List.of(new Device("d1", "QB-LAB-014", "labs", List.of("u1"), Map.of(), List.of(), present)),
                List.of(siltscope, empty), List.of(assignments));
    }

    public static Assignment assignment(String id, long seq, Intent intent, String... ous) {
        return new Assignment(id, seq, AssignmentState.ACTIVE, "siltscope", intent, List.of(ous), false, 500);
    }
}
