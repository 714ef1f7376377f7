package rivo.server.estate;

/** No more changes are taken, because one could not be made durable, or because the server stops. */
public final class ChangesRefusedException extends RuntimeException {

    ChangesRefusedException(String sentence) {
        super(sentence);
    }
}
