package rivo.server.estate;

/**
 * One change. It checks, writes its rows and says how the estate is afterwards, all through the journey; it is carried
 * out on the writer's thread, inside a transaction.
 *
 * @param <T> what whoever asked gets back
 */
@FunctionalInterface
public interface Command<T> {

    /**
     * @throws RuntimeException any: then nothing of this command is kept, and whoever asked gets the exception
     */
    T run(Journey journey);
}
