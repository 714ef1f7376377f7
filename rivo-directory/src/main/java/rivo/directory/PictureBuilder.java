package rivo.directory;

import com.unboundid.ldap.sdk.DN;
import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldap.sdk.LDAPException;
import com.unboundid.ldap.sdk.RDN;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.directory.DirectoryPicture.ComputerEntry;
import rivo.directory.DirectoryPicture.GroupEntry;
import rivo.directory.DirectoryPicture.Member;
import rivo.directory.DirectoryPicture.MemberKind;
import rivo.directory.DirectoryPicture.OuEntry;
import rivo.directory.DirectoryPicture.UserEntry;

/**
 * Puts the entries of a scan together. Entries may come in any order, children before parents; names are compared as
 * parsed DNs, never as strings. Used by one thread.
 */
final class PictureBuilder {

    /** How many passed-over references are named before the rest are only counted. */
    private static final int NOTES_NAMED = 20;

    private enum Kind {
        OU, USER, COMPUTER, GROUP
    }

    private record Found(String id, Kind kind, Entry entry) {
    }

    private final DN base;
    private final Map<DN, Found> found = new LinkedHashMap<>();
    private final Map<String, DN> ids = new HashMap<>();
    private final List<String> notes = new ArrayList<>();
    private int unnamedNotes;

    PictureBuilder(DN base) {
        this.base = base;
    }

    void add(Entry entry) throws LDAPException {
        DN dn = entry.getParsedDN();
        Kind kind = kind(entry, dn);
        if (kind == null) {
            return;
        }
        String id = StableId.of(entry);
        if (id == null) {
            note(entry.getDN() + " has neither entryUUID nor objectGUID and was skipped; "
                    + "let the reading account see one of them.");
        } else if (ids.putIfAbsent(id, dn) != null) {
            note(entry.getDN() + " has the id of another entry and was skipped.");
        } else {
            found.put(dn, new Found(id, kind, entry));
        }
    }

    private @Nullable Kind kind(Entry entry, DN dn) {
        if (dn.equals(base) || entry.hasObjectClass("organizationalUnit")) {
            return Kind.OU;
        }
        if (entry.hasObjectClass("computer") || entry.hasObjectClass("device")) {
            return Kind.COMPUTER;
        }
        if (entry.hasObjectClass("groupOfNames") || entry.hasObjectClass("groupOfUniqueNames")
                || entry.hasObjectClass("group")) {
            return Kind.GROUP;
        }
        return entry.hasObjectClass("inetOrgPerson") || entry.hasObjectClass("user") ? Kind.USER : null;
    }

    /** @throws DirectoryException when the suffix itself was not among the entries */
    DirectoryPicture build() {
        if (!found.containsKey(base)) {
            throw new DirectoryException("The directory answered without " + base
                    + " itself; check the suffix and what the reading account may see.");
        }
        List<OuEntry> ous = new ArrayList<>();
        List<UserEntry> users = new ArrayList<>();
        List<ComputerEntry> computers = new ArrayList<>();
        List<GroupEntry> groups = new ArrayList<>();
        found.forEach((dn, one) -> {
            switch (one.kind()) {
                case OU -> ous.add(ou(dn, one));
                case USER -> users.add(user(dn, one));
                case COMPUTER -> computers.add(computer(dn, one));
                case GROUP -> groups.add(new GroupEntry(one.id(), one.entry().getDN(), name(dn), members(one)));
            }
        });
        if (unnamedNotes > 0) {
            notes.add(unnamedNotes + " more were skipped.");
        }
        return new DirectoryPicture(ous, users, computers, groups, notes);
    }

    /** The suffix is called by its description or organisation, since its own name is only a part of a domain. */
    private OuEntry ou(DN dn, Found one) {
        String described = dn.equals(base) ? first(one.entry(), "description", "o") : null;
        return new OuEntry(one.id(), one.entry().getDN(), described == null ? name(dn) : described, parentOu(dn));
    }

    private UserEntry user(DN dn, Found one) {
        Entry entry = one.entry();
        String account = first(entry, "sAMAccountName", "uid");
        String fullName = first(entry, "displayName", "cn");
        return new UserEntry(one.id(), entry.getDN(), account == null ? name(dn) : account,
                fullName == null ? name(dn) : fullName, first(entry, "mail"),
                first(entry, "department", "departmentNumber"), ou(dn), enabled(entry));
    }

    private ComputerEntry computer(DN dn, Found one) {
        Entry entry = one.entry();
        List<String> people = new ArrayList<>();
        for (String attribute : List.of("owner", "managedBy")) {
            for (Found person : referred(entry, attribute)) {
                if (person.kind() == Kind.USER && !people.contains(person.id())) {
                    people.add(person.id());
                }
            }
        }
        return new ComputerEntry(one.id(), entry.getDN(), name(dn), ou(dn), enabled(entry), people);
    }

    private List<Member> members(Found group) {
        List<Member> members = new ArrayList<>();
        for (String attribute : List.of("member", "uniqueMember")) {
            for (Found one : referred(group.entry(), attribute)) {
                switch (one.kind()) {
                    case USER -> members.add(new Member(MemberKind.USER, one.id()));
                    case COMPUTER -> members.add(new Member(MemberKind.DEVICE, one.id()));
                    case GROUP -> members.add(new Member(MemberKind.GROUP, one.id()));
                    case OU -> note(group.entry().getDN() + " holds an OU, which was skipped.");
                }
            }
        }
        return members.stream().distinct().toList();
    }

    private List<Found> referred(Entry entry, String attribute) {
        String[] values = entry.getAttributeValues(attribute);
        List<Found> referred = new ArrayList<>();
        for (String value : values == null ? new String[0] : values) {
            if (value.isBlank()) {
                continue;
            }
            Found one = DN.isValidDN(value) ? found.get(parse(value)) : null;
            if (one == null) {
                note(entry.getDN() + " names " + value + ", which was not found and was skipped.");
            } else {
                referred.add(one);
            }
        }
        return referred;
    }

    private static DN parse(String dn) {
        try {
            return new DN(dn);
        } catch (LDAPException e) {
            throw new IllegalArgumentException(dn, e);
        }
    }

    /** The nearest OU above, the root included; null for the root itself. */
    private @Nullable String parentOu(DN dn) {
        for (DN up = dn.getParent(); up != null; up = up.getParent()) {
            Found one = found.get(up);
            if (one != null && one.kind() == Kind.OU) {
                return one.id();
            }
        }
        return null;
    }

    /** The nearest OU above that is not the root; null when there is none. */
    private @Nullable String ou(DN dn) {
        String nearest = parentOu(dn);
        Found root = found.get(base);
        return root != null && root.id().equals(nearest) ? null : nearest;
    }

    private static String name(DN dn) {
        RDN rdn = dn.getRDN();
        return rdn == null ? dn.toString() : rdn.getAttributeValues()[0];
    }

    private static @Nullable String first(Entry entry, String... attributes) {
        for (String attribute : attributes) {
            String value = entry.getAttributeValue(attribute);
            if (value != null && !value.isBlank()) {
                return value;
            }
        }
        return null;
    }

    /** Bit 2 of userAccountControl says that an account is disabled. */
    private static boolean enabled(Entry entry) {
        Integer control = entry.getAttributeValueAsInteger("userAccountControl");
        return control == null || (control & 2) == 0;
    }

    private void note(String sentence) {
        if (notes.size() < NOTES_NAMED) {
            notes.add(sentence);
        } else {
            unnamedNotes++;
        }
    }
}
