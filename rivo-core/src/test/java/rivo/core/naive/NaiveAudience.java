package rivo.core.naive;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Follows;
import rivo.core.estate.Group;
import rivo.core.estate.Installed;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Scope;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.core.estate.Wave;
import rivo.core.rule.Rule;
import rivo.core.rule.Subject;

/** Section 3 of the resolution rules, unit by unit, with loops and lists and nothing shared with the engine's sets. */
final class NaiveAudience {

    final EstateParts parts;

    NaiveAudience(EstateParts parts) {
        this.parts = parts;
    }

    Ou ou(@Nullable String id) {
        return parts.ous().stream().filter(o -> id == null ? o.parent() == null : o.id().equals(id)).findFirst()
                .orElseThrow();
    }

    Device device(String id) {
        return parts.devices().stream().filter(d -> d.id().equals(id)).findFirst().orElseThrow();
    }

    User user(String id) {
        return parts.users().stream().filter(u -> u.id().equals(id)).findFirst().orElseThrow();
    }

    /** From the OU up to the root; what has no OU is below the root only. */
    List<Ou> above(@Nullable String ou) {
        List<Ou> above = new ArrayList<>();
        for (Ou at = ou(ou); at != null; at = at.parent() == null ? null : ou(at.parent())) {
            above.add(at);
        }
        return above;
    }

    boolean isBelow(@Nullable String ou, @Nullable String base) {
        return above(ou).contains(ou(base));
    }

    int depth(String ou) {
        return above(ou).size() - 1;
    }

    boolean inGroup(String group, Target member) {
        Set<String> seen = new HashSet<>(Set.of(group));
        List<String> open = new ArrayList<>(seen);
        while (!open.isEmpty()) {
            String id = open.remove(0);
            Group at = parts.groups().stream().filter(g -> g.id().equals(id)).findFirst().orElseThrow();
            if (at.members().contains(member)) {
                return true;
            }
            at.members().stream().filter(m -> m.kind() == Target.Kind.GROUP && seen.add(m.id()))
                    .forEach(m -> open.add(m.id()));
        }
        return false;
    }

    /** Those that are being looked at: none of them can be asked about, since collections have no cycles. */
    private final Set<DeviceCollection> looking = new HashSet<>();

    boolean inCollection(DeviceCollection collection, Device device) {
        if (!looking.add(collection)) {
            return false;
        }
        boolean in = isBelow(device.ou(), collection.base())
                && (collection.include().contains(device.id()) || holds(collection.rule(), device))
                && !collection.exclude().contains(device.id());
        looking.remove(collection);
        return in;
    }

    DeviceCollection collection(String id) {
        return parts.collections().stream().filter(c -> c.id().equals(id)).findFirst().orElseThrow();
    }

    boolean holds(@Nullable String rule, Device device) {
        return rule != null && Rule.parse(rule).holds(new DeviceFacts(device));
    }

    /** Rule 1. */
    boolean reaches(Assignment a, Target x, Device d, @Nullable User p) {
        boolean byDevice = a.follows() == Follows.DEVICE;
        return switch (x.kind()) {
            case ALL_DEVICES -> byDevice;
            case ALL_USERS -> !byDevice && p != null;
            case OU -> byDevice ? isBelow(d.ou(), x.id()) : p != null && isBelow(p.ou(), x.id());
            case GROUP -> byDevice ? inGroup(x.id(), Target.device(d.id()))
                    : p != null && inGroup(x.id(), Target.user(p.id()));
            case COLLECTION -> byDevice && inCollection(collection(x.id()), d);
            case DEVICE -> byDevice && x.id().equals(d.id());
            case USER -> !byDevice && p != null && x.id().equals(p.id());
        };
    }

    List<User> concerned(Assignment a, Scope scope, Device d, @Nullable User u, @Nullable User p) {
        if (a.follows() == Follows.USER) {
            return List.of(java.util.Objects.requireNonNull(p));
        }
        return scope == Scope.USER ? List.of(java.util.Objects.requireNonNull(u))
                : d.people().stream().map(this::user).toList();
    }

    /** "Holds the unit", in the sense of rule 3. */
    boolean holdsUnit(Target x, Assignment a, Scope scope, Device d, @Nullable User u, @Nullable User p) {
        List<User> concerned = concerned(a, scope, d, u, p);
        return switch (x.kind()) {
            case ALL_DEVICES -> true;
            case ALL_USERS -> !concerned.isEmpty();
            case DEVICE -> x.id().equals(d.id());
            case COLLECTION -> inCollection(collection(x.id()), d);
            case USER -> concerned.stream().anyMatch(c -> c.id().equals(x.id()));
            case GROUP -> inGroup(x.id(), Target.device(d.id()))
                    || concerned.stream().anyMatch(c -> inGroup(x.id(), Target.user(c.id())));
            case OU -> isBelow(a.follows() == Follows.DEVICE ? d.ou() : java.util.Objects.requireNonNull(p).ou(), x.id());
        };
    }

    /** Rule 4. */
    boolean passesFences(Assignment a, Target x, Device d, @Nullable User p) {
        for (Ou fence : parts.ous()) {
            if (!fence.fenced()) {
                continue;
            }
            boolean inside = a.base() != null && isBelow(a.base(), fence.id())
                    || x.kind() == Target.Kind.OU && isBelow(x.id(), fence.id())
                    || x.kind() == Target.Kind.COLLECTION && isBelow(collection(x.id()).base(), fence.id());
            if (isBelow(d.ou(), fence.id())) {
                boolean passes = a.binding() || x.equals(Target.device(d.id())) || inside
                        || a.follows() == Follows.USER && p != null && isBelow(p.ou(), fence.id());
                if (!passes) {
                    return false;
                }
            }
            if (a.follows() == Follows.USER && p != null && isBelow(p.ou(), fence.id())
                    && !(a.binding() || x.equals(Target.user(p.id())) || inside)) {
                return false;
            }
        }
        return true;
    }

    /** Rules 1 to 4. */
    boolean passes(Assignment a, Target x, Scope scope, Device d, @Nullable User u, @Nullable User p) {
        boolean below = isBelow(a.follows() == Follows.DEVICE ? d.ou() : java.util.Objects.requireNonNull(p).ou(), a.base());
        return reaches(a, x, d, p) && below && (a.within() == null || holds(a.within(), d))
                && a.exclude().stream().noneMatch(e -> holdsUnit(e, a, scope, d, u, p)) && passesFences(a, x, d, p);
    }

    /** Rule 5. */
    boolean waveIsOpen(Assignment a, Scope scope, Device d, @Nullable User u, @Nullable User p) {
        if (a.waves().isEmpty()) {
            return true;
        }
        BigDecimal shares = BigDecimal.ZERO;
        for (Wave wave : a.waves()) {
            if (wave.share() != null) {
                shares = shares.add(wave.share());
                BigDecimal limit = shares.multiply(BigDecimal.valueOf(100));
                if (BigDecimal.valueOf(share(a.id(), d.id())).compareTo(limit) < 0) {
                    return wave.open();
                }
            } else if (wave.to().stream().anyMatch(x -> holdsUnit(x, a, scope, d, u, p))) {
                return wave.open();
            }
        }
        return a.waves().get(a.waves().size() - 1).open();
    }

    private static long share(String assignment, String device) {
        try {
            byte[] hash = MessageDigest.getInstance("SHA-256")
                    .digest((assignment + "|" + device).getBytes(StandardCharsets.UTF_8));
            byte[] first = java.util.Arrays.copyOf(hash, 8);
            return new BigInteger(1, first).mod(BigInteger.valueOf(10_000)).longValue();
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** What rules see of a device. */
    private final class DeviceFacts implements Subject {
        private final Device device;

        DeviceFacts(Device device) {
            this.device = device;
        }

        @Override
        public Instant asOf() {
            return parts.asOf();
        }

        @Override
        public List<String> values(String attribute) {
            return switch (attribute) {
                case "name" -> device.name().isEmpty() ? List.of() : List.of(device.name());
                case "ou" -> device.ou() == null ? List.of() : above(device.ou()).stream().map(Ou::dn).toList();
                case "group" -> parts.groups().stream().filter(g -> inGroup(g.id(), Target.device(device.id())))
                        .map(Group::name).toList();
                case "collection" -> parts.collections().stream().filter(c -> inCollection(c, device))
                        .map(DeviceCollection::name).toList();
                default -> one(device.facts().get(attribute));
            };
        }

        @Override
        public List<? extends Subject> elements(String attribute) {
            return switch (attribute) {
                case "software" -> device.software().stream().map(SoftwareFacts::new).toList();
                case "present" -> device.present().stream().map(PresentFacts::new).toList();
                default -> device.people().stream().map(id -> new PersonFacts(user(id))).toList();
            };
        }
    }

    private static List<String> one(@Nullable String value) {
        return value == null ? List.of() : List.of(value);
    }

    private abstract class Element implements Subject {
        @Override
        public Instant asOf() {
            return parts.asOf();
        }

        @Override
        public List<? extends Subject> elements(String attribute) {
            return List.of();
        }
    }

    private final class SoftwareFacts extends Element {
        private final Installed entry;

        SoftwareFacts(Installed entry) {
            this.entry = entry;
        }

        @Override
        public List<String> values(String attribute) {
            return one(attribute.equals("name") ? entry.name() : attribute.equals("version") ? entry.version()
                    : entry.publisher());
        }
    }

    private final class PresentFacts extends Element {
        private final Present entry;

        PresentFacts(Present entry) {
            this.entry = entry;
        }

        @Override
        public List<String> values(String attribute) {
            return one(attribute.equals("title") ? entry.title()
                    : entry.version() == null ? null : entry.version().toString());
        }
    }

    private final class PersonFacts extends Element {
        private final User user;

        PersonFacts(User user) {
            this.user = user;
        }

        @Override
        public List<String> values(String attribute) {
            return switch (attribute) {
                case "name" -> one(user.name());
                case "ou" -> user.ou() == null ? List.of() : above(user.ou()).stream().map(Ou::dn).toList();
                case "group" -> parts.groups().stream().filter(g -> inGroup(g.id(), Target.user(user.id())))
                        .map(Group::name).toList();
                default -> one(user.facts().get(attribute));
            };
        }
    }
}
