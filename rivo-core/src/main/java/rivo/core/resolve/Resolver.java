package rivo.core.resolve;

import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.Positions;
import rivo.core.audience.Step;
import rivo.core.audience.TargetRow;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Kit;
import rivo.core.estate.Request;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;

/**
 * Resolves: a title for all units at once, or all titles for one device. Both ways are the same evaluation over another
 * span of units, and so give the same answer. Safe for any thread; what it finds out once, it keeps.
 *
 * <p><b>How.</b> Title by title the ladder is walked with sets ({@link Ladder}), then the base outcomes get their
 * releases and seats, and then each family of related titles is settled ({@link FamilyWalk}). Device titles come before
 * user titles, which may need them.
 */
public final class Resolver {

    /** From so many titles on, the units of a family are settled on several threads. */
    private static final int LARGE_FAMILY = 16;

    private final Audiences audiences;
    private final Estate estate;
    private final Relations relations;
    private final Map<String, RankedPairs> rankedPairs = new ConcurrentHashMap<>();
    private final Map<String, Positions> waiting = new ConcurrentHashMap<>();
    /** Held while what everyone asks for first is worked out, so that it is worked out once. */
    private final Object once = new Object();
    private PresencesOnce presences = new PresencesOnce();
    private volatile @Nullable PairsByTarget pairsByTarget;
    private Answers answers = Answers.unlike();

    private Resolver(Audiences audiences, Relations relations) {
        this.audiences = audiences;
        this.estate = audiences.estate();
        this.relations = relations;
    }

    public static Resolver of(Audiences audiences) {
        return new Resolver(audiences, new Relations(audiences.estate()));
    }

    public static Resolver of(Estate estate) {
        return of(Audiences.of(estate));
    }

    /**
     * The resolver of a newer estate, sharing with this one all that cannot have changed. What is present goes along, put
     * right for the devices that changed; where everyone stands where they stood, so does what looks at nothing that
     * changed.
     */
    public Resolver follow(Estate newer) {
        Step step = audiences.step(newer);
        Resolver next = new Resolver(step.now(), newer.sharesTitlesWith(estate) ? relations : new Relations(newer));
        if (sameScopes(newer)) {
            next.presences = presences.after(step);
        }
        if (next.audiences.standsAs(audiences)) {
            estate.titles().stream().filter(t -> t.seats() != null).forEach(this::rankedPairs);
            keepContenders(next);
            keepWaiting(next);
            keepPairsByTarget(next);
        }
        next.answers = answers(next);
        return next;
    }

    /**
     * Finds out whatever is known of another state and not of this one yet, so that whoever asks about a device here waits no longer than there.
     * Costs nothing where nothing differs.
     */
    public void catchUpWith(Resolver other) {
        other.rankedPairs.forEach((id, known) -> {
            Title title = estate.title(id);
            if (title != null) {
                rankedPairs(title).catchUpWith(known);
            }
        });
        if (other.presences.known() != null) {
            presences();
        }
        if (other.pairsByTarget != null && estate.devices().size() > 0) {
            row(0);
        }
        other.waiting.keySet().stream().map(estate::title).filter(Objects::nonNull).forEach(this::waiting);
    }

    /**
     * What stands for the answers that devices get: as long as it is the very same from one resolver to the next, every device that is the very
     * same is answered the same there, with its people, because nothing that answers are made of is another but other devices. Where it is
     * another, answers may differ and need not. What stands for them does not depend on what has been asked, but for titles with seats: as long as
     * nobody has asked where those are present, it is another each time.
     */
    public Answers answers() {
        return answers;
    }

    private Answers answers(Resolver next) {
        Estate newer = next.estate;
        boolean sameParts = newer.sharesTitlesWith(estate) && newer.ous() == estate.ous() && newer.users() == estate.users()
                && newer.groups() == estate.groups() && newer.collections() == estate.collections() && newer.gone().equals(estate.gone())
                && newer.assignments().all().equals(estate.assignments().all()) && otherwiseLive(newer).isEmpty()
                && (newer.asOf().equals(estate.asOf()) || next.audiences.standsAs(audiences));
        Set<String> asked = new HashSet<>();
        if (!sameParts || !estate.titles().stream().allMatch(t -> isAnsweredTheSame(next, t, asked))) {
            return Answers.unlike();
        }
        next.audiences.differingByTime(audiences, this::rules).stream().forEach(p -> asked.add(newer.devices().at(p).id()));
        return answers.without(asked);
    }

    /**
     * Whether a title comes to the same for whoever is the same.
     *
     * @param asked takes the devices of requests that are new or gone: without seats, a request is for its own device alone
     */
    private boolean isAnsweredTheSame(Resolver next, Title title, Set<String> asked) {
        Estate newer = next.estate;
        boolean sameRequests = newer.requests(title.id()).equals(estate.requests(title.id()));
        if (!newer.assignments().of(title.id()).equals(estate.assignments().of(title.id())) || title.seats() != null
                && !(sameRequests && looksAtTheVerySame(next, title))) {
            return false;
        }
        if (!sameRequests) {
            Set<Request> before = new HashSet<>(estate.requests(title.id()));
            Set<Request> after = new HashSet<>(newer.requests(title.id()));
            before.stream().filter(one -> !after.contains(one)).forEach(one -> asked.add(one.device()));
            after.stream().filter(one -> !before.contains(one)).forEach(one -> asked.add(one.device()));
        }
        return true;
    }

    /** Whether who has a seat of the title, and who waits for one, is known to be the same. */
    private boolean looksAtTheVerySame(Resolver next, Title title) {
        Presences known = presences.known();
        Presences present = next.presences.known();
        return known != null && present != null && known.of(title.id()) == present.of(title.id())
                && next.rankedPairs.get(title.id()) == rankedPairs.get(title.id()) && next.audiences.standsAs(audiences);
    }

    /** Every rule but those of collections. */
    private Set<String> rules() {
        Set<String> rules = new HashSet<>();
        estate.assignments().all().forEach(a -> rules.add(a.within()));
        estate.titles().forEach(t -> t.releases().forEach(r -> r.variants().forEach(v -> rules.add(v.fits()))));
        rules.remove(null);
        return rules;
    }

    /** Whether the same assignments and requests speak for a title. */
    private boolean speakTheSame(Estate newer, String title) {
        return newer.assignments().of(title).equals(estate.assignments().of(title)) && newer.requests(title).equals(estate.requests(title));
    }

    /** Where the titles and everyone who speaks for them are the very same. */
    private void keepPairsByTarget(Resolver next) {
        PairsByTarget known = pairsByTarget;
        if (known != null && next.relations == relations && rankedPairs.entrySet().stream()
                .allMatch(e -> next.rankedPairs.get(e.getKey()) == e.getValue())) {
            next.pairsByTarget = known;
        }
    }

    private boolean sameScopes(Estate newer) {
        return newer.titles().size() == estate.titles().size() && newer.titles().stream()
                .allMatch(t -> estate.title(t.id()) != null && estate.title(t.id()).scope() == t.scope());
    }

    private void keepContenders(Resolver next) {
        Set<String> otherwiseLive = otherwiseLive(next.estate);
        boolean sameSets = next.audiences.sharesAllWith(audiences);
        rankedPairs.forEach((id, held) -> {
            if (next.estate.title(id) == held.title() && !otherwiseLive.contains(id)
                    && speakTheSame(next.estate, id)) {
                next.rankedPairs.put(id, sameSets ? held : held.in(next.audiences, audiences));
            }
        });
    }

    /** The titles for which an assignment has a say at one of the two instants only; at the same instant that is part of the assignment. */
    private Set<String> otherwiseLive(Estate newer) {
        if (newer.asOf().equals(estate.asOf())) {
            return Set.of();
        }
        Set<String> titles = new HashSet<>();
        for (Assignment assignment : newer.assignments().all()) {
            if (assignment.isLive(newer.asOf()) != assignment.isLive(estate.asOf())) {
                Kit kit = assignment.subject().kit() ? newer.kits().get(assignment.subject().id()) : null;
                titles.addAll(kit == null ? List.of(assignment.subject().id()) : kit.titles());
            }
        }
        return titles;
    }

    /** Who waits for a seat depends on the ladder of its title, and on where that is present. */
    private void keepWaiting(Resolver next) {
        Presences known = presences.known();
        Presences present = next.presences.known();
        waiting.forEach((id, held) -> {
            if (next.rankedPairs.get(id) == rankedPairs.get(id) && present != null && known != null && present.of(id) == known.of(id)) {
                next.waiting.put(id, held);
            }
        });
    }

    public Audiences audiences() {
        return audiences;
    }

    public Estate estate() {
        return estate;
    }

    Relations relations() {
        return relations;
    }

    RankedPairs rankedPairs(Title title) {
        RankedPairs held = rankedPairs.get(title.id());
        if (held == null) {
            held = RankedPairs.of(audiences, title);
            rankedPairs.put(title.id(), held);
        }
        return held;
    }

    /** The targets that hold a device: of all pairs, which therefore have to be made before. */
    public TargetRow row(int device) {
        pairsByTarget();
        return audiences.row(device);
    }

    PairsByTarget pairsByTarget() {
        PairsByTarget known = pairsByTarget;
        if (known == null) {
            synchronized (once) {
                known = pairsByTarget;
                if (known == null) {
                    known = new PairsByTarget(this);
                    pairsByTarget = known;
                }
            }
        }
        return known;
    }

    /** Who speaks for a title, live ones only, in ladder order. */
    public List<RankedPair> ladder(Title title) {
        return rankedPairs(title).live();
    }

    /** The ids of the titles whose outcomes may depend on this one's, itself among them. */
    public Set<String> settledWith(String title) {
        Family family = relations.of(title);
        Set<String> ids = new LinkedHashSet<>();
        family.titles().forEach(t -> ids.add(t.id()));
        for (Family other : relations.inOrder()) {
            if (other.deviceNeeds().stream().anyMatch(need -> ids.contains(need.title()))) {
                other.titles().forEach(t -> ids.add(t.id()));
            }
        }
        return ids;
    }

    /** Where each release and variant of a title would be the newest that fits. */
    public List<UnitsWith<Choice>> fitsOf(Title title) {
        return rankedPairs(title).choices().everywhere(Positions.range(0, audiences.size(title.scope())));
    }

    /** Where a title is present, for each way of being present. */
    public Map<String, Positions> presentAt(Title title) {
        Map<String, Positions> present = new HashMap<>();
        presences().of(title.id()).forEach(share -> present.merge(share.what().toString(), share.units(), Positions::or));
        return present;
    }

    /** On how many units each version of a title is present; under the empty text those of unknown version. */
    public Map<String, Integer> versionsPresent(String title) {
        Map<String, Integer> versions = new HashMap<>();
        presences().of(title).forEach(share -> versions.merge(share.what().version() == null ? ""
                : share.what().version().toString(), share.units().size(), Integer::sum));
        return versions;
    }

    /** Which of the assignments that put a title on take it off again where they leave. */
    public Set<String> leavingOf(String title) {
        Set<String> leaving = new HashSet<>();
        for (UnitsWith<Presences.Way> share : presences().of(title)) {
            String by = share.what().by();
            var found = by == null ? null : estate.assignments().find(by);
            if (found != null && found.removesWhatItLeaves(estate.asOf())) {
                leaving.add(found.id());
            }
        }
        return leaving;
    }

    /** Where a title stays although an assignment that put it on no longer reaches, since something has gone (section 11). */
    public Map<String, Positions> keptByRest(Title title) {
        Map<String, Positions> kept = new HashMap<>();
        leavingOf(title.id()).forEach(id -> kept.put(id, audiences.keptByRest(Objects.requireNonNull(estate.assignments().find(id)),
                title.scope())));
        kept.values().removeIf(Positions::isEmpty);
        return kept;
    }

    Presences presences() {
        return presences.of(audiences);
    }

    /** What one title comes to everywhere. Costs its family's walk, about one set operation for each pair. */
    public TitleOutcomes title(Title title) {
        return new TitleResolution(this, presences()).family(relations.of(title.id())).get(title.id());
    }

    /** Whether a title looks at the very same sets, and at the same things that rest, in both, where everyone stands as here. */
    public boolean looksAtTheSame(Resolver other, Title title) {
        return rankedPairs(title) == other.rankedPairs(title) && presences().of(title.id()) == other.presences().of(title.id())
                && (estate.gone().equals(other.estate.gone()) || leavingOf(title.id()).isEmpty());
    }

    /** What every title comes to everywhere, titles in the order of their families. */
    public Map<String, TitleOutcomes> all() {
        TitleResolution pass = new TitleResolution(this, presences());
        relations.inOrder().forEach(pass::family);
        return pass.done();
    }

    /**
     * The same on several threads: titles are independent but for their families, and families but for the device titles
     * that user titles need. Of a large family, the titles are worked out one by one first, and then its units are settled side by side.
     *
     * @param threads at least 1
     */
    public Map<String, TitleOutcomes> all(int threads) {
        if (threads < 2) {
            return all();
        }
        Presences present = presences();
        Map<String, TitleOutcomes> done = new ConcurrentHashMap<>();
        for (Scope scope : Scope.values()) {
            List<Family> families = relations.inOrder().stream().filter(f -> f.scope() == scope).toList();
            families.stream().filter(family -> family.titles().size() >= LARGE_FAMILY).forEach(family -> {
                TitleResolution pass = new TitleResolution(this, present);
                pass.spread(threads);
                bases(family.titles(), threads).forEach(pass::knowBase);
                resolve(family, pass, done);
            });
            Threads.run(threads, families.stream().filter(family -> family.titles().size() < LARGE_FAMILY).toList(), () -> family ->
                    resolve(family, new TitleResolution(this, present), done));
        }
        return done;
    }

    private static void resolve(Family family, TitleResolution pass, Map<String, TitleOutcomes> done) {
        family.deviceNeeds().forEach(need -> pass.done().put(need.title(), Objects.requireNonNull(done.get(need.title()))));
        Map<String, TitleOutcomes> outcomes = pass.family(family);
        family.titles().forEach(title -> done.put(title.id(), Objects.requireNonNull(outcomes.get(title.id()))));
    }

    /** One outcome of a unit. */
    public record UnitOutcome(String user, Title title, Decision decision) {
    }

    /**
     * What one device receives, in its own unit and in those of its people.
     *
     * @throws IllegalArgumentException when the device is unknown
     */
    public List<UnitOutcome> device(Device device) {
        return new DeviceResolution(this, estate.devices().position(device.id())).all();
    }

    /** What one title comes to at one unit; null when it has no outcome there. */
    public @Nullable Decision at(Title title, int unit) {
        String user = audiences.user(unit, title.scope());
        return new DeviceResolution(this, audiences.devicePosition(unit, title.scope())).family(relations.place(title.id())).stream()
                .filter(o -> o.title() == title && o.user().equals(user)).map(UnitOutcome::decision).findFirst().orElse(null);
    }

    /** The units that wait for a seat of a title, among all; none for a title without seats. */
    Positions waiting(Title title) {
        if (title.seats() == null) {
            return Positions.NONE;
        }
        Positions known = waiting.get(title.id());
        if (known == null) {
            new TitleResolution(this, presences()).base(title);
            known = waiting.getOrDefault(title.id(), Positions.NONE);
        }
        return known;
    }

    /**
     * Sections 3 to 6 for every title: what each comes to by itself, before its relations are looked at.
     *
     * @param threads at least 1
     */
    public Map<String, List<UnitsWith<BaseOutcome>>> bases(int threads) {
        Map<String, List<UnitsWith<BaseOutcome>>> bases = new HashMap<>();
        bases(List.copyOf(estate.titles()), threads).forEach((title, base) -> bases.put(title.id(), base));
        return bases;
    }

    private Map<Title, List<UnitsWith<BaseOutcome>>> bases(List<Title> titles, int threads) {
        Presences present = presences();
        Queue<Map.Entry<Title, List<UnitsWith<BaseOutcome>>>> found = new ConcurrentLinkedQueue<>();
        Threads.run(threads, titles, () -> {
            TitleResolution pass = new TitleResolution(this, present);
            return title -> found.add(Map.entry(title, pass.base(title)));
        });
        Map<Title, List<UnitsWith<BaseOutcome>>> bases = new IdentityHashMap<>();
        found.forEach(one -> bases.put(one.getKey(), one.getValue()));
        return bases;
    }

    /** The units that wait for a seat, by title, as they are found out. */
    Map<String, Positions> waitingByTitle() {
        return waiting;
    }
}
