package rivo.server.audience;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.audience.Audiences;
import rivo.core.estate.Estate;
import rivo.core.estate.Target;
import rivo.core.estate.Target.Kind;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.search.NameFinder;

/** Finds what software can be assigned to, by a few letters: OUs, security groups, collections, devices, people, and everyone. */
@RestController
class AudiencesApi {

    /**
     * @param target as assignments name it, {@code KIND:ID}
     * @param where what tells it from others of the same name: the OUs above it, or an account name
     * @param devices how many devices it holds by themselves
     * @param people how many people it holds by themselves
     */
    record AudienceLine(String target, @Schema(allowableValues = {"all-devices", "all-users", "ou", "group", "collection", "device", "user"})
            String kind, String name, String where, int devices, int people) {
    }

    /** How many of a kind match. */
    record KindCount(@Schema(allowableValues = {"all-devices", "all-users", "ou", "group", "collection", "device", "user"}) String kind, int matches) {
    }

    /**
     * @param lines the first eight of each kind that was asked for
     * @param kinds every kind, whether asked for or not
     */
    record AudiencesFound(List<AudienceLine> lines, List<KindCount> kinds) {
    }

    private final CurrentSnapshot current;

    AudiencesApi(CurrentSnapshot current) {
        this.current = current;
    }

    /** @param kind those whose lines are wanted; all where none is given */
    @GetMapping("/api/audiences")
    AudiencesFound find(@RequestParam(defaultValue = "") String q, @RequestParam(defaultValue = "") List<String> kind) {
        Search search = new Search(current.now().resolver().audiences(), new NameFinder(q),
                kind.isEmpty() ? EnumSet.allOf(Kind.class) : Stream.of(Kind.values()).filter(k -> kind.contains(k.word())).collect(Collectors.toSet()));
        search.everyone(Target.ALL_DEVICES, "Every device");
        search.everyone(Target.ALL_USERS, "Every person");
        Estate estate = search.audiences.estate();
        estate.ous().all().forEach(ou -> search.take(Kind.OU, ou.id(), ou.name(), ou.parent(), null));
        estate.groups().values().forEach(group -> search.take(Kind.GROUP, group.id(), Names.of(group), null, "security group"));
        estate.collections().values().forEach(one -> search.take(Kind.COLLECTION, one.id(), Names.of(one), null, "collection"));
        estate.devices().all().forEach(device -> search.take(Kind.DEVICE, device.id(), device.name(), device.ou(), null));
        estate.users().all().forEach(user -> search.take(Kind.USER, user.id(), user.fullName(), null, user.name()));
        return search.found();
    }

    /** One search: what it has found so far. */
    private static final class Search {

        private final Audiences audiences;
        private final NameFinder finder;
        private final Set<Kind> wanted;
        private final List<AudienceLine> lines = new ArrayList<>();
        private final int[] matches = new int[Kind.values().length];

        Search(Audiences audiences, NameFinder finder, Set<Kind> wanted) {
            this.audiences = audiences;
            this.finder = finder;
            this.wanted = wanted;
        }

        void everyone(Target target, String name) {
            add(target, name, () -> "");
        }

        /** @param second what tells it from others; null for the names of the OUs above it */
        void take(Kind kind, String id, String name, @Nullable String ou, @Nullable String second) {
            add(new Target(kind, id), name, () -> second != null ? second : where(ou));
        }

        private void add(Target target, String name, java.util.function.Supplier<String> where) {
            int kind = target.kind().ordinal();
            List<AudienceLine> taken = new ArrayList<>(1);
            matches[kind] += finder.take(taken, matches[kind], name, () -> new AudienceLine(target.toString(), target.kind().word(), name,
                    where.get(), audiences.devicesIn(target).size(), audiences.peopleIn(target)));
            if (wanted.contains(target.kind())) {
                lines.addAll(taken);
            }
        }

        private String where(@Nullable String ou) {
            return ou == null ? "" : Names.where(audiences.estate(), ou);
        }

        AudiencesFound found() {
            return new AudiencesFound(lines, Stream.of(Kind.values()).map(kind -> new KindCount(kind.word(), matches[kind.ordinal()])).toList());
        }
    }
}
