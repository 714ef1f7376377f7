package rivo.server.shelf;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The shelf of one person on one of their computers.
 *
 * @param person as they are called
 * @param devices their computers, the one they are signed in on first
 * @param device the id of the one that this is about; absent where they have none
 * @param offers what is offered to them there, and what they have taken of it
 * @param coming what is going to be installed or removed without their asking, and what they gave back that is offered no more and leaves
 * @param here what is there
 * @param notices what they are told and asked there
 */
record Shelf(String person, List<ShelfDevice> devices, @Nullable String device, List<ShelfOffer> offers, List<ShelfComing> coming, List<ShelfInstalled> here,
        List<ShelfNotice> notices) {

    /**
     * Something that they are told or asked.
     *
     * @param words by language, a tag of RFC 5646; {@code {time}} stands for {@code time}
     * @param until when one that is put off is asked again
     * @param time when it happens at the latest; absent of what asks nothing
     * @param left how often it may still be put off; absent likewise
     * @param said what they have answered here and the computer has not heard yet; {@code saidUntil} with it
     */
    record ShelfNotice(String notice, @Schema(allowableValues = {"coming", "start", "done", "removed", "failed", "restart", "sign-out", "close"}) String kind,
            Map<String, String> words, @Schema(allowableValues = {"held", "shown", "put-off", "counting-down"}) String state, @Nullable Instant until,
            @Nullable Instant time, @Nullable Integer left, @Schema(allowableValues = {"now", "later", "at-sign-out", "read"}) @Nullable String said, @Nullable Instant saidUntil) {
    }

    /** @param signedIn whether this person is signed in there now */
    record ShelfDevice(String id, String name, boolean signedIn) {
    }

    /**
     * A title that one can take, or has taken.
     *
     * @param web where it opens, of one that is a web page and theirs; absent for all else
     * @param forPerson whether it is installed for this person alone
     * @param bytes how much is fetched
     * @param minutes how long it may take at the most
     * @param mayRestart whether its installer may ask for a restart
     * @param takesOff what is removed from this computer for it
     * @param seats how many licences there are and how many are free; absent where they are not counted
     * @param asks what is asked of whoever takes it; absent where it is theirs for the asking
     * @param request what they have asked for or taken; absent where they have not
     * @param waitsFor what a waiting one waits for
     * @param line the same in a sentence
     * @param due when the computer is expected to go on with it
     * @param percent of what is under way
     */
    record ShelfOffer(String title, String name, String maker, String description, String category, String icon, @Nullable String version,
            @Nullable String web, boolean forPerson, long bytes, int minutes, boolean mayRestart, List<String> takesOff, @Nullable ShelfSeats seats, @Nullable ShelfAsks asks, @Nullable ShelfRequest request,
            @Schema(allowableValues = {"offered", "under-way", "waiting", "in-place", "failed", "leaving"}) String state,
            @Schema(allowableValues = {"sign-in", "computer", "seat", "window", "deadline", "need", "approval", "answer", "restart", "other"}) @Nullable String waitsFor, String line, @Nullable Instant due,
            @Nullable Integer percent) {
    }

    /** @param place of whoever waits for one, from 1 on; absent where they do not */
    record ShelfSeats(int all, int free, @Nullable Integer place) {
    }

    /**
     * @param approval whether somebody has to agree first
     * @param licence the text that has to be accepted; absent where there is none
     * @param licenceHash its SHA-256, by which it is accepted
     * @param choices what they may choose of it
     */
    record ShelfAsks(boolean approval, @Nullable String licence, @Nullable String licenceHash, List<ShelfChoice> choices) {
    }

    /**
     * Something that whoever takes a title may choose.
     *
     * @param many whether any number of the values may be chosen together: then they are written with commas between them
     * @param value what is chosen where they choose nothing
     * @param values what may be chosen
     */
    record ShelfChoice(String id, String name, boolean many, String value, List<ShelfValue> values) {
    }

    record ShelfValue(String value, String name) {
    }

    /**
     * @param words what was said to it; absent where nothing was
     * @param until to when it was agreed to; absent where for good
     */
    record ShelfRequest(@Schema(allowableValues = {"sooner", "asked", "refused", "taken"}) String state, Instant at, @Nullable String words, @Nullable Instant until) {
    }

    /**
     * @param leaves whether it is going to be removed
     * @param by the instant by which it happens at the latest; absent without a deadline
     * @param mayBeSooner whether one may have it come at once
     * @param due when the computer is expected to go on with it
     */
    record ShelfComing(String title, String name, @Nullable String version, boolean leaves, @Nullable Instant by, boolean mayBeSooner,
            @Schema(allowableValues = {"sign-in", "computer", "seat", "window", "deadline", "need", "approval", "answer", "restart", "other"}) @Nullable String waitsFor, String line, @Nullable Instant due, @Nullable Integer percent) {
    }

    /**
     * @param why through whom it is there; {@code needed} by {@code neededBy}
     * @param takenAt when this person took it
     */
    record ShelfInstalled(String title, String name, @Nullable String version, boolean forPerson,
            @Schema(allowableValues = {"required", "taken", "needed", "found"}) String why, @Nullable String neededBy, @Nullable Instant takenAt) {
    }
}
