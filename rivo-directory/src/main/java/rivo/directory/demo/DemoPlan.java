package rivo.directory.demo;

import java.util.List;
import java.util.Locale;
import rivo.directory.demo.DemoOrganisation.Chassis;
import rivo.directory.demo.DemoOrganisation.Person;

/** How the demo organisation is built: its OUs in order, with how many devices of which sort stand in each. */
final class DemoPlan {

    static final List<String> ADMINISTRATORS_OU = List.of("Corporate", "Technology");

    /**
     * @param code the middle of the device names, such as LAB in QB-LAB-014
     * @param sharedInTen how many devices in ten have two people
     */
    record Part(List<String> path, String code, Chassis chassis, int devices, int smallDevices,
            double peoplePerDevice, int sharedInTen) {

        /** Where several people share what stands there. */
        boolean isControlRoom() {
            return path.get(path.size() - 1).equals("Control room");
        }

        /** The department of the people here: the division. */
        String department() {
            return path.get(0);
        }
    }

    private static final Chassis DESKTOP = Chassis.DESKTOP;
    private static final Chassis LAPTOP = Chassis.LAPTOP;
    private static final Chassis TABLET = Chassis.TABLET;
    private static final Chassis KIOSK = Chassis.KIOSK;

    static final List<Part> PARTS = List.of(
            empty("LAB", "Laboratories"),
            empty("LAB", "Laboratories", "Hartsmere Laboratory"),
            part("LAB", DESKTOP, 46, 4, 1.3, 4, "Laboratories", "Hartsmere Laboratory", "Microbiology"),
            part("LAB", DESKTOP, 88, 2, 1.3, 4, "Laboratories", "Hartsmere Laboratory", "Chemistry"),
            part("LAB", DESKTOP, 61, 1, 1.1, 2, "Laboratories", "Hartsmere Laboratory", "Sampling intake"),
            part("LAB", DESKTOP, 46, 1, 0.8, 6, "Laboratories", "Hartsmere Laboratory", "Instruments"),
            empty("LAB", "Laboratories", "Coldwell Laboratory"),
            part("LAB", DESKTOP, 97, 2, 1.2, 4, "Laboratories", "Coldwell Laboratory", "Chemistry"),
            part("LAB", DESKTOP, 61, 1, 1.0, 2, "Laboratories", "Coldwell Laboratory", "Radiology"),
            part("LAB", DESKTOP, 40, 1, 0.9, 1, "Laboratories", "Coldwell Laboratory", "Stores"),
            part("LAB", TABLET, 173, 4, 1.4, 7, "Laboratories", "Mobile laboratory vans"),
            empty("TRW", "Treatment works"),
            empty("TRW", "Treatment works", "Ashby Head works"),
            part("TRW", KIOSK, 38, 1, 1.5, 0, "Treatment works", "Ashby Head works", "Control room"),
            part("TRW", DESKTOP, 160, 2, 1.0, 3, "Treatment works", "Ashby Head works", "Filter hall"),
            part("TRW", LAPTOP, 222, 2, 1.1, 2, "Treatment works", "Ashby Head works", "Workshops"),
            empty("TRW", "Treatment works", "Fenny Lock works"),
            part("TRW", KIOSK, 41, 1, 1.5, 0, "Treatment works", "Fenny Lock works", "Control room"),
            part("TRW", DESKTOP, 140, 2, 1.0, 3, "Treatment works", "Fenny Lock works", "Dosing"),
            part("TRW", LAPTOP, 209, 1, 1.1, 2, "Treatment works", "Fenny Lock works", "Workshops"),
            empty("TRW", "Treatment works", "Upper Sedge works"),
            part("TRW", KIOSK, 35, 1, 1.5, 0, "Treatment works", "Upper Sedge works", "Control room"),
            part("TRW", DESKTOP, 150, 1, 1.0, 3, "Treatment works", "Upper Sedge works", "Filter hall"),
            part("TRW", LAPTOP, 185, 1, 1.1, 2, "Treatment works", "Upper Sedge works", "Workshops"),
            empty("NET", "Networks"),
            part("NET", LAPTOP, 520, 4, 1.0, 1, "Networks", "Trunk mains"),
            part("NET", TABLET, 610, 5, 1.2, 2, "Networks", "Leakage crews"),
            part("NET", LAPTOP, 510, 4, 1.0, 1, "Networks", "Pumping"),
            empty("NET", "Networks", "Reservoirs, planned"),
            empty("CUS", "Customer"),
            part("CUS", DESKTOP, 1110, 5, 1.2, 2, "Customer", "Contact centre"),
            part("CUS", DESKTOP, 560, 3, 1.0, 1, "Customer", "Billing"),
            part("CUS", KIOSK, 200, 2, 0, 0, "Customer", "Outreach kiosks"),
            empty("COR", "Corporate"),
            part("COR", LAPTOP, 300, 2, 1.0, 0, "Corporate", "Finance"),
            part("COR", LAPTOP, 180, 1, 1.0, 0, "Corporate", "People team"),
            part("COR", LAPTOP, 410, 3, 1.0, 0, "Corporate", "Planning"),
            part("COR", LAPTOP, 280, 2, 1.1, 0, "Corporate", "Technology"),
            empty("COR", "Corporate", "Archive"));

    /** Somebody whom the demo tells of, by name, in place of whoever stands at this place of their OU. */
    record Named(List<String> path, int place, String given, String family) {
        String account() {
            return (given + "." + family).toLowerCase(Locale.ROOT);
        }

        Person person(Person other) {
            return new Person(DemoOrganisation.id("user:" + account() + " named"), account(), given, family, other.department(), other.ouDn(), true);
        }
    }

    /** Who takes an offer at QB-LAB-014; who shares a PC with two others; who moves between two devices; who approves. */
    static final List<Named> NAMED = List.of(
            new Named(List.of("Laboratories", "Hartsmere Laboratory", "Microbiology"), 13, "Rowena", "Elmby"),
            new Named(List.of("Treatment works", "Ashby Head works", "Control room"), 0, "Mirko", "Colddale"),
            new Named(List.of("Laboratories", "Hartsmere Laboratory", "Instruments"), 9, "Imke", "Craneham"),
            new Named(ADMINISTRATORS_OU, 1, "Odile", "Quarrycombe"));

    private DemoPlan() {
    }

    private static Part part(String code, Chassis chassis, int devices, int small, double people, int shared,
            String... path) {
        return new Part(List.of(path), code, chassis, devices, small, people, shared);
    }

    private static Part empty(String code, String... path) {
        return new Part(List.of(path), code, Chassis.DESKTOP, 0, 0, 0, 0);
    }
}
