package rivo.server.demo;

import java.util.List;
import rivo.core.estate.ReleaseState;

/** The made-up software of the demo. */
final class DemoTitles {

    /** @param kilobytes the size of its installer */
    record DemoTitle(String id, String name, String maker, int kilobytes, List<DemoRelease> releases) {
        DemoTitle {
            releases = List.copyOf(releases);
        }
    }

    record DemoRelease(String version, ReleaseState state) {
    }

    static final List<DemoTitle> ALL = List.of(
            title("siltscope", "Siltscope Lab", "Fenwick Instruments", 640, "4.1.0", "4.2.0", "!4.3.0-rc2"),
            title("siltscope-classic", "Siltscope Classic", "Fenwick Instruments", 310, "2.9.4"),
            title("graphkit", "Graphkit runtime", "Ardley Graphics", 180, "2.3.0", "2.4.1"),
            title("mudview", "Mudview", "Sallow & Finch", 220, "3.9"),
            title("brookmap", "Brookmap Studio", "Brookmap", 820, "2.8", "3.0"),
            title("pikeguard", "Pikeguard Endpoint", "Pikeguard", 420, "7.0.2", "7.1.0"),
            title("reedwall", "Reedwall", "Reedwall Security", 260, "5.5"),
            title("otterlink", "Otterlink Tunnel", "Otterlink", 150, "5.2", "5.3"),
            title("valvewright", "Valvewright CAD", "Marlowe & Pask", 900, "9.0.4"),
            title("fernote", "Fernote Reader", "Fernote", 130, "11.1", "11.2"),
            title("tarnlog", "Tarnlog Viewer", "Tarnlog", 90, "3.3.1"),
            title("dosecalc", "Dosecalc", "Quillbrook Water", 60, "1.4"),
            title("ledgerfen", "Ledgerfen", "Ledgerfen", 380, "2026.2", "2026.3"),
            title("kingfisher", "Kingfisher Meter Reader", "Kingfisher Metering", 240, "6.0"),
            title("fluxplayer", "Fluxplayer", "Flux Media", 110, "10.4"));

    private DemoTitles() {
    }

    /** A version that begins with an exclamation mark is withdrawn. */
    private static DemoTitle title(String id, String name, String maker, int kilobytes, String... versions) {
        return new DemoTitle(id, name, maker, kilobytes, java.util.Arrays.stream(versions)
                .map(v -> v.startsWith("!") ? new DemoRelease(v.substring(1), ReleaseState.WITHDRAWN)
                        : new DemoRelease(v, ReleaseState.OFFERED))
                .toList());
    }
}
