package rivo.devices.fleet;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * The devices' states in one file, a line for each change; the last line of a device counts. It is written anew at each
 * start. A line that was cut off by a kill is passed over. Safe for any number of threads.
 */
final class FleetStore implements AutoCloseable {

    private final JsonMapper json = new JsonMapper();
    private final Map<String, DeviceState> states = new LinkedHashMap<>();
    private final BufferedWriter writer;

    FleetStore(Path folder) throws IOException {
        Files.createDirectories(folder);
        Path file = folder.resolve("devices.jsonl");
        if (Files.exists(file)) {
            read(Files.readAllLines(file));
        }
        Path fresh = folder.resolve("devices.jsonl.part");
        try (BufferedWriter out = Files.newBufferedWriter(fresh)) {
            for (DeviceState state : states.values()) {
                out.write(json.writeValueAsString(state));
                out.newLine();
            }
        }
        Files.move(fresh, file, StandardCopyOption.REPLACE_EXISTING);
        writer = Files.newBufferedWriter(file, StandardOpenOption.APPEND);
    }

    private void read(List<String> lines) {
        for (String line : lines) {
            try {
                DeviceState state = json.readValue(line, DeviceState.class);
                states.put(state.name(), state);
            } catch (JacksonException e) {
                // Cut off by a kill: the line before it counts.
                continue;
            }
        }
    }

    synchronized Map<String, DeviceState> states() {
        return Map.copyOf(states);
    }

    synchronized void keep(DeviceState state) {
        states.put(state.name(), state);
        try {
            writer.write(json.writeValueAsString(state));
            writer.newLine();
            writer.flush();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public synchronized void close() throws IOException {
        writer.close();
    }
}
