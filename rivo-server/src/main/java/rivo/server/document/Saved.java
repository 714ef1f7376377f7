package rivo.server.document;

/** The answer to an edit that was saved. @param revision that it has now, from 1 */
public record Saved(long revision) {
}
