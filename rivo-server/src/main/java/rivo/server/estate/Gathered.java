package rivo.server.estate;

import java.util.List;

/**
 * Writes what many commands bring, one thing each, all at once: a row for dozens of them costs a fraction of a row each. Told by
 * {@link ChangeContext#gather}, on the writer's thread alone.
 *
 * @param <T> what a command brings
 */
public interface Gathered<T> {

    /**
     * Writes what the commands of one transaction have brought, in that transaction and in their order. It has been checked before: what cannot be written stops the
     * writer.
     */
    void write(List<T> brought);

    /** The same, once it is on disk and before any of those who brought it is answered. */
    void isWritten(List<T> brought);
}
