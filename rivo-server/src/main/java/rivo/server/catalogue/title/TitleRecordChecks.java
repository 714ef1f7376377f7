package rivo.server.catalogue.title;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.Estate;
import rivo.core.estate.EstateParts;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleException;
import rivo.server.catalogue.content.Contents;
import rivo.server.catalogue.content.FileNames;
import rivo.server.catalogue.title.TitleRecord.ReleaseRecord;
import rivo.server.catalogue.title.TitleRecord.VariantRecord;

/** Whether a title makes sense: by itself, and with its relations among all titles. Collects everything that is wrong. */
public final class TitleRecordChecks {

    private static final Pattern ID = Pattern.compile("[a-z0-9][a-z0-9.-]{0,99}");
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_LINE = 2_000;
    private static final int LONGEST_TEXT = 20_000;
    private static final int LONGEST_LICENCE = 200_000;
    private static final int MOST_RELEASES = 500;
    private static final int MOST_VARIANTS = 50;
    private static final int MOST_STEPS = 100;
    private static final int MOST_RELATIONS = 200;
    private static final int MOST_CHOICES = 30;
    private static final int MOST_VALUES = 200;

    private final List<Problem> problems = new ArrayList<>();

    private TitleRecordChecks() {
    }

    /**
     * The estate with the title in it.
     *
     * @throws RefusedException with everything that is wrong
     */
    public static Estate check(Estate estate, TitleRecord record) {
        alone(record);
        Title title = record.title();
        scopeStays(estate, title);
        List<Title> titles = new ArrayList<>(estate.titles());
        titles.removeIf(t -> t.id().equals(title.id()));
        titles.add(title);
        // Relations are looked at among the titles alone: what is assigned or present cannot make them wrong.
        Estate.of(EstateParts.none(estate.asOf()).withOus(List.of(estate.ous().root())).withTitles(titles));
        return estate.withTitle(title);
    }

    /** What is assigned or installed for devices cannot become something for people, nor the other way round: nobody would remove it. */
    private static void scopeStays(Estate estate, Title title) {
        Title before = estate.title(title.id());
        if (before == null || before.scope() == title.scope()) {
            return;
        }
        boolean assigned = estate.assignments().of(title.id()).stream().anyMatch(a -> a.state() != AssignmentState.RETIRED);
        long present = estate.devices().all().stream().filter(d -> d.present().stream().anyMatch(p -> p.title().equals(title.id()))).count();
        if (assigned || present > 0 || !estate.requests(title.id()).isEmpty()) {
            throw new RefusedException("in-use", "scope", title.name() + " is " + (assigned ? "assigned" : present == 0 ? "asked for" : "installed on " + present
                    + (present == 1 ? " device" : " devices")) + ", so it stays installed for " + (before.scope() == Scope.DEVICE ? "the device" : "each person")
                    + ". End its assignments and remove it first, or make a title of its own.");
        }
    }

    /**
     * Whether the title makes sense by itself, whatever else there is.
     *
     * @throws RefusedException with everything that is wrong
     */
    public static void alone(TitleRecord record) {
        TitleRecordChecks checks = new TitleRecordChecks();
        checks.title(record);
        if (!checks.problems.isEmpty()) {
            throw new RefusedException(checks.problems);
        }
    }

    /** What people open from their shelf is a page of the web, and nothing that a browser would carry out. */
    private void webPage(TitleRecord record) {
        if (!record.isWebPage()) {
            return;
        }
        text("about.web", record.about().web(), LONGEST_LINE, false);
        if (!isWebAddress(record.about().web())) {
            add("bad-address", "about.web", "A web page has an address such as https://rota.quillbrook.example/; write it whole.");
        }
        boolean installs = record.releases().stream().flatMap(release -> release.variants().stream())
                .anyMatch(variant -> !variant.install().isEmpty() || !variant.remove().isEmpty() || !variant.contents().isEmpty());
        if (installs) {
            add("web-page", "about.web", "A title that is a web page installs nothing; take out its steps and files, or leave its address empty.");
        }
    }

    private static boolean isWebAddress(String address) {
        try {
            URI uri = new URI(address);
            return uri.getHost() != null && Set.of("http", "https").contains(String.valueOf(uri.getScheme()).toLowerCase(Locale.ROOT)) && uri.getUserInfo() == null;
        } catch (URISyntaxException e) {
            return false;
        }
    }

    private void title(TitleRecord record) {
        if (!ID.matcher(record.id()).matches()) {
            add("bad-id", "id", "An id has 1 to 100 small letters, digits, dots and hyphens, such as siltscope-lab.");
        }
        text("name", record.name(), LONGEST_NAME, true);
        text("maker", record.maker(), LONGEST_NAME, false);
        text("about.owner", record.about().owner(), LONGEST_NAME, false);
        text("about.category", record.about().category(), LONGEST_NAME, false);
        text("about.information", record.about().information(), LONGEST_LINE, false);
        text("about.privacy", record.about().privacy(), LONGEST_LINE, false);
        text("about.approvedBy", record.about().approvedBy(), LONGEST_NAME, false);
        text("about.icon", record.about().icon(), LONGEST_NAME, false);
        if (!Set.of(Scope.DEVICE.word(), Scope.USER.word()).contains(record.scope())) {
            add("bad-scope", "scope", "A title is installed for the device or for each user; say device or user.");
        }
        texts("trustedSigners", record.trustedSigners());
        texts("conflictsWith", record.conflictsWith());
        if (record.seats() != null && record.seats() < 0) {
            add("bad-seats", "seats", "Seats are counted from 0 on; leave it empty where they are not counted.");
        }
        webPage(record);
        text("about.notes", record.about().notes(), LONGEST_TEXT, false);
        text("about.licence", record.about().licence(), LONGEST_LICENCE, false);
        text("about.description", record.about().description(), LONGEST_TEXT, false);
        atMost("releases", record.releases(), MOST_RELEASES);
        for (int i = 0; i < record.releases().size(); i++) {
            release(record.installedFor(), record.releases().get(i), "releases[" + i + "]");
        }
    }

    private void release(Scope scope, ReleaseRecord release, String at) {
        if (release.version() == null || release.version().isBlank() || release.version().length() > Version.LONGEST) {
            add("bad-version", at + ".version", "A version has 1 to " + Version.LONGEST
                    + " characters; write one such as 4.2.0.");
        }
        text(at + ".note", release.note(), LONGEST_LINE, false);
        atMost(at + ".needs", release.needs(), MOST_RELATIONS);
        release.needs().forEach(need -> {
            text(at + ".needs.title", need.title(), LONGEST_NAME, true);
            text(at + ".needs.min", need.min() == null ? "" : need.min(), Version.LONGEST, false);
        });
        atMost(at + ".replaces", release.replaces(), MOST_RELATIONS);
        release.replaces().forEach(replaced -> text(at + ".replaces.title", replaced.title(), LONGEST_NAME, true));
        choices(release, at + ".choices");
        atMost(at + ".variants", release.variants(), MOST_VARIANTS);
        Set<String> ids = new HashSet<>();
        for (int i = 0; i < release.variants().size(); i++) {
            VariantRecord variant = release.variants().get(i);
            String place = at + ".variants[" + i + "]";
            text(place + ".id", variant.id(), LONGEST_NAME, true);
            if (variant.id() == null || !ids.add(variant.id())) {
                add("variant-twice", place + ".id", "Each variant of a release needs a name of its own.");
            }
            rule(variant.fits(), place + ".fits");
            StepChecks.check(problems, scope, release, variant.install(), place + ".install");
            StepChecks.check(problems, scope, release, variant.remove(), place + ".remove");
            StepChecks.check(problems, scope, release, variant.repair(), place + ".repair");
            presence(variant.presence(), place + ".presence");
            for (Contents.Content content : variant.contents()) {
                if (content.sha256() == null || !Contents.isHash(content.sha256()) || content.size() < 0) {
                    add("bad-content", place + ".contents", "A content is named by its SHA-256, 64 small hexadecimal digits; "
                            + "drop the file in again.");
                }
                if (content.fileName() == null || !FileNames.isPlain(content.fileName())) {
                    add("bad-name", place + ".contents.fileName", "A file name has 1 to " + FileNames.LONGEST + " characters, and none "
                            + "that a path or a command would read; rename the file.");
                }
            }
        }
    }

    private void presence(Presence presence, String at) {
        atMost(at + ".checks", presence.checks(), MOST_STEPS);
        for (int i = 0; i < presence.checks().size(); i++) {
            Presence.Check check = presence.checks().get(i);
            text(at + ".checks[" + i + "].subject", check.subject(), LONGEST_TEXT, true);
            if (check.kind() == null || check.version().length() > Version.LONGEST) {
                add("bad-check", at + ".checks[" + i + "]", "A presence check needs a kind, and a version of at most "
                        + Version.LONGEST + " characters.");
            }
        }
    }

    private void choices(ReleaseRecord release, String at) {
        atMost(at, release.choices(), MOST_CHOICES);
        Set<String> ids = new HashSet<>();
        for (int i = 0; i < release.choices().size(); i++) {
            ChoiceRecord choice = release.choices().get(i);
            String place = at + "[" + i + "]";
            choice.problems().forEach(sentence -> add("bad-choice", place, sentence));
            atMost(place + ".allowed", choice.allowed(), MOST_VALUES);
            if (!ids.add(choice.id())) {
                add("choice-twice", place + ".id", "Each choice of a release needs an id of its own.");
            }
            for (ChoiceRecord.Allowed one : choice.allowed()) {
                if (!one.file().isEmpty() && release.variants().stream().flatMap(v -> v.contents().stream())
                        .noneMatch(c -> one.file().equals(c.fileName()))) {
                    add("unknown-file", place + ".allowed", "“" + one.words() + "” names the file " + one.file()
                            + ", which this release has not; drop it in, or take the name out.");
                }
            }
        }
    }

    private void rule(@Nullable String rule, String at) {
        if (rule != null) {
            try {
                Rule.parse(rule);
            } catch (RuleException e) {
                add("bad-rule", at, String.valueOf(e.getMessage()));
            }
        }
    }

    private void text(String at, @Nullable String text, int longest, boolean needed) {
        if (text == null || needed && text.isBlank() || text.length() > longest) {
            add("bad-text", at, "Write " + (needed ? "1 to " : "at most ") + longest + " characters.");
        }
    }

    private void texts(String at, List<String> texts) {
        atMost(at, texts, MOST_RELATIONS);
        for (int i = 0; i < texts.size(); i++) {
            text(at + "[" + i + "]", texts.get(i), LONGEST_NAME, true);
        }
    }

    private void atMost(String at, List<?> list, int most) {
        if (list.size() > most) {
            add("too-many", at, "There may be at most " + most + ", not " + list.size() + ".");
        }
    }

    private void add(String code, String at, String sentence) {
        problems.add(new Problem(code, at, sentence));
    }
}
