package rivo.formats.estate;

import java.util.Objects;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.TokenStreamLocation;

/**
 * The tokens of a JSON document, one after the other. A thread of its own parses ahead of whoever reads them, a batch at a
 * time, so that a large file keeps two processors busy. What ends the parsing comes in its place, after the tokens before
 * it. Read by one thread, which closes it.
 */
final class JsonTokens implements AutoCloseable {

    private static final int BATCH = 4096;
    private static final int AHEAD = 16;
    private static final long PATIENCE_MILLIS = 50;

    private final JsonParser json;
    private final TextTable texts = new TextTable();
    private final BlockingQueue<Batch> ready = new ArrayBlockingQueue<>(AHEAD);
    private final BlockingQueue<Batch> used = new ArrayBlockingQueue<>(AHEAD + 2);
    private final Thread parsing;
    private volatile boolean closed;

    private Batch batch = new Batch();
    private int at = -1;

    /** Some tokens, with the texts of those that have one. */
    private static final class Batch {
        private final @Nullable JsonToken[] tokens = new JsonToken[BATCH];
        private final @Nullable String[] texts = new String[BATCH];
        private int size;
        /** What ended the parsing after these tokens, other than the document's end. */
        private @Nullable Throwable failure;
        private @Nullable TokenStreamLocation where;
        private boolean last;
    }

    /** @param json stands before the first token; it is left to the other thread until this is closed */
    JsonTokens(JsonParser json) {
        this.json = json;
        this.parsing = new Thread(this::parse, "estate-file");
        parsing.setDaemon(true);
        parsing.start();
    }

    private void parse() {
        boolean more = true;
        while (more && !closed) {
            Batch next = used.poll();
            more = fill(next == null ? new Batch() : next);
        }
    }

    private boolean fill(Batch next) {
        next.size = 0;
        try {
            while (next.size < BATCH && !next.last) {
                JsonToken token = json.nextToken();
                if (token == null) {
                    next.last = true;
                } else {
                    next.texts[next.size] = text(token);
                    next.tokens[next.size++] = token;
                }
            }
        } catch (RuntimeException | Error e) {
            next.failure = e;
            next.where = json.currentLocation();
            next.last = true;
        }
        return give(next) && !next.last;
    }

    private @Nullable String text(JsonToken token) {
        if (token == JsonToken.PROPERTY_NAME) {
            return json.currentName();
        }
        return token == JsonToken.VALUE_STRING || token.isNumeric()
                ? texts.text(json.getStringCharacters(), json.getStringOffset(), json.getStringLength()) : null;
    }

    private boolean give(Batch next) {
        try {
            while (!ready.offer(next, PATIENCE_MILLIS, TimeUnit.MILLISECONDS)) {
                if (closed) {
                    return false;
                }
            }
            return true;
        } catch (InterruptedException e) {
            return false;
        }
    }

    /**
     * Goes on to the next token; null at the end of the document.
     *
     * @throws JacksonException where the document is no JSON, or cannot be read
     */
    @Nullable JsonToken next() {
        at++;
        while (at >= batch.size) {
            if (batch.last) {
                at = batch.size;
                if (batch.failure instanceof Error error) {
                    throw error;
                }
                if (batch.failure instanceof RuntimeException failure) {
                    throw failure;
                }
                return null;
            }
            Batch done = batch;
            batch = take();
            used.offer(done);
            at = 0;
        }
        return batch.tokens[at];
    }

    private Batch take() {
        try {
            return ready.take();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted while an estate file was read", e);
        }
    }

    /** The token it stands on; null before the first and after the last. */
    @Nullable JsonToken current() {
        return at >= 0 && at < batch.size ? batch.tokens[at] : null;
    }

    /** The key, text or number that it stands on. Equal ones are the same object. */
    String text() {
        return Objects.requireNonNull(batch.texts[at]);
    }

    /** From the beginning of a list or object to its end; anything else is passed by going on. */
    void skipChildren() {
        int open = 0;
        for (JsonToken token = current(); token != null; token = next()) {
            open += token.isStructStart() ? 1 : token.isStructEnd() ? -1 : 0;
            if (open == 0) {
                return;
            }
        }
    }

    /** Where the parsing failed; null when it did not. */
    @Nullable TokenStreamLocation failedAt() {
        return batch.where;
    }

    /** Ends the other thread. */
    @Override
    public void close() {
        closed = true;
        parsing.interrupt();
        boolean interrupted = false;
        while (parsing.isAlive()) {
            try {
                parsing.join();
            } catch (InterruptedException e) {
                interrupted = true;
            }
        }
        if (interrupted) {
            Thread.currentThread().interrupt();
        }
    }
}
