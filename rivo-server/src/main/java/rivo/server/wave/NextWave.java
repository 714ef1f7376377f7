package rivo.server.wave;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Rollout;
import rivo.server.assignment.WaveDocument;

/**
 * What comes next of an assignment's waves. A pure function of the figures and the instant.
 *
 * @param wave its number, from 1 on, where one is to open
 * @param sentence that says why, with the figures
 * @param at before which it does not open by itself; null where no time is waited for
 */
record NextWave(@Schema(allowableValues = {"all-open", "by-hand", "stopped", "waits", "opens", "stops"}) Kind kind, @Nullable Integer wave,
        String sentence, @Nullable Instant at) {

    /** What is to be done. */
    enum Kind {
        ALL_OPEN, BY_HAND, STOPPED, WAITS,
        /** By the rule, now. */
        OPENS, STOPS;

        @com.fasterxml.jackson.annotation.JsonValue
        String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    private static final DateTimeFormatter INSTANT = DateTimeFormatter.ofPattern("d MMM uuuu, HH:mm 'UTC'", Locale.ENGLISH).withZone(ZoneOffset.UTC);
    private static final int ALL = 100;

    /** @param lanes of each of its waves */
    static NextWave of(AssignmentDocument document, List<Lane> lanes, Instant now) {
        Rollout rollout = document.delivery().rollout() == null ? Rollout.BY_HAND : document.delivery().rollout();
        List<WaveDocument> waves = document.waves();
        int next = first(waves, false);
        if (rollout.stopped()) {
            return new NextWave(Kind.STOPPED, null, "Stopped: nothing further opens; what is open stays open.", null);
        }
        if (lanes.isEmpty()) {
            return new NextWave(waves.isEmpty() ? Kind.ALL_OPEN : Kind.WAITS, null, waves.isEmpty() ? "It has no waves."
                    : "What it assigns is not in the catalogue any more.", null);
        }
        int failed = lanes.stream().filter(Lane::open).mapToInt(Lane::failed).sum();
        int tried = lanes.stream().filter(Lane::open).mapToInt(Lane::tried).sum();
        Rollout.Stops stops = rollout.stops();
        if (stops != null && failed >= (stops.atLeast() == null ? 1 : stops.atLeast()) && (long) failed * ALL > (long) stops.failed() * tried) {
            return new NextWave(Kind.STOPS, null, failed + " of the " + tried + " that tried have failed: more than " + stops.failed() + " in 100.", null);
        }
        if (next < 0) {
            return new NextWave(Kind.ALL_OPEN, null, "All waves are open.", null);
        }
        int last = last(waves);
        return rollout.opens() == null ? new NextWave(Kind.BY_HAND, next + 1, "Wave " + (next + 1) + " opens by hand.", null)
                : byRule(rollout, rollout.opens(), next + 1, last + 1, last < 0 ? null : lanes.get(last), now);
    }

    /** @param lane of the last wave that is open; null while none is: then nobody is waited for */
    private static NextWave byRule(Rollout rollout, Rollout.Opens opens, int next, int last, @Nullable Lane lane, Instant now) {
        Instant at = latest(opens.notBefore(), opens.after() == null || rollout.lastOpened() == null ? null
                : rollout.lastOpened().plus(Duration.parse(opens.after())));
        Integer share = lane == null ? null : opens.inPlace();
        int least = opens.atLeast() == null ? 1 : opens.atLeast();
        if (lane != null && share != null) {
            String missing = missing(lane, share, least, next, last);
            if (missing != null) {
                return new NextWave(Kind.WAITS, next, missing, at);
            }
        }
        String figures = lane == null || share == null ? "" : figures(lane, last);
        if (at != null && now.isBefore(at)) {
            return new NextWave(Kind.WAITS, next, "Wave " + next + " opens on " + INSTANT.format(at) + (figures.isEmpty() ? "" : ": " + figures) + ".", at);
        }
        String why = !figures.isEmpty() ? figures : at != null ? "it is past " + INSTANT.format(at) : "its rule asks for nothing more";
        return new NextWave(Kind.OPENS, next, "Wave " + next + " opened: " + why + ".", at);
    }

    /** Why the last wave has not come far enough; null where it has. */
    private static @Nullable String missing(Lane lane, int share, int least, int next, int last) {
        if (lane.decided() == 0) {
            return "Wave " + last + " holds nobody to wait for; open wave " + next + " by hand.";
        }
        if (lane.decided() < least) {
            return "Wave " + last + " has " + lane.decided() + " devices, fewer than the " + least + " that have to be in place; ask for fewer, or open wave "
                    + next + " by hand.";
        }
        boolean enough = lane.inPlaceSince() >= least && (long) lane.inPlaceSince() * ALL >= (long) share * lane.calledIn();
        return enough ? null : "Wave " + next + " opens when " + share + " in 100 are in place" + (least > 1 ? ", and at least " + least : "") + ": "
                + figures(lane, last) + ".";
    }

    private static String figures(Lane lane, int last) {
        return lane.inPlaceSince() + " of the " + lane.calledIn() + " of wave " + last + " that have called in since are in place";
    }

    private static int first(List<WaveDocument> waves, boolean open) {
        for (int i = 0; i < waves.size(); i++) {
            if (waves.get(i).open() == open) {
                return i;
            }
        }
        return -1;
    }

    private static int last(List<WaveDocument> waves) {
        int last = -1;
        for (int i = 0; i < waves.size(); i++) {
            last = waves.get(i).open() ? i : last;
        }
        return last;
    }

    private static @Nullable Instant latest(@Nullable Instant one, @Nullable Instant other) {
        return one == null ? other : other == null || one.isAfter(other) ? one : other;
    }
}
