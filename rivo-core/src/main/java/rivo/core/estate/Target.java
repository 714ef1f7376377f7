package rivo.core.estate;

import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Whom an assignment, a wave or a group's member list names: written {@code KIND:ID}.
 *
 * @param id empty for {@link Kind#ALL_DEVICES} and {@link Kind#ALL_USERS}, which name everyone
 */
public record Target(Kind kind, String id) {

    /** The kinds of targets. */
    public enum Kind {
        ALL_DEVICES, ALL_USERS, OU, GROUP, COLLECTION, DEVICE, USER;

        /** The word in files, records and the API. */
        public String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }

        public boolean namesEveryone() {
            return this == ALL_DEVICES || this == ALL_USERS;
        }

        /** Whether an assignment that follows this side may include it (section 3, rule 1). */
        public boolean serves(Follows follows) {
            return switch (this) {
                case OU, GROUP -> true;
                case ALL_DEVICES, COLLECTION, DEVICE -> follows == Follows.DEVICE;
                case ALL_USERS, USER -> follows == Follows.USER;
            };
        }
    }

    public static final Target ALL_DEVICES = new Target(Kind.ALL_DEVICES, "");
    public static final Target ALL_USERS = new Target(Kind.ALL_USERS, "");

    public Target {
        Objects.requireNonNull(kind);
        Objects.requireNonNull(id);
        if (kind.namesEveryone() != id.isEmpty()) {
            throw new IllegalArgumentException("a target has an id unless it names everyone");
        }
    }

    public static Target ou(String id) {
        return new Target(Kind.OU, id);
    }

    public static Target group(String id) {
        return new Target(Kind.GROUP, id);
    }

    public static Target collection(String id) {
        return new Target(Kind.COLLECTION, id);
    }

    public static Target device(String id) {
        return new Target(Kind.DEVICE, id);
    }

    public static Target user(String id) {
        return new Target(Kind.USER, id);
    }

    /** The target that is written so, or null when it is none. */
    public static @Nullable Target parse(String written) {
        for (Kind kind : Kind.values()) {
            String word = kind.word();
            if (kind.namesEveryone()) {
                if (written.equals(word)) {
                    return new Target(kind, "");
                }
            } else if (written.startsWith(word + ":") && written.length() > word.length() + 1) {
                return new Target(kind, written.substring(word.length() + 1));
            }
        }
        return null;
    }

    // What is equal is the same as of any record; this is quicker where there are tens of millions, and the hash is the same at every start.

    @Override
    public boolean equals(@Nullable Object other) {
        return this == other || other instanceof Target target && kind == target.kind && id.equals(target.id);
    }

    @Override
    public int hashCode() {
        return id.hashCode() * 31 + kind.ordinal();
    }

    /** As it is written: {@code ou:labs}, {@code all-devices}. */
    @Override
    public String toString() {
        return id.isEmpty() ? kind.word() : kind.word() + ":" + id;
    }
}
