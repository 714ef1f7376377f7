package rivo.server.membership;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.audience.Audiences;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Follows;
import rivo.core.estate.Group;
import rivo.core.estate.Installed;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.core.explain.Rung;
import rivo.core.explain.Trail;
import rivo.core.explain.Trails;
import rivo.core.resolve.Decision;
import rivo.server.audience.Names;
import rivo.server.audience.PathPart;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.SignIns;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;

/** What a device or a person belongs to, and what follows a person. As it is now, without any draft. */
@RestController
class BelongingApi {

    /** @param ways each way in which it belongs, from the group down to the one that lists it */
    record BelongingGroup(String target, String name, List<List<String>> ways) {
    }

    record BelongingCollection(String target, String name) {
    }

    record BelongingPerson(String id, String name, String account) {
    }

    /** @param version absent where none is reported; {@code publisher} likewise */
    record ReportedSoftware(String name, @Nullable String version, @Nullable String publisher) {
    }

    record DeviceBelonging(List<BelongingGroup> groups, List<BelongingCollection> collections, List<BelongingPerson> people,
            List<ReportedSoftware> software) {
    }

    /**
     * @param path from the root to their OU
     * @param follows the assignments that follow them
     */
    record PersonView(String id, String name, String account, @Nullable String department, List<PathPart> path, List<BelongingGroup> groups,
            List<PersonDevice> devices, List<FollowingAssignment> follows) {
    }

    /**
     * @param signedIn whether they are signed in there now; {@code lastSignIn} since when, or when they last signed out; absent when they never have
     * @param titles what it gets through this person, and what this person has there for themselves
     */
    record PersonDevice(String id, String name, String where, boolean signedIn, @Nullable Instant lastSignIn, List<ThroughPerson> titles) {
    }

    /** @param own whether it is in their profile alone */
    record ThroughPerson(String title, String titleName, @Schema(allowableValues = {"required", "available", "uninstall", "contested", "later", "unfit",
        "blocked", "replaced", "displaced", "waiting"}) String outcome, String sentence, boolean own) {
    }

    /** @param through whom it names */
    record FollowingAssignment(String assignment, String subject, String name,
            @Schema(allowableValues = {"required", "available", "uninstall"}) String intent, String through, @Nullable Instant from) {
    }

    private final CurrentSnapshot current;

    BelongingApi(CurrentSnapshot current) {
        this.current = current;
    }

    @GetMapping("/api/devices/{id}/belonging")
    DeviceBelonging device(@PathVariable String id) {
        Snapshot now = current.now();
        Estate estate = now.estate();
        Device device = estate.devices().find(id);
        if (device == null) {
            throw ApiException.notFound("unknown-device", "There is no such device, or no longer; look at the list of devices.");
        }
        Audiences audiences = now.resolver().audiences();
        int position = estate.devices().position(id);
        return new DeviceBelonging(groups(audiences, Target.device(id)), estate.collections().values().stream()
                .filter(one -> audiences.devicesIn(Target.collection(one.id())).contains(position)).map(BelongingApi::collection).toList(),
                device.people().stream().map(person -> estate.users().find(person)).filter(Objects::nonNull)
                        .map(user -> new BelongingPerson(user.id(), user.fullName(), user.name())).toList(),
                device.software().stream().map(BelongingApi::software).toList());
    }

    private static BelongingCollection collection(DeviceCollection collection) {
        return new BelongingCollection(Target.collection(collection.id()).toString(), Names.of(collection));
    }

    private static ReportedSoftware software(Installed installed) {
        return new ReportedSoftware(installed.name(), installed.version(), installed.publisher());
    }

    private static List<BelongingGroup> groups(Audiences audiences, Target member) {
        return audiences.groupsHolding(member).stream().map(id -> new BelongingGroup(Target.group(id).toString(),
                Names.of(audiences.estate(), Target.group(id)), audiences.ways(id, member).stream().map(BelongingApi::names).toList()))
                .sorted((a, b) -> a.name().compareToIgnoreCase(b.name())).toList();
    }

    private static List<String> names(List<Group> way) {
        return way.stream().map(Names::of).toList();
    }

    @GetMapping("/api/people/{id}")
    PersonView person(@PathVariable String id) {
        Snapshot now = current.now();
        Estate estate = now.estate();
        User user = estate.users().find(id);
        if (user == null) {
            throw ApiException.notFound("unknown-person", "There is no such person in the directory, or no longer; search for another.");
        }
        Audiences audiences = now.resolver().audiences();
        Trails trails = Trails.of(now.resolver());
        List<PersonDevice> devices = new ArrayList<>();
        audiences.devicesReached(Target.user(id), Follows.USER).stream().mapToObj(p -> estate.devices().at(p))
                .forEach(device -> devices.add(device(trails, now, device, id)));
        return new PersonView(id, Names.of(user), user.name(), user.facts().get("department"),
                PathPart.to(estate.ous(), estate.ous().position(user.ou())), groups(audiences, Target.user(id)), devices, follows(audiences, user));
    }

    private static PersonDevice device(Trails trails, Snapshot now, Device device, String person) {
        List<ThroughPerson> titles = new ArrayList<>();
        for (Trail trail : trails.all(device)) {
            Rung deciding = trail.deciding();
            Decision decision = trail.decision().orElse(null);
            boolean theirs = trail.title().scope() == Scope.USER ? trail.person().equals(person) : deciding != null && deciding.person().equals(person);
            if (decision != null && theirs) {
                titles.add(new ThroughPerson(trail.title().id(), trail.title().name(), decision.outcome().word(), trail.sentence(),
                        trail.title().scope() == Scope.USER));
            }
        }
        SignIns told = now.get(SignIns.PART).get(device.id());
        SignIns.SignIn signIn = told == null ? null : told.find(person);
        return new PersonDevice(device.id(), device.name(), Names.where(now.estate(), device.ou()), signIn != null && signIn.now(),
                signIn == null ? null : signIn.last(), titles);
    }

    private static List<FollowingAssignment> follows(Audiences audiences, User user) {
        Estate estate = audiences.estate();
        List<FollowingAssignment> follows = new ArrayList<>();
        for (Assignment assignment : estate.assignments().all()) {
            for (Target target : assignment.include()) {
                if (assignment.follows() == Follows.USER && assignment.isLive(estate.asOf()) && audiences.holds(target, user)) {
                    follows.add(new FollowingAssignment(assignment.id(), assignment.subject().toString(), Names.subject(estate, assignment.subject()),
                            assignment.intent().word(), Names.of(estate, target), assignment.from()));
                }
            }
        }
        return follows;
    }
}
