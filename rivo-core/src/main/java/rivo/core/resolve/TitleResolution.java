package rivo.core.resolve;

import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import rivo.core.audience.Audiences;
import rivo.core.audience.Positions;
import rivo.core.audience.Remaining;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.estate.Estate;
import rivo.core.estate.Need;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;

/**
 * One run over all units of titles: the ladder, requests, releases and seats, then each family settled. Of one thread.
 */
final class TitleResolution {

    private final Resolver resolver;
    private final Audiences audiences;
    private final Estate estate;
    private final Presences present;
    private final Map<String, TitleOutcomes> done = new LinkedHashMap<>();
    /** Sections 3 to 6 by title, as long as its family may ask again. */
    private final Map<String, List<UnitsWith<BaseOutcome>>> bases = new HashMap<>();
    /** Filled anew for each ladder: memory that has just been written to is quicker than new one. */
    private final Map<Scope, Remaining> remaining = new EnumMap<>(Scope.class);
    /** The same for the units that were asked about last. */
    private Positions lastAmong = Positions.NONE;
    private Remaining lastRemaining = new Remaining(Positions.NONE);
    private int threads = 1;

    TitleResolution(Resolver resolver, Presences present) {
        this.resolver = resolver;
        this.audiences = resolver.audiences();
        this.estate = resolver.estate();
        this.present = present;
    }

    /** @param by the units of a family are settled by so many threads from now on, at least 1 */
    void spread(int by) {
        threads = by;
    }

    /** What has been worked out so far, by title. */
    Map<String, TitleOutcomes> done() {
        return done;
    }

    /** What sections 3 to 6 come to, found out elsewhere. */
    void knowBase(Title title, List<UnitsWith<BaseOutcome>> base) {
        bases.put(title.id(), base);
    }

    /** Sections 3 to 6. */
    List<UnitsWith<BaseOutcome>> base(Title title) {
        return bases.computeIfAbsent(title.id(), id -> findBase(title));
    }

    /** The same for some units; of others perhaps, too. Costs what those units cost, where the title was not asked about before. */
    List<UnitsWith<BaseOutcome>> base(Title title, Positions among) {
        List<UnitsWith<BaseOutcome>> known = bases.get(title.id());
        if (known != null || among.size() == audiences.size(title.scope())) {
            return base(title);
        }
        List<UnitsWith<BaseOutcome>> shares = among.isEmpty() ? List.of() : walk(resolver.rankedPairs(title), () -> these(among));
        return shares.stream().noneMatch(s -> s.what().outcome() == Outcome.REQUIRED) ? shares : Seats.mark(shares, resolver.waiting(title));
    }

    private List<UnitsWith<BaseOutcome>> findBase(Title title) {
        List<UnitsWith<BaseOutcome>> shares = walk(resolver.rankedPairs(title), () -> everyUnit(title.scope()));
        Integer seats = title.seats();
        if (seats == null || shares.stream().noneMatch(s -> s.what().outcome() == Outcome.REQUIRED)) {
            return shares;
        }
        return Seats.mark(shares, waiting(title, seats, shares));
    }

    /** The ladder, requests and releases, without seats. */
    private List<UnitsWith<BaseOutcome>> walk(RankedPairs speaking, Supplier<Remaining> units) {
        if (speaking.live().isEmpty()) {
            return List.of();
        }
        List<UnitsWith<BaseOutcome>> walked = Ladder.walk(speaking, units.get());
        List<UnitsWith<BaseOutcome>> shares = new ArrayList<>(walked.size());
        for (UnitsWith<BaseOutcome> share : walked) {
            request(speaking, share, shares);
        }
        return shares;
    }

    private Remaining these(Positions among) {
        if (among == lastAmong) {
            lastRemaining.fill();
        } else {
            lastAmong = among;
            lastRemaining = new Remaining(among);
        }
        return lastRemaining;
    }

    private Remaining everyUnit(Scope scope) {
        Remaining all = remaining.computeIfAbsent(scope, s -> new Remaining(0, audiences.size(s)));
        all.fill();
        return all;
    }

    private void request(RankedPairs speaking, UnitsWith<BaseOutcome> share, List<UnitsWith<BaseOutcome>> into) {
        BaseOutcome base = share.what();
        if (base.outcome() != Outcome.AVAILABLE) {
            choose(speaking, share, into);
            return;
        }
        Positions requested = share.units().and(speaking.requested());
        if (!requested.isEmpty()) {
            choose(speaking, new UnitsWith<>(new BaseOutcome(Outcome.REQUIRED, Reason.REQUESTED, base.deciding(),
                    base.rank(), null), requested), into);
        }
        Positions rest = share.units().without(requested);
        if (!rest.isEmpty()) {
            choose(speaking, new UnitsWith<>(base, rest), into);
        }
    }

    private void choose(RankedPairs speaking, UnitsWith<BaseOutcome> share, List<UnitsWith<BaseOutcome>> into) {
        BaseOutcome base = share.what();
        if (!base.outcome().hasRelease()) {
            into.add(share);
            return;
        }
        var pin = base.deciding().get(0).pin();
        Release pinned = pin == null ? null : speaking.choices().pinned(pin);
        if (pin != null && pinned == null) {
            into.add(new UnitsWith<>(new BaseOutcome(Outcome.BLOCKED, Reason.NO_RELEASE, base.deciding(), base.rank(),
                    null), share.units()));
            return;
        }
        Choices.Chosen chosen = pinned == null ? speaking.choices().newest(share.units())
                : speaking.choices().of(pinned, share.units());
        for (UnitsWith<Choice> choice : chosen.shares()) {
            into.add(new UnitsWith<>(new BaseOutcome(base.outcome(), base.reason(), base.deciding(), base.rank(),
                    choice.what()), choice.units()));
        }
        if (!chosen.unfit().isEmpty()) {
            into.add(new UnitsWith<>(new BaseOutcome(Outcome.UNFIT, null, base.deciding(), base.rank(), null),
                    chosen.unfit()));
        }
    }

    private Positions waiting(Title title, int seats, List<UnitsWith<BaseOutcome>> shares) {
        return resolver.waitingByTitle().computeIfAbsent(title.id(), id -> Seats.waiting(seats, Positions.union(shares.stream()
                .filter(s -> s.what().outcome() == Outcome.REQUIRED).map(UnitsWith::units).toList()),
                present.anyhow(id), audiences.ranks(title.scope())));
    }

    /** What the titles of a family come to; by id, among what has been worked out before. */
    Map<String, TitleOutcomes> family(Family family) {
        if (!done.containsKey(family.titles().get(0).id())) {
            done.putAll(family(family, Positions.range(0, audiences.size(family.scope()))));
            family.titles().forEach(title -> bases.remove(title.id()));
        }
        return done;
    }

    /** What the titles of a family come to at these units; by id. */
    Map<String, TitleOutcomes> family(Family family, Positions among) {
        Map<String, TitleOutcomes> outcomes = new LinkedHashMap<>();
        List<List<UnitsWith<Decision>>> decisions = family.isRelated() ? settle(family, among)
                : List.of(plain(base(family.titles().get(0), among), among));
        Map<Integer, TitleOutcomes> found = new ConcurrentHashMap<>();
        Threads.run(threads, IntStream.range(0, decisions.size()).boxed().toList(), () -> t ->
                found.put(t, with(family.titles().get(t), decisions.get(t), among, Positions.NONE)));
        for (int t = 0; t < decisions.size(); t++) {
            outcomes.put(family.titles().get(t).id(), Objects.requireNonNull(found.get(t)));
        }
        return outcomes;
    }

    private static List<UnitsWith<Decision>> joined(List<UnitsWith<Decision>> some, List<UnitsWith<Decision>> others) {
        Map<Decision, Positions> joined = new LinkedHashMap<>();
        some.forEach(share -> joined.merge(share.what(), share.units(), Positions::or));
        others.forEach(share -> joined.merge(share.what(), share.units(), Positions::or));
        return joined.entrySet().stream().map(share -> new UnitsWith<>(share.getKey(), share.getValue())).toList();
    }

    private static List<UnitsWith<Decision>> plain(List<UnitsWith<BaseOutcome>> base, Positions among) {
        List<UnitsWith<Decision>> decisions = new ArrayList<>(base.size());
        for (UnitsWith<BaseOutcome> share : base) {
            Positions units = share.units().and(among);
            if (!units.isEmpty()) {
                decisions.add(new UnitsWith<>(share.what().decision(), units));
            }
        }
        return decisions;
    }

    private List<List<UnitsWith<Decision>>> settle(Family family, Positions among) {
        List<FamilyUnits.Known> known = known(family, among);
        if (known.stream().allMatch(of -> of.base().isEmpty() && of.present().isEmpty())) {
            return Collections.nCopies(family.titles().size(), List.of());
        }
        List<Positions> met = family.deviceNeeds().stream().map(this::meeting).toList();
        return new FamilyWalk(new FamilyUnits(family, known, Map.of(), choices(family), met, among, threads)).settle(threads);
    }

    private List<FamilyUnits.Known> known(Family family, Positions among) {
        return family.titles().stream().map(title -> new FamilyUnits.Known(base(title, among), present.of(title.id()))).toList();
    }

    private List<Choices> choices(Family family) {
        return family.titles().stream().map(this::choices).toList();
    }

    Choices choices(Title title) {
        return resolver.rankedPairs(title).choices();
    }

    /**
     * What the titles of a family come to in this state and in a latter one, which has the same family, audiences and presences: each at the units at which it
     * comes to something else, and those that come to something else by themselves everywhere.
     *
     * @param edited the places of the latter
     * @param among the units that are asked about
     * @param alone other units for those, by their places: there these come to what they do by themselves
     * @param threads at least 1
     */
    BeforeAndAfter compared(TitleResolution latter, Family family, Set<Integer> edited, Positions among, Map<Integer, Positions> alone, int threads) {
        Map<Integer, List<UnitsWith<BaseOutcome>>> second = new HashMap<>();
        edited.forEach(t -> second.put(t, latter.base(family.titles().get(t), among)));
        List<FamilyDifference.Of> differences = among.isEmpty() ? Collections.nCopies(family.titles().size(), FamilyDifference.Of.NOWHERE)
                : new FamilyDifference(new FamilyUnits(family, known(family, among), second, choices(family), List.of(), among, threads)).settle(threads);
        Map<String, TitleOutcomes> was = new LinkedHashMap<>();
        Map<String, TitleOutcomes> is = new LinkedHashMap<>();
        for (int t = 0; t < differences.size(); t++) {
            Title title = family.titles().get(t);
            FamilyDifference.Of of = differences.get(t);
            Positions besides = alone.getOrDefault(t, Positions.NONE);
            was.put(title.id(), with(title, of.was(), of.units(), besides));
            is.put(title.id(), latter.with(title, of.is(), of.units(), besides));
        }
        return new BeforeAndAfter(was, is);
    }

    /** @param besides other units, at which the title comes to what it does by itself */
    private TitleOutcomes with(Title title, List<UnitsWith<Decision>> decisions, Positions among, Positions besides) {
        List<UnitsWith<Decision>> all = besides.isEmpty() ? decisions : joined(decisions, plain(base(title, besides), besides));
        return outcomes(title, withLeft(title, all, among.or(besides)));
    }

    /** The person units whose device meets the need of a device title (the end of section 7). */
    private Positions meeting(Need need) {
        TitleOutcomes known = done.get(need.title());
        TitleOutcomes outcomes = known != null ? known
                : Objects.requireNonNull(family(resolver.relations().of(need.title())).get(need.title()));
        List<Positions> met = new ArrayList<>();
        Positions there = Positions.union(present.of(need.title()).stream()
                .filter(way -> need.isMetBy(way.what().version())).map(UnitsWith::units).toList());
        Positions free = there;
        for (DecidedUnits part : outcomes.parts()) {
            Decision decision = part.decision();
            Positions devices = part.units().positions();
            Release release = decision.release();
            if (decision.outcome() == Outcome.REQUIRED && release != null && need.isMetBy(release.version())) {
                met.add(devices);
            } else if (decision.outcome().leavesAsItIs()) {
                met.add(devices.and(there));
            }
            free = free.without(devices);
        }
        met.add(free);
        return audiences.units().ofDevices(Positions.union(met));
    }

    private static TitleOutcomes outcomes(Title title, List<UnitsWith<Decision>> decisions) {
        return new TitleOutcomes(title, decisions.stream().map(share -> new DecidedUnits(share.what(), new UnitSet(title.scope(), share.units())))
                .toList());
    }

    /** Adds what an assignment left behind (section 8, rule 3), and takes out what only stays. */
    private List<UnitsWith<Decision>> withLeft(Title title, List<UnitsWith<Decision>> decisions, Positions among) {
        List<UnitsWith<Decision>> all = new ArrayList<>(decisions);
        all.removeIf(share -> share.what() == Settlement.STAYS);
        Map<String, List<Positions>> left = new LinkedHashMap<>();
        for (UnitsWith<Presences.Way> way : present.of(title.id())) {
            String by = way.what().by();
            if (by != null && removes(by)) {
                left.computeIfAbsent(by, b -> new ArrayList<>()).add(way.units().and(among));
            }
        }
        if (!left.isEmpty()) {
            Positions decided = Positions.union(decisions.stream().map(UnitsWith::units).toList());
            left.forEach((by, units) -> {
                Assignment leaving = Objects.requireNonNull(estate.assignments().find(by));
                Positions alone = Positions.union(units).without(decided).without(audiences.keptByRest(leaving, title.scope()));
                if (!alone.isEmpty()) {
                    all.add(new UnitsWith<>(new Decision(Outcome.UNINSTALL, Reason.LEFT, null, List.of(leaving), null), alone));
                }
            });
        }
        return all;
    }

    /**
     * The units at which titles of a family come to something else by themselves than in another state of the estate, which has the same family
     * and the same audiences, and where the same is present; by the titles' places.
     */
    Map<Integer, Positions> differing(TitleResolution other, Family family) {
        Map<Integer, Positions> differing = new LinkedHashMap<>();
        for (int t = 0; t < family.titles().size(); t++) {
            Title title = family.titles().get(t);
            if (resolver.rankedPairs(title) != other.resolver.rankedPairs(title)) {
                differing.put(t, differing(base(title), other.base(title)));
            }
        }
        return differing;
    }

    private static Positions differing(List<UnitsWith<BaseOutcome>> ours, List<UnitsWith<BaseOutcome>> others) {
        Map<BaseOutcome, Positions> theirs = new HashMap<>();
        others.forEach(share -> theirs.merge(share.what(), share.units(), Positions::or));
        List<Positions> differing = new ArrayList<>();
        for (UnitsWith<BaseOutcome> share : ours) {
            Positions same = theirs.getOrDefault(share.what(), Positions.NONE);
            differing.add(share.units().without(same));
            theirs.put(share.what(), same.without(share.units()));
        }
        differing.addAll(theirs.values());
        return Positions.union(differing);
    }

    /** Those of the units at which a title has something to do: it has an outcome by itself, or is present. */
    Positions touched(Title title, Positions among) {
        List<Positions> touched = new ArrayList<>();
        base(title, among).forEach(share -> touched.add(share.units().and(among)));
        present.of(title.id()).forEach(way -> touched.add(way.units().and(among)));
        return Positions.union(touched);
    }

    /**
     * Takes over what titles come to by themselves in this and in another state alike, at these units.
     *
     * @param by so many threads, at least 1
     */
    void takeOver(TitleResolution other, Family family, Positions among, int by) {
        List<Title> same = family.titles().stream().filter(t -> resolver.rankedPairs(t) == other.resolver.rankedPairs(t)).toList();
        Map<String, List<UnitsWith<BaseOutcome>>> found = new ConcurrentHashMap<>();
        Threads.run(by, same, () -> {
            TitleResolution pass = new TitleResolution(resolver, present);
            return title -> found.put(title.id(), pass.base(title, among));
        });
        bases.putAll(found);
        other.bases.putAll(found);
    }

    private boolean removes(String assignment) {
        var found = estate.assignments().find(assignment);
        return found != null && found.removesWhatItLeaves(estate.asOf());
    }
}
