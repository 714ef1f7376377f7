package rivo.directory;

/** The directory could not be read. Says what happened and what to do; nothing held has been touched. */
public final class DirectoryException extends RuntimeException {

    public DirectoryException(String sentence, Throwable cause) {
        super(sentence, cause);
    }

    public DirectoryException(String sentence) {
        super(sentence);
    }
}
