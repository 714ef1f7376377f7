package rivo.directory;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What the directory holds at one scan. Everything refers to everything by stable id; what pointed outside the picture
 * has been left out, and counted.
 *
 * @param notes what was skipped, one sentence each
 */
public record DirectoryPicture(List<OuEntry> ous, List<UserEntry> users, List<ComputerEntry> computers,
        List<GroupEntry> groups, List<String> notes) {

    public DirectoryPicture {
        ous = List.copyOf(ous);
        users = List.copyOf(users);
        computers = List.copyOf(computers);
        groups = List.copyOf(groups);
        notes = List.copyOf(notes);
    }

    /** An entry with a stable id. */
    public interface Identified {
        String id();
    }

    /** @param parent null for the root, which is the suffix itself */
    public record OuEntry(String id, String dn, String name, @Nullable String parent) implements Identified {
        public OuEntry {
            Objects.requireNonNull(id);
        }
    }

    /**
     * @param account the name to sign in with
     * @param ou null when outside every OU
     */
    public record UserEntry(String id, String dn, String account, String fullName, @Nullable String mail,
            @Nullable String department, @Nullable String ou, boolean enabled) implements Identified {
        public UserEntry {
            Objects.requireNonNull(id);
        }
    }

    /**
     * @param ou null when outside every OU
     * @param people the ids of its owners, in order
     */
    public record ComputerEntry(String id, String dn, String name, @Nullable String ou, boolean enabled,
            List<String> people) implements Identified {
        public ComputerEntry {
            Objects.requireNonNull(id);
            people = List.copyOf(people);
        }
    }

    /** @param members in order */
    public record GroupEntry(String id, String dn, String name, List<Member> members) implements Identified {
        public GroupEntry {
            Objects.requireNonNull(id);
            members = List.copyOf(members);
        }
    }

    /** What a group can hold. */
    public enum MemberKind {
        USER, DEVICE, GROUP
    }

    /** One member of a group. */
    public record Member(MemberKind kind, String id) {
    }
}
