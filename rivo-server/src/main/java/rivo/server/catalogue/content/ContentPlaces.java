package rivo.server.catalogue.content;

import java.util.List;

/** Where content is, besides on the server. */
public interface ContentPlaces {

    /** How many places there are. */
    int count();

    /** The names of the places that do not hold all of a content, as far as is known. */
    List<String> lacking(Contents.Content content);
}
