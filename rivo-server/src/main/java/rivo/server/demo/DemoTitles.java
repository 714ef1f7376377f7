package rivo.server.demo;

import java.util.Arrays;
import java.util.List;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Scope;

/** The made-up software of the demo. */
final class DemoTitles {

    /** @param kilobytes the size of its installer */
    record DemoTitle(String id, Scope scope, String name, String maker, String category, String owner,
            String description, int kilobytes, List<DemoRelease> releases) {
        DemoTitle {
            releases = List.copyOf(releases);
        }
    }

    record DemoRelease(String version, ReleaseState state) {
    }

    static final List<DemoTitle> ALL = List.of(
            title("siltscope", "Siltscope Lab", "Fenwick Instruments", "Laboratory", "Water quality IT",
                    "Reads water samples and keeps their results", 640, "4.1.0", "4.2.0", "!4.3.0-rc2"),
            title("siltscope-classic", "Siltscope Classic", "Fenwick Instruments", "Laboratory", "Water quality IT",
                    "What Siltscope Lab takes the place of", 310, "2.9.4"),
            title("graphkit", "Graphkit runtime", "Ardley Graphics", "Runtimes", "Desktop services",
                    "Draws charts for other titles", 180, "2.3.0", "2.4.1"),
            title("mudview", "Mudview", "Sallow & Finch", "Laboratory", "Water quality IT",
                    "Looks at sediment pictures", 220, "3.9"),
            forPeople("brookmap", "Brookmap Studio", "Brookmap", "Maps", "Networks IT",
                    "Maps of pipes, pumps and valves", 820, "2.8", "3.0"),
            title("pikeguard", "Pikeguard Endpoint", "Pikeguard", "Security", "Security team",
                    "Guards every device", 420, "7.0.2", "7.1.0"),
            title("reedwall", "Reedwall", "Reedwall Security", "Security", "Security team",
                    "The guard before Pikeguard", 260, "5.5"),
            forPeople("otterlink", "Otterlink Tunnel", "Otterlink", "Connections", "Network services",
                    "Reaches the offices from elsewhere", 150, "5.2", "5.3"),
            title("valvewright", "Valvewright CAD", "Marlowe & Pask", "Engineering", "Planning IT",
                    "Draws valves and chambers; licensed by seat", 900, "9.0.4"),
            title("fernote", "Fernote Reader", "Fernote", "Office", "Desktop services",
                    "Reads documents", 130, "11.1", "11.2"),
            title("tarnlog", "Tarnlog Viewer", "Tarnlog", "Engineering", "Works IT",
                    "Shows what loggers recorded", 90, "3.3.1"),
            title("dosecalc", "Dosecalc", "Quillbrook Water", "Engineering", "Works IT",
                    "Works out doses of chlorine", 60, "1.4"),
            title("ledgerfen", "Ledgerfen", "Ledgerfen", "Office", "Finance IT",
                    "Keeps the books", 380, "2026.2", "2026.3"),
            title("kingfisher", "Kingfisher Meter Reader", "Kingfisher Metering", "Field", "Networks IT",
                    "Reads meters on the round", 240, "6.0"),
            title("probewire", "Probewire Driver", "Fenwick Instruments", "Laboratory", "Water quality IT",
                    "Lets a laboratory computer talk to its probes", 70, "1.8"),
            title("fluxplayer", "Fluxplayer", "Flux Media", "Office", "Desktop services",
                    "Played films; at its end of life", 110, "10.4"),
            forPeople("shift-board", "Shift board", "Quillbrook Water", "Works", "Works IT",
                    "Puts who is on duty on a person's desktop", 4, "1.2"));

    private DemoTitles() {
    }

    /** One that each person has in their profile. */
    private static DemoTitle forPeople(String id, String name, String maker, String category, String owner,
            String description, int kilobytes, String... versions) {
        return title(Scope.USER, id, name, maker, category, owner, description, kilobytes, versions);
    }

    private static DemoTitle title(String id, String name, String maker, String category, String owner,
            String description, int kilobytes, String... versions) {
        return title(Scope.DEVICE, id, name, maker, category, owner, description, kilobytes, versions);
    }

    /** A version that begins with an exclamation mark is withdrawn. */
    private static DemoTitle title(Scope scope, String id, String name, String maker, String category, String owner,
            String description, int kilobytes, String... versions) {
        return new DemoTitle(id, scope, name, maker, category, owner, description, kilobytes, Arrays.stream(versions)
                .map(v -> v.startsWith("!") ? new DemoRelease(v.substring(1), ReleaseState.WITHDRAWN)
                        : new DemoRelease(v, ReleaseState.OFFERED))
                .toList());
    }
}
