package rivo.server.catalogue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.audience.DeviceSet;
import rivo.core.estate.Version;
import rivo.devices.protocol.PresenceKind;
import rivo.formats.installer.Organisations;
import rivo.server.catalogue.content.ContentPlaces;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.licence.Licences;
import rivo.server.catalogue.title.Step;
import rivo.server.catalogue.title.StepKind;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;
import rivo.server.catalogue.title.Titles;
import rivo.server.catalogue.title.TrustedSigners;
import rivo.server.catalogue.trust.Verdicts;
import rivo.server.catalogue.trust.Verdicts.Verdict;
import rivo.server.estate.Snapshot;
import rivo.server.window.MaintenanceWindows;

/** What is looked at before a release is assigned: all that commonly goes wrong later. */
@Component
public class Readiness {

    private static final Pattern PROGRAM = Pattern.compile("(?i)\\.(exe|msi)\\b");
    private static final Pattern SILENT = Pattern.compile("(?i)(^|\\s)(/q[nb]?|/quiet|/s|/silent|/verysilent|--?quiet|"
            + "--?silent|-s|-q|-y)(\\s|$|/)");
    private static final Pattern OWN_DRIVE = Pattern.compile("(?i)(^|[\\s\"'=])([d-z]):[\\\\/]");
    private static final Pattern ADMIN_SHARE = Pattern.compile("(?i)\\\\\\\\[^\\\\\\s\"]+\\\\([a-z]|admin)\\$");

    /**
     * One thing that was looked at.
     *
     * @param remedy what the page offers to do about it; null when it is well
     */
    public record Look(String code, boolean well, String sentence, String detail, @Nullable String remedy) {
    }

    private final Contents contents;
    private final ContentPlaces places;

    private final Verdicts verdicts;

    Readiness(Contents contents, ContentPlaces places, Verdicts verdicts) {
        this.verdicts = verdicts;
        this.places = places;
        this.contents = contents;
    }

    /** @param without the devices that no variant of the release fits */
    List<Look> looks(Snapshot now, TitleRecord title, ReleaseRecord release, DeviceSet without) {
        int devices = now.estate().devices().size();
        List<Look> looks = new ArrayList<>();
        if (title.isWebPage()) {
            looks.add(well("web-page", "Opens from the shelf", title.about().web()));
        } else {
            looks.add(silent(release));
            looks.add(removable(release));
            looks.add(seen(release));
            looks.add(content(release));
            looks.add(paths(release));
            looks.add(signer(now, title, release));
            looks.addAll(signatures(now, release));
        }
        looks.add(fits(release, devices, without.size()));
        looks.add(window(now, release, now.resolver().audiences().everyDevice().without(without)));
        looks.add(newest(title, release));
        if (!title.about().licence().isBlank()) {
            looks.add(licence(now, title));
        }
        return looks;
    }

    private static Look well(String code, String sentence, String detail) {
        return new Look(code, true, sentence, detail, null);
    }

    private static Look needs(String code, String sentence, String detail, String remedy) {
        return new Look(code, false, sentence, detail, remedy);
    }

    private static Look licence(Snapshot now, TitleRecord title) {
        Licences.Acceptance acceptance = Licences.of(now, title);
        return acceptance == null ? needs("licence-not-accepted", "Licence text not accepted",
                "Nothing is assigned before somebody has read and accepted it.", "accept-licence")
                : well("licence", "Licence text accepted", "by " + acceptance.who());
    }

    private static Stream<Step> installing(ReleaseRecord release) {
        return release.variants().stream().flatMap(v -> v.install().stream());
    }

    private static Look silent(ReleaseRecord release) {
        Step loud = installing(release).filter(s -> s.kind() == StepKind.RUN && PROGRAM.matcher(s.command()).find()
                && !SILENT.matcher(s.command()).find()).findFirst().orElse(null);
        if (release.variants().stream().anyMatch(v -> v.install().isEmpty())) {
            boolean onlyComesOff = !release.offered() && release.variants().stream().noneMatch(v -> v.remove().isEmpty());
            return onlyComesOff ? well("only-removal", "Removal only", "It has no install command, and it is not offered.")
                    : needs("no-install", "No install command", "A variant has no step that installs it.", "edit-install");
        }
        return loud == null ? well("silent", "Installs silently", "")
                : needs("no-silent-switch", "No silent switch", "“" + loud.command() + "” may wait for somebody to click.",
                        "edit-install");
    }

    private static Look removable(ReleaseRecord release) {
        return release.variants().stream().anyMatch(v -> v.remove().isEmpty())
                ? needs("no-removal", "No removal command", "Devices could not remove it.", "edit-remove")
                : well("removable", "Can be removed", "");
    }

    private static Look seen(ReleaseRecord release) {
        if (release.variants().stream().anyMatch(v -> !v.presence().hasChecks())) {
            return needs("no-presence-check", "No presence check", "Its status is unverified.",
                    "edit-presence");
        }
        Set<String> kinds = new LinkedHashSet<>();
        release.variants().forEach(v -> v.presence().checks().forEach(c -> kinds.add(words(c.kind()))));
        return well("presence-check", "Presence check: " + String.join(" and ", kinds), "");
    }

    private static String words(PresenceKind kind) {
        return switch (kind) {
            case INVENTORY -> "its inventory name";
            case PRODUCT_CODE -> "a product code";
            case PACKAGE -> "a package name";
            case FILE -> "a file";
            case REGISTRY -> "a registry value";
            case SCRIPT -> "a script";
        };
    }

    private Look content(ReleaseRecord release) {
        List<Contents.Content> all = release.variants().stream().flatMap(v -> v.contents().stream()).toList();
        Contents.Content missing = all.stream().filter(c -> !contents.has(c)).findFirst().orElse(null);
        if (missing != null) {
            return needs("content-missing", "Content is missing", missing.fileName() + " is not on the server.",
                    "replace-file");
        }
        if (all.isEmpty()) {
            return well("content", "No content needed", "");
        }
        long bytes = all.stream().mapToLong(Contents.Content::size).sum();
        Set<String> lacking = new LinkedHashSet<>();
        all.forEach(one -> lacking.addAll(places.lacking(one)));
        if (!lacking.isEmpty()) {
            return needs("not-on-mirror", "Not on every mirror", String.join(", ", lacking)
                    + (lacking.size() == 1 ? " lacks" : " lack") + " it; devices there would fetch it from the server.", "copy-to-mirrors");
        }
        return well("content", "Devices can read it", size(bytes) + " on the server" + (places.count() == 0 ? ""
                : " and " + places.count() + " of " + places.count() + " mirrors") + ", SHA-256 "
                + all.get(0).sha256().substring(0, 4) + "…" + all.get(0).sha256().substring(60));
    }

    private static String size(long bytes) {
        return bytes < 1 << 20 ? Math.max(1, bytes >> 10) + " KiB" : (bytes >> 20) + " MiB";
    }

    private static Look paths(ReleaseRecord release) {
        for (VariantRecord variant : release.variants()) {
            for (Step step : Stream.of(variant.install(), variant.remove(), variant.repair()).flatMap(List::stream).toList()) {
                Matcher drive = OWN_DRIVE.matcher(step.command() + " " + step.to());
                if (drive.find()) {
                    return needs("own-drive", "Refers to drive " + drive.group(2).toUpperCase(Locale.ROOT)
                            + ":", "“" + step.command() + "” names a drive that devices may not have.", "edit-install");
                }
                if (ADMIN_SHARE.matcher(step.command()).find()) {
                    return needs("administrators-share", "Only administrators may read it",
                            "“" + step.command() + "” names an administrative share.", "edit-install");
                }
            }
        }
        return well("paths", "Every path exists on devices", "");
    }

    private static Look signer(Snapshot now, TitleRecord title, ReleaseRecord release) {
        for (Contents.Content content : release.variants().stream().flatMap(v -> v.contents().stream()).toList()) {
            String signer = content.signer();
            boolean isExpected = signer == null || TrustedSigners.maySign(now.get(Titles.PART), signer, title.maker())
                    || title.trustedSigners().stream().anyMatch(trusted -> Organisations.same(trusted, signer));
            if (!isExpected) {
                return needs("signer-is-not-maker", "The signer is not the maker", "Signed by " + signer + ", made by "
                        + (title.maker().isEmpty() ? "nobody who is named" : title.maker()) + ".", "trust:" + signer);
            }
        }
        return well("signer", "No unexpected signer", "");
    }

    /** One for each way in which its files are signed. */
    private List<Look> signatures(Snapshot now, ReleaseRecord release) {
        Map<String, Look> looks = new LinkedHashMap<>();
        for (Contents.Content content : release.variants().stream().flatMap(v -> v.contents().stream()).toList()) {
            Verdict verdict = verdicts.of(now, content.sha256(), Instant.now());
            String remedy = "changed".equals(verdict.code()) ? "use-changed:" + content.sha256() : "expired".equals(verdict.code()) ? "trusted-roots" : null;
            looks.putIfAbsent(verdict.sentence(), new Look("signature-" + verdict.code(), verdict.well(), verdict.sentence(), verdict.detail(), remedy));
        }
        return List.copyOf(looks.values());
    }

    private static Look fits(ReleaseRecord release, int devices, int without) {
        if (release.variants().isEmpty()) {
            return needs("no-variant", "No variant", "Drop an installer on the release.", "replace-file");
        }
        return without == 0 ? well("fits", "Fits every device", "")
                : without == devices ? needs("fits-nowhere", "Fits no device", "None of " + count(devices)
                        + " devices satisfies the rule of a variant.", "edit-fits")
                        : well("fits", "Fits " + count(devices - without) + " of " + count(devices) + " devices", "");
    }

    private static Look window(Snapshot now, ReleaseRecord release, DeviceSet fitting) {
        int seconds = release.variants().stream().mapToInt(v -> v.install().stream().mapToInt(Step::limitSeconds).sum()).max().orElse(0);
        MaintenanceWindows.Stuck stuck = MaintenanceWindows.stuck(now, fitting, seconds);
        long minutes = (seconds + 59) / 60;
        return stuck == null ? well("window", "Fits into every maintenance window", MaintenanceWindows.all(now).isEmpty() ? "" : minutes + " min at most")
                : needs("longer-than-window", "Longer than a maintenance window", minutes + " min at most, but " + stuck.longest().name() + " is open "
                        + stuck.longest().minutes() + " min: " + count(stuck.devices()) + (stuck.devices() == 1 ? " device" : " devices")
                        + " could never start it.", "edit-install");
    }

    private static String count(int n) {
        return String.format(Locale.ROOT, "%,d", n);
    }

    private static Look newest(TitleRecord title, ReleaseRecord release) {
        ReleaseRecord newer = title.releases().stream().filter(r -> r.offered()
                && Version.of(r.version()).compareTo(Version.of(release.version())) > 0).findFirst().orElse(null);
        return newer == null || release.offered() ? well("newest", "No newer release is offered", "")
                : needs("older", "A newer release is offered", "Devices would get " + newer.version() + ".",
                        "show:" + newer.version());
    }
}
