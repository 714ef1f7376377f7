package rivo.core.audience;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Installed;
import rivo.core.estate.Ou;
import rivo.core.estate.Present;
import rivo.core.estate.Target;
import rivo.core.estate.User;
import rivo.core.rule.Subject;

/** The elements of a device's complex attributes, as the rule language sees them. */
final class Elements {

    private Elements() {
    }

    static List<String> some(@Nullable String value) {
        return value == null ? List.of() : List.of(value);
    }

    /** What an entry says of an attribute, by its name in lower case. */
    static @Nullable String value(Installed entry, String attribute) {
        return switch (attribute) {
            case "name" -> entry.name();
            case "publisher" -> entry.publisher();
            case "version" -> entry.version();
            default -> null;
        };
    }

    /** What an entry says of an attribute, by its name in lower case. */
    static @Nullable String value(Present entry, String attribute) {
        return switch (attribute) {
            case "title" -> entry.title();
            case "version" -> entry.version() == null ? null : entry.version().toString();
            default -> null;
        };
    }

    /** One without elements of its own. */
    private abstract static class Simple extends RememberingSubject {
        @Override
        public final List<? extends Subject> elements(String attribute) {
            return List.of();
        }
    }

    static final class OfSoftware extends Simple {
        private final Installed entry;
        private final Instant asOf;

        OfSoftware(Installed entry, Instant asOf) {
            this.entry = entry;
            this.asOf = asOf;
        }

        @Override
        public Instant asOf() {
            return asOf;
        }

        @Override
        public List<String> values(String attribute) {
            return some(value(entry, attribute));
        }

        @Override
        public String toString() {
            return Stream.of(entry.name(), entry.version()).filter(Objects::nonNull).collect(Collectors.joining(" "));
        }
    }

    static final class OfPresent extends Simple {
        private final Present entry;
        private final Instant asOf;

        OfPresent(Present entry, Instant asOf) {
            this.entry = entry;
            this.asOf = asOf;
        }

        @Override
        public Instant asOf() {
            return asOf;
        }

        @Override
        public List<String> values(String attribute) {
            return some(value(entry, attribute));
        }

        @Override
        public String toString() {
            return entry.version() == null ? entry.title() : entry.title() + " " + entry.version();
        }
    }

    static final class OfPeople extends Simple {
        private final User user;
        private final Estate estate;
        private final Groups groups;

        OfPeople(User user, Estate estate, Groups groups) {
            this.user = user;
            this.estate = estate;
            this.groups = groups;
        }

        @Override
        public Instant asOf() {
            return estate.asOf();
        }

        @Override
        public List<String> values(String attribute) {
            return switch (attribute) {
                case "name" -> user.name().isEmpty() ? List.of() : List.of(user.name());
                case "ou" -> dns(estate, user.ou());
                case "group" -> names(estate, groups, Target.user(user.id()));
                default -> some(user.facts().get(attribute));
            };
        }

        @Override
        public String toString() {
            return user.name();
        }
    }

    /** The DNs of an OU and of every OU above it; none for no OU. */
    static List<String> dns(Estate estate, @Nullable String ou) {
        return ou == null ? List.of() : estate.ous().path(estate.ous().position(ou)).stream().map(Ou::dn).toList();
    }

    /** The names of all groups that hold the member. */
    static List<String> names(Estate estate, Groups groups, Target member) {
        List<String> names = new ArrayList<>();
        for (String group : groups.holding(member)) {
            String name = Objects.requireNonNull(estate.groups().get(group)).name();
            if (!name.isEmpty()) {
                names.add(name);
            }
        }
        return names;
    }
}
