package rivo.devices.fleet;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.PresenceKind;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.UninstallCommand;
import rivo.devices.protocol.VersionOrder;
import rivo.devices.protocol.Work;

/**
 * What a simulated device has on it, by what presence checks look at: inventory names, product codes, packages, files. To
 * play an installer is to put there what the release's check looks for. Immutable.
 *
 * @param things each with its version; inventory names as they are, others behind their kind
 */
record Evidence(Map<String, String> things) {

    Evidence {
        things = Map.copyOf(things);
    }

    private static String key(Work.Look look) {
        return look.kind() == PresenceKind.INVENTORY ? look.subject() : look.kind() + "\n" + look.subject();
    }

    /** The version of a title that is there, empty when it is not known; null when the title is not there. */
    @Nullable String version(Work.Check check) {
        for (Work.Seen release : check.releases()) {
            boolean there = release.any() ? release.looks().stream().anyMatch(this::holds)
                    : release.looks().stream().allMatch(this::holds);
            if (there) {
                return release.looks().stream().map(look -> version(look, things.get(key(look)), release.version())).filter(Objects::nonNull).findFirst()
                        .orElse(release.version());
            }
        }
        return null;
    }

    /** Of a package the release's, where it is exactly that build, else that of the software without what packagers add. */
    private static @Nullable String version(Work.Look look, @Nullable String there, String release) {
        return there == null || look.order() == null ? there : there.equals(look.version()) ? release : VersionOrder.upstream(there);
    }

    private boolean holds(Work.Look look) {
        String version = things.get(key(look));
        return version != null && look.isMetBy(version);
    }

    /** With what the installer of a job puts on. */
    Evidence with(Job job, Work.@Nullable Check check) {
        String version = Objects.requireNonNull(job.version());
        Map<String, String> more = new HashMap<>(things);
        more.put(job.name(), version);
        for (Work.Seen release : check == null ? List.<Work.Seen>of() : check.releases()) {
            if (release.version().isEmpty() || release.version().equals(version)) {
                release.looks().forEach(look -> more.put(key(look), look.order() == null || look.version().isEmpty() ? version : look.version()));
            }
        }
        return new Evidence(more);
    }

    /** Without anything by which the title is seen. */
    Evidence without(Job job, Work.@Nullable Check check) {
        Map<String, String> less = new HashMap<>(things);
        less.remove(job.name());
        if (check != null) {
            check.releases().forEach(release -> release.looks().forEach(look -> less.remove(key(look))));
        }
        return new Evidence(less);
    }

    /** What programs have registered for removing them, as those on Windows do. */
    List<UninstallCommand.Registered> uninstallers() {
        return things.keySet().stream().filter(name -> name.indexOf('\n') < 0).sorted()
                .map(name -> new UninstallCommand.Registered(name, null, "C:\\Program Files\\" + name + "\\uninstall.exe")).toList();
    }

    /** The device's own list of installed software, by name. */
    List<Report.Software> software() {
        return things.entrySet().stream().filter(e -> e.getKey().indexOf('\n') < 0).sorted(Map.Entry.comparingByKey())
                .map(e -> new Report.Software(e.getKey(), null, e.getValue().isEmpty() ? null : e.getValue())).toList();
    }
}
