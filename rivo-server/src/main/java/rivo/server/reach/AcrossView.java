package rivo.server.reach;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Target;
import rivo.core.resolve.TitleOutcomes;
import rivo.server.audience.Names;
import rivo.server.estate.Snapshot;

/** What lies across the OUs of a map and assigns its title: groups, collections, devices and people, each with its spread. Pure functions. */
final class AcrossView {

    private static final int MOST = 200;

    /**
     * A target that is no OU.
     *
     * @param target as assignments name it, {@code KIND:ID}
     * @param draft whether only the draft has it, or has it otherwise
     * @param devices how many it reaches; following the user, those of its people
     * @param people how many it holds by themselves
     * @param decides on how many of the devices it decides, for the device or for one of its people
     * @param spread the OUs that its devices are in, the largest part first
     */
    record Across(String assignment, String target, @Schema(allowableValues = {"all-devices", "all-users", "group", "collection", "device", "user"})
            String kind, String name, @Schema(allowableValues = {"required", "available", "uninstall"}) String intent,
            @Schema(allowableValues = {"device", "user"}) String follows, boolean binding, boolean draft, int devices, int people, int decides,
            List<Spread.SpreadPart> spread) {
    }

    private AcrossView() {
    }

    static List<Across> of(Estate now, Snapshot after, TitleOutcomes outcomes) {
        Estate estate = after.estate();
        List<Across> across = new ArrayList<>();
        for (Assignment assignment : estate.assignments().of(outcomes.title().id())) {
            for (Target target : assignment.include()) {
                if (assignment.isLive(estate.asOf()) && target.kind() != Target.Kind.OU && across.size() < MOST) {
                    across.add(one(after.resolver().audiences(), assignment, target, outcomes, !assignment.equals(now.assignments().find(assignment.id()))));
                }
            }
        }
        return across;
    }

    private static Across one(Audiences audiences, Assignment assignment, Target target, TitleOutcomes outcomes, boolean draft) {
        DeviceSet devices = audiences.devicesReached(target, assignment.follows());
        return new Across(assignment.id(), target.toString(), target.kind().word(), Names.of(audiences.estate(), target), assignment.intent().word(),
                assignment.follows().word(), assignment.binding(), draft, devices.size(), audiences.peopleIn(target),
                decides(audiences, outcomes, assignment, devices), Spread.of(audiences.estate(), devices));
    }

    /** On how many of these devices an assignment decides, or is one of those that disagree. */
    static int decides(Audiences audiences, TitleOutcomes outcomes, Assignment assignment, DeviceSet devices) {
        return audiences.devicesOf(UnitSet.union(outcomes.title().scope(), outcomes.parts().stream()
                .filter(part -> part.decision().deciding().contains(assignment)).map(part -> audiences.on(part.units(), devices)).toList())).size();
    }
}
