package rivo.devices.fleet;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.Job;
import rivo.devices.protocol.Report;
import rivo.devices.protocol.Work;

/**
 * Fetches one content, in parts, from the nearest place that has it. What has come stays when a place breaks off: the next
 * one goes on from there. What a mirror gave is looked at by its SHA-256; where it is not what it should be, all of it is
 * thrown away and the next place is asked. The server itself comes last. Of one thread.
 */
final class ContentFetch {

    /** How much is asked for at once. */
    static final int PART = 1 << 20;

    /** Gives a part of a content. */
    interface Source {

        /**
         * @param from the first byte
         * @param to the last byte, inclusive
         * @throws IOException when it has it not, or cannot be reached
         */
        byte[] part(String sha256, long from, long to) throws IOException, InterruptedException;
    }

    private record Place(@Nullable String mirror, Source source) {
    }

    private final List<Place> places = new ArrayList<>();
    private final List<Report.Fetched> fetched = new ArrayList<>();
    private final List<String> troubles = new ArrayList<>();

    ContentFetch(ServerConnection server, DeviceState device, List<Work.Mirror> mirrors) {
        for (Work.Mirror mirror : mirrors) {
            places.add(new Place(mirror.id(), (sha256, from, to) -> server.part(mirror.address(), sha256, from, to)));
        }
        places.add(new Place(null, (sha256, from, to) -> server.part(device, sha256, from, to)));
    }

    /** What came from where, in the order in which it came. */
    List<Report.Fetched> fetched() {
        return List.copyOf(fetched);
    }

    /** What went wrong on the way, in words; empty when nothing did. */
    String troubles() {
        return String.join("; ", troubles);
    }

    /** @throws IOException when no place has all of it */
    byte[] fetch(Job.Content content) throws IOException, InterruptedException {
        ByteArrayOutputStream whole = new ByteArrayOutputStream();
        IOException last = null;
        for (Place place : places) {
            long before = whole.size();
            try {
                while (whole.size() < content.size()) {
                    long to = Math.min(content.size(), whole.size() + (long) PART) - 1;
                    byte[] part = place.source().part(content.sha256(), whole.size(), to);
                    if (part.length == 0 || part.length > to - whole.size() + 1) {
                        throw new IOException("it gave " + part.length + " bytes where others were asked for");
                    }
                    whole.write(part);
                }
                fetched.add(new Report.Fetched(content.sha256(), place.mirror(), whole.size() - before));
                byte[] bytes = whole.toByteArray();
                if (place.mirror() == null || content.sha256().equals(RunningJob.sha256(bytes))) {
                    return bytes;
                }
                troubles.add("the mirror " + place.mirror() + " gave something else than " + content.fileName());
                whole.reset();
            } catch (IOException e) {
                last = e;
                if (whole.size() > before) {
                    fetched.add(new Report.Fetched(content.sha256(), place.mirror(), whole.size() - before));
                }
                String who = e instanceof ServerConnection.RefusedByServer ? ""
                        : place.mirror() == null ? "the server: " : "the mirror " + place.mirror() + ": ";
                troubles.add(who + e.getMessage());
            }
        }
        throw Objects.requireNonNullElseGet(last, () -> new IOException("nobody has it"));
    }
}
