package rivo.devices.fleet;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.NoticeAnswer;
import rivo.devices.protocol.ShelfAct;
import tools.jackson.databind.JsonNode;

/**
 * What the people of a simulated device say to what it asks: after a while yes, or that it is to wait, or nothing. Immutable.
 *
 * @param answers whether they ever say anything; others leave it to the shelf
 * @param quarter what a quarter of an hour takes here
 */
record SimulatedPerson(Luck luck, boolean answers, Duration quarter) {

    /** Of a thousand questions, so many are answered with yes, then with later, then with when I sign out; the others are not. */
    private static final int NOW = 450;
    private static final int LATER = 800;
    private static final int AT_SIGN_OUT = 900;
    /** Of the thousandths of a quarter of an hour that somebody thinks it over. */
    private static final int SHORTEST_THOUGHT = 200;
    private static final int MILLE = 1000;
    private static final int GIVES_BACK = 400;
    /** What they put it off by, of what is left. */
    private static final int PART = 3;

    /** @param until when it may be asked again, of {@code later} */
    record Says(NoticeAnswer answer, @Nullable Instant until) {
    }

    /**
     * What they do on their shelf: now and then they take something for which nothing is asked, and now and then they give something back.
     *
     * @param shelf as the server's API has it
     * @param time which time it is that they look
     * @return null where nothing there is to their liking
     */
    static @Nullable ShelfAct does(Luck luck, JsonNode shelf, String account, String time) {
        boolean gives = luck.perMille("gives back " + time) < GIVES_BACK;
        List<JsonNode> offers = shelf.path("offers").valueStream().filter(offer -> gives
                ? "in-place".equals(offer.path("state").asString()) && "taken".equals(offer.path("request").path("state").asString())
                : "offered".equals(offer.path("state").asString()) && !offer.hasNonNull("asks") && !offer.hasNonNull("web")).toList();
        return offers.isEmpty() ? null : ShelfAct.of(account, gives ? ShelfAct.Action.GIVE_BACK : ShelfAct.Action.TAKE,
                offers.get(luck.perMille("takes " + time) % offers.size()).path("title").asString());
    }

    /** Null while they say nothing. */
    @Nullable Says says(Ask ask, Instant now) {
        if (!answers || ask.person() == null || !ask.isAsking(now)) {
            return null;
        }
        String question = ask.kind() + " " + ask.id() + " " + ask.putOff();
        Duration thought = quarter.multipliedBy(SHORTEST_THOUGHT + luck.perMille("thinks about " + question)).dividedBy(MILLE);
        if (now.isBefore(Objects.requireNonNullElse(ask.until(), ask.since()).plus(thought))) {
            return null;
        }
        int says = luck.perMille("says to " + question);
        Instant later = now.plus(Duration.between(now, ask.last()).dividedBy(PART));
        return says < NOW ? new Says(NoticeAnswer.NOW, null) : ask.putOff() >= ask.times() ? null
                : says < LATER ? new Says(NoticeAnswer.LATER, later) : says < AT_SIGN_OUT ? new Says(NoticeAnswer.AT_SIGN_OUT, null) : null;
    }
}
