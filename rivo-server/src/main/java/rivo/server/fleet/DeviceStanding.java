package rivo.server.fleet;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Present;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.core.plan.Action;
import rivo.core.resolve.Decision;
import rivo.core.resolve.Outcome;
import rivo.core.resolve.Resolver;
import rivo.core.state.Contact;
import rivo.core.state.PersonThere;
import rivo.core.state.Situation;
import rivo.core.state.UnitState;
import rivo.server.estate.Snapshot;

/** How a device, and each of its people there, stands with each title: what they shall have, what they have, and what is done about it. */
public final class DeviceStanding {

    /**
     * One title on one device, or in one person's profile there.
     *
     * @param person the id of that person; absent for the device
     * @param personName likewise
     * @param group where it is shown
     * @param state in which state it is, as {@link UnitState#word} has it
     * @param since when the device said that last; absent where it has not spoken of it
     * @param from the version that is there; absent when it is not there, or of unknown version
     * @param to the version that shall be there; absent when it shall not
     * @param line why, in words
     * @param end the short form of it; absent where {@code percent} or {@code due} says it
     * @param percent of the job under way
     * @param due when it is expected to go on
     * @param expected when it is expected to be as it shall; absent where nobody can say
     */
    public record DeviceTitle(String title, String titleName, @Nullable String person, @Nullable String personName,
            @Schema(allowableValues = {"under-way", "waiting", "needs", "in-place", "offered", "unasked"}) String group, String state,
            @Nullable Instant since, @Schema(allowableValues = {"required", "available", "uninstall", "contested", "later", "unfit", "blocked",
                "replaced", "displaced", "waiting"}) @Nullable String outcome,
            boolean present, @Nullable String from, @Nullable String to, String line, @Nullable String end,
            @Nullable Integer percent, @Nullable Instant due, @Nullable Expected expected) {
    }

    /** Eight in ten times between the two. */
    public record Expected(Instant from, Instant to) {
    }

    private static final double SELDOM = 0.1;
    private static final double MOSTLY = 0.9;

    private final Resolver resolver;
    private final Estate estate;
    private final Device device;
    private final UnitSituations situations;
    private final StateSentences sentences;
    private final ExpectedTimes times;

    static DeviceStanding of(Snapshot snapshot, Device device, DeviceActivity doing, JobDurations durations, Instant now) {
        return new DeviceStanding(snapshot, device, doing, FromShelf.of(snapshot, device), durations, now);
    }

    /** @param fromShelf what people have taken and given back */
    DeviceStanding(Snapshot snapshot, Device device, DeviceActivity doing, FromShelf fromShelf, JobDurations durations, Instant now) {
        this.resolver = snapshot.resolver();
        this.estate = resolver.estate();
        this.device = device;
        this.situations = new UnitSituations(snapshot, device, doing, fromShelf, now);
        this.times = new ExpectedTimes(doing, situations, durations, now);
        this.sentences = new StateSentences(resolver, device, doing, fromShelf, situations);
    }

    /** A title for the device, or for one of its people. */
    record UnitTitle(Title title, @Nullable String person) {

        JobKey key() {
            return JobKey.of(title.id(), person);
        }
    }

    /** All titles that have an outcome here or are found here, for the device and for each of its people. */
    List<DeviceTitle> lines() {
        Map<UnitTitle, Decision> outcomes = new LinkedHashMap<>();
        resolver.device(device).forEach(o -> outcomes.put(new UnitTitle(o.title(), o.user().isEmpty() ? null : o.user()), o.decision()));
        Set<UnitTitle> all = new LinkedHashSet<>(outcomes.keySet());
        for (Present present : device.present()) {
            Title title = estate.title(present.title());
            if (title != null) {
                all.add(new UnitTitle(title, present.user()));
            }
        }
        return all.stream().map(one -> line(one, outcomes.get(one))).toList();
    }

    private DeviceTitle line(UnitTitle unit, @Nullable Decision decision) {
        Situation at = situations.of(unit.title(), unit.person(), decision);
        UnitState state = UnitState.of(at);
        Present present = at.present();
        Version there = present == null ? null : present.version();
        Version to = at.action() == Action.Kind.INSTALL ? at.wanted() : null;
        StateSentences.Said said = sentences.of(unit, at, state);
        return new DeviceTitle(unit.title().id(), unit.title().name(), unit.person(), unit.person() == null ? null : sentences.name(unit.person()),
                group(at, state), state.word(), said.since(), outcome(at), present != null,
                there == null ? null : there.toString(), to == null ? null : to.toString(), said.line(), said.end(), said.percent(), said.due(), expected(unit, at, state));
    }

    private @Nullable Expected expected(UnitTitle unit, Situation at, UnitState state) {
        Instant from = times.by(SELDOM, unit.title(), unit.person(), at, state);
        Instant to = times.by(MOSTLY, unit.title(), unit.person(), at, state);
        return from == null || to == null ? null : new Expected(from, to);
    }

    /** What was given back comes off, whatever is offered. */
    private static @Nullable String outcome(Situation at) {
        Decision decision = at.decision();
        return at.givenBack() ? Outcome.UNINSTALL.word() : decision == null ? null : decision.outcome().word();
    }

    private static String group(Situation at, UnitState state) {
        boolean isTooOld = state == UnitState.WAITS_DEVICE && at.person() == PersonThere.NOT_TOLD && at.contact() != Contact.NEVER;
        return isTooOld ? "needs" : switch (state.group()) {
            case UNDER_WAY -> "under-way";
            case WAITING -> "waiting";
            case FAILED -> "needs";
            case HELD -> state == UnitState.REPLACED || state == UnitState.KEPT_OFF ? "in-place" : "needs";
            case IN_PLACE, GONE -> "in-place";
            case OFFERED -> "offered";
            case NOTHING -> "unasked";
        };
    }
}
