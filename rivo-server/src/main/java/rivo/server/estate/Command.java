package rivo.server.estate;

/**
 * One change. It checks, writes its rows and says what the snapshot holds afterwards, all through the context; it is carried out on the
 * writer's thread, inside a transaction. {@link CurrentSnapshot} is older than what earlier commands of the same transaction have done:
 * whoever builds on something takes it from the context.
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
