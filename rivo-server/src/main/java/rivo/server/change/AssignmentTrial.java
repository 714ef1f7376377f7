package rivo.server.change;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Release;
import rivo.core.estate.Title;
import rivo.core.explain.AssignmentReach;
import rivo.core.rehearse.Effect;
import rivo.core.rehearse.Rehearsal;
import rivo.core.rehearse.TitleDifference;
import rivo.core.resolve.DecidedUnits;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.TitleOutcomes;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Delivery;
import rivo.server.assignment.DeviceClock;
import rivo.server.estate.Snapshot;
import rivo.server.window.MaintenanceWindows;

/**
 * What an assignment alone would do that somebody is only writing: on top of the rest of their draft, nothing of it kept. Pure reading; safe
 * for any number of threads.
 */
@Component
class AssignmentTrial {

    /** Whom a figure of a trial counts. */
    enum Part {
        /** Whom it means: reached, and kept out by nothing. */
        SERVED(true),
        GAINS, OFFERED, LOSES, REMOVES, CONTESTED, SETTLED,
        /** It comes out as it asks, and did before. */
        ALREADY,
        UNFIT, BLOCKED, WAITING, LATER,
        /** Something stronger decides for them. */
        STRONGER,
        /** Their windows all come after the deadline. */
        LATE(true);

        private final boolean ofTheAudience;

        Part() {
            this(false);
        }

        Part(boolean ofTheAudience) {
            this.ofTheAudience = ofTheAudience;
        }
    }

    /**
     * What was tried: the same snapshot with the assignments and without them.
     *
     * @param assignment the first of them
     */
    record Tried(Assignment assignment, Snapshot before, Snapshot after, Rehearsal rehearsal, List<TitleTried> titles, MaintenanceWindows.Late late) {

        AssignmentReach reach() {
            return titles.get(0).reach();
        }

        /** Whom a figure counts, title by title; what is said of the audience itself is said once, however many titles it gets. */
        List<Counted> counted(Part part) {
            return (part.ofTheAudience ? titles.subList(0, 1) : titles).stream()
                    .map(title -> new Counted(title.title(), title.part(part, after.resolver().audiences(), late.devices()))).toList();
        }
    }

    /** Whom a figure counts of one title. */
    record Counted(Title title, UnitSet units) {
    }

    /**
     * One title that it assigns.
     *
     * @param live whether the assignment has a say: one that is paused, or begins later, decides nothing and loses to nothing
     * @param decided by it, with what comes out
     * @param difference null where nothing of the title can be different
     */
    record TitleTried(Title title, boolean live, AssignmentReach reach, TitleOutcomes before, List<DecidedUnits> decided,
            @Nullable TitleDifference difference) {

        UnitSet part(Part part, Audiences after, DeviceSet late) {
            return switch (part) {
                case SERVED -> reach.served();
                case GAINS -> difference == null ? none() : difference.gains();
                case OFFERED -> difference == null ? none() : difference.with(Effect.OFFERED);
                case LOSES -> difference == null ? none() : difference.loses();
                case REMOVES -> difference == null ? none() : difference.removes();
                case CONTESTED -> difference == null ? none() : difference.newlyContested();
                case SETTLED -> difference == null ? none() : difference.settled();
                case ALREADY -> already();
                case UNFIT -> decided(Outcome.UNFIT);
                case BLOCKED -> decided(Outcome.BLOCKED);
                case WAITING -> decided(Outcome.WAITING);
                case LATER -> decided(Outcome.LATER);
                case STRONGER -> {
                    UnitSet all = UnitSet.union(title.scope(), decided.stream().map(DecidedUnits::units).toList());
                    yield live ? reach.served().filter(unit -> !all.contains(unit)) : none();
                }
                case LATE -> reach.served().filter(unit -> late.contains(after.devicePosition(unit, title.scope())));
            };
        }

        private UnitSet none() {
            return UnitSet.none(title.scope());
        }

        private UnitSet decided(Outcome outcome) {
            return UnitSet.union(title.scope(), decided.stream().filter(part -> part.decision().outcome() == outcome).map(DecidedUnits::units).toList());
        }

        private UnitSet already() {
            List<UnitSet> same = new ArrayList<>();
            for (Outcome outcome : List.of(Outcome.REQUIRED, Outcome.AVAILABLE, Outcome.UNINSTALL)) {
                same.add(decided(outcome).and(before.with(outcome)));
            }
            return UnitSet.union(title.scope(), same);
        }

        /** On how many units which release is chosen, by version. */
        Map<String, Integer> releases() {
            Map<String, Integer> counts = new TreeMap<>();
            for (DecidedUnits part : decided) {
                Release release = part.decision().release();
                if (release != null) {
                    counts.merge(release.version().toString(), part.units().size(), Integer::sum);
                }
            }
            return counts;
        }
    }

    private final Clock clock;

    AssignmentTrial(Clock clock) {
        this.clock = clock;
    }

    /**
     * @param edits that put assignments in: one, or the same of several titles
     * @throws RefusedException when one makes no sense, names what there is not, or was changed since
     */
    Tried attempt(Snapshot now, String who, List<Edit> edits) {
        Snapshot before = Drafts.afterOthers(now, who, edits, List.of());
        Snapshot after = Drafts.afterOthers(now, who, edits, edits);
        Rehearsal rehearsal = Rehearsal.of(before.resolver(), after.resolver());
        AssignmentDocument document = document(after, edits.get(0));
        Assignment assignment = document.assignment();
        List<TitleTried> titles = new ArrayList<>();
        for (Edit edit : edits) {
            Assignment one = document(after, edit).assignment();
            after.estate().titlesOf(one.subject()).forEach(title -> titles.add(tried(before, after, rehearsal, one, title)));
        }
        if (titles.isEmpty()) {
            throw new RefusedException("empty-kit", "subject", "The kit holds no title; put some in first.");
        }
        DeviceSet devices = titles.get(0).reach().devices(after.resolver().audiences());
        return new Tried(assignment, before, after, rehearsal, titles, late(after, document.delivery(), devices));
    }

    private static TitleTried tried(Snapshot before, Snapshot after, Rehearsal rehearsal, Assignment assignment, Title title) {
        List<DecidedUnits> decided = after.resolver().title(title).parts().stream()
                .filter(part -> part.decision().deciding().contains(assignment)).toList();
        return new TitleTried(title, assignment.isLive(after.estate().asOf()), AssignmentReach.of(after.resolver(), assignment, title.scope()), before.resolver().title(title), decided,
                rehearsal.of(title.id()));
    }

    private static AssignmentDocument document(Snapshot after, Edit edit) {
        return Objects.requireNonNull(after.get(AssignmentDocument.KIND).find(edit.document()));
    }

    private MaintenanceWindows.Late late(Snapshot after, Delivery delivery, DeviceSet devices) {
        if (delivery.deadline() == null || "ignore".equals(delivery.windows())) {
            return new MaintenanceWindows.Late(DeviceSet.NONE, List.of());
        }
        Instant now = clock.instant();
        return MaintenanceWindows.late(after, devices, p -> local(now, after.estate().devices().at(p)), p -> {
            Device device = after.estate().devices().at(p);
            return local(Objects.requireNonNull(DeviceClock.deadline(delivery.deadline(), device)), device);
        });
    }

    private static LocalDateTime local(Instant at, Device device) {
        return LocalDateTime.ofInstant(at, DeviceClock.zone(device));
    }

    /** How many people use these devices. */
    static int people(Snapshot snapshot, DeviceSet devices) {
        Set<String> people = new HashSet<>();
        devices.stream().forEach(p -> people.addAll(snapshot.estate().devices().at(p).people()));
        return people.size();
    }
}
