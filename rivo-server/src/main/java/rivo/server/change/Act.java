package rivo.server.change;

import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;

/** What an edit does with its document. */
enum Act {
    /** Puts it in, or in place of what stands there. */
    PUT,
    /** Ends it: an assignment stays as retired, everything else is deleted. */
    RETIRE,
    /** Opens the next wave of an assignment that is not open yet. */
    OPEN_WAVE,
    /** Accepts a title's licence text for the organisation. */
    ACCEPT,
    /** Takes the edit of the document out of the draft. */
    DROP;

    /** The word in records and in the API. */
    @JsonValue
    String word() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
}
