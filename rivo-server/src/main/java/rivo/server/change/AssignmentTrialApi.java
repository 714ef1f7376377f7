package rivo.server.change;

import io.swagger.v3.oas.annotations.media.Schema;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.audience.Audiences;
import rivo.core.audience.DeviceSet;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Estate;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.explain.AssignmentReach;
import rivo.core.explain.Verdict;
import rivo.core.rehearse.TitleDifference;
import rivo.server.audience.Names;
import rivo.server.change.AssignmentTrial.Counted;
import rivo.server.change.AssignmentTrial.Part;
import rivo.server.change.AssignmentTrial.TitleTried;
import rivo.server.change.AssignmentTrial.Tried;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Snapshot;
import rivo.server.web.Page;

/** Rehearses an assignment while it is written. Nothing is kept of it. */
@RestController
@RequestMapping("/api/assignments/trial")
class AssignmentTrialApi {

    /**
     * What it alone would do.
     *
     * @param devices how many it means; {@code people} use them
     * @param units the same in units of its titles: for a title per person, people on devices
     * @param include its targets, each with what it holds
     * @param exclude those that are left out, each with how many it takes out
     * @param leftOut what keeps others out, besides
     * @param figures those that are not nought
     * @param releases how many get which
     * @param waves each with whom it takes first; empty without waves
     * @param bytes to fetch by those that gain
     * @param late the names of the windows of those for which the deadline comes too early
     */
    record AssignmentTried(int devices, int people, int units, List<TriedTarget> include, List<TriedTarget> exclude, List<LeftOutFigure> leftOut,
            List<TriedFigure> figures, List<TriedRelease> releases, List<TriedWave> waves, long bytes, List<String> late) {
    }

    /** @param takes how many units it takes out; absent for one that is included */
    record TriedTarget(String target, String name, int devices, int people, @Nullable Integer takes) {
    }

    /**
     * Whom something keeps out.
     *
     * @param part under which they are listed
     * @param name of the OU or target
     */
    record LeftOutFigure(String part, @Schema(allowableValues = {"fence", "base", "narrowed", "excluded", "rests"}) String by, String name, int n) {
    }

    record TriedFigure(@Schema(allowableValues = {"served", "gains", "offered", "loses", "removes", "contested", "settled", "already", "unfit", "blocked",
        "waiting", "later", "stronger", "late"}) String part, int n) {
    }

    /** @param n how many units it takes */
    record TriedWave(int n, List<WaveTarget> to) {
    }

    record WaveTarget(String target, String name) {
    }

    record TriedRelease(String version, int n) {
    }

    private static final int MOST = 10_000;
    private static final String LEFT_OUT = "left-out-";

    private final AssignmentTrial trial;
    private final DraftRehearsal rehearsals;
    private final CurrentSnapshot current;

    AssignmentTrialApi(AssignmentTrial trial, DraftRehearsal rehearsals, CurrentSnapshot current) {
        this.trial = trial;
        this.rehearsals = rehearsals;
        this.current = current;
    }

    @PostMapping
    AssignmentTried attempt(@RequestBody WrittenAssignment written, Principal who) {
        Tried tried = tried(written, who);
        Audiences audiences = tried.after().resolver().audiences();
        AssignmentReach reach = tried.reach();
        DeviceSet devices = reach.devices(audiences);
        return new AssignmentTried(devices.size(), AssignmentTrial.people(tried.after(), devices), reach.served().size(),
                tried.assignment().include().stream().distinct().map(target -> target(audiences, target, null)).toList(),
                tried.assignment().exclude().stream().distinct().map(target -> target(audiences, target, takes(reach, target))).toList(),
                leftOut(tried), figures(tried), releases(tried), waves(tried), bytes(tried), tried.late().names());
    }

    /**
     * The devices that a figure counts.
     *
     * @param part as the figures have it
     */
    @PostMapping("/{part}")
    DraftApi.CountedDevices counted(@PathVariable String part, @RequestBody WrittenAssignment written, @RequestParam(defaultValue = "0") int offset,
            @RequestParam(defaultValue = "200") int limit, Principal who) {
        Page page = Page.of(offset, limit, MOST);
        Tried tried = tried(written, who);
        Audiences audiences = tried.after().resolver().audiences();
        List<DraftApi.CountedDevice> all = new ArrayList<>();
        int total = 0;
        for (Counted one : counted(tried, part)) {
            total += one.units().size();
            audiences.each(one.units()).limit(page.end()).forEach(unit -> all.add(DraftApi.counted(audiences.estate(), unit.device(), one.title())));
        }
        return new DraftApi.CountedDevices(total, page.of(all));
    }

    private Tried tried(WrittenAssignment written, Principal who) {
        Snapshot now = current.now();
        return trial.attempt(now, who.getName(), written.edits());
    }

    private static List<Counted> counted(Tried tried, String part) {
        if (part.startsWith(LEFT_OUT)) {
            Title title = tried.titles().get(0).title();
            List<AssignmentReach.LeftOut> all = tried.reach().leftOut();
            return IntStream.range(0, all.size()).filter(i -> part.equals(LEFT_OUT + i)).mapToObj(i -> new Counted(title, all.get(i).units())).toList();
        }
        try {
            return tried.counted(Part.valueOf(part.toUpperCase(Locale.ROOT)));
        } catch (IllegalArgumentException e) {
            throw new RefusedException("bad-part", "part", "There is no part " + part + "; use one that the figures name.");
        }
    }

    private static TriedTarget target(Audiences audiences, Target target, @Nullable Integer takes) {
        return new TriedTarget(target.toString(), Names.of(audiences.estate(), target), audiences.devicesIn(target).size(), audiences.peopleIn(target), takes);
    }

    private static int takes(AssignmentReach reach, Target target) {
        return reach.leftOut().stream().filter(one -> one.by() instanceof Verdict.Excluded excluded && excluded.by().equals(target))
                .mapToInt(one -> one.units().size()).sum();
    }

    private static List<LeftOutFigure> leftOut(Tried tried) {
        Estate estate = tried.after().estate();
        List<LeftOutFigure> figures = new ArrayList<>();
        for (AssignmentReach.LeftOut one : tried.reach().leftOut()) {
            figures.add(new LeftOutFigure(LEFT_OUT + figures.size(), kind(one.by()), name(estate, one.by()), one.units().size()));
        }
        return figures;
    }

    private static String kind(Verdict by) {
        return switch (by.kind()) {
            case STOPPED -> "fence";
            case OUTSIDE_BASE -> "base";
            case NARROWED_OUT -> "narrowed";
            case EXCLUDED -> "excluded";
            case RESTS, NO_REACH, NOT_LIVE, DECIDES, DISAGREES, AGREES, WEAKER, LATER -> "rests";
        };
    }

    private static String name(Estate estate, Verdict by) {
        return by instanceof Verdict.StoppedByFence stopped ? stopped.fence().name() : by instanceof Verdict.OutsideBase outside ? outside.base().name()
                : by instanceof Verdict.NarrowedOut narrowed ? narrowed.rule() : by instanceof Verdict.Excluded excluded
                        ? Names.of(estate, excluded.by()) : by instanceof Verdict.Rests rests ? rests.gone().name() : "";
    }

    private static List<TriedFigure> figures(Tried tried) {
        return Stream.of(Part.values()).map(part -> new TriedFigure(part.name().toLowerCase(Locale.ROOT),
                tried.counted(part).stream().mapToInt(one -> one.units().size()).sum()))
                .filter(figure -> figure.n() > 0).toList();
    }

    private static List<TriedRelease> releases(Tried tried) {
        if (tried.titles().size() > 1) {
            return List.of();
        }
        Map<String, Integer> counts = new TreeMap<>(tried.titles().get(0).releases());
        return counts.entrySet().stream().map(entry -> new TriedRelease(entry.getKey(), entry.getValue()))
                .sorted((a, b) -> b.n() - a.n()).toList();
    }

    private static List<TriedWave> waves(Tried tried) {
        List<TriedWave> waves = new ArrayList<>();
        List<UnitSet> taken = tried.reach().waves();
        for (int i = 0; i < taken.size(); i++) {
            waves.add(new TriedWave(taken.get(i).size(), tried.assignment().waves().get(i).to().stream()
                    .map(target -> new WaveTarget(target.toString(), Names.of(tried.after().estate(), target))).toList()));
        }
        return waves;
    }

    private long bytes(Tried tried) {
        long bytes = 0;
        for (TitleTried title : tried.titles()) {
            TitleDifference difference = title.difference();
            bytes += difference == null ? 0 : rehearsals.bytes(tried.after(), difference);
        }
        return bytes;
    }
}
