package rivo.core.resolve;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import rivo.core.audience.DeviceSet;
import rivo.core.audience.Reach;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Title;

/**
 * Resolves: title by title for all devices at once, or all titles for one device. Both ways give the same answer.
 *
 * <p><b>How.</b> A title's candidates stand in ladder order. Walking down, each level group decides for the devices it
 * reaches among those that <b>remain</b>, the ones nobody stronger has decided for; the walk stops when none remain.
 * Within a group the devices are split by which of its assignments reach them, so that every device is decided by
 * exactly the assignments that hold there.
 */
public final class Resolver {

    private final Estate estate;
    private final Reach reach;

    public Resolver(Estate estate) {
        this.estate = estate;
        this.reach = Reach.in(estate);
    }

    /** The outcomes of one title. Costs about one set operation for each of its candidates. */
    public TitleOutcomes title(Title title) {
        List<Candidate> candidates = Candidates.of(estate, title.id());
        DeviceSet remaining = DeviceSet.range(0, estate.devices().size());
        List<TitleOutcomes.Share> shares = new ArrayList<>();
        for (int from = 0; from < candidates.size() && !remaining.isEmpty();) {
            int end = Ladder.endOfLevel(candidates, from);
            for (Map.Entry<List<Assignment>, DeviceSet> part : split(candidates.subList(from, end), remaining)) {
                Ladder.decide(title, part.getKey())
                        .ifPresent(decision -> shares.add(new TitleOutcomes.Share(decision, part.getValue())));
                remaining = remaining.without(part.getValue());
            }
            from = end;
        }
        return new TitleOutcomes(shares);
    }

    /** The remaining devices that the group reaches, split by which of its assignments reach them. */
    private List<Map.Entry<List<Assignment>, DeviceSet>> split(List<Candidate> group, DeviceSet remaining) {
        Map<List<Assignment>, DeviceSet> parts = new LinkedHashMap<>();
        for (Candidate candidate : group) {
            DeviceSet reached = reach.ofOu(candidate.target(), candidate.place().binding()).and(remaining);
            Map<List<Assignment>, DeviceSet> next = new LinkedHashMap<>();
            for (Map.Entry<List<Assignment>, DeviceSet> part : parts.entrySet()) {
                put(next, part.getKey(), part.getValue().without(reached));
                put(next, with(part.getKey(), candidate.assignment()), part.getValue().and(reached));
                reached = reached.without(part.getValue());
            }
            put(next, List.of(candidate.assignment()), reached);
            parts = next;
        }
        return List.copyOf(parts.entrySet());
    }

    private static void put(Map<List<Assignment>, DeviceSet> parts, List<Assignment> key, DeviceSet devices) {
        if (!devices.isEmpty()) {
            parts.merge(key, devices, DeviceSet::or);
        }
    }

    private static List<Assignment> with(List<Assignment> group, Assignment one) {
        List<Assignment> longer = new ArrayList<>(group);
        longer.add(one);
        return List.copyOf(longer);
    }

    /** What one device receives, by title id, in the catalogue's order. Costs a probe for each candidate. */
    public Map<String, Decision> device(Device device) {
        int ou = estate.ous().position(device.ou());
        Map<String, Decision> outcomes = new LinkedHashMap<>();
        for (Title title : estate.titles()) {
            at(title, ou).ifPresent(decision -> outcomes.put(title.id(), decision));
        }
        return outcomes;
    }

    /** What a device that stands in this OU receives of one title. */
    public Optional<Decision> at(Title title, int ou) {
        List<Candidate> holding = Candidates.of(estate, title.id()).stream().filter(c -> holdsAt(c, ou)).toList();
        if (holding.isEmpty()) {
            return Optional.empty();
        }
        List<Candidate> level = holding.subList(0, Ladder.endOfLevel(holding, 0));
        return Ladder.decide(title, level.stream().map(Candidate::assignment).toList());
    }

    private boolean holdsAt(Candidate candidate, int ou) {
        return estate.ous().isAtOrBelow(ou, candidate.target())
                && reach.fenceBetween(candidate.target(), ou, candidate.place().binding()) == null;
    }
}
