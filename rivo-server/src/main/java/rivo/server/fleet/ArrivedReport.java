package rivo.server.fleet;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Progress;

/**
 * What is kept of a report until it is settled into the rows of its device, and how it is written.
 *
 * @param number that the device gave it
 * @param at when it came
 */
record ArrivedReport(String device, long number, Instant at, List<Progress> progress) {

    /** What a report, and what it says of a job, are written with besides texts, at most: names, numbers and instants. */
    private static final int BESIDES = 500;
    /** A character of a text is written with up to six. */
    private static final int LONGEST_ESCAPE = 6;
    /** So that a part of one always has room in a row. */
    private static final int MOST_IN_A_PART = 50;

    /** The same in several, where it is long, which say the same together. */
    List<ArrivedReport> parts() {
        if (progress.size() <= MOST_IN_A_PART) {
            return List.of(this);
        }
        List<ArrivedReport> parts = new ArrayList<>();
        for (int from = 0; from < progress.size(); from += MOST_IN_A_PART) {
            parts.add(new ArrivedReport(device, number, at, progress.subList(from, Math.min(progress.size(), from + MOST_IN_A_PART))));
        }
        return parts;
    }

    /** How many bytes it is written with, at most. */
    int bytes() {
        int bytes = BESIDES + bytes(device);
        for (Progress one : progress) {
            bytes += BESIDES + bytes(one.title()) + bytes(one.person()) + bytes(one.version()) + bytes(one.message());
        }
        return bytes;
    }

    private static int bytes(@Nullable String text) {
        return text == null ? 0 : LONGEST_ESCAPE * text.length();
    }
}
