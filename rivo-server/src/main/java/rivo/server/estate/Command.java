package rivo.server.estate;

/**
 * One change. It checks, writes its rows and says how the estate is afterwards, all through the context; it is carried
 * out on the writer's thread, inside a transaction. What other memory holds is older than what earlier commands of the same
 * transaction have written: whoever builds on a row reads it through the context.
 *
 * @param <T> what whoever asked gets back
 */
@FunctionalInterface
public interface Command<T> {

    /**
     * @throws RuntimeException any: then nothing of this command is kept, and whoever asked gets the exception
     */
    T run(ChangeContext context);
}
