package rivo.directory.demo;

import com.unboundid.ldap.sdk.Attribute;
import com.unboundid.ldap.sdk.Entry;
import com.unboundid.ldif.LDIFWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import rivo.directory.demo.DemoOrganisation.Computer;
import rivo.directory.demo.DemoOrganisation.DemoOu;
import rivo.directory.demo.DemoOrganisation.Group;
import rivo.directory.demo.DemoOrganisation.Person;

/** The demo organisation as LDIF (RFC 2849), parents before children, with fixed entry ids. */
public final class DemoLdif {

    private static final int DISABLED_ACCOUNT = 514;
    private static final int USUAL_ACCOUNT = 512;

    private DemoLdif() {
    }

    /**
     * Writes the organisation to a file, whole or not at all.
     *
     * @param password of the demo administrator, and of those of whom the demo tells
     * @param readerPassword of the account with which Rivo reads
     */
    public static void write(DemoOrganisation organisation, Path file, String password, String readerPassword)
            throws IOException {
        Path part = file.resolveSibling(file.getFileName() + ".part");
        try (LDIFWriter writer = new LDIFWriter(part.toFile())) {
            writer.writeEntry(domain());
            for (String container : List.of("Groups", "Service accounts")) {
                writer.writeEntry(container("organizationalUnit", "ou=" + container));
            }
            writer.writeEntry(container("applicationProcess", "cn=Unplaced"));
            writer.writeEntry(reader(readerPassword));
            for (DemoOu ou : organisation.ous()) {
                writer.writeEntry(entry(ou.dn(), ou.id(), "organizationalUnit"));
            }
            for (Person person : organisation.people()) {
                writer.writeEntry(person(person, password));
            }
            for (Computer computer : organisation.computers()) {
                writer.writeEntry(computer(computer));
            }
            for (Group group : organisation.groups()) {
                writer.writeEntry(group(group));
            }
        }
        Files.move(part, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
    }

    private static Entry domain() {
        Entry entry = entry(DemoOrganisation.BASE_DN, DemoOrganisation.id("root"), "domain");
        entry.addAttribute("description", "Quillbrook Water");
        return entry;
    }

    private static Entry container(String objectClass, String rdn) {
        return entry(rdn + "," + DemoOrganisation.BASE_DN, DemoOrganisation.id(rdn), objectClass);
    }

    private static Entry reader(String password) {
        Entry entry = entry(DemoOrganisation.READER_DN, DemoOrganisation.id("reader"), "applicationProcess");
        entry.addAttribute("objectClass", "simpleSecurityObject");
        entry.addAttribute("userPassword", password);
        return entry;
    }

    private static Entry person(Person person, String password) {
        Entry entry = entry(person.dn(), person.id(), "inetOrgPerson");
        entry.addAttribute("objectClass", "quillbrookAccount");
        entry.addAttribute("cn", person.given() + " " + person.family());
        entry.addAttribute("sn", person.family());
        entry.addAttribute("givenName", person.given());
        entry.addAttribute("mail", person.account() + "@quillbrook.example");
        entry.addAttribute("departmentNumber", person.department());
        entry.addAttribute("userAccountControl",
                Integer.toString(person.enabled() ? USUAL_ACCOUNT : DISABLED_ACCOUNT));
        if (DemoOrganisation.mayBeTried(person.account())) {
            entry.addAttribute("userPassword", password);
        }
        return entry;
    }

    private static Entry computer(Computer computer) {
        Entry entry = entry(computer.dn(), computer.id(), "device");
        entry.addAttribute("objectClass", "quillbrookAccount");
        entry.addAttribute("sAMAccountName", computer.name() + "$");
        computer.owners().forEach(owner -> entry.addAttribute("owner", owner.dn()));
        return entry;
    }

    private static Entry group(Group group) {
        Entry entry = entry(group.dn(), group.id(), "groupOfNames");
        entry.addAttribute(new Attribute("member", group.memberDns()));
        return entry;
    }

    private static Entry entry(String dn, String id, String objectClass) {
        return new Entry(dn, new Attribute("objectClass", "top", objectClass), new Attribute("entryUUID", id));
    }
}
