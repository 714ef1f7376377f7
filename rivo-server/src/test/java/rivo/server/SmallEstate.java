package rivo.server;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Facts;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;

/** An estate of three OUs and one device, for tests that need no server. */
public final class SmallEstate {

    private SmallEstate() {
    }

    public static Estate with(List<Present> present, Assignment... assignments) {
        Title siltscope = Title.of("siltscope", "Siltscope Lab",
                List.of(Release.of(Version.of("4.2.0"), List.of(new Variant("all", null)))));
        Title empty = Title.of("empty", "Emptyware", List.of());
        return Estate.of(EstateParts.none(Instant.parse("2026-11-23T08:00:00Z"))
                .withOus(List.of(new Ou("root", "Quillbrook Water", "", null, false),
                        new Ou("labs", "Laboratories", "", "root", false), new Ou("works", "Works", "", "root", false)))
                .withUsers(List.of(new User("u1", "imara.voss", "Imara Voss", "labs", Facts.NONE)))
                .withDevices(List.of(new Device("d1", "QB-LAB-014", "labs", List.of("u1"), Facts.NONE, List.of(), present)))
                .withTitles(List.of(siltscope, empty)).withAssignments(List.of(assignments)));
    }

    public static Assignment assignment(String id, long seq, Intent intent, String... ous) {
        return Assignment.of(id, seq, Subject.title("siltscope"), intent, Arrays.stream(ous).map(Target::ou).toList());
    }
}
