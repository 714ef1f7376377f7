package rivo.server.demo;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Function;
import java.util.stream.Collectors;
import rivo.devices.fleet.Roster;
import rivo.directory.demo.DemoOrganisation;
import rivo.directory.demo.DemoOrganisation.Chassis;
import rivo.directory.demo.DemoOrganisation.Computer;

/** What a computer of the demo is like before Rivo comes: mostly in order, here and there behind. */
final class DemoDevice {

    private final Computer computer;
    private final Random random;
    private final Map<String, String> software = new HashMap<>();
    private final Map<String, String> profile = new HashMap<>();

    private DemoDevice(Computer computer) {
        this.computer = computer;
        this.random = new Random(computer.name().hashCode());
    }

    static Roster.Entry entry(Computer computer, String token, boolean lively) {
        DemoDevice device = new DemoDevice(computer);
        Map<String, String> facts = device.facts();
        device.everywhere();
        device.byPlace();
        List<String> people = computer.owners().stream().map(DemoOrganisation.Person::account).toList();
        return new Roster.Entry(computer.name(), token, lively, facts, device.software, people,
                people.stream().collect(Collectors.toMap(Function.identity(), account -> device.profile)), !people.isEmpty() && DemoOrganisation.mayBeTried(people.get(0)));
    }

    private Map<String, String> facts() {
        Chassis chassis = computer.chassis();
        Map<String, String> facts = new LinkedHashMap<>();
        facts.put("name", computer.name());
        facts.put("chassis", chassis.name().toLowerCase(java.util.Locale.ROOT));
        facts.put("arch", chassis == Chassis.TABLET && random.nextInt(3) == 0 ? "arm64" : "x64");
        facts.put("os.family", "windows");
        facts.put("os.version", random.nextInt(10) == 0 ? computer.name().hashCode() % 2 == 0 ? "10.0.19045" : "10.0.22631" : random.nextInt(8) == 0 ? "10.0.26200"
                : "10.0.26100");
        if (chassis == Chassis.KIOSK) {
            facts.put("os.family", "linux");
            facts.put("os.version", "12.4");
            facts.put("x.packages", "deb");
        }
        facts.put("ramGiB", chassis == Chassis.KIOSK ? "4" : random.nextInt(3) == 0 ? "8" : "16");
        facts.put("diskFreeGiB", Integer.toString(20 + random.nextInt(400)));
        facts.put("manufacturer", random.nextBoolean() ? "Hollin" : "Corrigan");
        facts.put("model", switch (chassis) {
            case DESKTOP -> "Bench 7";
            case LAPTOP -> "Satchel 14";
            case TABLET -> "Slate 10";
            case KIOSK -> "Counter 3";
        });
        facts.put("language", "en");
        facts.put("joined", "quillbrook.example");
        facts.put("site", site(computer.ouDn()));
        return facts;
    }

    private static String site(String ou) {
        return List.of("Hartsmere", "Coldwell", "Ashby Head", "Fenny Lock", "Upper Sedge").stream().filter(ou::contains)
                .findFirst().orElse("Head office");
    }

    private void everywhere() {
        has(96, "Pikeguard Endpoint", "7.1.0", "7.0.2");
        has(95, "Fernote Reader", "11.2", "11.1");
        if (random.nextInt(100) < 4) {
            software.put("Fluxplayer", "10.4");
        }
        if (random.nextInt(100) < 3) {
            software.put("Reedwall", "5.5");
        }
    }

    private void byPlace() {
        String ou = computer.ouDn();
        if (ou.contains("ou=Laboratories")) {
            has(95, "Graphkit runtime", "2.4.1", "2.3.0");
            if (random.nextInt(100) < 12) {
                software.put("Siltscope Classic", "2.9.4");
            }
            if (random.nextInt(100) < 6) {
                software.put("Mudview", "3.9");
            }
        }
        if (ou.contains("Hartsmere") || ou.startsWith("ou=Mobile") || ou.startsWith("ou=Dosing")) {
            has(88, "Siltscope Lab", "4.2.0", "4.1.0");
        }
        if (ou.contains("ou=Networks") && !ou.startsWith("ou=Pumping") || ou.startsWith("ou=Planning")) {
            has(profile, 92, "Brookmap Studio", "3.0", "2.8");
        }
        if (ou.startsWith("ou=Finance") || ou.startsWith("ou=Billing")) {
            has(93, "Ledgerfen", "2026.3", "2026.2");
        }
        if (ou.contains("ou=Corporate") || ou.startsWith("ou=Trunk mains")) {
            has(profile, 94, "Otterlink Tunnel", "5.3", "5.2");
        }
        more(ou);
    }

    private void more(String ou) {
        if (ou.startsWith("ou=Contact centre")) {
            software.put("Tarnlog Viewer", "3.3.1");
        }
        if (ou.startsWith("ou=Planning")) {
            software.put("Valvewright CAD", "9.0.4");
        }
        if (ou.startsWith("ou=Leakage")) {
            software.put("Kingfisher Meter Reader", "6.0");
        }
        if (ou.startsWith("ou=Dosing") || ou.startsWith("ou=Filter hall,ou=Ashby")) {
            software.put("Dosecalc", "1.4");
        }
    }

    /** The newest on {@code percent} in a hundred; of the others half have the older one, half nothing. */
    private void has(int percent, String name, String newest, String older) {
        has(software, percent, name, newest, older);
    }

    private void has(Map<String, String> where, int percent, String name, String newest, String older) {
        int n = random.nextInt(100);
        if (n < percent) {
            where.put(name, newest);
        } else if (n % 2 == 0) {
            where.put(name, older);
        }
    }
}
