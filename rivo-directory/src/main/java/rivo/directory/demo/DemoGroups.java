package rivo.directory.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import rivo.directory.demo.DemoOrganisation.Chassis;
import rivo.directory.demo.DemoOrganisation.Computer;
import rivo.directory.demo.DemoOrganisation.Group;
import rivo.directory.demo.DemoOrganisation.Person;

/** The security groups of the demo organisation: nested ones, a pair nested in each other, one four deep. */
final class DemoGroups {

    private final List<Person> people;
    private final List<Computer> computers;
    private final List<Group> groups = new ArrayList<>();

    DemoGroups(List<Person> people, List<Computer> computers) {
        this.people = people;
        this.computers = computers;
        build();
    }

    List<Group> all() {
        return List.copyOf(groups);
    }

    private void build() {
        String ending = "," + DemoOrganisation.BASE_DN;
        group("lab-analysts", people(p -> p.ouDn().contains("Laboratory"), 2));
        group("reception-loans", computers(c -> c.ouDn().startsWith("ou=Contact centre"), 60));
        List<String> loans = new ArrayList<>(computers(c -> c.name().startsWith("QB-LAB"), 40));
        loans.add(dn("reception-loans"));
        group("loan-pool", loans);
        group("duty-engineers", people(p -> p.department().equals("Treatment works"), 9));
        group("crew-tablets", computers(c -> c.chassis() == Chassis.TABLET, 1));
        group("pilot-first", computers(c -> true, 70));
        group("contractors-pumping", people(p -> p.ouDn().startsWith("ou=Pumping"), 12));
        nested("contractors-networks", "contractors-pumping");
        nested("contractors-field", "contractors-networks");
        nested("contractors-all", "contractors-field");
        // Nested in each other by accident: both hold the union.
        List<String> spares = new ArrayList<>(computers(c -> c.name().startsWith("QB-TRW"), 90));
        spares.add(dn("bench-spares"));
        group("workshop-spares", spares);
        nested("bench-spares", "workshop-spares");
        String technology = ",ou=Technology,ou=Corporate" + ending;
        group("technology-desk", List.of("uid=" + DemoOrganisation.ADMINISTRATOR + technology, "uid=odile.quarrycombe" + technology));
        nested(DemoOrganisation.ADMINISTRATORS, "technology-desk");
    }

    private void nested(String name, String member) {
        group(name, List.of(dn(member)));
    }

    private void group(String name, List<String> memberDns) {
        groups.add(new Group(DemoOrganisation.id("group:" + name), name, memberDns));
    }

    static String dn(String group) {
        return "cn=" + group + ",ou=Groups," + DemoOrganisation.BASE_DN;
    }

    private List<String> people(Predicate<Person> which, int oneIn) {
        List<Person> matching = people.stream().filter(which).toList();
        return everyNth(matching.stream().map(Person::dn).toList(), oneIn);
    }

    private List<String> computers(Predicate<Computer> which, int oneIn) {
        List<Computer> matching = computers.stream().filter(which).toList();
        return everyNth(matching.stream().map(Computer::dn).toList(), oneIn);
    }

    private static List<String> everyNth(List<String> all, int oneIn) {
        List<String> chosen = new ArrayList<>();
        for (int i = 0; i < all.size(); i += oneIn) {
            chosen.add(all.get(i));
        }
        return chosen;
    }
}
