package rivo.server.web;

import java.util.List;
import rivo.core.estate.RefusedException;

/**
 * The asked part of a list.
 *
 * @param offset of the first one, from 0 on
 * @param limit the most that are given
 */
public record Page(int offset, int limit) {

    /** @throws RefusedException when one of them is negative; a limit above the most is cut down to it */
    public static Page of(int offset, int limit, int most) {
        if (offset < 0 || limit < 0) {
            throw new RefusedException("bad-parameter", offset < 0 ? "offset" : "limit",
                    "offset and limit are whole numbers from 0 on.");
        }
        return new Page(offset, Math.min(limit, most));
    }

    /** The end of the part, which may lie beyond the list's. */
    public long end() {
        return (long) offset + limit;
    }

    public <T> List<T> of(List<T> all) {
        return all.stream().skip(offset).limit(limit).toList();
    }
}
