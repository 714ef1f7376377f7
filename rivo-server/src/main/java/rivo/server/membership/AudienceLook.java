package rivo.server.membership;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.GroupMakeup;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;
import rivo.core.rule.Rule;
import rivo.server.audience.Names;
import rivo.server.audience.PathPart;
import rivo.server.web.ApiException;

/** One audience as it is looked at: what it is, what it holds, and what is odd about it. Costs the sets that it holds. */
record AudienceLook(Audiences audiences, Target target) {

    /** @throws ApiException when there is no such OU, group, collection, device or person, nor has one gone */
    static AudienceLook of(Audiences audiences, String written) {
        Target target = Target.parse(written);
        Estate estate = audiences.estate();
        boolean known = target != null && Names.isThere(estate, target);
        if (target == null || !known && !estate.gone().containsKey(target)) {
            throw ApiException.notFound("unknown-audience", "There is no audience " + written + ", or no longer; look at the list.");
        }
        return new AudienceLook(audiences, target);
    }

    private Estate estate() {
        return audiences.estate();
    }

    String name() {
        return Names.of(estate(), target);
    }

    boolean isGone() {
        return estate().gone().containsKey(target);
    }

    int devices() {
        return audiences.devicesIn(target).size();
    }

    int people() {
        return audiences.peopleIn(target);
    }

    @Nullable Ou ou() {
        return target.kind() == Target.Kind.OU ? estate().ous().find(target.id()) : null;
    }

    @Nullable Group group() {
        return target.kind() == Target.Kind.GROUP ? estate().groups().get(target.id()) : null;
    }

    @Nullable DeviceCollection collection() {
        return target.kind() == Target.Kind.COLLECTION ? estate().collections().get(target.id()) : null;
    }

    /** From the root to the OU that it is, or that a collection looks below. */
    List<PathPart> path() {
        DeviceCollection collection = collection();
        String ou = ou() != null ? target.id() : collection == null ? null : collection.base();
        return ou == null || estate().ous().find(ou) == null ? List.of() : PathPart.to(estate().ous(), estate().ous().position(ou));
    }

    /** What one should know of it before one uses it, in words. */
    List<String> oddities(Unused unused) {
        List<String> odd = new ArrayList<>();
        if (isGone()) {
            odd.add("has left the directory; what names it rests");
            return odd;
        }
        int devices = devices();
        int people = people();
        if (devices == 0 && people == 0) {
            odd.add("empty");
        } else if (target.kind() == Target.Kind.GROUP && devices == 0) {
            odd.add("only people");
        } else if (target.kind() == Target.Kind.GROUP && people == 0) {
            odd.add("only devices");
        }
        Ou ou = ou();
        if (ou != null && ou.fenced()) {
            odd.add("fenced");
        }
        if (group() != null) {
            GroupMakeup makeup = audiences.makeup(target.id());
            if (!makeup.circle().isEmpty()) {
                odd.add("a circle: it and " + names(makeup.circle()) + " hold each other");
            } else if (!makeup.parts().isEmpty()) {
                odd.add("through " + names(makeup.parts().stream().map(GroupMakeup.Part::group).toList()));
            }
        }
        DeviceCollection collection = collection();
        if (collection != null) {
            oddities(collection, odd);
        }
        odd.addAll(unused.oddities(this));
        return odd;
    }

    private void oddities(DeviceCollection collection, List<String> odd) {
        if (collection.base() != null && estate().gone().containsKey(Target.ou(collection.base()))) {
            odd.add("rests: the OU that it looks below has left the directory");
        }
        List<String> picked = new ArrayList<>(collection.include());
        picked.addAll(collection.exclude());
        long gone = picked.stream().filter(id -> estate().devices().find(id) == null).count();
        if (gone > 0) {
            odd.add(gone + " of the hand-picked devices have left the directory");
        }
    }

    private static String names(List<Group> groups) {
        return groups.stream().map(Names::of).collect(Collectors.joining(", "));
    }

    /** The collections whose rule names it, or that look below it. */
    List<DeviceCollection> namedBy() {
        return estate().collections().values().stream().filter(one -> !one.id().equals(target.id()) && names(one)).toList();
    }

    private boolean names(DeviceCollection collection) {
        String rule = collection.rule();
        return switch (target.kind()) {
            case COLLECTION -> rule != null && Rule.parse(rule).collections().stream().anyMatch(name -> name.equalsIgnoreCase(name()));
            case GROUP -> rule != null && rule.toLowerCase(Locale.ROOT).contains("\"" + name().toLowerCase(Locale.ROOT) + "\"");
            case OU -> target.id().equals(collection.base()) || rule != null && ou() != null
                    && rule.toLowerCase(Locale.ROOT).contains("\"" + Objects.requireNonNull(ou()).dn().toLowerCase(Locale.ROOT) + "\"");
            case DEVICE -> collection.include().contains(target.id()) || collection.exclude().contains(target.id());
            case ALL_DEVICES, ALL_USERS, USER -> false;
        };
    }
}
