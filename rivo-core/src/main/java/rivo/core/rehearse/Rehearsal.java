package rivo.core.rehearse;

import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Estate;
import rivo.core.resolve.Resolver;

/**
 * What changes for whom when one estate becomes another.
 *
 * <p>Only the titles that the change can touch are looked at, with those that are related to them; each says why. Costs two
 * ladders for each such title, and a walk over the units at which something may be different: all, where the title or its
 * assignments are edited in a way that may matter anywhere.
 *
 * @param titles those that were looked at; a title may turn out to be unchanged
 */
public record Rehearsal(List<TitleDifference> titles) {

    public Rehearsal {
        titles = List.copyOf(titles);
    }

    /** From one estate to another, whatever the two have in common. */
    public static Rehearsal of(Resolver before, Resolver after) {
        return new Rehearsal(new Comparison(before, after).titles());
    }

    /** From one estate to what edits make of it: {@code after} shares with {@code before} whatever it can. */
    public static Rehearsal of(Resolver before, Estate after) {
        return of(before, before.follow(after));
    }

    /** The titles for which something changes. */
    public List<TitleDifference> changed() {
        return titles.stream().filter(t -> !t.isEmpty()).toList();
    }

    /** The differences for a title; null when it was not looked at. */
    public @Nullable TitleDifference of(String title) {
        return titles.stream().filter(t -> t.title().id().equals(title)).findFirst().orElse(null);
    }
}
