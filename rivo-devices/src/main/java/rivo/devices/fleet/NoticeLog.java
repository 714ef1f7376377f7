package rivo.devices.fleet;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import rivo.devices.protocol.NoticeKind;

/** What the people of a simulated fleet are shown, a line for each in {@code notices.log}: an agent would show it on the screen. */
interface NoticeLog {

    /** @param person the account of who is shown it */
    void shown(NoticeKind kind, String person, String words);

    /** The log of one device. */
    static NoticeLog of(Writer writer, String device) {
        return (kind, person, words) -> writer.write(device + " " + person + " " + kind.word() + ": " + words);
    }

    /** Begun anew at each start of the fleet. Safe for any number of threads. */
    final class Writer implements AutoCloseable {

        private final BufferedWriter out;

        Writer(Path folder) throws IOException {
            Files.createDirectories(folder);
            out = Files.newBufferedWriter(folder.resolve("notices.log"));
        }

        private synchronized void write(String line) {
            try {
                out.write(Instant.now().truncatedTo(ChronoUnit.SECONDS) + " " + line);
                out.newLine();
                out.flush();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        @Override
        public synchronized void close() throws IOException {
            out.close();
        }
    }
}
