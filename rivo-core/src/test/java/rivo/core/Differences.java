package rivo.core;

import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.rehearse.Rehearsal;
import rivo.core.rehearse.TitleDifference;
import rivo.core.resolve.Decision;

/** What an edit makes different, in words, by the keys of {@link Rows}: as it is rehearsed, and as it should be. For titles of devices. */
public final class Differences {

    private Differences() {
    }

    /** What a rehearsal says. */
    public static Map<String, String> said(Rehearsal rehearsal, Estate edited) {
        Map<String, String> said = new TreeMap<>();
        for (TitleDifference title : rehearsal.titles()) {
            title.differences().forEach(d -> d.units().forEach(unit -> said.put(edited.devices().at(unit).id() + "||" + title.title().id(),
                    words(d.before()) + " > " + words(d.after()))));
        }
        return said;
    }

    private static @Nullable String words(@Nullable Decision decision) {
        return decision == null ? null : Rows.words(decision);
    }

    /** Where all rows of two states differ. */
    public static Map<String, String> between(Map<String, String> was, Map<String, String> is) {
        Map<String, String> differing = new TreeMap<>();
        Stream.concat(was.keySet().stream(), is.keySet().stream()).filter(unit -> !Objects.equals(was.get(unit), is.get(unit)))
                .forEach(unit -> differing.put(unit, was.get(unit) + " > " + is.get(unit)));
        return differing;
    }
}
