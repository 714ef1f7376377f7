package rivo.server.audience;

import java.util.List;
import rivo.core.estate.OuTree;

/** An OU on the way from the root to another. */
public record PathPart(String id, String name) {

    /** From the root to the OU at this position itself. */
    public static List<PathPart> to(OuTree tree, int position) {
        return tree.path(position).stream().map(ou -> new PathPart(ou.id(), ou.name())).toList();
    }
}
