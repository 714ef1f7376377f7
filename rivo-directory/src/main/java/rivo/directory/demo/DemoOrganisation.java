package rivo.directory.demo;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.UUID;

/**
 * Quillbrook Water, a made-up regional water company: its OUs, people, computers and groups, the same on every run.
 */
public final class DemoOrganisation {

    public static final String BASE_DN = "dc=quillbrook,dc=example";
    /** The account with which Rivo reads the directory. */
    public static final String READER_DN = "cn=rivo-reader,ou=Service accounts," + BASE_DN;
    /** The account name of the demo administrator. */
    public static final String ADMINISTRATOR = "imara.voss";
    /** The account name of the one whose shelf is worth a look. */
    public static final String SHELF_PERSON = "rowena.elmby";
    /** The group whose members may sign in, directly or through another group. */
    public static final String ADMINISTRATORS = "rivo-administrators";
    public static final String ADMINISTRATORS_DN = DemoGroups.dn(ADMINISTRATORS);

    private static final long SEED = 20261123;

    /** What sort of machine it is: how it is built, and how it behaves in the simulated fleet. */
    public enum Chassis {
        DESKTOP, LAPTOP, TABLET, KIOSK
    }

    /** An OU by its path from the suffix, the outermost name first. */
    public record DemoOu(String id, List<String> path) {
        public DemoOu {
            path = List.copyOf(path);
        }

        String dn() {
            StringBuilder dn = new StringBuilder(BASE_DN);
            path.forEach(name -> dn.insert(0, "ou=" + name.replace(",", "\\,") + ","));
            return dn.toString();
        }
    }

    /** A person, in the OU with this DN. */
    public record Person(String id, String account, String given, String family, String department, String ouDn,
            boolean enabled) {
        String dn() {
            return "uid=" + account + "," + ouDn;
        }
    }

    /** A computer, in the OU (or, outside every OU, the container) with this DN. */
    public record Computer(String id, String name, Chassis chassis, String ouDn, List<Person> owners) {
        public Computer {
            owners = List.copyOf(owners);
        }

        String dn() {
            return "cn=" + name + "," + ouDn;
        }
    }

    /** A group with the DNs of its members. */
    public record Group(String id, String name, List<String> memberDns) {
        public Group {
            memberDns = List.copyOf(memberDns);
        }

        String dn() {
            return "cn=" + name + ",ou=Groups," + BASE_DN;
        }
    }

    private final Random random = new Random(SEED);
    private final PersonNames names = new PersonNames(random, DemoPlan.NAMED.stream().map(DemoPlan.Named::account).toList());
    private final Map<String, Integer> numbers = new HashMap<>();
    private final List<DemoOu> ous = new ArrayList<>();
    private final List<Person> people = new ArrayList<>();
    private final List<Computer> computers = new ArrayList<>();
    private final List<Group> groups;

    /** @param small 60 devices instead of about 6,480, in the same OUs */
    public DemoOrganisation(boolean small) {
        for (DemoPlan.Part part : DemoPlan.PARTS) {
            DemoOu ou = new DemoOu(id("ou:" + String.join("/", part.path())), part.path());
            ous.add(ou);
            fill(ou, part, small ? part.smallDevices() : part.devices());
        }
        outsideEveryOu(small ? 1 : 8);
        groups = new DemoGroups(people, computers).all();
    }

    private void fill(DemoOu ou, DemoPlan.Part part, int devices) {
        List<Person> here = new ArrayList<>();
        if (part.path().equals(DemoPlan.ADMINISTRATORS_OU)) {
            here.add(new Person(id("user:" + ADMINISTRATOR), ADMINISTRATOR, "Imara", "Voss", part.department(),
                    ou.dn(), true));
        }
        int wanted = (int) Math.round(devices * part.peoplePerDevice());
        while (here.size() < wanted) {
            here.add(person(part.department(), ou.dn()));
        }
        DemoPlan.NAMED.stream().filter(named -> named.path().equals(part.path())).forEach(named -> {
            int place = Math.min(named.place(), Math.min(here.size(), devices) - 1);
            here.set(place, named.person(here.get(place)));
        });
        people.addAll(here);
        for (int i = 0; i < devices; i++) {
            computers.add(computer(part.code(), part.chassis(), ou.dn(), owners(here, i, part)));
        }
    }

    private List<Person> owners(List<Person> here, int device, DemoPlan.Part part) {
        if (part.isControlRoom() && device == 0) {
            return here.subList(0, Math.min(3, here.size()));
        }
        if (here.isEmpty() || part.chassis() == Chassis.KIOSK) {
            return List.of();
        }
        Person first = here.get(device % here.size());
        boolean shared = here.size() > 1 && random.nextInt(10) < part.sharedInTen();
        return shared ? List.of(first, here.get((device + 1) % here.size())) : List.of(first);
    }

    /** Whether the demo knows this person's password: the administrators, and those of whom it tells. */
    public static boolean mayBeTried(String account) {
        return account.equals(ADMINISTRATOR) || DemoPlan.NAMED.stream().anyMatch(named -> named.account().equals(account));
    }

    private Person person(String department, String ouDn) {
        PersonNames.Name name = names.next();
        return new Person(id("user:" + name.account()), name.account(), name.given(), name.family(), department, ouDn,
                random.nextInt(50) != 0);
    }

    private Computer computer(String code, Chassis usual, String ouDn, List<Person> owners) {
        String name = String.format("QB-%s-%03d", code, numbers.merge(code, 1, Integer::sum));
        Chassis chassis = usual == Chassis.LAPTOP && random.nextInt(4) == 0 ? Chassis.DESKTOP : usual;
        return new Computer(id("device:" + name), name, chassis, ouDn, owners);
    }

    private void outsideEveryOu(int devices) {
        for (int i = 0; i < devices; i++) {
            computers.add(computer("NEW", Chassis.LAPTOP, "cn=Unplaced," + BASE_DN, List.of()));
        }
    }

    /** Ids are made from names, so that they are the same on every run. */
    static String id(String of) {
        return UUID.nameUUIDFromBytes(("quillbrook " + of).getBytes(StandardCharsets.UTF_8)).toString();
    }

    public List<DemoOu> ous() {
        return List.copyOf(ous);
    }

    public List<Person> people() {
        return List.copyOf(people);
    }

    public List<Computer> computers() {
        return List.copyOf(computers);
    }

    public List<Group> groups() {
        return groups;
    }
}
