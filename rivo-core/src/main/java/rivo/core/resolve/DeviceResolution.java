package rivo.core.resolve;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.Positions;
import rivo.core.audience.TargetRow;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Need;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;

/**
 * Resolves one device: its own unit and those of its people, one after the other. The pairs, gates, choices and
 * settlements are those of the walk over all units; only the sets are missing. Used once, by one thread.
 */
final class DeviceResolution {

    private final Resolver resolver;
    private final Audiences audiences;
    private final Relations relations;
    private final PairsByTarget pairsByTarget;
    private final Estate estate;
    private final Device device;
    private final int position;
    private final TargetRow row;
    /** The pairs that may hold here, by their places among those {@link PairsByTarget}. */
    private final BitSet mayHold;
    /** The families of titles that are there. */
    private final BitSet presentIn;
    private final Map<String, Present> present = new HashMap<>();
    /** What the device's own unit comes to, by title that user titles ask about: null where it has no outcome. */
    private final Map<String, @Nullable Decision> ofDevice = new HashMap<>();
    private final List<Resolver.UnitOutcome> outcomes = new ArrayList<>();
    /** Of one family after the other. */
    private final UnitSettlement settlement = new UnitSettlement();

    DeviceResolution(Resolver resolver, int position) {
        this.resolver = resolver;
        this.audiences = resolver.audiences();
        this.relations = resolver.relations();
        this.pairsByTarget = resolver.pairsByTarget();
        this.estate = resolver.estate();
        this.device = estate.devices().at(position);
        this.position = position;
        this.row = audiences.row(position);
        this.mayHold = pairsByTarget.mayHold(row);
        this.presentIn = pairsByTarget.present(device);
        device.present().forEach(p -> present.put(p.user() == null ? p.title() : p.title() + "\n" + p.user(), p));
    }

    /** What all titles come to. */
    List<Resolver.UnitOutcome> all() {
        BitSet touched = pairsByTarget.families(mayHold);
        touched.or(presentIn);
        for (int family = touched.nextSetBit(0); family >= 0; family = touched.nextSetBit(family + 1)) {
            family(family);
        }
        return outcomes;
    }

    /** Settles the family at this place at each of the device's units; what has come out so far. */
    List<Resolver.UnitOutcome> family(int place) {
        Family family = relations.inOrder().get(place);
        if (family.scope() == Scope.USER) {
            int first = audiences.units().from(position);
            int end = audiences.units().to(position);
            if (first < end) {
                family.deviceNeeds().forEach(need -> settleBefore(need.title()));
            }
            for (int unit = first; unit < end; unit++) {
                settle(place, family, unit, audiences.user(unit, Scope.USER));
            }
        } else if (!relations.isAsked(place)) {
            settle(place, family, position, "");
        } else if (!ofDevice.containsKey(family.titles().get(0).id())) {
            int before = outcomes.size();
            settle(place, family, position, "");
            remember(family, outcomes.subList(before, outcomes.size()));
        }
        return outcomes;
    }

    /** Settles the family of a device title before those of user titles that ask about it: one family is settled at a time. */
    private void settleBefore(String deviceTitle) {
        if (!ofDevice.containsKey(deviceTitle)) {
            family(relations.place(deviceTitle));
        }
    }

    private void remember(Family family, List<Resolver.UnitOutcome> settled) {
        family.titles().forEach(title -> ofDevice.put(title.id(), null));
        settled.forEach(outcome -> ofDevice.put(outcome.title().id(), outcome.decision()));
    }

    private void settle(int place, Family family, int unit, String user) {
        if (!family.isRelated()) {
            BaseOutcome base = base(place, 0, unit);
            Title title = family.titles().get(0);
            put(title, user, base != null ? base.decision() : presentIn.get(place) ? left(title, user, unit) : null);
            return;
        }
        new AtUnit(place, family, unit, user).settle();
    }

    /** A family at one unit. */
    private final class AtUnit implements UnitTitles.Outside {

        private final int place;
        private final Family family;
        private final int unit;
        private final String user;
        private final UnitTitles titles = settlement.titles();

        AtUnit(int place, Family family, int unit, String user) {
            this.place = place;
            this.family = family;
            this.unit = unit;
            this.user = user;
        }

        void settle() {
            titles.begin(family, this);
            int count = family.titles().size();
            boolean asks = false;
            for (int t = pairsByTarget.next(mayHold, place, 0); t < count; t = pairsByTarget.next(mayHold, place, t + 1)) {
                BaseOutcome base = base(place, t, unit);
                if (base != null) {
                    titles.assigned(t, base);
                    asks |= base.outcome() == Outcome.REQUIRED && family.needs(titles.release(t)).length > 0;
                }
            }
            if (presentIn.get(place)) {
                device.present().forEach(this::isThere);
            }
            if (asks || twoMeet()) {
                settlement.settle();
            }
            for (int t = 0; t < count; t++) {
                if (titles.isTouched(t)) {
                    Decision decision = titles.decision(t);
                    put(family.titles().get(t), user, decision == null && titles.isPresent(t) ? left(family.titles().get(t), user, unit) : decision);
                }
            }
        }

        private void isThere(Present one) {
            int t = family.place(one.title());
            if (t >= 0 && user.equals(Objects.requireNonNullElse(one.user(), ""))) {
                titles.present(t, family.reached(t, one.version()));
            }
        }

        /** Whether two are there that may stand against each other. */
        private boolean twoMeet() {
            for (int i = 0; i < titles.touchedCount(); i++) {
                for (int s : family.neighbours(titles.touched(i))) {
                    if (titles.isTouched(s)) {
                        return true;
                    }
                }
            }
            return false;
        }

        @Override
        public @Nullable Choice newest(int title) {
            return pairsByTarget.rankedPairs(place, title).choices().newestAt(unit);
        }

        @Override
        public boolean meets(int deviceNeed) {
            return DeviceResolution.this.meets(family.deviceNeeds().get(deviceNeed));
        }
    }

    private void put(Title title, String user, @Nullable Decision decision) {
        if (decision != null && decision != Settlement.STAYS) {
            outcomes.add(new Resolver.UnitOutcome(user, title, decision));
        }
    }

    private @Nullable Present present(String title, String user) {
        return present.get(user.isEmpty() ? title : title + "\n" + user);
    }

    /** Sections 3 to 6. */
    private @Nullable BaseOutcome base(int place, int title, int unit) {
        RankedPairs rankedPairs = pairsByTarget.rankedPairs(place, title);
        BaseOutcome base = rankedPairs.at(unit, row, mayHold, pairsByTarget.start(place, title));
        if (base == null || base.choice() != null || !base.outcome().hasRelease()) {
            return base;
        }
        boolean requested = base.outcome() == Outcome.AVAILABLE && rankedPairs.requested().contains(unit);
        Outcome outcome = requested ? Outcome.REQUIRED : base.outcome();
        var pin = base.deciding().get(0).pin();
        Release pinned = pin == null ? null : rankedPairs.choices().pinned(pin);
        if (pin != null && pinned == null) {
            return new BaseOutcome(Outcome.BLOCKED, Reason.NO_RELEASE, base.deciding(), base.rank(), null);
        }
        Choice choice = pinned == null ? rankedPairs.choices().newestAt(unit) : rankedPairs.choices().at(pinned, unit);
        if (choice == null) {
            return new BaseOutcome(Outcome.UNFIT, null, base.deciding(), base.rank(), null);
        }
        Positions waiting = outcome == Outcome.REQUIRED ? resolver.waiting(rankedPairs.title()) : Positions.NONE;
        return new BaseOutcome(waiting.contains(unit) ? Outcome.WAITING : outcome,
                requested ? Reason.REQUESTED : Reason.ASSIGNED, base.deciding(), base.rank(), choice);
    }

    /** The end of section 7. */
    private boolean meets(Need need) {
        Decision decision = ofDevice.get(need.title());
        if (decision != null && decision.outcome() == Outcome.REQUIRED) {
            return need.isMetBy(Objects.requireNonNull(decision.release()).version());
        }
        Present there = present(need.title(), "");
        return there != null && need.isMetBy(there.version()) && (decision == null || decision.outcome().leavesAsItIs());
    }

    /** Section 8, rule 3. */
    private @Nullable Decision left(Title title, String user, int unit) {
        Present there = present(title.id(), user);
        Assignment by = there == null || there.by() == null ? null : estate.assignments().find(there.by());
        return by == null || !by.removesWhatItLeaves(estate.asOf())
                || resolver.audiences().keptByRest(by, title.scope()).contains(unit) ? null
                : new Decision(Outcome.UNINSTALL, Reason.LEFT, null, List.of(by), null);
    }
}
