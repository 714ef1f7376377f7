package rivo.server.fleet;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Scope;
import rivo.core.estate.Version;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;
import rivo.server.estate.SignIns;

/** What is wrong with a report: all of it. */
final class ReportChecks {

    private static final int MOST_FACTS = 200;
    private static final int MOST_SOFTWARE = 5000;
    private static final int MOST_PRESENT = 2000;
    private static final int MOST_PROGRESS = 200;
    private static final int LONGEST = 1000;
    private static final Pattern NOTICE = Pattern.compile("[a-z0-9-]{1,40}");

    private final Estate estate;
    private final SignedInPeople people;
    private final List<Problem> problems = new ArrayList<>();

    private ReportChecks(Estate estate, SignedInPeople people) {
        this.estate = estate;
        this.people = people;
    }

    /** @throws RefusedException with every problem */
    static void check(Estate estate, SignedInPeople people, Report report) {
        ReportChecks checks = new ReportChecks(estate, people);
        checks.all(report);
        if (!checks.problems.isEmpty()) {
            throw new RefusedException(checks.problems);
        }
    }

    private void all(Report report) {
        if (report.number() < 1) {
            add("bad-number", "number", "counts from 1 on; give the number of the last report and one more.");
        }
        facts(report.facts());
        atMost("software", report.software(), MOST_SOFTWARE);
        atMost("present", report.present(), MOST_PRESENT);
        atMost("progress", report.progress(), MOST_PROGRESS);
        atMost("fetched", report.fetched(), MOST_PROGRESS);
        atMost("notices", report.notices(), MOST_PROGRESS);
        atMost("signedIn", report.signedIn(), SignIns.MOST);
        if (problems.isEmpty()) {
            software(orNone(report.software()));
            present(orNone(report.present()));
            progress(orNone(report.progress()));
            fetched(orNone(report.fetched()));
            signedIn(orNone(report.signedIn()));
            notices(orNone(report.notices()));
        }
    }

    private static <T> List<T> orNone(@Nullable List<T> list) {
        return list == null ? List.of() : list;
    }

    private void atMost(String place, @Nullable Collection<?> entries, int most) {
        if (entries != null && entries.size() > most) {
            add("too-many", place, "has more than " + most + " entries; send fewer.");
        }
    }

    private void facts(@Nullable Map<String, String> facts) {
        if (facts == null) {
            return;
        }
        atMost("facts", facts.keySet(), MOST_FACTS);
        facts.forEach((name, value) -> {
            text("facts." + name, name, false);
            text("facts." + name, value, false);
        });
    }

    private void fetched(List<Report.Fetched> fetched) {
        for (int i = 0; i < fetched.size(); i++) {
            text("fetched[" + i + "].sha256", fetched.get(i).sha256(), false);
            text("fetched[" + i + "].mirror", fetched.get(i).mirror(), true);
        }
    }

    private void software(List<Report.Software> software) {
        for (int i = 0; i < software.size(); i++) {
            Report.Software one = software.get(i);
            text("software[" + i + "].name", one.name(), false);
            text("software[" + i + "].publisher", one.publisher(), true);
            text("software[" + i + "].version", one.version(), true);
        }
    }

    private void present(List<Report.Found> present) {
        Set<JobKey> seen = new HashSet<>();
        for (int i = 0; i < present.size(); i++) {
            Report.Found one = present.get(i);
            String place = "present[" + i + "]";
            if (title(place + ".title", one.title())) {
                boolean ofPeople = isForPeople(one.title());
                if (ofPeople != (one.person() != null)) {
                    add("wrong-scope", place + ".person", ofPeople ? "is missing: " + one.title() + " is installed for each person; report it under "
                            + "personChecks, with the person in whose profile it is." : "is given, but " + one.title() + " is installed for the device; leave it out.");
                }
            }
            if (!seen.add(JobKey.of(String.valueOf(one.title()), one.person()))) {
                add("twice", place + ".title", "is listed twice; list each title once for the device, or for each person.");
            }
            person(place + ".person", one.person());
            String version = one.version();
            if (version != null && (version.isBlank() || version.length() > Version.LONGEST)) {
                add("bad-version", "present[" + i + "].version", "is no version; leave it out when it is unknown.");
            }
        }
    }

    private void progress(List<Progress> progress) {
        for (int i = 0; i < progress.size(); i++) {
            Progress one = progress.get(i);
            String place = "progress[" + i + "]";
            if (title(place + ".title", one.title()) && one.person() == null && isForPeople(one.title())) {
                add("wrong-scope", place + ".person", "is missing: " + one.title() + " is installed for each person; say whose job it is.");
            }
            person(place + ".person", one.person());
            text(place + ".message", one.message(), false);
            String version = one.version();
            if (version != null && version.length() > Version.LONGEST) {
                add("bad-version", place + ".version", "is no version: it has more than " + Version.LONGEST + " characters.");
            }
            if (one.action() == null || one.state() == null || one.at() == null) {
                add("missing", place, "needs action, state and at.");
            }
            if (one.waits() != null && one.waits().reason() == null) {
                add("missing", place + ".waits.reason", "is missing; say what the job waits for, or leave waits out.");
            }
            if (one.fetching() != null && (one.fetching().bytes() < 0 || one.fetching().all() < one.fetching().bytes())) {
                add("bad-step", place + ".fetching", "has more bytes than all, or fewer than none.");
            }
            if (one.step() < 0 || one.steps() < one.step() || one.percent() < 0 || one.percent() > 100) {
                add("bad-step", place, "has a step above its steps, or a percentage outside 0 to 100.");
            }
        }
    }

    private void signedIn(List<String> accounts) {
        for (int i = 0; i < accounts.size(); i++) {
            String account = accounts.get(i);
            List<String> found = account == null ? List.of() : people.named(account);
            if (found.size() != 1) {
                add("unknown-person", "signedIn[" + i + "]", "is " + account + ", " + (found.isEmpty() ? "whom the directory does not know; report its "
                        + "people alone, and leave local accounts out." : "which several people of the directory have; give each an account of their own there."));
            }
        }
    }

    private void notices(List<Report.Told> notices) {
        for (int i = 0; i < notices.size(); i++) {
            Report.Told one = notices.get(i);
            String place = "notices[" + i + "]";
            if (one.notice() == null || !NOTICE.matcher(one.notice()).matches()) {
                add("bad-id", place + ".notice", "is what the device calls the notice: 1 to 40 small letters, digits and hyphens.");
            }
            if (one.kind() == null || one.state() == null || one.at() == null) {
                add("missing", place, "needs kind, state and at.");
            }
            if (one.titles().size() > MOST_PROGRESS) {
                add("too-many", place + ".titles", "has more than " + MOST_PROGRESS + " entries; send fewer.");
            }
            if (one.left() != null && one.left() < 0) {
                add("bad-step", place + ".left", "is below 0.");
            }
            person(place + ".person", one.person());
        }
    }

    private boolean isForPeople(String title) {
        return Objects.requireNonNull(estate.title(title)).scope() == Scope.USER;
    }

    private void person(String place, @Nullable String person) {
        if (person != null && estate.users().find(person) == null) {
            add("unknown-person", place, "is " + person + ", who is not in the directory; name people as the last call-in does, by their ids.");
        }
    }

    private boolean title(String place, @Nullable String title) {
        boolean known = title != null && estate.title(title) != null;
        if (!known) {
            add("unknown-title", place, "is " + title + ", which is not in the catalogue; report what the checks of "
                    + "the last call-in name.");
        }
        return known;
    }

    private void text(String place, @Nullable String text, boolean mayBeAbsent) {
        if (text == null ? !mayBeAbsent : text.length() > LONGEST) {
            add("bad-text", place, "is a text of at most " + LONGEST + " characters.");
        }
    }

    private void add(String code, String place, String what) {
        problems.add(new Problem(code, place, place + " " + what));
    }
}
