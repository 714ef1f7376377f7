package rivo.server.membership;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.audience.GroupMakeup;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.server.audience.CollectionDocument;
import rivo.server.audience.FenceDocument;
import rivo.server.audience.Names;
import rivo.server.audience.PathPart;
import rivo.server.change.Drafts;
import rivo.server.directory.MembershipChanges;
import rivo.server.directory.MembershipChanges.MembershipChange;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.fleet.Fleet;
import rivo.server.reach.Spread;
import rivo.server.search.NameFinder;
import rivo.server.web.ApiException;
import rivo.server.web.CsvDownload;
import rivo.server.web.Page;

/** The audiences as a place: all of them by kind, and each one with whom it holds and why. As they would be with the draft of whoever asks. */
@RestController
class AudiencePagesApi {

    private static final int MOST_OF_A_KIND = 500;
    private static final int MOST_MEMBERS = 500;
    private static final int MOST_CHANGES = 200;
    /** A statement names no more OUs. */
    private static final int MOST_BELOW = 2000;

    /** @param kinds collections, groups, OUs, in this order */
    record AudienceList(List<AudiencesOfKind> kinds) {
    }

    /** @param total how many match; {@code audiences} holds the first of them */
    record AudiencesOfKind(@Schema(allowableValues = {"collection", "group", "ou"}) String kind, int total, List<ListedAudience> audiences) {
    }

    /**
     * @param where the OUs above it
     * @param oddities what one should know of it before one uses it
     * @param draft whether the draft makes or changes it
     */
    record ListedAudience(String target, String name, String where, int devices, int people, List<String> oddities, boolean draft) {
    }

    /**
     * @param dn of an OU
     * @param path from the root to the OU that it is, or that a collection looks below
     * @param fenceRevision of the published fence around an OU, from which an edit of it is made; 0 for none
     * @param makeup of a group
     * @param collection the document of a collection, with the revision that an edit is made from
     * @param assigned what is assigned to it
     * @param excluded what it is excluded from
     * @param waves what it is a wave of
     * @param namedBy the collections that name it
     * @param spread where its devices are, or those of its people where it holds none
     */
    record AudienceView(String target, @Schema(allowableValues = {"all-devices", "all-users", "ou", "group", "collection", "device", "user"}) String kind,
            String name, @Nullable String dn, List<PathPart> path, int devices, int people, List<String> oddities, boolean gone, boolean fenced, long fenceRevision,
            @Nullable MakeupView makeup, @Nullable CollectionView collection, List<AssignedLine> assigned, List<AssignedLine> excluded,
            List<AssignedLine> waves, List<NamedTarget> namedBy, List<Spread.SpreadPart> spread) {
    }

    /** @param revision of the published collection; 0 for one that only the draft has */
    record CollectionView(CollectionDocument document, long revision, boolean draft) {
    }

    /**
     * What a group is made of.
     *
     * @param listedDevices how many devices it lists itself; {@code listedPeople} likewise
     * @param parts the groups that it lists
     * @param holders the groups that list it
     * @param circle those with which it holds each other
     */
    record MakeupView(int listedDevices, int listedPeople, List<MakeupPart> parts, List<NamedTarget> holders, List<NamedTarget> circle) {
    }

    /** @param alsoListed how many of its devices the group lists itself, too */
    record MakeupPart(String target, String name, int devices, int people, int alsoListed, boolean inCircle) {
    }

    record NamedTarget(String target, String name) {
    }

    /** @param draft whether the draft makes or changes it */
    record AssignedLine(String assignment, String subject, String name, @Schema(allowableValues = {"required", "available", "uninstall"}) String intent,
            @Schema(allowableValues = {"device", "user"}) String follows, boolean binding, @Schema(allowableValues = {"active", "paused"}) String state,
            boolean draft) {
    }

    /** @param total how many there are in all */
    record Members(int total, List<MemberLine> members) {
    }

    /**
     * @param where the OUs it is in
     * @param ways how it comes to be in, each in a few words; none where that goes without saying
     * @param unused why it is of no use there, such as a disabled account; mostly empty
     */
    record MemberLine(String id, String name, String where, List<String> ways, List<String> unused) {
    }

    /** @param sizes how many devices a collection held, the oldest first; empty for all else */
    record Changes(List<ChangeLine> changes, List<CollectionHistory.Size> sizes) {
    }

    /**
     * @param through the group, OU or collection that it came into or left
     * @param why in words; absent where it goes without saying
     */
    record ChangeLine(String member, String name, boolean came, Instant at, String through, @Nullable String why) {
    }

    private final CurrentSnapshot current;
    private final Fleet fleet;
    private final JdbcClient db;

    AudiencePagesApi(CurrentSnapshot current, Fleet fleet, JdbcClient db) {
        this.current = current;
        this.fleet = fleet;
        this.db = db;
    }

    @GetMapping("/api/audience-list")
    AudienceList list(@RequestParam(defaultValue = "") String q, Principal who) {
        Snapshot now = current.now();
        Audiences audiences = after(now, who).resolver().audiences();
        Estate estate = audiences.estate();
        NameFinder finder = new NameFinder(q);
        Unused unused = Unused.in(audiences, fleet, db);
        return new AudienceList(List.of(
                kind(now, unused, audiences, "collection", finder, estate.collections().values().stream().map(one -> Target.collection(one.id()))),
                kind(now, unused, audiences, "group", finder, Stream.concat(estate.groups().values().stream().map(one -> Target.group(one.id())),
                        estate.gone().keySet().stream().filter(target -> target.kind() == Target.Kind.GROUP))),
                kind(now, unused, audiences, "ou", finder, Stream.concat(estate.ous().all().stream().map(one -> Target.ou(one.id())),
                        estate.gone().keySet().stream().filter(target -> target.kind() == Target.Kind.OU)))));
    }

    private static AudiencesOfKind kind(Snapshot now, Unused unused, Audiences audiences, String kind, NameFinder finder, Stream<Target> targets) {
        List<AudienceLook> found = targets.map(target -> new AudienceLook(audiences, target)).filter(look -> finder.matches(look.name())).toList();
        Stream<AudienceLook> shown = kind.equals("ou") ? found.stream() : found.stream().sorted((a, b) -> a.name().compareToIgnoreCase(b.name()));
        return new AudiencesOfKind(kind, found.size(), shown.limit(MOST_OF_A_KIND).map(look -> new ListedAudience(look.target().toString(), look.name(),
                look.target().kind() == Target.Kind.OU ? where(look.path()) : "", look.devices(), look.people(), look.oddities(unused), isDrafted(now, look))).toList());
    }

    /** The names of the OUs above, without the root. */
    private static String where(List<PathPart> path) {
        return path.stream().skip(1).limit(Math.max(0, path.size() - 2)).map(PathPart::name).collect(Collectors.joining(" › "));
    }

    private static boolean isDrafted(Snapshot now, AudienceLook look) {
        DeviceCollection collection = look.collection();
        return collection != null && !collection.equals(now.estate().collections().get(collection.id()));
    }

    @GetMapping("/api/audience")
    AudienceView one(@RequestParam String target, Principal who) {
        Snapshot now = current.now();
        Snapshot after = after(now, who);
        AudienceLook look = look(after, target);
        Estate estate = after.estate();
        return new AudienceView(look.target().toString(), look.target().kind().word(), look.name(), look.ou() == null ? null : look.ou().dn(), look.path(),
                look.devices(), look.people(), look.oddities(Unused.in(look.audiences(), fleet, db)), look.isGone(), look.ou() != null && look.ou().fenced(),
                now.get(FenceDocument.KIND).revision(look.target().id()), makeup(look), collection(now, after, look),
                assigned(now, after, look.target(), Assignment::include), assigned(now, after, look.target(), Assignment::exclude),
                assigned(now, after, look.target(), a -> a.waves().stream().flatMap(wave -> wave.to().stream()).toList()),
                look.namedBy().stream().map(one -> new NamedTarget(Target.collection(one.id()).toString(), Names.of(one))).toList(),
                Spread.of(estate, reached(look)));
    }

    private static DeviceSet reached(AudienceLook look) {
        return Spread.devicesOf(look.audiences(), look.target());
    }

    private static @Nullable MakeupView makeup(AudienceLook look) {
        if (look.group() == null) {
            return null;
        }
        GroupMakeup makeup = look.audiences().makeup(look.target().id());
        return new MakeupView(makeup.devices().size(), makeup.people(), makeup.parts().stream().map(part -> new MakeupPart(
                Target.group(part.group().id()).toString(), Names.of(part.group()), part.devices().size(), part.people(),
                part.devices().and(makeup.devices()).size(), part.inCircle())).toList(), named(makeup.holders()), named(makeup.circle()));
    }

    private static List<NamedTarget> named(List<Group> groups) {
        return groups.stream().map(group -> new NamedTarget(Target.group(group.id()).toString(), Names.of(group))).toList();
    }

    private static @Nullable CollectionView collection(Snapshot now, Snapshot after, AudienceLook look) {
        CollectionDocument document = look.collection() == null ? null : after.get(CollectionDocument.KIND).find(look.target().id());
        return document == null ? null : new CollectionView(document, now.get(CollectionDocument.KIND).revision(document.id()), isDrafted(now, look));
    }

    private static List<AssignedLine> assigned(Snapshot now, Snapshot after, Target target, Function<Assignment, List<Target>> targets) {
        Estate estate = after.estate();
        return estate.assignments().all().stream().filter(a -> a.state() != AssignmentState.RETIRED
                && targets.apply(a).contains(target)).map(a -> new AssignedLine(a.id(), a.subject().toString(), Names.subject(estate, a.subject()),
                        a.intent().word(), a.follows().word(), a.binding(), a.state().word(), !a.equals(now.estate().assignments().find(a.id())))).toList();
    }

    /** Its devices, in OU order. */
    @GetMapping("/api/audience/devices")
    Members devices(@RequestParam String target, @RequestParam(defaultValue = "0") int offset, @RequestParam(defaultValue = "100") int limit, Principal who) {
        Page page = Page.of(offset, limit, MOST_MEMBERS);
        AudienceLook look = look(after(current.now(), who), target);
        Estate estate = look.audiences().estate();
        DeviceSet devices = look.audiences().devicesIn(look.target());
        Unused unused = Unused.in(look.audiences(), fleet, db);
        return new Members(devices.size(), devices.stream().skip(page.offset()).limit(page.limit()).mapToObj(p -> estate.devices().at(p))
                .map(device -> new MemberLine(device.id(), device.name(), Names.where(estate, device.ou()), ways(look, Target.device(device.id())),
                        unused.of(Target.device(device.id()), estate))).toList());
    }

    /** Its people, in OU order. */
    @GetMapping("/api/audience/people")
    Members people(@RequestParam String target, @RequestParam(defaultValue = "0") int offset, @RequestParam(defaultValue = "100") int limit, Principal who) {
        Page page = Page.of(offset, limit, MOST_MEMBERS);
        AudienceLook look = look(after(current.now(), who), target);
        Estate estate = look.audiences().estate();
        List<User> people = look.audiences().people(look.target()).toList();
        Unused unused = Unused.in(look.audiences(), fleet, db);
        return new Members(people.size(), page.of(people).stream().map(user -> new MemberLine(user.id(), Names.of(user),
                Names.where(estate, user.ou()), ways(look, Target.user(user.id())), unused.of(Target.user(user.id()), estate))).toList());
    }

    /** Devices and people with how they come to be in, as CSV (RFC 4180). */
    @GetMapping("/api/audience/csv")
    void csv(@RequestParam String target, Principal who, HttpServletResponse response) throws IOException {
        AudienceLook look = look(after(current.now(), who), target);
        Estate estate = look.audiences().estate();
        try (CsvDownload csv = CsvDownload.begin(response, "members.csv", "kind", "name", "ou", "through")) {
            for (int p : look.audiences().devicesIn(look.target()).stream().toArray()) {
                Device device = estate.devices().at(p);
                csv.row("device", device.name(), Names.where(estate, device.ou()), String.join("; ", ways(look, Target.device(device.id()))));
            }
            for (User user : look.audiences().people(look.target()).toList()) {
                csv.row("person", Names.of(user), Names.where(estate, user.ou()), String.join("; ", ways(look, Target.user(user.id()))));
            }
        }
    }

    private static List<String> ways(AudienceLook look, Target member) {
        if (look.collection() != null) {
            return look.collection().include().contains(member.id()) ? List.of("by hand") : List.of();
        }
        return look.group() == null ? List.of() : look.audiences().ways(look.target().id(), member).stream()
                .map(way -> way.size() == 1 ? "listed here" : way.stream().skip(1).map(Names::of).collect(Collectors.joining(" › "))).toList();
    }

    /** Whether a device or a person is in it, and how; also when the answer is no. @param of {@code device:ID} or {@code user:ID} */
    @GetMapping("/api/audience/membership")
    Membership membership(@RequestParam String target, @RequestParam String of, Principal who) {
        Snapshot after = after(current.now(), who);
        AudienceLook member = look(after, of);
        boolean fits = member.target().kind() == Target.Kind.DEVICE || member.target().kind() == Target.Kind.USER;
        if (!fits || member.isGone()) {
            throw ApiException.notFound("unknown-member", "Ask about a device or a person that is in the directory; pick one from the list.");
        }
        return Membership.of(look(after, target), member.target());
    }

    /** What its devices receive, or those of its people where it holds no device: every title, with what decides. */
    @GetMapping("/api/audience/titles")
    List<Received> titles(@RequestParam String target, Principal who) {
        Snapshot after = after(current.now(), who);
        return Received.of(after, reached(look(after, target)));
    }

    /** Who came and went lately, in the audience itself and in the groups that it holds or the OUs below it; the newest first. */
    @GetMapping("/api/audience/changes")
    Changes changes(@RequestParam String target, Principal who) {
        Snapshot after = after(current.now(), who);
        AudienceLook look = look(after, target);
        Estate estate = after.estate();
        List<MembershipChange> all = MembershipChanges.of(db, within(look), MOST_CHANGES);
        List<MembershipChange> found = look.ou() == null ? all : MembershipChanges.withoutInnerMoves(all);
        List<CollectionHistory.Size> sizes = look.target().kind() == Target.Kind.COLLECTION ? CollectionHistory.sizes(db, look.target().id()) : List.of();
        return new Changes(found.stream().map(one -> new ChangeLine(one.member().toString(), name(estate, one), one.came(), one.at(),
                Names.of(estate, one.audience()), one.why())).toList(), sizes);
    }

    /** As it is called now, or was when it was there. */
    private static String name(Estate estate, MembershipChange change) {
        return Names.isThere(estate, change.member()) || change.name() == null ? Names.of(estate, change.member()) : change.name();
    }

    /** An audience with the groups that it holds, or the OUs below it. */
    private static List<Target> within(AudienceLook look) {
        Estate estate = look.audiences().estate();
        Ou ou = look.ou();
        if (ou != null) {
            int top = estate.ous().position(ou.id());
            return estate.ous().all().stream().filter(one -> estate.ous().isAtOrBelow(estate.ous().position(one.id()), top)).limit(MOST_BELOW)
                    .map(one -> Target.ou(one.id())).toList();
        }
        return look.group() == null ? List.of(look.target()) : below(look.audiences(), look.target().id()).stream().map(Target::group).toList();
    }

    /** A group and all those that it holds. */
    private static Set<String> below(Audiences audiences, String group) {
        Set<String> found = new LinkedHashSet<>(Set.of(group));
        List<String> open = new ArrayList<>(List.of(group));
        for (int i = 0; i < open.size(); i++) {
            audiences.makeup(open.get(i)).parts().stream().map(part -> part.group().id()).filter(found::add).forEach(open::add);
        }
        return found;
    }

    /** A list of host names, pasted or dropped. @param text a line each, or a CSV */
    record PastedHosts(String text) {
    }

    /** Finds the devices that a list names. Nothing is kept of it. */
    @PostMapping("/api/audience/hosts")
    HostNames.HostsFound hosts(@RequestBody PastedHosts pasted) {
        return HostNames.in(current.now().estate(), pasted.text());
    }

    private static Snapshot after(Snapshot now, Principal who) {
        return Drafts.after(now, Objects.requireNonNull(who.getName()));
    }

    private static AudienceLook look(Snapshot snapshot, String target) {
        return AudienceLook.of(snapshot.resolver().audiences(), target);
    }
}
